import { stillToDo } from '#core/plan/plan.ts';
import { firstOf, lastOf, nth } from '#core/lists/there.ts';
import { useMemo, useState, type ReactNode } from 'react';
import { meanwhileOf, timelineOf, type Glued, type Meanwhile, type TimelineTask } from '#core/schedule/timeline.ts';
import type { StoredRun } from '#contract/glueRuns.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { durationWords } from '../../quantities/duration.ts';
import { Say } from '../../quantities/Length.tsx';
import { minuteOfWeek } from '../../quantities/minuteOfWeek.ts';
import { useRuns } from './useRuns.ts';
import { Scrolled } from '../../shell/Scrolled.tsx';
import { useMinute } from '../../shell/useTime.ts';
import classes from './TimelineDrawing.module.css';
import { isRunOf } from '#core/gluing/glueRun.ts';
import type { GlueUp } from '#core/gluing/glueUps.ts';
import { glueUpsOf } from '#core/plan/trimAgain.ts';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const DAY = 1440;
const ROW = 24;
const LABEL = 150;
const WIDTH = 694;
const HEAD = 22;

const dayName = (day: number) => DAYS[((day % 7) + 7) % 7];

/** A minute of the timeline as a day and a time. */
function whenWords(minute: number): string {
  const week = Math.floor(minute / (7 * DAY));
  const clock = Math.round(minute - Math.floor(minute / DAY) * DAY);
  return `${dayName(Math.floor(minute / DAY))}${week > 0 ? `, week ${week + 1}` : week < 0 ? ' of a week before' : ''} ${String(Math.floor(clock / 60)).padStart(2, '0')}:${String(clock % 60).padStart(2, '0')}`;
}

/** Glue-ups that were begun, in minutes of this week; the newest run of a panel counts. */
function gluedOf(runs: readonly StoredRun[], glueUps: readonly GlueUp[]): Glued[] {
  const monday = Date.now() - minuteOfWeek(new Date()) * 60_000;
  const minute = (iso: string) => Math.floor((new Date(iso).getTime() - monday) / 60_000);
  return runs.flatMap((stored) => {
    const planned = glueUps.find((g) => isRunOf(stored, g));
    if (!planned) return [];
    const { copy, startedAt, endedAt, run } = stored;
    const from = minute(startedAt);
    return {
      glueUp: planned.id,
      copy,
      from,
      until: endedAt === null ? from + run.due.outOfClamps : Math.max(from, minute(endedAt)),
    };
  });
}

