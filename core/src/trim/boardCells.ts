import { shift, type Triple } from '../recipe/motion.ts';
import { within } from '../recipe/solid.ts';
import { carried, type Cell, type Workpiece } from '../recipe/workpiece.ts';

/**
 * What comes out of a panel: the wood between two corners, on axes of its own from the first one. What is planed and sawn off is gone.
 * @param from corner of the panel that lies first along and across, and lowest, mm @param to the opposite one
 */
export function boardWorkpiece({ cells }: Workpiece, from: Triple, to: Triple): Workpiece {
  const home = shift([-from[0], -from[1], -from[2]]);
  return {
    size: [to[0] - from[0], to[1] - from[1], to[2] - from[2]],
    cells: cells.flatMap((cell): Cell[] => {
      const left = within(cell.solid, from, to);
      return left ? [carried({ ...cell, solid: left }, home)] : [];
    }),
  };
}
