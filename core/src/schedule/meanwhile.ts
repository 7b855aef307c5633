import { lastOf } from '../lists/there.ts';
import type { Placed, ScheduleProblem } from './task.ts';

/** What there is to do while a step waits: others that hands are on then, and how long somebody is in the shop with nothing to do, minutes. */
export interface Meanwhile {
  others: Placed[];
  freeMinutes: number;
}

/** Less than this is not waited for, minutes. */
const NO_WAIT = 1;

/**
 * What can be done while a step waits.
 * @param all that is placed, of whichever board
 * @returns null for a step without a wait
 */
export function meanwhileOf(
  all: readonly Placed[],
  waits: Placed,
  { people }: Pick<ScheduleProblem, 'people'>,
): Meanwhile | null {
  const from = lastOf(waits.hands).to;
  if (waits.until <= from + NO_WAIT) return null;
  const within = (a: number, b: number) => Math.max(0, Math.min(b, waits.until) - Math.max(a, from));
  const minutesOf = (stretches: readonly { from: number; to: number }[]) =>
    stretches.reduce((sum, s) => sum + within(s.from, s.to), 0);
  const others = all.filter((p) => p !== waits && minutesOf(p.hands) > 0);
  const busy = others.reduce((sum, p) => sum + minutesOf(p.hands) * Math.max(1, p.people.length), 0);
  const open = people.reduce((sum, p) => sum + minutesOf(p.open), 0);
  return { others, freeMinutes: Math.max(0, open - busy) };
}
