import { Button, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  earlyBy,
  eventsOf,
  isRunOf,
  lateBy,
  runDue,
  runTitle,
  type RunDue,
  type RunEvent,
} from '#core/gluing/glueRun.ts';
import type { GlueUp } from '#core/gluing/glueUps.ts';
import { glueUpsOf } from '#core/plan/trimAgain.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import type { StoredRun } from '#contract/glueRuns.ts';
import { clockWords, durationWords } from '../../quantities/duration.ts';
import classes from './RunPanel.module.css';
import { useNow, useRuns, useScreenOn } from '../../data/useRuns.ts';

const WORDS: Record<RunEvent, string> = {
  firstClamp: 'Joints closed, first clamp',
  lastClamp: 'Last clamp tight',
  scraped: 'Squeeze-out off',
  outOfClamps: 'Out of the clamps',
};
const CLOCK = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });
const DAY_CLOCK = new Intl.DateTimeFormat(undefined, { weekday: 'short', hour: '2-digit', minute: '2-digit' });

/** The timed glue-up: one big clock, what is due when, and what happened; late and early are noted. */
export function RunPanel({ glueUp }: { glueUp: GlueUp }) {
  const { id, plan } = useSettledBoard();
  const { query, start, change } = useRuns(id);
  const copies = plan.allowances.panels.length;
  const [copy, setCopy] = useState(1);
  const all = query.data?.runs ?? [];
  const runs = all.filter((r) => isRunOf(r, glueUp) && r.copy === copy);
  // Of groups that are no longer planned: they are kept, and a clock that runs can be stopped.
  const others = all.filter((r) => r.copy > copies || !glueUpsOf(plan).some((g) => isRunOf(r, g)));
  const running = runs.find((r) => r.endedAt === null);
  const past = runs.filter((r) => r.endedAt !== null);
  const now = useNow(running !== undefined || others.some((r) => r.endedAt === null), query.data?.ahead ?? 0);
  useScreenOn(running !== undefined);
  const due = runDue(
    glueUp,
    { open: plan.gluing.openMinutes, closed: plan.gluing.usableMinutes, skins: plan.gluing.skinMinutes },
    plan.shop,
  );
  return (
    <div className={classes.panel}>
      {copies > 1 && (
        <Select
          size="sm"
          label="Panel"
          className={classes.copy}
          allowDeselect={false}
          value={String(copy)}
          data={Array.from({ length: copies }, (_, i) => ({ value: String(i + 1), label: `${i + 1} of ${copies}` }))}
          onChange={(v) => setCopy(Number(v))}
        />
      )}
      {running ? (
        <Running
          run={running}
          now={now}
          events={eventsOf(plan.shop)}
          onChange={(what) => change.mutate({ run: running, change: what })}
        />
      ) : (
        <>
          <DueList due={due} scrapes={eventsOf(plan.shop).includes('scraped')} />
          <Button
            size="lg"
            loading={start.isPending}
            disabled={!query.data}
            onClick={() => start.mutate({ glueUp: glueUp.id, copy, due, title: runTitle(glueUp) })}
          >
            First glue is on: start the clock
          </Button>
          {query.isError && (
            <p className={classes.note} role="alert">
              The clocks cannot be read: {query.error.message}
            </p>
          )}
        </>
      )}
      {past.length > 0 && (
        <details className={classes.past}>
          <summary>Done before: {past.length}</summary>
          {past.map((r) => (
            <PastRun key={r.id} run={r} />
          ))}
        </details>
      )}
      {others.length > 0 && (
        <details className={classes.past} open={others.some((r) => r.endedAt === null)}>
          <summary>Of groups no longer planned: {others.length}</summary>
          {others.map((r) =>
            r.endedAt === null ? (
              <Running
                key={r.id}
                run={r}
                now={now}
                events={eventsOf(plan.shop)}
                onChange={(what) => change.mutate({ run: r, change: what })}
              />
            ) : (
              <PastRun key={r.id} run={r} />
            ),
          )}
        </details>
      )}
    </div>
  );
}

function DueList({ due, scrapes }: { due: RunDue; scrapes: boolean }) {
  return (
    <dl className={classes.due}>
      <div>
        <dt>Joints closed by</dt>
        <dd>{clockWords(due.firstClamp)}</dd>
      </div>
      <div>
        <dt>Last clamp by</dt>
        <dd>{clockWords(due.lastClamp)}</dd>
      </div>
      {scrapes && (
        <div>
          <dt>Scrape</dt>
          <dd>
            {durationWords(due.scrapeFrom)} to {durationWords(due.scrapeTo)}
          </dd>
        </div>
      )}
      <div>
        <dt>Out of clamps after</dt>
        <dd>{durationWords(due.outOfClamps)}</dd>
      </div>
      <div>
        <dt>Full strength after</dt>
        <dd>{durationWords(due.fullStrength)}</dd>
      </div>
    </dl>
  );
}

