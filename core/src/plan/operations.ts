import type { GluePlan } from '../gluing/glueUps.ts';
import { cautionsFor } from './cautions.ts';
import type { PlanContext } from './context.ts';
import { finishSteps } from './finishSteps.ts';
import { glueSteps } from './glueSteps.ts';
import type { Ladder } from './ladder.ts';
import { millingSteps } from './milling.ts';
import type { Operation } from './operation.ts';
import { panelSteps } from './panelSteps.ts';

/**
 * The ordered steps from rough crosscut to the finished board, batched as a maker works: all pieces through one machine at one setting.
 * @returns an empty list while there are no strips
 */
export function operationsFor(context: PlanContext, ladders: { thickness: Ladder; width: Ladder }, gluing: GluePlan): Operation[] {
  if (context.board.strips.length === 0) return [];
  const glued = glueSteps(context, gluing);
  const sections = glued.some((s) => s.kind === 'flattenSections');
  const drafts = [...millingSteps(context), ...glued, ...panelSteps(context, ladders, sections), ...finishSteps(context, ladders)];
  return drafts.map((draft, i) => ({
    settings: [], parts: [], passes: null, machine: null, repeats: 1, waitMinutes: null, waitFor: null, clamps: 0, glueUp: null, joins: [], habit: null, school: null, ways: [],
    cautions: cautionsFor(draft.kind), ...draft, number: i + 1,
  }));
}
