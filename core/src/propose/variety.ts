import { nth } from '../lists/there.ts';
import { lightness } from '../wood/colour.ts';
import type { Strip } from '../board/recipe.ts';

/** Something with a place among what it looks like. */
export interface Varied<T> {
  item: T;
  /** Two that look alike lie close together. */
  look: readonly number[];
  score: number;
  /** Two of one kind are twins however far apart they lie; left out, there are no kinds. */
  kind?: string;
}

/** Nearer than this they are twins: only the better one stays. */
const TWINS = 0.5;
/** Places across a board that are looked at. */
const PLACES = 20;
/** CIELAB lightness that counts as a whole step between two places. */
const LIGHTNESS_STEP = 120;

function distance(a: readonly number[], b: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < a.length; i += 1) sum += (nth(a, i) - nth(b, i)) ** 2;
  return Math.sqrt(sum);
}

/** Light and dark at places across the board: what the eye sees first, whatever the species are called. */
export function lightnessProfile(
  strips: readonly Pick<Strip, 'species' | 'width'>[],
  colours: ReadonlyMap<string, string>,
): number[] {
  const whole = strips.reduce((sum, s) => sum + s.width, 0);
  let i = 0;
  let end = strips[0]?.width ?? 0;
  return Array.from({ length: PLACES }, (_, k) => {
    const at = ((k + 0.5) / PLACES) * whole;
    while (at > end && i < strips.length - 1) end += nth(strips, (i += 1)).width;
    return lightness(colours.get(strips[i]?.species ?? '') ?? '#888888') / LIGHTNESS_STEP;
  });
}

/**
 * Adds one to a varied set. A twin of one that is there replaces it when it is better; when the set is too large, of the two most alike the worse
 * one goes.
 */
export function keepVaried<T>(kept: readonly Varied<T>[], found: Varied<T>, most: number): Varied<T>[] {
  const twins = kept.filter(
    (k) => (found.kind !== undefined && k.kind === found.kind) || distance(k.look, found.look) < TWINS,
  );
  if (twins.some((t) => t.score >= found.score)) return [...kept];
  const set = [...kept.filter((k) => !twins.includes(k)), found];
  if (set.length <= most) return set;
  const nearest = set.map(() => Infinity);
  set.forEach((one, i) => {
    for (let k = 0; k < i; k += 1) {
      const apart = distance(one.look, nth(set, k).look);
      nearest[i] = Math.min(nth(nearest, i), apart);
      nearest[k] = Math.min(nth(nearest, k), apart);
    }
  });
  let worst = { index: 0, cost: Infinity };
  set.forEach((one, i) => {
    // Losing it costs its score and the variety it brings.
    const cost = one.score + 3 * nth(nearest, i);
    if (cost < worst.cost) worst = { index: i, cost };
  });
  return set.filter((_, i) => i !== worst.index);
}
