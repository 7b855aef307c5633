import { entryOf, firstOf, lastOf } from '../lists/there.ts';
import { firstSchedule } from './improve.ts';
import type { Placed, Schedule, ScheduleProblem } from './task.ts';
import type { WorkTask } from './work.ts';

const DAY = 1440;

/** The same shop with one board alone. */
export function alone(problem: ScheduleProblem, board: string): ScheduleProblem {
  return {
    ...problem,
    tasks: problem.tasks.filter((t) => t.board === board),
    dues: new Map([...problem.dues].filter(([id]) => id === board)),
  };
}

const days = (minutes: number): string =>
  minutes >= 2 * DAY ? `${Math.round((minutes / DAY) * 10) / 10} days` : `${Math.round(minutes / 6) / 10} h`;

/** Why a board is late, in words for makers: its finish, its own waits, or others before it. The board must be late. */
export function whyLate(problem: ScheduleProblem, schedule: Schedule, board: string): string {
  const due = entryOf(problem.dues, board);
  const times = entryOf(schedule.boards, board);
  const hardens = times.used - times.handled;
  if (due.at <= problem.from) return 'its day is past.';
  if (due.cured && times.handled <= due.at) return `it is dry by then, but its finish hardens ${days(hardens)} more.`;
  const own = firstSchedule(alone(problem, board)).boards.get(board);
  const ownLate = own?.late ?? 0;
  if (ownLate > 0) {
    const waits = [...schedule.placed.values()].filter((p) => p.task.board === board && p.task.wait >= 60);
    const longest = waits.reduce<Placed | null>((most, p) => (p.task.wait > (most?.task.wait ?? 0) ? p : most), null);
    const what = longest ? (longest.task as WorkTask).waitFor : null;
    return `even with the shop to itself it would be ${days(ownLate)} late${what ? `; longest of all it waits for ${what}` : ''}.`;
  }
  const others = [...schedule.placed.values()]
    .filter((p) => p.task.board !== board && firstOf(p.hands).from < times.handled)
    .reduce((sum, p) => sum + lastOf(p.hands).to - firstOf(p.hands).from, 0);
  return others > 0
    ? `with the shop to itself it would be in time by ${days(-ownLate)}; other boards come before it.`
    : 'its work does not fit into the hours there are.';
}
