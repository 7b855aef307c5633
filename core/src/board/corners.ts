import { stripSchema, stripsOf, withStrips, type Recipe } from './recipe.ts';
import type { Recut } from './recut.ts';

/** A mismatch that an eye sees at a corner, mm (common practice). */
export const SEEN_MM = 0.3;
/** Joints further apart than this are meant to lie apart, mm. */
const MEANT_MM = 4;

/**
 * How far joints of rows that are turned end for end lie beside those of their neighbours at the worst corner, mm. Strips that are each off by e add up to n e at the last joint.
 * @returns null where no row is turned, rows are shifted, or joints are meant to lie apart
 */
export function cornersMissBy({ turns, widths, all }: Pick<Recut, 'turns' | 'widths' | 'all'>): number | null {
  if (!turns.some((t) => t.turn === 'endForEnd')) return null;
  if (all.some((r) => r.shift !== 0) || widths.length < 2) return null;
  const total = widths.reduce((sum, w) => sum + w, 0);
  let at = 0;
  const joints = widths.slice(0, -1).map((w) => (at += w));
  const turned = joints.map((j) => total - j);
  const beside = joints.map((j) => Math.min(...turned.map((t) => Math.abs(t - j))));
  return beside.every((b) => b < MEANT_MM) ? Math.max(...beside) : null;
}

/** The same board with every strip off by up to so much, wider or narrower, mm. @param next a number of 0 to 1, another one each time */
export function withStrayStrips<B extends { readonly recipe: Recipe }>(board: B, by: number, next: () => number): B {
  const least = stripSchema.shape.width.minValue ?? 0;
  return withStrips(
    board,
    stripsOf(board).map((s) => ({ ...s, width: Math.max(least, s.width + by * (2 * next() - 1)) })),
  );
}
