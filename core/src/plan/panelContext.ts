import { madeFor, madeOnTheWay } from '../board/madeFor.ts';
import type { PlanContext } from '../ladders/context.ts';
import { piecesCut } from '../saw/piecesCut.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { inTurn, NONE_BEFORE } from './panelsInTurn.ts';
import type { Plan } from './plan.ts';

/** What a plan was made with, as the parts of its first panels shared it: for whoever looks at their wood once more. One for each of the panels that rows come from in turn. */
export function panelContextsOf(plan: Plan, given: PlanInput): PlanContext[] {
  const first = panelContextOf(plan, given);
  return plan.recut ? plan.recut.kinds.map((_, k) => (k === 0 ? first : inTurn(first, given, k))) : [first];
}

/** The same for the first of them alone. */
export function panelContextOf(plan: Plan, given: PlanInput): PlanContext {
  const made = plan.again ?? plan.frame ?? plan.back;
  const board = made?.board ?? given.board;
  return {
    ...given,
    shop: plan.shop,
    board,
    made: (made ? madeOnTheWay : madeFor)(board, given.facts),
    allowances: plan.allowances,
    cutting: plan.cutting,
    stacks: plan.stacks.map((s) => s.stack),
    trim: made?.trim ?? plan.trim,
    again: null,
    frame: null,
    back: null,
    field: null,
    before: NONE_BEFORE,
    ahead: null,
    wished: board,
    panelWidth: plan.panelWidth,
    turnedOver: [],
    pieces: piecesCut(given, plan.cutting),
  };
}
