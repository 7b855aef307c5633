import { useMemo } from 'react';
import type { Fact } from '#core/facts/fact.ts';
import { finishDates, type FinishDates } from '#core/finish/dates.ts';
import { factsThatHold } from '#core/facts/factsThatHold.ts';
import { stillToDo, type Plan } from '#core/plan/plan.ts';
import { timelineOf } from '#core/schedule/timeline.ts';
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

/** Dates of the open board's finish, looked at anew every minute. */
export function useFinishDates(): FinishDates & { now: number; first: number } {
  const { plan, input } = useSettledBoard();
  const now = useClock(MINUTE_MS);
  return useMemo(() => {
    const at = coatsAt(plan, input.facts ?? [], now);
    return { now, first: at[0] ?? now, ...finishDates(plan.finish, at, now) };
  }, [plan, input.facts, now]);
}
