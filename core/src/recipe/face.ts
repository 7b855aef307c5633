import type { Cell, Workpiece } from './workpiece.ts';
import type { Triple } from './motion.ts';

/** A cell as it shows on a face of a thing. */
export interface ShownCell {
  /** Corners along and across, mm, in order. */
  polygon: [number, number][];
  cell: Cell;
}

/** Nearer to a face than this a corner lies on it, mm: far finer than any saw, far coarser than rounding. */
const ON_FACE = 1e-6;

/**
 * What shows of a thing: of every cell that reaches its top, that side of it.
 * @param side `under` is its underside once it was turned over about its length
 */
export function showFace(thing: Workpiece, side: 'top' | 'under' = 'top'): ShownCell[] {
  const top = side === 'top' ? thing.size[2] : 0;
  return thing.cells.flatMap((cell) =>
    cell.solid.faces.flatMap((face): ShownCell[] => {
      const corners = face.map((i) => cell.solid.corners[i] as Triple);
      if (!corners.every(([, , z]) => Math.abs(z - top) <= ON_FACE)) return [];
      return [{ polygon: corners.map(([x, y]) => [x, side === 'top' ? y : thing.size[1] - y]), cell }];
    }),
  );
}
