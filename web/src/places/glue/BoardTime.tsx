import { Button } from '@mantine/core';
import { IconCalendarTime } from '@tabler/icons-react';
import { Link } from 'react-router';
import { firstOf, lastOf } from '#core/lists/there.ts';
import { meanwhileOf } from '#core/schedule/meanwhile.ts';
import type { Placed } from '#core/schedule/task.ts';
import type { WorkTask } from '#core/schedule/work.ts';
import { durationWords } from '../../quantities/duration.ts';
import { Say } from '../../quantities/Length.tsx';
import { momentWords } from '../../scheduling/momentWords.ts';
import { useBoardTimes } from '../../scheduling/useBoardTimes.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import classes from './BoardTime.module.css';

const workOf = (placed: Placed): WorkTask => placed.task as WorkTask;
const minutesOf = ({ hands }: Placed): number => hands.reduce((sum, h) => sum + h.to - h.from, 0);
/** More than these are not named. */
const MOST_NAMED = 3;

/** When the board is glued and finished, what can be done while it waits, and when each step is. */
export function BoardTime() {
  const { id } = useSettledBoard();
  const { placed, schedule, problem, zone, inShop } = useBoardTimes();
  if (placed.length === 0) return null;
  const words = momentWords(zone, problem.from);
  const gluing = placed.filter((p) => workOf(p).kind === 'glue' || workOf(p).kind === 'join');
  const times = schedule.boards.get(id);
  const all = [...schedule.placed.values()];
  const waits = placed.flatMap((p) => {
    const meanwhile = meanwhileOf(all, p, problem);
    return meanwhile ? [{ placed: p, ...meanwhile }] : [];
  });
  const title = (p: Placed) => (
    <>
      <Say phrase={workOf(p).title} />
      {workOf(p).copies > 1 && `, panel ${workOf(p).copy}`}
    </>
  );
  return (
    <div className={classes.times}>
      <p>
        {inShop ? 'Among all that is in work' : 'Begun now, with nothing else in work'}:{' '}
        {durationWords(placed.reduce((sum, p) => sum + minutesOf(p), 0))} hands-on,{' '}
        {gluing.length > 0 && (
          <>
            panel out of its clamps <b>{words.moment(Math.max(...gluing.map((p) => p.until)))}</b>,{' '}
          </>
        )}
        {times && Number.isFinite(times.handled) ? (
          <>
            finished <b>{words.moment(times.handled)}</b>.
          </>
        ) : (
          'and nobody comes to finish it: see the hours in the shop.'
        )}
      </p>
      {inShop && (
        <Button
          component={Link}
          to="/calendar"
          variant="default"
          size="xs"
          leftSection={<IconCalendarTime size={16} />}
        >
          In the calendar
        </Button>
      )}
      {waits.length > 0 && (
        <details>
          <summary>What to do while it waits</summary>
          <ul>
            {waits.map(({ placed: p, others, freeMinutes }) => (
              <li key={p.task.id}>
                {title(p)}: waiting for {workOf(p).waitFor ?? 'it'} until {words.moment(p.until)}.{' '}
                {others.length > 0 && (
                  <>
                    Meanwhile{' '}
                    {others.slice(0, MOST_NAMED).map((o, i) => (
                      <span key={o.task.id}>
                        {i > 0 && '; '}
                        <Say phrase={workOf(o).title} />
                      </span>
                    ))}
                    {others.length > MOST_NAMED && `, and ${others.length - MOST_NAMED} more`}.{' '}
                  </>
                )}
                {freeMinutes > 1
                  ? `${durationWords(freeMinutes)} of shop time free.`
                  : others.length === 0 && 'The shop is closed all the while.'}
              </li>
            ))}
          </ul>
        </details>
      )}
      <details>
        <summary>When each step is</summary>
        <ol>
          {placed.map((p) => (
            <li key={p.task.id}>
              <b>{words.moment(firstOf(p.hands).from)}</b> {title(p)}, {durationWords(minutesOf(p))}
              {p.until > lastOf(p.hands).to + 1 &&
                `, then waiting for ${workOf(p).waitFor ?? 'it'} until ${words.moment(p.until)}`}
            </li>
          ))}
        </ol>
      </details>
    </div>
  );
}
