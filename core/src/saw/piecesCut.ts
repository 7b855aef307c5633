import type { CutPlan } from '../cutting/cutPlan.ts';
import type { Piece } from '../stock/piece.ts';
import type { PlanInput } from './planInput.ts';

/** Pieces of a rack by id: board after board is planned from the same rack. */
const BY_ID = new WeakMap<readonly Piece[], ReadonlyMap<string, Piece>>();

function byId(rack: readonly Piece[]): ReadonlyMap<string, Piece> {
  const known = BY_ID.get(rack) ?? new Map(rack.map((piece) => [piece.id, piece]));
  BY_ID.set(rack, known);
  return known;
}

/** The pieces that the blanks of a cut plan come from, by id: as they lie in the rack, or as they were before they were cut. */
export function piecesCut(
  { rack, saw }: Pick<PlanInput, 'rack' | 'saw'>,
  { blanks }: Pick<CutPlan, 'blanks'>,
): ReadonlyMap<string, Piece> {
  const pieces = new Map((saw?.done ?? []).map(({ piece }) => [piece.id, piece]));
  for (const { pieceId } of blanks) {
    const piece = byId(rack).get(pieceId);
    if (piece) pieces.set(pieceId, piece);
  }
  return pieces;
}
