import { Button } from '@mantine/core';
import { IconCalendarTime, IconLayoutGrid } from '@tabler/icons-react';
import { lazy, Suspense, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { BoardInWork } from '#contract/schedule.ts';
import { firstOf } from '#core/lists/there.ts';
import { TOOL_NAMES, type ToolId } from '#core/shop/tools.ts';
import { eveningsOf, firstWithRoom } from '#core/schedule/evenings.ts';
import { setUpsOf, type SetUp } from '#core/schedule/setUps.ts';
import type { Placed } from '#core/schedule/task.ts';
import type { WorkTask } from '#core/schedule/work.ts';
import { durationWords } from '../../quantities/duration.ts';
import { Length, Say } from '../../quantities/Length.tsx';
import { momentWords, type MomentWords } from '../../scheduling/momentWords.ts';
import { StillWorking } from '../../scheduling/StillWorking.tsx';
import { decideWork, takenUp, useShopSchedule, type ShopSchedule } from '../../scheduling/useShopSchedule.ts';
import { showProblem } from '../../shell/notices.tsx';
import { DemoNote } from '../../shell/DemoNote.tsx';
import { DueList } from './DueList.tsx';
import { benchPath, partWords } from './stepWords.ts';
import classes from './TodayPlace.module.css';

const DeadlineDialog = lazy(async () => ({ default: (await import('./DeadlineDialog.tsx')).DeadlineDialog }));

/** What can be done now over all boards, what is waited for, what is due, and what fits into the next evenings. */
export function TodayPlace() {
  const { data, error } = useShopSchedule();
  const [asked, setAsked] = useState<BoardInWork | null>(null);
  if (!data)
    return (
      <div className={classes.page}>
        <h1>Today</h1>
        {error && (
          <p role="alert" className={classes.bad}>
            {error.message} Cadenza keeps trying.
          </p>
        )}
      </div>
    );
  const words = momentWords(data.work.zone, data.problem.from);
  return (
    <div className={classes.page}>
      <Head data={data} words={words} />
      <DemoNote />
      <div className={classes.columns}>
        <div>
          <NowList data={data} words={words} />
          <Openings data={data} words={words} />
        </div>
        <div>
          <DueList data={data} words={words} onAsk={setAsked} />
          <Waiting data={data} words={words} />
          <Idle data={data} words={words} />
        </div>
      </div>
      {asked && (
        <Suspense>
          <DeadlineDialog data={data} board={asked} onClose={() => setAsked(null)} />
        </Suspense>
      )}
    </div>
  );
}

interface PartProps {
  data: ShopSchedule;
  words: MomentWords;
}

/** Whether somebody is in the shop, and when everything is done. */
function Head({ data: { work, problem, schedule, search }, words }: PartProps) {
  const { from, people } = problem;
  const open = people.flatMap((p) => p.open.filter((o) => o.from <= from && o.to > from));
  const next = Math.min(...people.flatMap((p) => p.open.filter((o) => o.from > from).map((o) => o.from)));
  const ends = Math.max(...[...schedule.boards.values()].map((b) => b.handled));
  return (
    <header className={classes.head}>
      <h1>Today</h1>
      <p>
        {words.day(from)}, {words.clock(from)}.{' '}
        {open.length > 0
          ? `The shop is open until ${words.clock(Math.max(...open.map((o) => o.to)))}.`
          : Number.isFinite(next)
            ? `The shop opens ${words.moment(next)}.`
            : 'Nobody comes any more: see the hours in the shop.'}
        {Number.isFinite(ends) && ` All that is in work is done by ${words.moment(ends)}.`}
      </p>
      <Button component={Link} to="/calendar" variant="default" size="xs" leftSection={<IconCalendarTime size={16} />}>
        Calendar
      </Button>
      <Button component={Link} to="/boards" variant="default" size="xs" leftSection={<IconLayoutGrid size={16} />}>
        All boards
      </Button>
      <StillWorking work={work} />
      {search.running && <small role="status">Looking for a better order …</small>}
    </header>
  );
}

/** Steps that nothing stands before, one set-up at a time. */
function NowList({ data, words }: PartProps) {
  const { problem, schedule, work } = data;
  const { from } = problem;
  const next = Math.min(
    ...problem.people.flatMap((p) => p.open.filter((o) => o.to > from).map((o) => Math.max(o.from, from))),
  );
  const groups = useMemo(() => {
    const ready = [...schedule.placed.values()]
      .filter(({ task }) => task.after.length === 0 && task.notBefore <= next + 1)
      .sort((a, b) => firstOf(a.hands).from - firstOf(b.hands).from);
    return setUpsOf(ready);
  }, [schedule, next]);
  const open = next <= from + 1;
  return (
    <section aria-label="Now">
      <h2>{open ? 'Now' : Number.isFinite(next) ? `When the shop opens, ${words.moment(next)}` : 'Now'}</h2>
      {groups.length === 0 && (
        <p className={classes.soft}>
          {work.boards.length === 0
            ? 'Nothing is in work. Take a board up, or give one a day.'
            : 'Nothing can be done just now: everything waits.'}
        </p>
      )}
      <ol className={classes.now}>
        {groups.map((group) => (
          <SetUpRow key={firstOf(group.steps).task.id} group={group} data={data} words={words} />
        ))}
      </ol>
    </section>
  );
}

function SetUpRow({ group, data, words }: PartProps & { group: SetUp }) {
  const { machine, setting, steps } = group;
  const boards = new Set(steps.map((s) => s.task.board)).size;
  return (
    <li className={classes.setUp} data-shared={setting ? true : undefined}>
      {setting && machine !== null && (
        <p className={classes.setting}>
          {TOOL_NAMES[machine as ToolId]} at <Length mm={setting.value.mm} rounding={setting.value.rounding} />:{' '}
          <b>{boards} boards</b>, set once
        </p>
      )}
      <ul>
        {steps.map((placed) => (
          <StepRow key={placed.task.id} placed={placed} data={data} words={words} />
        ))}
      </ul>
    </li>
  );
}

/** A step that can be begun, with the press that begins it. */
function StepRow({ placed, data: { work, latest, problem }, words }: PartProps & { placed: Placed }) {
  const task = placed.task as WorkTask;
  const board = work.boards.find((b) => b.id === task.board);
  const by = latest.get(task.id);
  const late = by !== undefined && by < firstOf(placed.hands).from - 1;
  return (
    <li className={classes.step}>
      <Link
        to={benchPath(task)}
        className={classes.begin}
        aria-label={`Begin: ${board?.work.name ?? ''}, step ${task.number}`}
      >
        Begin
      </Link>
      <span className={classes.what}>
        <b>
          <Say phrase={task.title} />
        </b>
        {partWords(task)}
        <span>
          {board?.work.name} · {durationWords(task.minutes)}
          {task.wait >= 1 && `, then ${durationWords(task.wait)} for ${task.waitFor ?? 'the next step'}`}
        </span>
      </span>
      <span className={classes.when} data-late={late || undefined}>
        {firstOf(placed.hands).from > problem.from + 1 && words.moment(firstOf(placed.hands).from)}
        {by !== undefined && Number.isFinite(by) && (
          <small>
            {late ? 'should have begun ' : 'at the latest '}
            {words.moment(by)}
          </small>
        )}
      </span>
    </li>
  );
}

/** So many evenings ahead are told, and so many are looked through for free time. */
const EVENINGS = 3;
const LOOKED_THROUGH = 21;

/** What is done in the next openings, and how much of them stays free. */
function Openings({ data: { problem, schedule, work }, words }: PartProps) {
  const names = new Map(work.boards.map((b) => [b.id, b.work.name]));
  return (
    <section aria-label="The next evenings">
      <h2>Next in the shop</h2>
      {eveningsOf(problem, schedule, EVENINGS).map(({ from, to, steps, free }) => (
        <div key={from} className={classes.evening}>
          <h3>
            {words.moment(from)} to {words.clock(to)}
            <small>{free >= 1 ? `${durationWords(free)} free` : 'full'}</small>
          </h3>
          {steps.length === 0 ? (
            <p className={classes.soft}>Nothing to do then.</p>
          ) : (
            <table>
              <tbody>
                {steps.map(({ placed, hand }) => {
                  const task = placed.task as WorkTask;
                  return (
                    <tr key={`${task.id}-${hand.from}`}>
                      <td>{words.clock(hand.from)}</td>
                      <td>{durationWords(hand.to - hand.from)}</td>
                      <td>
                        <Say phrase={task.title} />
                        {partWords(task)}
                      </td>
                      <td>
                        <Link to={`/boards/${task.board}/bench`}>{names.get(task.board)}</Link>
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          )}
        </div>
      ))}
    </section>
  );
}

/** What is in clamps, soaks, drips and hardens, and until when. */
function Waiting({ data: { work, problem }, words }: PartProps) {
  const waits = work.boards
    .flatMap((b) => b.work.past.map((past) => ({ past, name: b.work.name, id: b.id })))
    .filter(({ past }) => past.until > problem.from)
    .sort((a, b) => a.past.until - b.past.until);
  if (waits.length === 0) return null;
  return (
    <section aria-label="Waiting">
      <h2>Waiting by itself</h2>
      <ul className={classes.waits}>
        {waits.map(({ past, name, id }) => {
          const whole = past.until - past.to;
          const gone = whole > 0 ? Math.min(1, Math.max(0, (problem.from - past.to) / whole)) : 1;
          return (
            <li key={`${id} ${past.step} ${past.copy}`}>
              <Link to={`/boards/${id}/bench`}>{name}</Link>: {past.waitFor ?? 'the next step'}
              {past.copy > 1 && `, panel ${past.copy}`}, until <b>{words.moment(past.until)}</b>
              <progress value={gone} max={1} aria-label={`${name}, ${past.waitFor ?? ''}`} />
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** Boards that nobody has taken up yet, and the next evening with room for each until it first waits. */
function Idle({ data: { work, problem, schedule }, words }: PartProps) {
  if (work.idle.length === 0) return null;
  const takeUp = (id: string) => decideWork(work, takenUp(id)).catch(showProblem);
  const evenings = eveningsOf(problem, schedule, LOOKED_THROUGH);
  return (
    <section aria-label="Could be begun">
      <h2>Could be begun</h2>
      <ul className={classes.idle}>
        {work.idle.map(({ id, name, minutes, untilWait, waiting }) => {
          const room = firstWithRoom(evenings, untilWait);
          return (
            <li key={id}>
              <Link to={`/boards/${id}/layout`}>{name}</Link>
              <span className={classes.soft}>
                {durationWords(minutes)} of work{waiting && ', put off'}
                <small>
                  {durationWords(untilWait)} until it first waits
                  {room ? `: fits ${words.moment(room.from)}` : ': no evening has room for that'}
                </small>
              </span>
              <Button size="xs" variant="default" onClick={() => void takeUp(id)} aria-label={`Take up ${name}`}>
                Take up
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
