import type { DueDay } from '../board/board.ts';
import type { Shop } from '../shop/shop.ts';
import { dueMoment } from './due.ts';
import { openingsFrom } from './openings.ts';
import { capacitiesOf } from './resources.ts';
import type { Due, ScheduleProblem } from './task.ts';
import type { BoardWork } from './work.ts';

/** Nobody plans further ahead, days. */
const MOST_DAYS = 1100;
const DAY = 1440;

/** Boards with their work, and when they are due. */
export interface WorkDue {
  work: BoardWork;
  due: DueDay | null;
}

/**
 * Everything that is to be done in a shop from a moment on.
 * @param from minutes since 1970 @param zone where the shop's clock hangs, an IANA name
 */
export function shopProblem(
  boards: readonly WorkDue[],
  shop: Pick<Shop, 'hours' | 'people' | 'away' | 'openToo' | 'clamps' | 'space' | 'bath'>,
  zone: string,
  from: number,
): ScheduleProblem {
  const tasks = boards.flatMap(({ work }) => work.tasks);
  const hands = tasks.reduce((sum, t) => sum + t.minutes * t.people, 0);
  const waits = tasks.reduce((sum, t) => sum + t.wait, 0);
  const latest = Math.max(from, ...tasks.map((t) => Math.max(t.pinned ?? from, t.notBefore)));
  const open = (days: number) =>
    shop.people.map(({ id, hours }) => ({
      id,
      open: openingsFrom(
        {
          hours: hours ?? shop.hours,
          away: shop.away.filter((a) => a.person === null || a.person === id),
          openToo: shop.openToo,
          zone,
        },
        from,
        days,
      ),
    }));
  // Twice the work and all waits one after the other, and some days to spare: further ahead nothing is looked up.
  let days = 30 + Math.ceil((latest - from + waits) / DAY);
  let people = open(Math.min(days, MOST_DAYS));
  const minutes = () => Math.max(0, ...people.map((p) => p.open.reduce((sum, o) => sum + o.to - o.from, 0)));
  while (days < MOST_DAYS && minutes() < 2 * hands) {
    days *= 2;
    people = open(Math.min(days, MOST_DAYS));
  }
  const dues = new Map<string, Due>();
  for (const { work, due } of boards) if (due) dues.set(work.board, { at: dueMoment(due, zone), cured: due.cured });
  return {
    from,
    people,
    capacities: capacitiesOf(shop),
    tasks,
    held: boards.flatMap(({ work }) => work.held).filter((h) => h.until > from),
    dues,
  };
}
