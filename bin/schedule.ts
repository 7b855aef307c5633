import type { DueDay } from '#core/board/board.ts';
import { workOfPlan } from '#core/plan/boardWork.ts';
import { makePlan } from '#core/plan/plan.ts';
import { firstOf, lastOf } from '#core/lists/there.ts';
import { firstSchedule, Improver } from '#core/schedule/improve.ts';
import { dayNumber, minuteOfDay, momentOf } from '#core/schedule/openings.ts';
import { shopProblem } from '#core/schedule/shopProblem.ts';
import type { WorkTask } from '#core/schedule/work.ts';
import { phraseText } from '#core/units/phrase.ts';
import { MOST_SECONDS, readPairs, Refusal, refusing } from './boardArguments.ts';
import { readTogether } from './oneShop.ts';

const USAGE =
  'Usage: npm run -s schedule -- FILE [FILE ...] [--from 2026-11-30T18:00] [--deadline NAME=2026-12-12] [--seconds N]';
const USUAL_SECONDS = 5;
const METRIC = { system: 'metric', denominator: 32, metricStep: 0.1 } as const;
const DAY_TIME = /^(\d{4}-\d{2}-\d{2})(?:T([01]\d|2[0-3]):([0-5]\d))?$/;
/** So many orders are looked at between two looks at the clock. */
const AT_ONCE = 20;

interface Asked {
  from: string | null;
  deadlines: Map<string, DueDay>;
  seconds: number;
}

/** A day, or a day and a time. @throws Refusal naming the argument */
function dayTime(name: string, text: string | undefined): { day: string; time: string | null } {
  const [, day, hours, minutes] = DAY_TIME.exec(text ?? '') ?? [];
  if (
    day === undefined ||
    Number.isNaN(Date.parse(`${day}T00:00:00Z`)) ||
    new Date(`${day}T00:00:00Z`).toISOString().slice(0, 10) !== day
  )
    throw new Refusal(`--${name} must be a day such as 2026-12-12, or a day and a time such as 2026-12-12T06:30.`);
  return { day, time: hours === undefined ? null : `${hours}:${minutes}` };
}

function readAsked(args: readonly string[]): { paths: string[]; asked: Asked } {
  const asked: Asked = { from: null, deadlines: new Map(), seconds: USUAL_SECONDS };
  const known = { from: true, deadline: true, seconds: true };
  const paths = readPairs<keyof typeof known>(args, known, USAGE, (name, text) => {
    if (name === 'from') {
      const { day, time } = dayTime('from', text);
      asked.from = `${day}T${time ?? '00:00'}`;
    } else if (name === 'deadline') {
      const at = (text ?? '').lastIndexOf('=');
      if (at < 1) throw new Refusal('--deadline must be the name of a board, = and a day such as 2026-12-12.');
      asked.deadlines.set((text ?? '').slice(0, at), {
        ...dayTime('deadline', (text ?? '').slice(at + 1)),
        cured: true,
      });
    } else {
      const seconds = Number(text);
      if (text === undefined || text.trim() === '' || !(seconds >= 0 && seconds <= MOST_SECONDS))
        throw new Refusal(`--seconds must be a number from 0 to ${MOST_SECONDS}.`);
      asked.seconds = seconds;
    }
  });
  return { paths, asked };
}

const iso = (minute: number): string => new Date(minute * 60_000).toISOString();

/** `npm run -s schedule -- FILE ...`: when every step of several boards is done, in one shop's hours, as JSON on standard output. */
function main(args: readonly string[]): void {
  const { paths, asked } = readAsked(args);
  const { files, rack, shop, species } = readTogether(paths);
  const names = files.map((f) => f.board.name);
  for (const name of asked.deadlines.keys())
    if (!names.includes(name))
      throw new Refusal(`--deadline: there is no board "${name}"; there is ${names.map((n) => `"${n}"`).join(', ')}.`);
  const zone = shop.zone ?? new Intl.DateTimeFormat().resolvedOptions().timeZone;
  const [day = '', time = ''] = asked.from?.split('T') ?? [];
  const from =
    asked.from === null ? Math.floor(Date.now() / 60_000) : momentOf(zone, dayNumber(day), minuteOfDay(time));
  const boards = files.map(({ board, facts }, i) => {
    const input = { board, facts, rack, shop, species };
    const work = workOfPlan(String(i), input, makePlan(input));
    return { work, due: asked.deadlines.get(board.name) ?? board.due };
  });
  const problem = shopProblem(boards, shop, zone, from);
  const improver = new Improver(problem, firstSchedule(problem));
  const ends = performance.now() + asked.seconds * 1000;
  while (!improver.finished && performance.now() < ends) improver.look(AT_ONCE);
  const { schedule, bounds, gap, proven } = improver.judged();
  const told = {
    from: iso(from),
    zone,
    done: iso(from + (Number.isFinite(schedule.score.length) ? schedule.score.length : 0)),
    lateMinutes: Number.isFinite(schedule.score.late) ? schedule.score.late : null,
    notBefore: iso(from + bounds.length),
    atLeastLateMinutes: bounds.worst,
    gap: Number.isFinite(gap) ? gap : null,
    proven,
    boards: boards.map(({ work, due }) => {
      const times = schedule.boards.get(work.board);
      return {
        board: work.name,
        begun: times ? iso(times.begun) : null,
        dry: times ? iso(times.handled) : null,
        usable: times ? iso(times.used) : null,
        due,
        lateMinutes: times?.late ?? null,
      };
    }),
    steps: [...schedule.placed.values()]
      .sort((a, b) => firstOf(a.hands).from - firstOf(b.hands).from)
      .map((placed) => {
        const task = placed.task as WorkTask;
        return {
          board: boards[Number(task.board)]?.work.name,
          step: task.number,
          id: task.step,
          title: phraseText(task.title, METRIC),
          panel: task.copy,
          part: task.part,
          people: placed.people,
          machines: task.machines,
          hands: placed.hands.map((h) => ({ from: iso(h.from), to: iso(h.to) })),
          until: iso(placed.until),
          waitFor: task.waitFor,
          setAlready: placed.shared,
          ends: iso(lastOf(placed.hands).to),
        };
      }),
    neverDone: schedule.unplaced.map((id) => id),
  };
  process.stdout.write(`${JSON.stringify(told, null, 2)}\n`);
}

await refusing(() => Promise.resolve().then(() => main(process.argv.slice(2))));
