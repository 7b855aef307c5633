import { doneSteps } from '../facts/doneSteps.ts';
import type { Shortage } from '../cutting/cutPlan.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { Plan } from './plan.ts';

/**
 * Numbers of the strips of the first panel that are glued, each copy of them: nobody looks for them in the rack any more, also where their cuts were never booked at the saw.
 * @param facts what happened at the bench; left out: nothing did
 */
export function gluedStrips(
  { operations, again, gluing }: Pick<Plan, 'operations' | 'again' | 'gluing'>,
  facts: PlanInput['facts'] = [],
): ReadonlySet<number> {
  const done = doneSteps(facts, new Map(operations.map((o) => [o.id, o.repeats])));
  const glued = new Set(operations.flatMap((o) => (done.has(o.id) && o.glueUp !== null ? [o.glueUp] : [])));
  const ofStrips = (again?.panelGluing ?? gluing).glueUps.filter((g) => glued.has(g.id));
  return new Set(
    ofStrips.flatMap((g) => Array.from({ length: g.lastStrip - g.firstStrip + 1 }, (_, i) => g.firstStrip + i)),
  );
}

/** Whether all strips of a shortage are glued: then nothing of it is missing. */
export const isGlued = ({ strips }: Pick<Shortage, 'strips'>, glued: ReadonlySet<number>): boolean =>
  strips.every((n) => glued.has(n));
