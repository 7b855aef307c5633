import type { Shop } from './shop.ts';
import { certain, lastOf } from '../lists/there.ts';

/**
 * Mean grain of coated abrasives, micron: FEPA P series, ISO 6344 (from memory).
 */
export const GRAIN_MICRONS: Readonly<Record<number, number>> = {
  40: 425,
  60: 269,
  80: 201,
  100: 162,
  120: 125,
  150: 100,
  180: 82,
  220: 68,
  240: 58.5,
  320: 46.2,
  400: 35,
  600: 25.8,
};

const TABLE = Object.keys(GRAIN_MICRONS)
  .map(Number)
  .sort((a, b) => a - b);

/** Grain of a paper, microns. */
const grainOf = (grit: number): number => GRAIN_MICRONS[grit] ?? grainBetween(grit);

/** A paper between two of the table, or beyond its ends: grain falls about as the grit's number rises. */
function grainBetween(grit: number): number {
  const known = TABLE.filter((g) => g <= grit).at(-1) ?? certain(TABLE[0], 'a table of grits');
  return (certain(GRAIN_MICRONS[known], `The grain of ${known}`) * known) / grit;
}

/** Grain of a paper, mm: as deep as its scratches go, about (common practice). */
export const grainMm = (grit: number): number => grainOf(grit) / 1000;

/** A step to finer grain than this share leaves the last scratches (common practice: about half). */
const MOST_STEP = 2;

/**
 * Grits from a first to a last one, as few as can be without a step that leaves scratches.
 * @example gritRun(80, 220) // [80, 150, 220]
 */
export function gritRun(first: number, last: number): number[] {
  const grits = TABLE.filter((g) => g > first && g <= last);
  const run = [first];
  while (lastOf(run) < last) {
    const from = grainOf(lastOf(run));
    const reachable = grits.filter((g) => g > lastOf(run) && from / grainOf(g) <= MOST_STEP + 0.05);
    run.push(reachable.at(-1) ?? certain(grits.find((g) => g > lastOf(run))));
  }
  return run;
}

/** Once over with a paper takes so many times its grain; that is why none may be finer by more than that than the one before. */
const ONCE_OVER = MOST_STEP + 0.05;
/** So often nobody goes over a face with one paper: a coarser one is quicker, and what is deeper stays. */
const MOST_ROUNDS = 4;

/** One paper of a run. Depths in mm. */
export interface GritStep {
  grit: number;
  /** What it has to take away: the deepest place, or the scratches of the paper before. */
  from: number;
  /** How often over the face; one where the steps are small enough. */
  rounds: number;
  /** What of that it never reaches. */
  stays: number;
}

/** Papers over a face one after the other. Depths in mm. */
export interface GritRun {
  steps: GritStep[];
  /** Off the face, all papers together. */
  takes: number;
  /** The deepest of what no paper reaches; 0 where the run is sound. */
  stays: number;
}

/**
 * What a run of papers does to a face: the first must reach the bottom of its deepest place, each takes away the scratches of the one before (common practice).
 * @param depth of the deepest place, mm @param grits in the order they are used
 * @example gritsOver(0.13, [120, 220]).takes // 0.255: the marks of the knives, and the scratches of 120
 */
export function gritsOver(depth: number, grits: readonly number[]): GritRun {
  let left = depth;
  let stays = 0;
  let takes = 0;
  const steps = grits.map((grit): GritStep => {
    const once = ONCE_OVER * grainMm(grit);
    const from = left;
    const rounds = Math.max(1, Math.min(MOST_ROUNDS, Math.ceil(from / once - 1e-9)));
    const over = Math.max(0, from - rounds * once);
    // What one paper leaves too deep the next ones leave too.
    stays = Math.max(0, Math.max(over, stays - grainMm(grit)));
    takes += from - over;
    left = grainMm(grit);
    return { grit, from, rounds, stays: over };
  });
  return { steps, takes, stays };
}

/**
 * The papers for a face: from the finest that reaches its deepest place at once, and is no finer than is usual for such a face, to the last grit. Of papers that are there all between are used; where nobody has said which
 * are there, as few as leave no scratches.
 * @param usual the finest paper that such a face is begun with @param papers that the shop has, coarse to fine; null for any
 */
export function papersFor(depth: number, usual: number, last: number, papers: readonly number[] | null): number[] {
  const there = (papers ?? TABLE).filter((g) => g <= last);
  const begins = there.filter((g) => g <= usual && depth <= ONCE_OVER * grainMm(g));
  const first = begins.at(-1) ?? there[0] ?? papers?.[0] ?? last;
  if (papers !== null) return there.length === 0 ? [first] : there.filter((g) => g >= first);
  return first >= last ? [first] : gritRun(first, last);
}

/** The finest paper that a place found in a side is begun with: deeper ones ask for coarser (common practice). */
const USUAL_FOR_PITS = 120;

/** The papers over a side in which a place was found, whatever it comes off: to its bottom, and on to the last grit. @param depth mm */
export function pitRun({ grits, papers, schools }: Pick<Shop, 'grits' | 'papers' | 'schools'>, depth: number): GritRun {
  return gritsOver(depth, papersFor(depth, USUAL_FOR_PITS, grits?.at(-1) ?? Number(schools.lastGrit), papers));
}
