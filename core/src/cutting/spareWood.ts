import type { Piece } from '../stock/piece.ts';
import { thicknessAt, widthAt } from '../stock/shape.ts';
import type { Shop } from '../shop/shop.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { CutPlan, PromisedRange } from './cutPlan.ts';
import { flatteningLoss } from './flattening.ts';
import type { PieceRectangle } from './offcut.ts';
import { endTrim } from './unitGeometry.ts';

/** Wood that is left once a plan is cut: a rectangle of a piece, sound all through. */
export interface SpareWood {
  piece: Piece;
  unit: number;
  place: PieceRectangle;
}

/** @param wanted a sawn rectangle, and how thick it must be when it is flat, mm */
export interface WantedWood {
  length: number;
  width: number;
  thickness: number;
}

/**
 * Where a small part comes from beside the strips of a board: from offcuts beside its rips first, then from the ends that are left, then from pieces it does not touch; the smallest that gives it.
 * @param suits whether a species will do
 * @returns null where nothing that is left gives it
 */
export function spareWood(
  {
    rack,
    cutting,
    promised,
    taken = [],
    shop,
  }: {
    rack: readonly Piece[];
    cutting: Pick<CutPlan, 'blanks' | 'leftovers'>;
    promised: readonly PromisedRange[];
    /** What was found before and is not there any more. */
    taken?: readonly SpareWood[];
    shop: Shop;
  },
  wanted: WantedWood,
  suits: (species: string) => boolean,
): SpareWood | null {
  const { kerf } = shop.crosscutSaw;
  const found: (SpareWood & { rank: number; area: number })[] = [];
  for (const piece of rack) {
    if (!suits(piece.species)) continue;
    for (let unit = 0; unit < piece.count; unit += 1) {
      const ofUnit = <T extends { pieceId: string; unit: number }>(list: readonly T[]) =>
        list.filter((one) => one.pieceId === piece.id && one.unit === unit);
      const touched = ofUnit(cutting.blanks).length > 0;
      const others = ofUnit(promised);
      const rests = touched
        ? ofUnit(cutting.leftovers).map((l) => ({ ...l, rank: l.side ? 0 : 1 }))
        : [{ ...untouched(piece, shop), rank: 2 }];
      for (const rest of rests) {
        if (
          others.some(
            (p) => p.from < rest.from + rest.length - LENGTH_TOLERANCE_MM && p.to > rest.from + LENGTH_TOLERANCE_MM,
          )
        )
          continue;
        const gone = taken.filter((t) => t.piece.id === piece.id && t.unit === unit).map((t) => t.place);
        const place = placeIn(piece, rest, wanted, gone, kerf, shop);
        if (place) found.push({ piece, unit, place, rank: rest.rank, area: rest.length * rest.width });
      }
    }
  }
  const [best] = found.sort((a, b) => a.rank - b.rank || a.area - b.area);
  return best ? { piece: best.piece, unit: best.unit, place: best.place } : null;
}

/** A piece within its ends that are no good. */
function untouched(piece: Piece, shop: Shop): PieceRectangle {
  const [from, to] = [endTrim(piece, 'mark', shop), piece.length - endTrim(piece, 'far', shop)];
  return { from, length: to - from, across: 0, width: Math.min(widthAt(piece, from), widthAt(piece, to)) };
}

/** The first place along a rectangle that is long, wide and thick enough and holds no bad place. */
function placeIn(
  piece: Piece,
  { from, length, across, width }: PieceRectangle,
  wanted: WantedWood,
  gone: readonly PieceRectangle[],
  kerf: number,
  shop: Shop,
): PieceRectangle | null {
  if (width < wanted.width - LENGTH_TOLERANCE_MM) return null;
  const inTheWay = ({ across: near, width: wide }: Pick<PieceRectangle, 'across' | 'width'>) =>
    near < across + wanted.width - LENGTH_TOLERANCE_MM && near + wide > across + LENGTH_TOLERANCE_MM;
  const blocked = [
    ...piece.defects.filter((d) => d.treatment !== 'harmless'),
    // Another part takes its own length and the cut that frees it.
    ...gone.map((g) => ({ ...g, length: g.length + kerf })),
  ]
    .filter(inTheWay)
    .sort((a, b) => a.from - b.from);
  let at = from;
  for (const end of [
    ...blocked.map((d) => ({ from: d.from, to: d.from + d.length })),
    { from: from + length, to: Infinity },
  ]) {
    // The cut that frees it lies beyond it.
    if (Math.min(end.from, from + length) - at >= wanted.length + kerf - LENGTH_TOLERANCE_MM) {
      const thinnest =
        Math.min(thicknessAt(piece, at), thicknessAt(piece, at + wanted.length)) -
        flatteningLoss(piece, wanted, shop.habits).total;
      if (thinnest >= wanted.thickness - LENGTH_TOLERANCE_MM)
        return { from: at, length: wanted.length, across, width: wanted.width };
    }
    at = Math.max(at, end.to);
  }
  return null;
}