/** The board from the first cut to the last coat in the shop's hours: hands, machines and clamps as rows, waits in between. Begun on a Monday, or now. */
export function TimelineDrawing() {
  const {
    id,
    input: { facts },
    plan: { operations, shop, gluing, stacks, again, frame, back },
  } = useSettledBoard();
  const open = useMemo(() => stillToDo(operations, facts), [operations, facts]);
  const glueUps = useMemo(
    () => glueUpsOf({ gluing, stacks, again, frame, back }),
    [gluing, stacks, again, frame, back],
  );
  const {
    query: { data },
  } = useRuns(id);
  const glued = useMemo(() => gluedOf(data?.runs ?? [], glueUps), [data?.runs, glueUps]);
  const [chosen, setBegin] = useState<number | null>(null);
  // What was begun at the bench goes on from now.
  const now = minuteOfWeek(new Date(useMinute()));
  const begin = glued.length > 0 ? (chosen ?? now) : chosen;
  const timeline = useMemo(() => timelineOf(open, shop, begin ?? 0, glued), [begin, open, shop, glued]);
  if (timeline.tasks.length === 0) return null;
  const rows = [...new Set(timeline.tasks.map((t) => rowOf(t)))].concat('Clamps', 'Waiting');
  const first = Math.floor(timeline.from / DAY) * DAY;
  const days = Math.max(1, Math.ceil((timeline.to - first) / DAY));
  const x = (minute: number) => LABEL + ((minute - first) / (days * DAY)) * (WIDTH - LABEL);
  const y = (row: string) => HEAD + rows.indexOf(row) * ROW;
  const height = HEAD + rows.length * ROW + 4;
  const wide = (from: number, to: number) => Math.max(2.5, x(to) - x(from));
  return (
    <figure className={classes.figure}>
      <Scrolled name="Timeline">
        <svg
          viewBox={`0 0 ${WIDTH} ${height}`}
          className={classes.drawing}
          role="img"
          aria-label={`Timeline: ${durationWords(timeline.handsMinutes)} hands-on, ready ${whenWords(timeline.to)}`}
        >
          {Array.from({ length: days }, (_, d) => (
            <g key={d}>
              <path className={classes.day} d={`M${x(first + d * DAY)} 0V${height}`} />
              {(days <= 12 || d % 7 === 0) && (
                <text className={classes.dayName} x={x(first + d * DAY) + 4} y={14}>
                  {days <= 12 ? dayName(Math.floor(first / DAY) + d) : `week ${Math.floor(d / 7) + 1}`}
                </text>
              )}
            </g>
          ))}
          {rows.map((row) => (
            <text key={row} className={classes.row} x={0} y={y(row) + 15}>
              {row}
            </text>
          ))}
          {timeline.tasks.map((t) => (
            <g key={t.id} className={classes.task} data-critical={t.critical || undefined}>
              <title>{`${t.step}`}</title>
              {t.hands.map((h) => (
                <rect
                  key={h.from}
                  className={classes.hands}
                  x={x(h.from)}
                  y={y(rowOf(t)) + 4}
                  width={wide(h.from, h.to)}
                  height={ROW - 8}
                />
              ))}
              {t.clamps > 0 && (
                <rect
                  className={classes.clamps}
                  x={x(firstOf(t.hands).from)}
                  y={y('Clamps') + 4}
                  width={wide(firstOf(t.hands).from, t.until)}
                  height={((ROW - 8) * t.clamps) / Math.max(1, timeline.clamps)}
                />
              )}
              {t.until > lastOf(t.hands).to + 1 && (
                <rect
                  className={classes.wait}
                  x={x(lastOf(t.hands).to)}
                  y={y('Waiting') + 8}
                  width={wide(lastOf(t.hands).to, t.until)}
                  height={ROW - 16}
                />
              )}
            </g>
          ))}
        </svg>
      </Scrolled>
      <figcaption>
        {glued.length > 0 ? (
          <>
            From now, with {glued.length} glue-{glued.length === 1 ? 'up' : 'ups'} done or in clamps
          </>
        ) : begin === null ? (
          <>
            Begun when the shop opens on a Monday (
            <button type="button" className={classes.begin} onClick={() => setBegin(minuteOfWeek(new Date()))}>
              begin now instead
            </button>
            )
          </>
        ) : (
          <>
            Begun now (
            <button type="button" className={classes.begin} onClick={() => setBegin(null)}>
              on a Monday instead
            </button>
            )
          </>
        )}
        : {durationWords(timeline.handsMinutes)} hands-on,{' '}
        {timeline.panelReady !== null && (
          <>
            panel out of its clamps <b>{whenWords(timeline.panelReady)}</b>,{' '}
          </>
        )}
        finished at the earliest <b>{whenWords(timeline.to)}</b>. Dark: nothing there may be late.
      </figcaption>
      <Waits
        tasks={timeline.tasks}
        meanwhile={(t) => meanwhileOf(timeline.tasks, t, shop)}
        titleOf={(t) => <Say phrase={nth(operations, t.step - 1).title} />}
      />
      <details className={classes.list}>
        <summary>When each step is, and what can wait</summary>
        <ol>
          {timeline.tasks.map((t) => (
            <li key={t.id}>
              <b>{whenWords(firstOf(t.hands).from)}</b> <Say phrase={nth(operations, t.step - 1).title} />
              {t.copy > 1 && `, panel ${t.copy}`}, {durationWords(t.hands.reduce((sum, h) => sum + h.to - h.from, 0))}
              {t.until > lastOf(t.hands).to + 1 &&
                `, then waiting for ${t.waitFor ?? 'it'} until ${whenWords(t.until)}`}
              {t.critical ? '' : `; may be ${durationWords(t.slack)} late`}
            </li>
          ))}
        </ol>
      </details>
    </figure>
  );
}

interface WaitsProps {
  tasks: readonly TimelineTask[];
  meanwhile(task: TimelineTask): Meanwhile | null;
  titleOf(task: TimelineTask): ReactNode;
}

/** What can be done while glue sets, wood rests and oil soaks in. */
function Waits({ tasks, meanwhile, titleOf }: WaitsProps) {
  const waits = tasks.flatMap((task) => {
    const found = meanwhile(task);
    return found ? [{ task, ...found }] : [];
  });
  if (waits.length === 0) return null;
  return (
    <section className={classes.waits}>
      <h3>While it waits</h3>
      <ul>
        {waits.map(({ task, tasks: others, freeMinutes }) => (
          <li key={task.id}>
            {titleOf(task)}
            {task.copy > 1 && `, panel ${task.copy}`}: waiting for {task.waitFor ?? 'it'} until {whenWords(task.until)}.{' '}
            {others.length > 0 && (
              <>
                Meanwhile{' '}
                {others.slice(0, 3).map((t, i) => (
                  <span key={t.id}>
                    {i > 0 && '; '}
                    {titleOf(t)}
                  </span>
                ))}
                {others.length > 3 && `, and ${others.length - 3} more`}.{' '}
              </>
            )}
            {freeMinutes > 1
              ? `${durationWords(freeMinutes)} of shop time free for another board.`
              : others.length === 0 && 'The shop is closed all the while.'}
          </li>
        ))}
      </ul>
    </section>
  );
}

function rowOf(task: TimelineTask): string {
  return task.machine?.split(',')[0] ?? 'Hands';
}
