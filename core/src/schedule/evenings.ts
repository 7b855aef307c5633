import type { Opening } from './openings.ts';
import type { Placed, Schedule, ScheduleProblem } from './task.ts';

/** Some time in which anybody is in the shop, with what is done in it. Minutes since 1970. */
export interface Evening extends Opening {
  /** In the order of time. */
  steps: { placed: Placed; hand: Opening }[];
  /** Minutes of hands that nothing is planned for. */
  free: number;
}

/** The next times that the shop is open, each from when the first one comes until the last one goes. @param most how many */
export function eveningsOf(
  { people }: Pick<ScheduleProblem, 'people'>,
  schedule: Pick<Schedule, 'placed'>,
  most: number,
): Evening[] {
  const opens = people.flatMap((p) => p.open.slice(0, 2 * most)).sort((a, b) => a.from - b.from);
  const together: Opening[] = [];
  for (const open of opens) {
    const last = together.at(-1);
    if (last && open.from < last.to) last.to = Math.max(last.to, open.to);
    else together.push({ ...open });
  }
  const placed = [...schedule.placed.values()];
  return together.slice(0, most).map(({ from, to }): Evening => {
    const within = (o: Opening) => Math.max(0, Math.min(to, o.to) - Math.max(from, o.from));
    const steps = placed
      .flatMap((p) => p.hands.filter((h) => h.from < to && h.to > from).map((hand) => ({ placed: p, hand })))
      .sort((a, b) => a.hand.from - b.hand.from);
    const there = people.reduce((sum, p) => sum + p.open.reduce((m, o) => m + within(o), 0), 0);
    const busy = steps.reduce((sum, s) => sum + within(s.hand) * s.placed.people.length, 0);
    return { from, to, steps, free: Math.max(0, there - busy) };
  });
}

/** The first of them in which so many minutes are free; null when none has them. */
export const firstWithRoom = (evenings: readonly Evening[], minutes: number): Evening | null =>
  evenings.find((e) => e.free >= minutes - 1e-6) ?? null;
