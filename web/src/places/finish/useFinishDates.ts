import { useMemo } from 'react';
import type { Fact } from '#core/facts/fact.ts';
import { factsThatHold } from '#core/facts/factsThatHold.ts';
import { finishDates, type FinishDates } from '#core/finish/dates.ts';
import type { Plan } from '#core/plan/plan.ts';
import type { Schedule } from '#core/schedule/task.ts';
import { taskId } from '#core/schedule/work.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { useBoardTimes } from '../../scheduling/useBoardTimes.ts';

const MINUTE_MS = 60_000;

/**
 * When the first coat of each finish is on, in their order, milliseconds since 1970: when it was put on, or when the schedule says; never (Infinity) where nobody comes to do it.
 */
export function coatsAt(
  id: string,
  { operations }: Pick<Plan, 'operations'>,
  facts: readonly Fact[],
  { placed }: Pick<Schedule, 'placed'>,
): number[] {
  const held = factsThatHold(facts);
  return operations
    .filter((o) => o.kind === 'oil' || o.kind === 'topCoat')
    .map(({ id: step }) => {
      const done = held.find((f) => f.kind === 'done' && f.step === step);
      if (done) return Date.parse(done.at);
      return (placed.get(taskId(id, step, 1))?.hands.at(-1)?.to ?? Infinity) * MINUTE_MS;
    });
}

/** Dates of the open board's finish, by the one schedule. */
export function useFinishDates(): FinishDates & { now: number; first: number } {
  const { id, plan, input } = useSettledBoard();
  const { schedule, now } = useBoardTimes();
  return useMemo(() => {
    const at = coatsAt(id, plan, input.facts ?? [], schedule);
    return { now, first: at[0] ?? now, ...finishDates(plan.finish, at, now) };
  }, [id, plan, input.facts, now, schedule]);
}
