import { useEffect, useMemo, useState } from 'react';
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

/** The board made so many times at once. */
export interface Batch {
  count: number;
  cost: Cost;
  /** Whether the rack gives all of them. */
  given: boolean;
}

/** Batches that are set beside the one there is. */
const BATCHES = [1, 3, 5, 10];

function batchOf(input: PlanInput, count: number): Batch {
  const board = { ...input.board, count, perPanel: Math.min(input.board.perPanel, count) };
  // What was promised and cut is for the batch that there is.
  const plan = makePlan({ ...input, board, saw: undefined, facts: [] });
  return { count, cost: costOfPlan(plan, count), given: plan.cutting.shortages.length === 0 };
}

/** The open board in batches of several sizes, planned one after the other while nobody waits for them. */
export function useBatches(): Batch[] {
  const { input } = useSettledBoard();
  const [batches, setBatches] = useState<Batch[]>([]);
  useEffect(() => {
    const counts = [...new Set([...BATCHES, input.board.count])].sort((a, b) => a - b);
    const made: Batch[] = [];
    let timer = setTimeout(function next() {
      const count = counts[made.length];
      if (count === undefined) return setBatches(made);
      made.push(batchOf(input, count));
      timer = setTimeout(next);
    });
    return () => clearTimeout(timer);
  }, [input]);
  return batches;
}
