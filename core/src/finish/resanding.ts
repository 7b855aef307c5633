import { gritsOver } from '../shop/grits.ts';

/** Thinner than that a board warps and breaks, mm (common practice). */
const THINNEST_MM = 15;
/** So much of a groove must be left to hold juice, mm (common practice). */
const LEAST_GROOVE_MM = 2;

/** How often a board can be sanded again when it comes back scarred. Lengths in mm. */
export interface Resanding {
  /** Off the face that is used, each time: to the bottom of its scars, and the scratches of all papers but the last. */
  each: number;
  grits: number[];
  times: number;
  /** What ends it. */
  until: 'thin' | 'groove';
}

/** Knives leave scars about so deep by the time a board comes back, mm (common practice). */
export const USUAL_SCARS_MM = 0.4;

/**
 * @param thickness of the board now @param grooveDepth of the deepest groove in the face that is sanded; null without one @param scars the deepest of them
 */
export function resandings(
  thickness: number,
  grooveDepth: number | null,
  grits: readonly number[],
  scars = USUAL_SCARS_MM,
): Resanding {
  const { takes: each } = gritsOver(scars, grits);
  const byThickness = Math.max(0, thickness - THINNEST_MM);
  const byGroove = grooveDepth === null ? Infinity : Math.max(0, grooveDepth - LEAST_GROOVE_MM);
  return {
    each,
    grits: [...grits],
    times: Math.floor(Math.min(byThickness, byGroove) / each + 1e-9),
    until: byGroove < byThickness ? 'groove' : 'thin',
  };
}
