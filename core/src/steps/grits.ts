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

/** Grain of a paper in the table, microns. */
const grainOf = (grit: number): number => certain(GRAIN_MICRONS[grit], `The grain of ${grit}`);

/** A step to finer grain than this share leaves the last scratches (common practice: about half). */
const MOST_STEP = 2;

/**
 * Grits from a first to a last one, as few as can be without a step that leaves scratches.
 * @example gritRun(80, 220) // [80, 150, 220]
 */
export function gritRun(first: number, last: number): number[] {
  const grits = Object.keys(GRAIN_MICRONS)
    .map(Number)
    .sort((a, b) => a - b)
    .filter((g) => g > first && g <= last);
  const run = [first];
  while (lastOf(run) < last) {
    const from = grainOf(lastOf(run));
    const reachable = grits.filter((g) => g > lastOf(run) && from / grainOf(g) <= MOST_STEP + 0.05);
    run.push(reachable.at(-1) ?? certain(grits.find((g) => g > lastOf(run))));
  }
  return run;
}
