import type { Piece } from '../stock/piece.ts';
import { after, back, shift, type Motion, type Triple } from './motion.ts';
import { moved, within, type Solid } from './solid.ts';

/** A convex solid of wood in a thing, and where it lay in the piece it was cut from. */
export interface Cell {
  /** Id of the strip it was. */
  strip: string;
  /** Id of the accent that it is in, where the strip was cut into bits. */
  accent?: string;
  solid: Solid;
  /** Null when the rack gives no piece for it. */
  piece: Piece | null;
  /** Which of identical pieces, 0-based. */
  unit: number;
  /** From the thing's own axes to the piece's: along it from its marked end, across from its near edge, up from its lower face. */
  inPiece: Motion;
}

/** What an operation gives: its outer size along, across and up, mm, and all the wood in it. */
export interface Workpiece {
  size: Triple;
  cells: Cell[];
}

/** Cells after a motion that all of them make; they still know where they lay in their pieces. */
export function carried(cells: readonly Cell[], motion: Motion): Cell[] {
  const home = back(motion);
  return cells.map((cell) => ({ ...cell, solid: moved(cell.solid, motion), inPiece: after(cell.inPiece, home) }));
}

/** What of cells lies in a box along the axes, from its least corner to its greatest one, mm; it stays where it lies. */
export function cellsWithin(cells: readonly Cell[], from: Triple, to: Triple): Cell[] {
  return cells.flatMap((cell) => {
    const solid = within(cell.solid, from, to);
    return solid ? [solid === cell.solid ? cell : { ...cell, solid }] : [];
  });
}

/**
 * What comes out of a thing: the wood between two corners, on axes of its own from the first one. What is planed and sawn off is gone.
 * @param from corner of the thing that lies first along and across, and lowest, mm @param to the opposite one
 */
export function cutOut({ cells }: Pick<Workpiece, 'cells'>, from: Triple, to: Triple): Workpiece {
  return {
    size: [to[0] - from[0], to[1] - from[1], to[2] - from[2]],
    cells: carried(cellsWithin(cells, from, to), shift([-from[0], -from[1], -from[2]])),
  };
}
