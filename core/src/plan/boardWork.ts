import { stripsOf } from '../board/recipe.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { workOf, type BoardWork, type WorkOf } from '../schedule/work.ts';
import type { Plan } from './plan.ts';
import { glueUpsOf } from './trimAgain.ts';

/** What is done and what is to be done on a planned board. One without strips has no steps yet. @param input what it was planned from @param running glue-ups whose clock runs */
export function workOfPlan(
  id: string,
  { board, facts = [] }: Pick<PlanInput, 'board' | 'facts'>,
  plan: Plan,
  running: WorkOf['running'] = [],
): BoardWork {
  const operations = stripsOf(board).length === 0 ? [] : plan.operations;
  return workOf({ id, board, operations, glueUps: glueUpsOf(plan), finish: plan.finish, facts, running }, plan.shop);
}
