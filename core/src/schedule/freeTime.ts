import type { Opening } from './openings.ts';

/** Time that is still free, ascending; each stretch knows when the shop shuts behind it. */
export interface Free extends Opening {
  shut: number;
}

/** Less than this is no time at all, minutes. */
export const NO_TIME = 1e-6;
/** Nobody begins anything for less, unless it is done then, minutes (common practice). */
const LEAST_PIECE = 10;

/** Index of the first stretch that ends after a moment. */
function firstEndingAfter(list: readonly Opening[], at: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((list[middle] as Opening).to > at + NO_TIME) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The next stretch from a moment on in which everybody is free; null when there is none any more. */
export function nextFree(lists: readonly (readonly Free[])[], at: number): Free | null {
  let from = at;
  for (;;) {
    let [begins, ends, shut] = [from, Infinity, Infinity];
    for (const list of lists) {
      const own = list[firstEndingAfter(list, from)];
      if (!own) return null;
      begins = Math.max(begins, own.from);
      ends = Math.min(ends, own.to);
      shut = Math.min(shut, own.shut);
    }
    if (ends > begins + NO_TIME) return { from: begins, to: ends, shut };
    from = begins;
  }
}

/**
 * Where work of so many minutes lies from a moment on; null when it never ends.
 * @param unbroken in one stretch, with the minutes somebody must stay before the shop shuts
 */
export function fit(
  lists: readonly (readonly Free[])[],
  at: number,
  { minutes, stay, unbroken }: { minutes: number; stay: number; unbroken: boolean },
): Opening[] | null {
  let from = at;
  if (minutes <= NO_TIME) {
    const open = nextFree(lists, from);
    return open && [{ from: open.from, to: open.from }];
  }
  const stretches: Opening[] = [];
  let left = minutes;
  while (left > NO_TIME) {
    const open = nextFree(lists, from);
    if (!open) return null;
    const room = open.to - open.from;
    const short = unbroken
      ? room < left - NO_TIME || open.shut - open.from < left + stay - NO_TIME
      : room < Math.min(left, LEAST_PIECE) - NO_TIME;
    if (!short) {
      const take = Math.min(room, left);
      stretches.push({ from: open.from, to: open.from + take });
      left -= take;
    }
    from = open.to;
  }
  return stretches;
}

/** Takes stretches out of free time, in place. They must lie within it. */
export function take(list: Free[], stretches: readonly Opening[]): void {
  for (const { from, to } of stretches) {
    if (to - from <= NO_TIME) continue;
    const i = firstEndingAfter(list, from);
    const own = list[i];
    if (!own) continue;
    const rest: Free[] = [];
    if (from > own.from + NO_TIME) rest.push({ from: own.from, to: from, shut: own.shut });
    if (own.to > to + NO_TIME) rest.push({ from: to, to: own.to, shut: own.shut });
    list.splice(i, 1, ...rest);
  }
}
