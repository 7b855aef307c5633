import { carried, type Cell, type Workpiece } from './workpiece.ts';
import type { Motion, Triple } from './motion.ts';

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

/** The narrow sides of a thing: its long edges, the far one first, and its ends, the left one first. */
export const NARROW_SIDES = ['firstEdge', 'lastEdge', 'firstEnd', 'farEnd'] as const;
export type NarrowSide = (typeof NARROW_SIDES)[number];

/**
 * The thing tipped so that one of its narrow sides is its top, as it is seen by somebody who looks at that side: edges with the thing's left end to the left (the far one from behind, its underside
 * above), ends with the far edge above.
 */
export function sideUp({ size, cells }: Workpiece, side: NarrowSide): Workpiece {
  const [l, w, t] = size;
  const tips: Record<NarrowSide, { motion: Motion; size: Triple }> = {
    firstEdge: { motion: { origin: [0, 0, w], along: [1, 0, 0], across: [0, 0, -1], up: [0, 1, 0] }, size: [l, t, w] },
    lastEdge: { motion: { origin: [0, t, 0], along: [1, 0, 0], across: [0, 0, 1], up: [0, -1, 0] }, size: [l, t, w] },
    firstEnd: { motion: { origin: [0, 0, l], along: [0, 0, -1], across: [0, 1, 0], up: [1, 0, 0] }, size: [t, w, l] },
    farEnd: { motion: { origin: [t, 0, 0], along: [0, 0, 1], across: [0, 1, 0], up: [-1, 0, 0] }, size: [t, w, l] },
  };
  const { motion, size: tipped } = tips[side];
  return { size: tipped, cells: carried(cells, motion) };
}
