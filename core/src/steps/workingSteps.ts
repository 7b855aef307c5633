import type { PlanContext } from '../ladders/context.ts';
import type { StepDraft } from './operation.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { grooveSteps } from './grooveSteps.ts';
import { edgeSteps, cornerSteps } from './edgeSteps.ts';
import { holdSteps } from './holdSteps.ts';
import { boreSteps } from './boreSteps.ts';

/** Corners, groove, edges, holds and bores of boards that are cut to size, in the order that spoils nothing. */
export function workingSteps(context: PlanContext, worked: WorkedBoard): StepDraft[] {
  const grooves = grooveSteps(context, worked);
  const edges = edgeSteps(context, worked);
  return [
    ...cornerSteps(context, worked),
    ...(context.shop.schools.grooveOrder === 'before' ? [...grooves, ...edges] : [...edges, ...grooves]),
    ...holdSteps(context, worked),
    ...boreSteps(context, worked),
  ];
}
