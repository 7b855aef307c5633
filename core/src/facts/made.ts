import { factsThatHold, MOST_SPOTS } from './factsThatHold.ts';
import type { Fact, Spot } from './fact.ts';

/** What is there already of a board, folded from its facts. Lengths in mm. */
export interface Made {
  /** Length of the first panel as it came out of the clamps; null while it is only planned. */
  readonly panelLength: number | null;
  /** Bad places that were found on it, in the order they were found in. */
  readonly spots: readonly Spot[];
}

export const NOTHING_MADE: Made = { panelLength: null, spots: [] };

/** Facts by the lists they were read from: the same list folds to the same. */
const FOLDED = new WeakMap<readonly Fact[], Map<string, Made>>();

/**
 * What facts say of the first panel. Of a size measured twice, or a place looked at twice, the last counts; facts about another thing decide nothing.
 * @param panel id of the operation of the recipe that gives it; undefined while nothing is laid out
 */
export function madeOf(facts: readonly Fact[], panel: string | undefined): Made {
  if (panel === undefined || facts.length === 0) return NOTHING_MADE;
  const known = FOLDED.get(facts) ?? new Map<string, Made>();
  FOLDED.set(facts, known);
  let made = known.get(panel);
  if (!made) {
    const about = factsThatHold(facts).filter((f) => f.thing === panel && f.copy === 1);
    const spots = new Map(about.flatMap((f) => (f.kind === 'badPlace' ? [[f.spot.id, f.spot] as const] : [])));
    made = {
      panelLength: about.findLast((f) => f.kind === 'measured')?.value ?? null,
      spots: [...spots.values()].slice(0, MOST_SPOTS),
    };
    known.set(panel, made);
  }
  return made;
}
