import type { PlanContext } from './context.ts';
import type { Habits } from '../shop/shop.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Phrase } from '../units/phrase.ts';

/** A habit of the shop, a measurement on the piece, a figure of a machine, or what follows from the other sizes. */
export type RungSource = 'habit' | 'piece' | 'machine' | 'sizes';

/** One operation's bite out of a dimension: before - taken = after, in mm. */
export interface Rung {
  id: string;
  label: Phrase;
  before: number;
  taken: number;
  after: number;
  /** Why it takes that much. */
  why: Phrase;
  /** The habit that decided the figure, if one did. */
  habit: keyof Habits | null;
  /** Where the figure comes from. */
  source: RungSource;
}

export type Dimension = 'thickness' | 'width' | 'length';

/** A dimension from stock to finished. The first rung's `before` is the stock; the last rung's `after` is `reached`. */
export interface Ladder {
  dimension: Dimension;
  rungs: Rung[];
  /** The wanted finished size, mm. */
  target: number;
  /** The finished size that comes out, mm; never negative, and above the target only where it was measured so. */
  reached: number;
  /** target - reached, mm; 0 when the target is met. */
  shortBy: number;
  /** The part that leaves least, when one part decides. */
  limiting: Phrase | null;
}

export interface RungSpec {
  id: string;
  label: Phrase;
  taken: number;
  /** Where it was measured: the size after it, mm; `taken` is then what that makes it. */
  is?: number;
  why: Phrase;
  habit?: keyof Habits;
  /** Left out: the habit where there is one, else the sizes. */
  source?: RungSource;
}

/** What one kind of operation takes of one dimension; the first of a recipe also says where the dimension starts, and which part leaves least. */
export interface Stage {
  /** Size before it, mm. */
  start?: number;
  specs: RungSpec[];
  limiting?: Phrase | null;
}

/** The same of all three dimensions, read when the plan is made. */
export type Rungs = Record<Dimension, (context: PlanContext) => Stage>;

export const NO_RUNGS: Stage = { specs: [] };

/**
 * Chains rungs from a starting size. Rungs that take nothing are left out; what could not be taken because nothing was left is
 * not counted as taken, so every rung still adds up.
 */
export function buildLadder(
  dimension: Ladder['dimension'],
  start: number,
  target: number,
  specs: RungSpec[],
  limiting: Phrase | null,
): Ladder {
  const rungs: Rung[] = [];
  let size = start;
  for (const spec of specs) {
    const after = Math.max(0, spec.is ?? size - spec.taken);
    if (Math.abs(size - after) <= LENGTH_TOLERANCE_MM) continue;
    rungs.push({
      id: spec.id,
      label: spec.label,
      before: size,
      taken: size - after,
      after,
      why: spec.why,
      habit: spec.habit ?? null,
      source: spec.source ?? (spec.habit ? 'habit' : 'sizes'),
    });
    size = after;
  }
  const shortBy = target - size;
  return { dimension, rungs, target, reached: size, shortBy: shortBy > LENGTH_TOLERANCE_MM ? shortBy : 0, limiting };
}

/** The rungs of another ladder taken as they are: of the panel of a board that is cut again, by names of their own. */
export const asTheyAre = ({ rungs }: Ladder, prefix = 'panel-'): RungSpec[] =>
  rungs.map(({ id, label, taken, why, habit, source }) => ({
    id: `${prefix}${id}`,
    label,
    taken,
    why,
    habit: habit ?? undefined,
    source,
  }));

/** Where a ladder starts, mm. */
export const startOf = ({ rungs, reached }: Ladder): number => rungs[0]?.before ?? reached;
