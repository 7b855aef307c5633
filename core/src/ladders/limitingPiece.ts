import type { Blank } from '../cutting/cutPlan.ts';
import type { Piece } from '../stock/piece.ts';
import { widthAt } from '../stock/shape.ts';

import type { PlanContext } from './context.ts';

/** The stock piece behind each strip of the first copy, by strip number; strips that the rack cannot give are absent. */
export function firstCopySources(context: PlanContext): Map<number, { piece: Piece; blank: Blank }> {
  const sources = new Map<number, { piece: Piece; blank: Blank }>();
  for (const blank of context.cutting.blanks) {
    const piece = context.pieces.get(blank.pieceId);
    for (const { demand } of blank.strips)
      if (piece && demand.copy === 1 && demand.spare === 0) sources.set(demand.strip, { piece, blank });
  }
  return sources;
}

/** The piece with the least of something among those the plan uses, measured where each blank is cut from it. */
export function leastPiece(
  context: PlanContext,
  size: (piece: Piece, blank: Blank) => number,
  counts: (blank: Blank) => boolean = () => true,
): { piece: Piece; blank: Blank; size: number } | undefined {
  let least: { piece: Piece; blank: Blank; size: number } | undefined;
  for (const blank of context.cutting.blanks.filter(counts)) {
    const piece = context.pieces.get(blank.pieceId);
    const here = piece && size(piece, blank);
    if (piece && here !== undefined && (!least || here < least.size)) least = { piece, blank, size: here };
  }
  return least;
}

/** A tapering piece is narrower at one end of a blank than at the other; the narrower one decides. */
export function widthOfBlank(piece: Piece, blank: Blank): number {
  return Math.min(widthAt(piece, blank.from), widthAt(piece, blank.from + blank.length));
}