interface RunningProps {
  run: StoredRun;
  events: readonly RunEvent[];
  now: number;
  onChange(change: { mark?: RunEvent; unmark?: RunEvent; note?: string; end?: boolean }): void;
}

/** What comes next counts down; big enough to be read from two metres. */
function Running({ run, now, events, onChange }: RunningProps) {
  const started = new Date(run.startedAt).getTime();
  const gone = (now - started) / 60_000;
  const { due, marks } = run.run;
  const [note, setNote] = useState(run.run.note);
  const happened = (event: RunEvent) => marks.find((m) => m.event === event);
  const next = events.find((e) => !happened(e));
  const limits: Record<RunEvent, number> = {
    firstClamp: due.firstClamp,
    lastClamp: due.lastClamp,
    scraped: gone < due.scrapeFrom ? due.scrapeFrom : due.scrapeTo,
    outOfClamps: due.outOfClamps,
  };
  const left = next ? limits[next] - gone : 0;
  const says =
    next === 'scraped'
      ? gone < due.scrapeFrom
        ? 'until it can be scraped'
        : 'left to scrape it'
      : next === 'outOfClamps'
        ? 'until it may come out of the clamps'
        : 'left';
  return (
    <>
      <p className={classes.clock} data-late={(left < 0 && next !== 'outOfClamps') || undefined}>
        <b role="timer" aria-live="off">
          {clockWords(next ? left : gone)}
        </b>
        <span>
          {next
            ? left < 0
              ? next === 'outOfClamps'
                ? 'It may come out of the clamps'
                : `${WORDS[next]}: late`
              : `${WORDS[next]}: ${says}`
            : 'since the first glue'}
        </span>
      </p>
      <p className={classes.note}>
        Glue on at {CLOCK.format(started)}. The clock is the server&apos;s: it goes on over a reload, a locked screen,
        and on other devices. Full strength at {DAY_CLOCK.format(started + due.fullStrength * 60_000)}.
      </p>
      <ol className={classes.events}>
        {events.map((event) => {
          const mark = happened(event);
          const at = started + limits[event] * 60_000;
          return (
            <li key={event} data-done={mark !== undefined || undefined}>
              <Button
                size="md"
                variant={event === next ? 'filled' : 'default'}
                onClick={() => onChange(mark ? { unmark: event } : { mark: event })}
                aria-pressed={mark !== undefined}
              >
                {WORDS[event]}
              </Button>
              <span>
                {mark ? (
                  <>
                    at {clockWords(mark.minutes)}
                    <Judged event={event} minutes={mark.minutes} due={due} />
                  </>
                ) : event === 'outOfClamps' ? (
                  `from ${CLOCK.format(at)}`
                ) : event === 'scraped' ? (
                  `${CLOCK.format(started + due.scrapeFrom * 60_000)} to ${CLOCK.format(started + due.scrapeTo * 60_000)}`
                ) : (
                  `by ${clockWords(limits[event])}`
                )}
              </span>
            </li>
          );
        })}
      </ol>
      <div className={classes.end}>
        <TextInput
          size="sm"
          label="What went wrong, or well"
          value={note}
          maxLength={300}
          onChange={(e) => setNote(e.currentTarget.value)}
          onBlur={() => note !== run.run.note && onChange({ note })}
        />
        <Button variant="default" onClick={() => onChange({ note, end: true })}>
          {next ? 'Stop the clock' : 'Done'}
        </Button>
      </div>
    </>
  );
}

function Judged({ event, minutes, due }: { event: RunEvent; minutes: number; due: RunDue }) {
  const late = lateBy(event, minutes, due);
  const early = earlyBy(event, minutes, due);
  if (late > 0) return <b className={classes.bad}>, {durationWords(late)} late</b>;
  if (early > 0) return <b className={classes.bad}>, {durationWords(early)} too soon</b>;
  return <>, in time</>;
}

function PastRun({ run }: { run: StoredRun }) {
  return (
    <p>
      {new Date(run.startedAt).toLocaleString()}:{' '}
      {run.run.marks.map((m) => (
        <span key={m.event}>
          {WORDS[m.event]} at {clockWords(m.minutes)}
          <Judged event={m.event} minutes={m.minutes} due={run.run.due} />.{' '}
        </span>
      ))}
      {run.run.note}
    </p>
  );
}
