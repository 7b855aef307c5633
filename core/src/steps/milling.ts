import type { PlanContext } from '../ladders/context.ts';
import { millingOf } from './millingPlan.ts';
import type { StepDraft } from './operation.ts';
import { crosscutStep, flattenSteps, splitStep, straightenStep } from './stockSteps.ts';
import { jointStep, remillStep, ripStep } from './stripSteps.ts';
import { resawStep, thinnerStep } from './resawSteps.ts';

/** From rough stock to strips ready for glue, all pieces through one machine at one setting after the other. What is cut already is only milled on. */
export function millingSteps(context: PlanContext): StepDraft[] {
  const mill = millingOf(context);
  if (mill.all.length === 0) return [];
  return [
    ...flattenSteps(mill, 'fullLength'),
    ...crosscutStep(mill),
    ...splitStep(mill),
    ...flattenSteps(mill, 'blanks'),
    ...straightenStep(mill),
    ...ripStep(mill),
    ...remillStep(mill),
    ...resawStep(mill),
    ...thinnerStep(mill),
    ...jointStep(mill),
  ];
}
