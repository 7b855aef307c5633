import type { Fact } from '../facts/fact.ts';
import type { Plan } from '../plan/plan.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { measuresOf, type Measure } from './measures.ts';

/** Somebody measured what a step asks for. */
export const measured = (
  id: string,
  { thing, copy, stage, dimension }: Measure,
  value: number,
  at = '2026-11-27T08:00:00.000Z',
): Fact => ({ kind: 'measured', id, at, thing, copy, stage, dimension, value });

/** All that the steps of a plan ask for. */
export const measuresIn = (plan: Plan, { board, shop }: PlanInput): Measure[] =>
  plan.operations.flatMap((step) => measuresOf(step, plan.operations, board, shop));
