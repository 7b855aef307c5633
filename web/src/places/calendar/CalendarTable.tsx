import { Link } from 'react-router';
import { firstOf, lastOf } from '#core/lists/there.ts';
import { resourceName } from '#core/schedule/resources.ts';
import type { WorkTask } from '#core/schedule/work.ts';
import { durationWords } from '../../quantities/duration.ts';
import { Say } from '../../quantities/Length.tsx';
import { momentWords } from '../../scheduling/momentWords.ts';
import type { ShopSchedule } from '../../scheduling/useShopSchedule.ts';
import { partWords } from '../today/stepWords.ts';
import classes from './CalendarPlace.module.css';

/** Every step that is to be done, in the order of time. */
export function CalendarTable({ data, onChoose }: { data: ShopSchedule; onChoose(task: string): void }) {
  const { work, problem, schedule, latest } = data;
  const words = momentWords(work.zone, problem.from);
  const boards = new Map(work.boards.map((b) => [b.id, b.work.name]));
  const people = new Map(work.shop.people.map((p) => [p.id, p.name]));
  const placed = [...schedule.placed.values()].sort((a, b) => firstOf(a.hands).from - firstOf(b.hands).from);
  return (
    <div className={classes.tableBox} tabIndex={0} role="region" aria-label="Steps of all boards in time">
      <table className={classes.table}>
        <thead>
          <tr>
            {['Begins', 'Takes', 'Step', 'Board', 'Who', 'Machine', 'Until', 'At the latest', ''].map((h) => (
              <th key={h}>{h === '' ? <span className={classes.hidden}>Pin</span> : h}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {placed.map((p) => {
            const task = p.task as WorkTask;
            const by = latest.get(task.id);
            return (
              <tr key={task.id}>
                <td>{words.moment(firstOf(p.hands).from)}</td>
                <td>{durationWords(p.hands.reduce((sum, h) => sum + h.to - h.from, 0))}</td>
                <td>
                  <Say phrase={task.title} />
                  {partWords(task)}
                </td>
                <td>
                  <Link to={`/boards/${task.board}/bench`}>{boards.get(task.board)}</Link>
                </td>
                <td>{p.people.map((id) => people.get(id) ?? id).join(', ')}</td>
                <td>{task.machines.map(resourceName).join(', ')}</td>
                <td>
                  {p.until > lastOf(p.hands).to + 1 ? `${words.moment(p.until)}, ${task.waitFor ?? 'waits'}` : ''}
                </td>
                <td>{by !== undefined && Number.isFinite(by) ? words.moment(by) : ''}</td>
                <td>
                  <button type="button" className={classes.pinButton} onClick={() => onChoose(task.id)}>
                    {task.pinned === null && task.person === null ? 'Pin' : 'Pinned'}
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
