import type { Board } from '../board/board.ts';
import type { CutPlan, PromisedRange, RippedStrip, StripDemand } from '../cutting/cutPlan.ts';
import type { CutProblem } from '../cutting/cutProblem.ts';
import { stripsOfAll, usableSize } from '../cutting/usable.ts';
import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { say, type Phrase } from '../units/phrase.ts';
import { demandKey } from './demandKey.ts';
import { stripOf, swapStrips } from './swapStrips.ts';

/** What comes of laying a strip of a cut plan on a piece, or on another strip. */
export type MovedStrip =
  /** The two change places. */
  | { kind: 'swapped'; plan: CutPlan; says: Phrase }
  /** It is to come from that piece from now on. */
  | { kind: 'pinned'; pieceId: string }
  | { kind: 'refused'; why: Phrase };

/**
 * A strip is laid on a piece: on another strip of it the two change places where both fit, else the strip is to come from that piece.
 * @param target the piece, and the key of the strip on it that was met (`demandKey`); null for none
 * @param board key of the board whose strips may be told where to come from
 * @returns null when nothing changes: its own piece, a piece that is gone, a strip of another board
 */
export function moveStrip(
  plan: CutPlan,
  strip: RippedStrip,
  target: { pieceId: string; strip: string | null },
  board: string,
  { rack, shop, species }: Pick<CutProblem, 'rack' | 'shop' | 'species'>,
): MovedStrip | null {
  const other = target.strip === null ? undefined : stripOf(plan, target.strip);
  const swapped =
    other && swapStrips(plan, demandKey(strip.demand), demandKey(other.demand), { rack, shop, species, promised: [] });
  if (swapped)
    return {
      kind: 'swapped',
      plan: swapped,
      says: say`Strips ${strip.demand.strip} and ${other.demand.strip} change places`,
    };
  const from = plan.blanks.find((b) => b.strips.includes(strip))?.pieceId;
  const piece = rack.find((p) => p.id === target.pieceId);
  if (!piece || piece.id === from || strip.demand.board !== board) return null;
  if (piece.species !== strip.demand.species)
    return { kind: 'refused', why: say`Strip ${strip.demand.strip} is of another species than ${piece.mark}.` };
  const { thickness } = usableSize(piece, shop, { length: strip.demand.length, width: strip.way.rip });
  if (thickness < strip.way.thickness - LENGTH_TOLERANCE_MM)
    return { kind: 'refused', why: say`${piece.mark} is too thin for strip ${strip.demand.strip} once planed.` };
  return { kind: 'pinned', pieceId: piece.id };
}

/** Pieces of the rack that can still give a strip, from what is not promised. */
export function piecesThatGive(
  demand: Pick<StripDemand, 'species' | 'length' | 'ways'>,
  rack: readonly Piece[],
  shop: Shop,
  promised: readonly PromisedRange[],
): Piece[] {
  return rack.filter(
    (p) =>
      p.species === demand.species && demand.ways.some((w) => stripsOfAll(p, shop, demand.length, w, promised) > 0),
  );
}

/** The board with a strip from one piece; null lets it come from any. */
export function withPin<B extends Pick<Board, 'cutting'>>(board: B, strip: string, piece: string | null): B {
  const others = board.cutting.pins.filter((p) => p.strip !== strip);
  const pins = piece === null ? others : [...others, { strip, piece }];
  return { ...board, cutting: { ...board.cutting, pins } };
}

/** The board that leaves a piece alone. */
export function withBan<B extends Pick<Board, 'cutting'>>(board: B, piece: string): B {
  return { ...board, cutting: { ...board.cutting, bans: [...new Set([...board.cutting.bans, piece])] } };
}
