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

/** What shows of a thing from above: of every cell that reaches its top, that side of it. */
export function showFace(thing: Workpiece): ShownCell[] {
  const top = thing.size[2];
  return thing.cells.flatMap((cell) =>
    cell.solid.faces.flatMap((face): ShownCell[] => {
      const corners = face.map((i) => cell.solid.corners[i] as Triple);
      if (!corners.every(([, , z]) => Math.abs(z - top) <= ON_FACE)) return [];
      return [{ polygon: corners.map(([x, y]) => [x, y]), cell }];
    }),
  );
}
