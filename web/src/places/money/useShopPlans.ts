import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { ListedBoard } from '#contract/boards.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { makePlan, stillToDo, type Plan } from '#core/plan/plan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import type { Operation, OperationKind } from '#core/steps/operation.ts';
import { sawStateFor } from '#core/saw/sawBook.ts';
import { boardQuery, trouble, useAllBoards, useRack, useSawBook, useShop, useSpecies } from '../../data/queries.ts';
import { queryClient } from '../../data/queryClient.ts';
import { scheduleQuery } from '../../scheduling/useShopSchedule.ts';

export interface PlannedBoard {
  id: string;
  name: string;
  count: number;
  plan: Plan;
  /** What is not done yet of it. */
  open: readonly Operation[];
}

/** Steps that take wood from the rack. */
const TAKES_WOOD: ReadonlySet<OperationKind> = new Set<OperationKind>(['crosscut', 'rip', 'resaw']);

const takes = (operations: readonly Operation[]): boolean => operations.some((o) => TAKES_WOOD.has(o.kind));

/** Whether wood is still to be fetched for a board: not once all of it is sawn. A board for which there is none has no such step yet. */
export const takesWood = ({ plan, open }: Pick<PlannedBoard, 'plan' | 'open'>): boolean =>
  takes(open) || !takes(plan.operations);

/** Plans of some boards, made one after the other so that no wood is counted for two of them; null until they are there. @param wanted ids; null for all boards in work */
export function useShopPlans(wanted: readonly string[] | null) {
  const boards = useAllBoards();
  const rack = useRack();
  const shop = useShop();
  const species = useSpecies();
  const work = useQuery(scheduleQuery);
  const ids = wanted ?? work.data?.boards.map((b) => b.id) ?? null;
  const known = ids?.filter((id) => boards.data?.some((b) => b.id === id)) ?? [];
  const book = useSawBook(known);
  const [plans, setPlans] = useState<PlannedBoard[] | null>(null);
  const [failed, setFailed] = useState<Error | null>(null);
  const key = known.join();
  useEffect(() => {
    if (!boards.data || boards.hasNextPage || !rack.data || !shop.data || !species.data || !book.data || ids === null)
      return undefined;
    let gone = false;
    const given = {
      rack: rack.data.map((p) => p.piece),
      shop: shop.data.shop,
      species: species.data,
    };
    void (async () => {
      const whole = await Promise.all(known.map((id) => queryClient.fetchQuery(boardQuery(id))));
      const made: PlannedBoard[] = [];
      // Wood that one board takes is not there for the next.
      const promised = [];
      for (const { id, board, facts } of whole) {
        const saw = sawStateFor(book.data, id);
        const input: PlanInput = { ...given, board, facts, saw: { ...saw, promised: [...saw.promised, ...promised] } };
        if (stripsOf(board).length === 0) continue;
        const plan = makePlan(input);
        promised.push(
          ...plan.cutting.blanks
            .filter((b) => !b.done)
            .map((b) => ({ pieceId: b.pieceId, unit: b.unit, from: b.from, to: b.from + b.length })),
        );
        made.push({ id, name: board.name, count: board.count, plan, open: stillToDo(plan.operations, facts) });
        await new Promise((resolve) => setTimeout(resolve));
        if (gone) return;
      }
      if (gone) return;
      setFailed(null);
      setPlans(made);
    })().catch((error: unknown) => {
      if (!gone) setFailed(error instanceof Error ? error : new Error(String(error)));
    });
    return () => {
      gone = true;
    };
    // What is in the list of ids is in their key.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [key, boards.data, boards.hasNextPage, rack.data, shop.data, species.data, book.data]);
  return {
    plans,
    boards: boards.data ?? ([] as ListedBoard[]),
    rack: rack.data ?? null,
    shop: shop.data ?? null,
    species: species.data ?? null,
    chosen: known,
    problem: trouble(boards, rack, shop, species, book, work) ?? failed,
  };
}
