import { makePlan, type Plan } from '../plan/plan.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { capitalised, length, say } from '../units/phrase.ts';
import { NEAR_ENOUGH_MM, type FactOf, type Mishap } from './mishap.ts';

/** A place in a side that is sanded: how thin sanding it out makes the board, or it is filled. */
export function pitMishap(given: PlanInput, plan: Plan, fact: FactOf<'badPlace'>): Mishap[] {
  const without = makePlan({ ...given, facts: (given.facts ?? []).filter((f) => f.id !== fact.id) });
  const thinner = without.ladders.thickness.reached - plan.ladders.thickness.reached;
  if (thinner <= NEAR_ENOUGH_MM || fact.depth === undefined) return [];
  return [
    {
      fact: fact.id,
      says: say`${capitalised([fact.spot.what])} ${length(fact.depth)} deep: sanding to its bottom ends the board ${length(plan.ladders.thickness.reached)} thick.`,
      ways: [
        {
          way: 'goOn',
          title: say`Sand it out`,
          cost: say`${length(thinner)} of thickness, and the time for it`,
          board: null,
        },
        {
          way: 'fill',
          title: say`Fill it`,
          cost: say`Thin super glue or a patch, sanded flush; it shows`,
          board: null,
        },
      ],
    },
  ];
}
