import { after, shift, type Triple } from '../recipe/motion.ts';
import { moved, within } from '../recipe/solid.ts';
import type { Cell, Workpiece } from '../recipe/workpiece.ts';

/**
 * What comes out of a panel: the wood between two corners, on axes of its own from the first one. What is planed and sawn off is gone.
 * @param from corner of the panel that lies first along and across, and lowest, mm @param to the opposite one
 */
export function boardWorkpiece({ cells }: Workpiece, from: Triple, to: Triple): Workpiece {
  const back = [-from[0], -from[1], -from[2]] as const;
  return {
    size: [to[0] - from[0], to[1] - from[1], to[2] - from[2]],
    cells: cells.flatMap((cell): Cell[] => {
      const left = within(cell.solid, from, to);
      return left ? [{ ...cell, solid: moved(left, shift(back)), inPiece: after(cell.inPiece, shift(from)) }] : [];
    }),
  };
}
