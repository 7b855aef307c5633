import type { Piece } from '../stock/piece.ts';
import { after, back, type Motion, type Triple } from './motion.ts';
import { moved, type Solid } from './solid.ts';

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

/** A cell after a motion; it still knows where it lay in its piece. */
export function carried(cell: Cell, motion: Motion): Cell {
  return { ...cell, solid: moved(cell.solid, motion), inPiece: after(cell.inPiece, back(motion)) };
}
