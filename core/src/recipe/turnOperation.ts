import type { Turn } from '../board/recipe.ts';
import { after, movedBy, shift, type Motion, type Triple } from './motion.ts';
import { onItsOwn } from './sliceOperation.ts';
import type { Workpiece } from './workpiece.ts';

/** Each turn as a motion: where the axes of the slice go. */
const MOTIONS: Readonly<Record<Turn, Motion>> = {
  // Its first cut face comes to lie up: end grain shows where the cut was square.
  up: { origin: [0, 0, 0], along: [1, 0, 0], across: [0, 0, -1], up: [0, 1, 0] },
  // Its underside comes up, its ends stay where they are.
  over: { origin: [0, 0, 0], along: [1, 0, 0], across: [0, -1, 0], up: [0, 0, -1] },
  // Its far end comes first, the same side stays up.
  endForEnd: { origin: [0, 0, 0], along: [-1, 0, 0], across: [0, -1, 0], up: [0, 0, 1] },
};

/** A turn as the one motion after which the axes of a thing begin at its least corner again, and the size it has then. @param size before, mm */
export function turnMotion(turn: Turn, size: Triple): { motion: Motion; size: Triple } {
  const motion = MOTIONS[turn];
  const far = movedBy(motion, size);
  const home = shift([Math.max(0, -far[0]), Math.max(0, -far[1]), Math.max(0, -far[2])]);
  return { motion: after(home, motion), size: [Math.abs(far[0]), Math.abs(far[1]), Math.abs(far[2])] };
}

/** The thing as it lies after being turned, its axes beginning at its least corner again. No wood is gained or lost. */
export function turnWorkpiece(thing: Workpiece, turn: Turn): Workpiece {
  return onItsOwn(thing.cells, MOTIONS[turn]);
}
