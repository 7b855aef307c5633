import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Pin } from '#core/board/board.ts';
import { firstOf, lastOf } from '#core/lists/there.ts';
import { firstSchedule } from '#core/schedule/improve.ts';
import { dayAt, dayNumber, minuteOfDay, momentOf } from '#core/schedule/openings.ts';
import type { Placed, Schedule } from '#core/schedule/task.ts';
import type { WorkTask } from '#core/schedule/work.ts';
import { api } from '../../data/api.ts';
import { boardQuery } from '../../data/queries.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { durationWords } from '../../quantities/duration.ts';
import { Say } from '../../quantities/Length.tsx';
import { momentWords } from '../../scheduling/momentWords.ts';
import type { ShopSchedule } from '../../scheduling/useShopSchedule.ts';
import { showProblem } from '../../shell/notices.tsx';
import { benchPath, partWords } from '../today/stepWords.ts';
import classes from './CalendarPlace.module.css';

/** A step that somebody looks at, and where it was dragged to; null for where it lies. */
export interface PinWish {
  task: string;
  at: number | null;
}

interface PinPanelProps {
  data: ShopSchedule;
  placed: Placed;
  at: number | null;
  onClose(): void;
}

const ANYBODY = '';

/** A moment as a field for date and time has it, on the shop's clock: 2026-12-05T16:30. */
function fieldText(zone: string, minute: number): string {
  const day = dayAt(zone, minute);
  const within = Math.round(minute - momentOf(zone, day, 0));
  const two = (n: number) => String(n).padStart(2, '0');
  return `${new Date(day * 86_400_000).toISOString().slice(0, 10)}T${two(Math.floor(within / 60))}:${two(within % 60)}`;
}

/** @returns null for what is no date and time */
function momentIn(zone: string, text: string): number | null {
  const [, day, time] = /^(\d{4}-\d{2}-\d{2})T(\d{2}:\d{2})/.exec(text) ?? [];
  return day === undefined || time === undefined || Number.isNaN(Date.parse(day))
    ? null
    : momentOf(zone, dayNumber(day), minuteOfDay(time));
}

/** One step: when, by whom, with what; pinned to a time or a person, and what that costs. */
export function PinPanel({ data, placed, at, onClose }: PinPanelProps) {
  const { work, problem, schedule } = data;
  const task = placed.task as WorkTask;
  const board = work.boards.find((b) => b.id === task.board);
  const words = momentWords(work.zone, problem.from);
  const begins = firstOf(placed.hands).from;
  const [time, setTime] = useState(() => fieldText(work.zone, at ?? task.pinned ?? begins));
  const [person, setPerson] = useState(task.person ?? ANYBODY);
  const [busy, setBusy] = useState(false);
  const panel = useRef<HTMLElement>(null);
  useEffect(() => {
    // In newer browsers it answers a promise, which would be taken for what undoes the effect.
    void panel.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  const moment = momentIn(work.zone, time);
  const wantsTime = moment !== null && (at !== null || task.pinned !== null || Math.abs(moment - begins) > 0.5);
  const problemText =
    moment === null
      ? 'Begin at must be a date and a time.'
      : moment < problem.from && wantsTime
        ? 'Begin at lies in the past: a step can only be pinned to a time to come.'
        : null;
  const tried = useMemo(() => {
    if (moment === null || problemText !== null) return null;
    const tasks = problem.tasks.map((t) =>
      t.id === task.id ? { ...t, pinned: wantsTime ? moment : null, person: person === ANYBODY ? null : person } : t,
    );
    return firstSchedule({ ...problem, tasks }, schedule.order);
  }, [moment, person, problem, schedule, task.id, wantsTime, problemText]);
  const save = async (pin: Pick<Pin, 'at' | 'person'> | null) => {
    setBusy(true);
    try {
      const stored = await api.board(task.board);
      const others = stored.board.pins.filter((p) => p.step !== task.step || p.copy !== task.copy);
      const pins = pin ? [...others, { step: task.step, copy: task.copy, ...pin }] : others;
      await api.saveBoard(task.board, stored.revision, [
        { board: { ...stored.board, pins }, undo: stored.revision, redo: null },
      ]);
      await Promise.all([
        queryClient.invalidateQueries({ queryKey: keys.schedule }),
        queryClient.invalidateQueries({ queryKey: boardQuery(task.board).queryKey }),
      ]);
      onClose();
    } catch (error) {
      showProblem(error);
      setBusy(false);
    }
  };
  const who = person === ANYBODY ? null : person;
  return (
    <section ref={panel} className={classes.pinPanel} aria-label="The step">
      <h2>
        <Say phrase={task.title} />
        {partWords(task)}
      </h2>
      <p>
        <Link to={benchPath(task)}>{board?.work.name}</Link>, {words.moment(begins)} to{' '}
        {words.moment(lastOf(placed.hands).to)}
        {placed.shared && ', the machine set already'}
        {task.wait >= 1 && `, then ${durationWords(task.wait)} for ${task.waitFor ?? 'the next step'}`}
      </p>
      <div className={classes.pinFields}>
        {task.part === 1 && (
          <TextInput
            size="xs"
            type="datetime-local"
            label="Begin at"
            value={time}
            error={problemText}
            onChange={(event) => setTime(event.currentTarget.value)}
          />
        )}
        <NativeSelect
          size="xs"
          label="Done by"
          value={person}
          onChange={(event) => setPerson(event.currentTarget.value)}
          data={[
            { value: ANYBODY, label: 'Anybody' },
            ...work.shop.people.map((p) => ({ value: p.id, label: p.name })),
          ]}
        />
        <Button
          size="xs"
          disabled={busy || problemText !== null || (!wantsTime && who === null)}
          onClick={() =>
            void save({
              at: wantsTime && moment !== null ? new Date(moment * 60_000).toISOString() : null,
              person: who,
            })
          }
        >
          Pin it
        </Button>
        {(task.pinned !== null || task.person !== null) && (
          <Button size="xs" variant="default" disabled={busy} onClick={() => void save(null)}>
            Let it go
          </Button>
        )}
        <Button size="xs" variant="default" onClick={onClose}>
          Close
        </Button>
      </div>
      {tried && (
        <p role="status">
          <Cost before={schedule} after={tried} data={data} task={task.id} />
        </p>
      )}
    </section>
  );
}

/** What a pin costs: which boards are done later, and what is late with it. */
function Cost({ before, after, data, task }: { before: Schedule; after: Schedule; data: ShopSchedule; task: string }) {
  const words = momentWords(data.work.zone, data.problem.from);
  const names = new Map(data.work.boards.map((b) => [b.id, b.work.name]));
  if (after.loose.includes(task))
    return (
      <>
        It cannot begin then: what it comes after is not over, or nobody is there. It would begin{' '}
        {words.moment(firstOf(after.placed.get(task)?.hands ?? [{ from: 0, to: 0 }]).from)}.
      </>
    );
  const later = [...after.boards].flatMap(([id, times]) => {
    const own = before.boards.get(id);
    const by = own ? times.handled - own.handled : 0;
    return by > 5
      ? [`${names.get(id) ?? ''} ${durationWords(by)} later${(times.late ?? 0) > 0 ? ', and late' : ''}`]
      : [];
  });
  return (
    <>{later.length === 0 ? 'It costs nothing: every board is done as before.' : `It costs: ${later.join('; ')}.`}</>
  );
}
