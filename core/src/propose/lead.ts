import { certain } from '../lists/there.ts';
import type { Measures } from './measures.ts';

/** What a proposal may do best. */
export const STRENGTHS = {
  wood: { says: 'Least wood', of: (m: Measures) => -m.woodUsed },
  contrast: { says: 'Strongest contrast', of: (m: Measures) => m.contrast },
  glueLines: { says: 'Fewest glue lines', of: (m: Measures) => -m.glueLines },
  cost: { says: 'Cheapest', of: (m: Measures) => -m.cost },
  back: { says: 'Most goes back to the rack', of: (m: Measures) => m.woodLeft },
  rhythm: { says: 'Most even rhythm', of: (m: Measures) => m.rhythm },
} as const satisfies Record<string, { says: string; of: (m: Measures) => number }>;
export type Strength = keyof typeof STRENGTHS;

/**
 * The same list with the first `most` of themes of their own: each the best that is left of a theme that is not there yet, as long as there are such.
 * What is left follows in its old order.
 */
export function variedFirst<T extends { theme: string }>(ranked: readonly T[], most: number): T[] {
  const themes = new Set<string>();
  const leading = ranked.filter(({ theme }) => {
    if (themes.has(theme) || themes.size >= most) return false;
    themes.add(theme);
    return true;
  });
  return [...leading, ...ranked.filter((one) => !leading.includes(one))];
}

/** Closer than this two do a thing equally well. */
const EQUAL = 1e-9;

/** Each with the one thing that it does best of all; who does nothing best, or only what another was told of before, has none. */
export function withStrengths<T extends { measures: Measures; best: Strength | null }>(list: readonly T[]): T[] {
  const told = new Map<T, Strength>();
  for (const strength of Object.keys(STRENGTHS) as Strength[]) {
    const { of } = STRENGTHS[strength];
    const most = Math.max(...list.map((one) => of(one.measures)));
    const best = list.filter((one) => of(one.measures) >= most - EQUAL);
    // What several do equally well tells none of them from the others.
    const [only] = best;
    if (best.length === 1 && !told.has(certain(only))) told.set(certain(only), strength);
  }
  return list.map((one) => ({ ...one, best: told.get(one) ?? null }));
}
