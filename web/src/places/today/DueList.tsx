import { useMemo } from 'react';
import { Link } from 'react-router';
import type { BoardInWork } from '#contract/schedule.ts';
import { whyLate } from '#core/schedule/whyLate.ts';
import { durationWords } from '../../quantities/duration.ts';
import type { MomentWords } from '../../scheduling/momentWords.ts';
import { decideWork, putOff, type ShopSchedule } from '../../scheduling/useShopSchedule.ts';
import { showProblem } from '../../shell/notices.tsx';
import classes from './TodayPlace.module.css';

interface DueListProps {
  data: ShopSchedule;
  words: MomentWords;
  onAsk(board: BoardInWork): void;
}

/** Boards in work, those with a day first: whether they make it, by how much, and why not. */
export function DueList({ data, words, onAsk }: DueListProps) {
  const { work, problem, schedule } = data;
  const rows = useMemo(
    () =>
      work.boards
        .filter((b) => b.work.tasks.length > 0 || (b.due !== null && !isPast(data, b)))
        .sort(
          (a, b) =>
            (problem.dues.get(a.id)?.at ?? Infinity) - (problem.dues.get(b.id)?.at ?? Infinity) ||
            (a.work.name < b.work.name ? -1 : 1),
        ),
    [work, problem, data],
  );
  if (rows.length === 0) return null;
  return (
    <section aria-label="In work">
      <h2>In work</h2>
      <ul className={classes.due}>
        {rows.map((board) => {
          const times = schedule.boards.get(board.id);
          const due = problem.dues.get(board.id);
          const late = times?.late ?? null;
          const isLate = late !== null && late > 0;
          return (
            <li key={board.id} data-late={isLate || undefined}>
              <p>
                <Link to={`/boards/${board.id}/bench`}>{board.work.name}</Link>
                {due && (
                  <span>
                    {due.cured ? 'usable by ' : 'dry by '}
                    {words.due(due.at)}
                  </span>
                )}
              </p>
              {times && (
                <p className={classes.soft}>
                  Dry {words.moment(times.handled)}
                  {times.used > times.handled + 1 && `, usable ${words.moment(times.used)}`}
                </p>
              )}
              {schedule.unplaced.some((id) => id.startsWith(`${board.id}/`)) && (
                <p className={classes.bad}>It is never done: nobody comes often enough. See the hours in the shop.</p>
              )}
              {isLate && due && (
                <p className={classes.bad}>
                  {durationWords(late)} late: {whyLate(problem, schedule, board.id)}
                </p>
              )}
              {late !== null && !isLate && times && (
                <p className={classes.good}>In time, with {durationWords(-late)} to spare.</p>
              )}
              <p className={classes.acts}>
                {isLate && (
                  <button
                    type="button"
                    data-first
                    onClick={() => onAsk(board)}
                    aria-label={`What would save ${board.work.name}`}
                  >
                    What would save it?
                  </button>
                )}
                <button
                  type="button"
                  onClick={() => void decideWork(work, putOff([board.id])).catch(showProblem)}
                  aria-label={`Put off ${board.work.name}`}
                >
                  Put off
                </button>
                <Link to={`/boards/${board.id}/brief`} aria-label={`${board.work.name}: the day it is due`}>
                  {due ? 'Another day' : 'Give it a day'}
                </Link>
              </p>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** Whether everything on a board was done and its day is over. */
const isPast = ({ problem }: ShopSchedule, board: BoardInWork): boolean =>
  board.work.tasks.length === 0 && (problem.dues.get(board.id)?.at ?? 0) < problem.from;
