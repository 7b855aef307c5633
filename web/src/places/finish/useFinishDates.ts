import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { ShopWork } from '#contract/schedule.ts';
import type { Fact } from '#core/facts/fact.ts';
import { finishDates, type FinishDates } from '#core/finish/dates.ts';
import { factsThatHold } from '#core/facts/factsThatHold.ts';
import { certain } from '#core/lists/there.ts';
import { stillToDo, type Plan } from '#core/plan/plan.ts';
import { firstSchedule } from '#core/schedule/improve.ts';
import { taskId } from '#core/schedule/work.ts';
import { timelineOf } from '#core/schedule/timeline.ts';
import { problemOf, scheduleQuery } from '../../scheduling/useShopSchedule.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { minuteOfWeek } from '../../quantities/minuteOfWeek.ts';
import { useClock } from '../../quantities/useClock.ts';

const MINUTE_MS = 60_000;

/**
 * When the first coat of each finish is on, in their order: when it was put on, or when all that comes before it is done, begun now in the shop's hours.
 * @param now milliseconds since 1970
 */
export function coatsAt(
  { operations, shop }: Pick<Plan, 'operations' | 'shop'>,
  facts: readonly Fact[],
  now: number,
): number[] {
  const held = factsThatHold(facts);
  const passed = minuteOfWeek(new Date(now));
  const { tasks } = timelineOf(stillToDo(operations, facts), shop, passed);
  return operations
    .filter((o) => o.kind === 'oil' || o.kind === 'topCoat')
    .map((coat) => {
      const done = held.find((f) => f.kind === 'done' && f.step === coat.id);
      if (done) return Date.parse(done.at);
      const ends = tasks.find((t) => t.step === coat.number)?.hands.at(-1)?.to ?? passed;
      return now + (ends - passed) * MINUTE_MS;
    });
}

/** The same by the work of the whole shop, where the board is in it: other boards come before. @returns null for a board that nobody has taken up */
function coatsInShop(
  work: ShopWork,
  id: string,
  { operations }: Pick<Plan, 'operations'>,
  facts: readonly Fact[],
): number[] | null {
  if (!work.boards.some((b) => b.id === id)) return null;
  const { placed } = firstSchedule(problemOf(work), work.schedule.order);
  const held = factsThatHold(facts);
  const at = operations
    .filter((o) => o.kind === 'oil' || o.kind === 'topCoat')
    .map(({ id: step }) => {
      const done = held.find((f) => f.kind === 'done' && f.step === step);
      if (done) return Date.parse(done.at);
      const ends = placed.get(taskId(id, step, 1))?.hands.at(-1)?.to;
      return ends === undefined ? null : ends * MINUTE_MS;
    });
  // What the server has not heard of yet is told as if the board were alone.
  return at.some((t) => t === null) ? null : at.map((t) => certain(t));
}

/** Dates of the open board's finish, looked at anew every minute: in the shop's work where it is taken up, else as if it were alone. */
export function useFinishDates(): FinishDates & { now: number; first: number } {
  const { id, plan, input } = useSettledBoard();
  const now = useClock(MINUTE_MS);
  const { data: work } = useQuery({ ...scheduleQuery, retry: false });
  return useMemo(() => {
    const facts = input.facts ?? [];
    const at = (work && coatsInShop(work, id, plan, facts)) ?? coatsAt(plan, facts, now);
    return { now, first: at[0] ?? now, ...finishDates(plan.finish, at, now) };
  }, [id, plan, input.facts, now, work]);
}
