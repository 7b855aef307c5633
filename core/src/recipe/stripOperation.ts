import type { StripOperation } from '../board/recipe.ts';
import type { Piece } from '../stock/piece.ts';
import type { Motion, Triple } from './motion.ts';
import { box } from './solid.ts';
import type { Workpiece } from './workpiece.ts';

/** Where a strip lies in the rack: its piece, and the motion from the strip's own axes to the piece's. */
export interface StripWood {
  piece: Piece | null;
  unit: number;
  inPiece: Motion;
}

/** What a strip must measure for what it is wanted for: as long and as high as that, and as wide as it says itself, mm. */
export function stripBackward(
  { width }: Pick<StripOperation, 'width'>,
  wanted: { length: number; height: number },
): Triple {
  return [wanted.length, width, wanted.height];
}

/** A strip is what it was milled to: one box of wood. */
export function stripWorkpiece(
  { id }: Pick<StripOperation, 'id'>,
  size: Triple,
  { piece, unit, inPiece }: StripWood,
): Workpiece {
  return { size, cells: [{ strip: id, solid: box(size), piece, unit, inPiece }] };
}
