import { nth } from '../lists/there.ts';
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
export function cornersMissBy({ kinds, all }: Pick<Recut, 'kinds' | 'all'>): number | null {
  if (all.some((r) => r.shift !== 0) || kinds.some((k) => k.widths.length < 2)) return null;
  const jointsOf = ({ widths }: Recut['kinds'][number], turned: boolean): number[] => {
    let at = 0;
    return (turned ? [...widths].reverse() : widths).slice(0, -1).map((w) => (at += w));
  };
  // How rows lie beside each other: each pair once.
  const lies = all.filter((r) => r.board === 1).map((r) => ({ kind: r.kind, turned: r.turns.includes('endForEnd') }));
  const beside = new Map<string, [number[], number[]]>();
  lies.slice(1).forEach((lie, i) => {
    const before = nth(lies, i);
    if (before.kind === lie.kind && before.turned === lie.turned) return;
    beside.set(`${before.kind}${before.turned}${lie.kind}${lie.turned}`, [
      jointsOf(nth(kinds, before.kind), before.turned),
      jointsOf(nth(kinds, lie.kind), lie.turned),
    ]);
  });
  if (beside.size === 0) return null;
  const apart = [...beside.values()].flatMap(([one, other]) =>
    one.map((j) => Math.min(...other.map((t) => Math.abs(t - j)))),
  );
  return apart.every((by) => by < MEANT_MM) ? Math.max(...apart) : null;
}

/** The same board with every strip off by up to so much, wider or narrower, mm. @param next a number of 0 to 1, another one each time */
export function withStrayStrips<B extends { readonly recipe: Recipe }>(board: B, by: number, next: () => number): B {
  const least = stripSchema.shape.width.minValue ?? 0;
  return withStrips(
    board,
    stripsOf(board).map((s) => ({ ...s, width: Math.max(least, s.width + by * (2 * next() - 1)) })),
  );
}
