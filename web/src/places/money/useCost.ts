import { useMemo } from 'react';
import { costOf, type Cost } from '#core/money/cost.ts';
import { usesOf } from '#core/money/uses.ts';
import { makePlan, type Plan } from '#core/plan/plan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';

/** What a planned board costs, all copies together. */
export function costOfPlan({ operations, finish, materials, shop }: Plan, count: number): Cost {
  return costOf(usesOf(operations, finish.coatings, count, shop), materials, count, shop);
}

/** The open board's cost. */
export function useCost(): Cost {
  const { plan, board } = useSettledBoard();
  return useMemo(() => costOfPlan(plan, board.count), [plan, board.count]);
}

/** The same board made as many times at once: its cost and its hours. */
export function costOfBatch(input: PlanInput, count: number): Cost {
  const board = { ...input.board, count, perPanel: Math.min(input.board.perPanel, count) };
  // What was promised and cut is for the batch that there is.
  return costOfPlan(makePlan({ ...input, board, saw: undefined, facts: [] }), count);
}
