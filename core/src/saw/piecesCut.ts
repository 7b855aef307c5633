import type { CutPlan } from '../cutting/cutPlan.ts';
import type { Piece } from '../stock/piece.ts';
import type { PlanInput } from './planInput.ts';

/** The pieces that the blanks of a cut plan come from, by id: as they lie in the rack, or as they were before they were cut. */
export function piecesCut(
  { rack, saw }: Pick<PlanInput, 'rack' | 'saw'>,
  { blanks }: Pick<CutPlan, 'blanks'>,
): ReadonlyMap<string, Piece> {
  const named = new Set(blanks.map((b) => b.pieceId));
  const pieces = new Map((saw?.done ?? []).map(({ piece }) => [piece.id, piece]));
  for (const piece of rack) if (named.has(piece.id)) pieces.set(piece.id, piece);
  return pieces;
}
