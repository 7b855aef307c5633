import { after, shift, type Triple } from '../recipe/motion.ts';
import { clip, moved, type HalfSpace, type Solid } from '../recipe/solid.ts';
import type { Cell, Workpiece } from '../recipe/workpiece.ts';

/** Half spaces that a box from one corner to the other lies in. */
function sidesOf(from: Triple, to: Triple): HalfSpace[] {
  return ([0, 1, 2] as const).flatMap((axis): HalfSpace[] => {
    const normal = [0, 0, 0].map((_, i) => (i === axis ? 1 : 0)) as unknown as Triple;
    return [
      { normal, offset: to[axis] },
      { normal: normal.map((n) => -n) as unknown as Triple, offset: -from[axis] },
    ];
  });
}

/**
 * What comes out of a panel: the wood between two corners, on axes of its own from the first one. What is planed and sawn off is gone.
 * @param from corner of the panel that lies first along and across, and lowest, mm @param to the opposite one
 */
export function boardWorkpiece({ cells }: Workpiece, from: Triple, to: Triple): Workpiece {
  const sides = sidesOf(from, to);
  const back = [-from[0], -from[1], -from[2]] as const;
  return {
    size: [to[0] - from[0], to[1] - from[1], to[2] - from[2]],
    cells: cells.flatMap((cell): Cell[] => {
      const left = sides.reduce<Solid | null>((solid, side) => solid && clip(solid, side), cell.solid);
      return left ? [{ ...cell, solid: moved(left, shift(back)), inPiece: after(cell.inPiece, shift(from)) }] : [];
    }),
  };
}
