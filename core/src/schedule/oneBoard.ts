import { firstOf } from '../lists/there.ts';
import { firstSchedule } from './improve.ts';
import { shopProblem, type WorkDue } from './shopProblem.ts';
import type { Placed, Schedule, ScheduleProblem } from './task.ts';

/** What a shop has to do beside a board, and the order that was kept; null where the board is not in work, and is told as if it were alone. */
export interface ShopBeside {
  boards: readonly WorkDue[];
  order: readonly string[];
}

/** When the steps of a board are done. */
export interface BoardTimes {
  problem: ScheduleProblem;
  schedule: Schedule;
  /** Those of this board, the first first. */
  placed: Placed[];
}

/**
 * When the steps of one board are done, from the one scheduler: with all that the shop has in work, or alone.
 * @param own the board as it is planned now, which may be newer than what the shop knows of it
 * @param from minutes since 1970 @param zone an IANA name
 */
export function timesOfBoard(
  own: WorkDue,
  beside: ShopBeside | null,
  shop: Parameters<typeof shopProblem>[1],
  zone: string,
  from: number,
): BoardTimes {
  const id = own.work.board;
  const boards = beside ? beside.boards.map((b) => (b.work.board === id ? own : b)) : [own];
  const problem = shopProblem(boards, shop, zone, from);
  const schedule = firstSchedule(problem, beside?.order);
  const placed = [...schedule.placed.values()]
    .filter((p) => p.task.board === id)
    .sort((a, b) => firstOf(a.hands).from - firstOf(b.hands).from);
  return { problem, schedule, placed };
}
