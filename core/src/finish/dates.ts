import { coatMinutes } from './coats.ts';
import type { FinishPlan } from './finishPlan.ts';

const MINUTE_MS = 60_000;
const WEEK_MS = 7 * 24 * 60 * MINUTE_MS;

/** When a board can be touched, given away and used, and when its owner renews the finish. Milliseconds since 1970. */
export interface FinishDates {
  /** And given away, with a note on it where it still hardens. */
  handled: number;
  used: number;
  renewals: number[];
}

/**
 * @param at when the first coat of each finish is on, milliseconds since 1970, in their order: a shop that is shut puts nothing on @param bare when a board is ready that nothing goes on @param renewals how many are told
 */
export function finishDates(
  { coatings }: Pick<FinishPlan, 'coatings'>,
  at: readonly number[],
  bare: number,
  renewals = 4,
): FinishDates {
  const waits = coatings.map(({ finish }, i) => {
    const { handled, used } = coatMinutes(finish);
    const on = at[i] ?? bare;
    return { handled: on + handled * MINUTE_MS, used: on + used * MINUTE_MS };
  });
  const handled = waits.at(-1)?.handled ?? bare;
  const used = Math.max(handled, ...waits.map((w) => w.used));
  const weeks = coatings.at(-1)?.finish.renewWeeks;
  return {
    handled,
    used,
    renewals: weeks === undefined ? [] : Array.from({ length: renewals }, (_, k) => used + (k + 1) * weeks * WEEK_MS),
  };
}

/** What a due day allows. */
export type DueState = 'inTime' | 'uncured' | 'late';

/** @param due the end of the day it is due, milliseconds since 1970 */
export function dueState({ handled, used }: Pick<FinishDates, 'handled' | 'used'>, due: number): DueState {
  return used <= due ? 'inTime' : handled <= due ? 'uncured' : 'late';
}
