import { stripsOf } from '../board/recipe.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { makePlan, type Plan } from '../plan/plan.ts';
import { stationOf, type StepStation } from '../steps/operation.ts';
import { say, type Phrase } from '../units/phrase.ts';
import { progressOf } from '../bench/progress.ts';
import { checkPlan, openStops } from './checkPlan.ts';

/** How far a board has come. */
export type StandingState = 'empty' | 'stopped' | 'planned' | 'promised' | 'cut' | 'begun' | 'done';

/** A board as it is now: what it will measure, how far it has come, and what to do next. */
export interface Standing {
  /** Finished length, width and thickness as the plan reaches them, mm; null while nothing is laid out. */
  size: { length: number; width: number; thickness: number } | null;
  state: StandingState;
  /** What comes next, and the station where it is done. */
  next: Phrase;
  station: 'layout' | 'cuts' | 'bench' | StepStation;
}

/** Stops that are mended where strips are laid out: they belong to no step. */
const IN_LAYOUT = ['panel-width', 'width-not-in-rack', 'strip-wider-than-board', 'board-thickness'];

/** @param input the board with its rack, shop, and what its saw has done */
export function standingOf(input: PlanInput): Standing {
  if (stripsOf(input.board).length === 0)
    return { size: null, state: 'empty', next: say`Lay out strips`, station: 'layout' };
  const plan = makePlan(input);
  const { size } = plan.worked;
  // What lies on the bench goes on from there.
  const { steps, due } = progressOf(plan.operations, input.facts ?? []);
  if (steps.length > 0 && !due) return { size, state: 'done', next: say`Hand it over`, station: 'bench' };
  if (due && steps.some((s) => s.state === 'done'))
    return { size, state: 'begun', next: due.step.title, station: 'bench' };
  const stops = openStops(checkPlan(plan, input));
  const [first] = stops;
  if (first) {
    const more = stops.length > 1 ? ` (and ${stops.length - 1} more)` : '';
    return {
      size,
      state: 'stopped',
      next: [...first.what, more],
      station:
        first.rule === 'stock-shortage'
          ? 'cuts'
          : IN_LAYOUT.includes(first.rule)
            ? 'layout'
            : (first.station ?? 'layout'),
    };
  }
  return { size, ...progress(plan) };
}

function progress({ cutting, outdated, operations }: Plan): Pick<Standing, 'state' | 'next' | 'station'> {
  const toCut = cutting.blanks.filter((b) => !b.done);
  if (outdated)
    return { state: 'planned', next: say`Keep a cut plan anew: the one that was kept no longer fits`, station: 'cuts' };
  if (toCut.length > 0 && cutting.method !== 'kept')
    return { state: 'planned', next: say`Keep the cut plan, so that its wood is promised`, station: 'cuts' };
  const [step] = operations;
  if (!step) return { state: 'planned', next: say`Lay out strips`, station: 'layout' };
  return { state: toCut.length > 0 ? 'promised' : 'cut', next: step.title, station: stationOf(step.kind) };
}
