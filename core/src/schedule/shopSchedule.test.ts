import fc from 'fast-check';
import highsLoader from 'highs';
import { beforeAll, describe, expect, it } from 'vitest';
import { boundsOf, latestStarts } from './bound.ts';
import { decode } from './decode.ts';
import { penaltyOf, firstSchedule, Improver, judged } from './improve.ts';
import { dayNumber, momentOf, openingsFrom } from './openings.ts';
import { orderBy, orderLike, rulesFor } from './orders.ts';
import type { Placed, Schedule, ScheduleProblem, Task } from './task.ts';
import { BARE_TASK } from './taskForTests.ts';

const task = (id: string, minutes: number, after: string[] = [], more: Partial<Task> = {}): Task => ({
  ...BARE_TASK,
  id,
  board: id.charAt(0),
  minutes,
  after,
  ...more,
});
const problem = (tasks: Task[], more: Partial<ScheduleProblem> = {}): ScheduleProblem => ({
  from: 0,
  people: [{ id: 'one', open: [{ from: 0, to: 10_000 }] }],
  capacities: new Map(),
  tasks,
  held: [],
  dues: new Map(),
  ...more,
});
const handsOf = (schedule: Schedule, id: string) => schedule.placed.get(id)!.hands.map((h) => [h.from, h.to]);
const begins = (schedule: Schedule, id: string) => handsOf(schedule, id)[0]![0]!;

/** Random shops: evenings, one pair of hands or two, machines with settings, clamps, pins; six tasks to twenty on three boards. */
const problems = fc
  .record({
    chains: fc.array(
      fc.array(
        fc.record({
          minutes: fc.integer({ min: 0, max: 90 }),
          wait: fc.constantFrom(0, 0, 30, 240, 720),
          unbroken: fc.boolean(),
          stay: fc.constantFrom(0, 20),
          machine: fc.constantFrom(null, 'saw', 'planer'),
          setting: fc.constantFrom(null, '30', '31'),
          clamps: fc.integer({ min: 0, max: 4 }),
          after: fc.constantFrom(0, 60),
          people: fc.constantFrom(1, 1, 1, 2),
          pinned: fc.option(fc.integer({ min: 0, max: 6000 }), { freq: 8 }),
          notBefore: fc.constantFrom(0, 0, 500),
        }),
        { minLength: 1, maxLength: 7 },
      ),
      { minLength: 1, maxLength: 3 },
    ),
    two: fc.boolean(),
    evening: fc.integer({ min: 100, max: 400 }),
    clamps: fc.integer({ min: 2, max: 5 }),
    due: fc.option(fc.integer({ min: 100, max: 8000 })),
  })
  .map(({ chains, two, evening, clamps, due }): ScheduleProblem => {
    const days = Array.from({ length: 200 }, (_, k) => ({ from: k * 1440 + 100, to: k * 1440 + 100 + evening }));
    return problem(
      chains.flatMap((chain, b) =>
        chain.map((t, k) =>
          task(`${b}/${k}`, t.minutes, k === 0 ? [] : [`${b}/${k - 1}`], {
            wait: t.wait,
            stay: t.stay,
            unbroken: t.unbroken,
            people: two ? t.people : 1,
            machines: t.machine === null ? [] : [t.machine],
            setting: t.machine === 'planer' && t.setting && t.minutes > 5 ? { key: t.setting, minutes: 3 } : null,
            holds: t.clamps === 0 ? [] : [{ resource: 'clamps', amount: t.clamps, after: t.after }],
            pinned: t.pinned,
            notBefore: t.notBefore,
          }),
        ),
      ),
      {
        from: 40,
        people: [{ id: 'a', open: days }, ...(two ? [{ id: 'b', open: days.filter((_, k) => k % 2 === 0) }] : [])],
        capacities: new Map([['clamps', clamps]]),
        dues: due === null ? new Map() : new Map([['0', { at: due, cured: false }]]),
      },
    );
  });

/** Everything that a schedule may not do, each in a line. */
function wrongs(given: ScheduleProblem, { placed, loose }: Schedule): string[] {
  const found: string[] = [];
  const all = [...placed.values()];
  const overlap = (a: { from: number; to: number }, b: { from: number; to: number }) =>
    a.to > a.from && b.to > b.from && a.from < b.to - 1e-6 && b.from < a.to - 1e-6;
  const pairs = all.flatMap((a, i) => all.slice(i + 1).map((b) => [a, b] as const));
  for (const { task: t, hands, until, people, shared } of all) {
    const worked = hands.reduce((sum, h) => sum + h.to - h.from, 0);
    const wanted = t.minutes - (shared ? (t.setting?.minutes ?? 0) : 0);
    if (Math.abs(worked - wanted) > 1e-6) found.push(`${t.id} takes ${worked} of ${wanted}`);
    if (Math.abs(until - hands.at(-1)!.to - t.wait) > 1e-6) found.push(`${t.id} waits wrongly`);
    if (hands[0]!.from < Math.max(given.from, t.notBefore) - 1e-6) found.push(`${t.id} lies in the past`);
    if (people.length !== Math.min(t.people, given.people.length)) found.push(`${t.id} has ${people.length} people`);
    for (const id of people)
      for (const h of hands)
        if (!given.people.find((p) => p.id === id)!.open.some((o) => o.from <= h.from + 1e-6 && o.to >= h.to - 1e-6))
          found.push(`${t.id} is done while ${id} is away`);
    for (const before of t.after)
      if (placed.get(before)!.until > hands[0]!.from + 1e-6) found.push(`${t.id} comes before ${before} is over`);
    const longest = Math.max(...given.people.flatMap((p) => p.open.map((o) => o.to - o.from)));
    if (t.unbroken && t.minutes <= longest && hands.length > 1) found.push(`${t.id} is broken off`);
    if (t.pinned !== null && !loose.includes(t.id) && Math.abs(hands[0]!.from - t.pinned) > 1e-6)
      found.push(`${t.id} is not where it is pinned`);
  }
  for (const [a, b] of pairs) {
    const meet = a.hands.some((x) => b.hands.some((y) => overlap(x, y)));
    if (meet && a.people.some((p) => b.people.includes(p)))
      found.push(`${a.task.id} and ${b.task.id} want the same hands`);
    if (meet && a.task.machines.some((m) => b.task.machines.includes(m)))
      found.push(`${a.task.id} and ${b.task.id} want the same machine`);
  }
  const held = all.flatMap((p) =>
    p.task.holds.map((h) => ({ from: p.hands[0]!.from, until: p.hands.at(-1)!.to + h.after, amount: h.amount })),
  );
  const capacity = given.capacities.get('clamps') ?? Infinity;
  // What is held changes where something begins: there it is counted, for every minute in between.
  for (const { from } of held) {
    const sum = held
      .filter((h) => h.from <= from + 1e-6 && h.until > from + 1e-6)
      .reduce((s, h) => s + Math.min(h.amount, capacity), 0);
    if (sum > capacity + 1e-6) found.push(`${sum} clamps of ${capacity} at ${from}`);
  }
  return found.concat(settingsWrong(all));
}

/** Whoever found a machine set must come right after a task with the same setting. */
function settingsWrong(all: readonly Placed[]): string[] {
  return all
    .filter((p) => p.shared)
    .flatMap((p) => {
      const machine = p.task.machines[0]!;
      const before = all
        .filter((o) => o !== p && o.task.machines[0] === machine && o.hands.at(-1)!.to <= p.hands[0]!.from + 1e-6)
        .sort((a, b) => a.hands.at(-1)!.to - b.hands.at(-1)!.to)
        .at(-1);
      return before?.task.setting?.key === p.task.setting?.key ? [] : [`${p.task.id} finds the machine set otherwise`];
    });
}

describe('whatever is to be done, in whatever shop', () => {
  it('no hands, machine or clamp is used twice at any minute, nothing comes before what it needs, nothing is in the past', () => {
    let found = 0;
    fc.assert(
      fc.property(problems, fc.integer(), (given, seed) => {
        const improver = new Improver(given, firstSchedule(given), seed);
        improver.look(15);
        for (const schedule of [firstSchedule(given), improver.best]) {
          expect(schedule.unplaced).toEqual([]);
          expect(wrongs(given, schedule)).toEqual([]);
          found += schedule.placed.size;
        }
      }),
      { numRuns: 150 },
    );
    expect(found).toBeGreaterThan(1000);
  });

  it('nothing is ever shorter or less late than its bound, and what was found is never given up', () => {
    fc.assert(
      fc.property(problems, (given) => {
        const first = firstSchedule(given);
        const improver = new Improver(given, first);
        improver.look(20);
        const { length, open, worst } = boundsOf(given);
        for (const { score } of [first, improver.best]) {
          expect(score.length).toBeGreaterThanOrEqual(length - 1.01);
          expect(score.open).toBeGreaterThanOrEqual(open - 1.01);
          expect(score.worst).toBeGreaterThanOrEqual(worst - 1.01);
        }
        expect(penaltyOf(improver.best.score)).toBeLessThanOrEqual(penaltyOf(first.score) + 1e-6);
      }),
      { numRuns: 150 },
    );
  });

  it('an order that was kept gives the same places again; a step that is done moves nothing that lay before it', () => {
    fc.assert(
      fc.property(problems, (given) => {
        const kept = new Improver(given, firstSchedule(given)).best;
        expect(firstSchedule(given, kept.order)).toEqual(kept);
        const [rule] = rulesFor(given);
        expect(orderLike(given, kept.order, rule!)).toEqual(kept.order);
        expect([...orderBy(given, rule!)].sort()).toEqual(given.tasks.map((t) => t.id).sort());
      }),
      { numRuns: 60 },
    );
  });

  it('what begins later than it must at the latest makes its board late', () => {
    fc.assert(
      fc.property(problems, (given) => {
        const alone = {
          ...given,
          tasks: given.tasks.filter((t) => t.board === '0').map((t) => ({ ...t, pinned: null })),
        };
        const schedule = firstSchedule(alone);
        const due = alone.dues.get('0');
        fc.pre(due !== undefined);
        for (const [id, latest] of latestStarts(alone))
          if (begins(schedule, id) > latest + 1) expect(schedule.boards.get('0')!.late!).toBeGreaterThan(0);
      }),
      { numRuns: 60 },
    );
  });
});

describe('every order of few steps', () => {
  /** All orders that respect what comes first, tried one by one: nothing of the search is used. */
  function shortest(given: ScheduleProblem): number {
    const visit = (order: string[]): number =>
      order.length === given.tasks.length
        ? decode(given, order).score.length
        : Math.min(
            ...given.tasks
              .filter((t) => !order.includes(t.id) && t.after.every((a) => order.includes(a)))
              .map((t) => visit([...order, t.id])),
          );
    return visit([]);
  }

  it('none is shorter than the one that is called proven', () => {
    const few = problems
      .filter((p) => p.tasks.length <= 6)
      .map((p) => ({ ...p, dues: new Map(), tasks: p.tasks.map((t) => ({ ...t, pinned: null })) }));
    fc.assert(
      fc.property(few, (given) => {
        const first = firstSchedule(given);
        const improver = new Improver(given, first);
        const { schedule, proven } = improver.judged();
        expect(proven).toBe(true);
        const least = shortest(given);
        expect(schedule.score.length).toBeLessThanOrEqual(least + 1e-6);
      }),
      { numRuns: 80 },
    );
  });
});

/**
 * Thirty jobs with four resources, j301_1 of the project scheduling problem library PSPLIB (Kolisch and Sprecher 1996), whose shortest makespan is known to be 43; data and figure from memory, the makespan checked below by a
 * mixed-integer model of its own. Each line: duration, what it holds of the four, and the jobs that come after it.
 */
const JOBS: readonly [number, readonly number[], readonly number[]][] = [
  [8, [4, 0, 0, 0], [6, 11, 15]],
  [4, [10, 0, 0, 0], [7, 8, 13]],
  [6, [0, 0, 0, 3], [5, 9, 10]],
  [3, [3, 0, 0, 0], [20]],
  [8, [0, 0, 0, 8], [30]],
  [5, [4, 0, 0, 0], [27]],
  [9, [0, 1, 0, 0], [12, 19, 27]],
  [2, [6, 0, 0, 0], [14]],
  [7, [0, 0, 0, 1], [16, 25]],
  [9, [0, 5, 0, 0], [20, 26]],
  [2, [0, 7, 0, 0], [14]],
  [6, [4, 0, 0, 0], [17, 18]],
  [3, [0, 8, 0, 0], [17]],
  [9, [3, 0, 0, 0], [25]],
  [10, [0, 0, 0, 5], [21, 22]],
  [6, [0, 0, 0, 8], [22]],
  [5, [0, 0, 0, 7], [20, 22]],
  [3, [0, 1, 0, 0], [24, 29]],
  [7, [0, 10, 0, 0], [23, 25]],
  [2, [0, 0, 0, 6], [28]],
  [7, [2, 0, 0, 0], [23]],
  [2, [3, 0, 0, 0], [24]],
  [3, [0, 9, 0, 0], [30]],
  [3, [4, 0, 0, 0], [30]],
  [7, [0, 0, 4, 0], [31]],
  [8, [0, 0, 0, 7], [28]],
  [3, [0, 8, 0, 0], [31]],
  [7, [0, 7, 0, 0], []],
  [2, [0, 7, 0, 0], []],
  [2, [0, 0, 2, 0], []],
];
const CAPACITIES = [12, 13, 4, 12];
/** The jobs are numbered from 2: the first of the library's is where all begin. */
const jobId = (i: number) => `j${i + 2}`;

describe('a published example of project scheduling', () => {
  // Nobody's hands are on the jobs: they only take their time and hold what they hold.
  const jobs = JOBS.map(([wait, holds], i) =>
    task(
      jobId(i),
      0,
      JOBS.flatMap(([, , next], k) => (next.includes(i + 2) ? [jobId(k)] : [])),
      {
        wait,
        holds: holds.flatMap((amount, r) => (amount > 0 ? [{ resource: `r${r}`, amount, after: wait }] : [])),
      },
    ),
  );
  const given = problem(jobs, { capacities: new Map(CAPACITIES.map((c, r) => [`r${r}`, c])) });

  it('comes to its known makespan of 43', () => {
    const improver = new Improver(given, firstSchedule(given));
    improver.look(3000);
    expect(improver.best.score.length).toBe(43);
    expect(boundsOf(given).length).toBeLessThanOrEqual(43);
  });
});

describe('against a mixed-integer model', () => {
  let highs: Awaited<ReturnType<typeof highsLoader>>;
  beforeAll(async () => {
    highs = await highsLoader();
  });

  /**
   * The shortest length by a time-indexed model of its own: a step begins at one of the moments, what it comes after is over, and hands and clamps suffice at each.
   * @param limit no schedule is longer
   */
  function shortest(tasks: readonly Task[], capacities: ReadonlyMap<string, number>, limit: number): number {
    const x = (i: number, t: number) => `x${i}_${t}`;
    const starts = tasks.map((t) => Array.from({ length: limit - t.minutes - t.wait + 1 }, (_, k) => k));
    const rows: string[] = [];
    tasks.forEach((t, i) => {
      rows.push(`${starts[i]!.map((k) => x(i, k)).join(' + ')} = 1`);
      rows.push(
        `${
          starts[i]!.filter((k) => k > 0)
            .map((k) => `${k} ${x(i, k)}`)
            .join(' + ') || `0 ${x(i, 0)}`
        } - z <= -${t.minutes + t.wait}`,
      );
      for (const id of t.after) {
        const b = tasks.findIndex((o) => o.id === id);
        const before = tasks[b]!;
        rows.push(
          `${starts[i]!.map((k) => `${k} ${x(i, k)}`).join(' + ')} ${starts[b]!.map((k) => `- ${k} ${x(b, k)}`).join(' ')} >= ${before.minutes + before.wait}`,
        );
      }
    });
    for (let at = 0; at < limit; at += 1) {
      const use = (lasts: (t: Task) => number, amount: (t: Task) => number) =>
        tasks
          .flatMap((t, i) =>
            starts[i]!.filter((k) => k <= at && at < k + lasts(t) && amount(t) > 0).map(
              (k) => `${amount(t)} ${x(i, k)}`,
            ),
          )
          .join(' + ');
      const hands = use(
        (t) => t.minutes,
        () => 1,
      );
      if (hands !== '') rows.push(`${hands} <= 1`);
      for (const [resource, capacity] of capacities) {
        const holds = (t: Task) => t.holds.find((h) => h.resource === resource);
        const held = use(
          (t) => t.minutes + (holds(t)?.after ?? 0),
          (t) => holds(t)?.amount ?? 0,
        );
        if (held !== '') rows.push(`${held} <= ${capacity}`);
      }
    }
    const binaries = tasks.flatMap((_, i) => starts[i]!.map((k) => x(i, k)));
    const solved = highs.solve(
      `Minimize\n obj: z\nSubject To\n${rows.map((r, k) => ` c${k}: ${r}`).join('\n')}\nBounds\n 0 <= z <= ${limit}\nBinary\n ${binaries.join(' ')}\nEnd`,
    );
    expect(solved.Status).toBe('Optimal');
    return Math.round(solved.ObjectiveValue);
  }

  /** The model counts in so many minutes: it has a variable for each moment. */
  const UNIT = 10;
  const inUnits = (t: Task): Task => ({
    ...t,
    minutes: t.minutes / UNIT,
    wait: t.wait / UNIT,
    holds: t.holds.map((h) => ({ ...h, after: h.after / UNIT })),
  });

  it('finds what it finds on six shops of nine steps, and its bound never lies above', () => {
    const small = fc
      .array(
        fc.record({
          minutes: fc.integer({ min: 1, max: 3 }),
          wait: fc.constantFrom(0, 2, 4),
          clamps: fc.integer({ min: 0, max: 3 }),
        }),
        { minLength: 9, maxLength: 9 },
      )
      .map((all) =>
        all.map(({ minutes, wait, clamps }, i) =>
          task(`${Math.floor(i / 3)}/${i}`, minutes * UNIT, i % 3 === 0 ? [] : [`${Math.floor(i / 3)}/${i - 1}`], {
            wait: wait * UNIT,
            unbroken: true,
            holds: clamps > 0 ? [{ resource: 'clamps', amount: clamps, after: wait * UNIT }] : [],
          }),
        ),
      );
    const off: number[] = [];
    fc.assert(
      fc.property(small, (tasks) => {
        const given = problem(tasks, { capacities: new Map([['clamps', 4]]) });
        const improver = new Improver(given, firstSchedule(given));
        improver.look(4000);
        const found = improver.best.score.length / UNIT;
        const least = shortest(tasks.map(inUnits), given.capacities, Math.ceil(found));
        expect(found).toBeGreaterThanOrEqual(least);
        expect(boundsOf(given).length / UNIT).toBeLessThanOrEqual(least + 1e-6);
        // What is called proven is.
        if (improver.judged().proven) expect(found).toBe(least);
        off.push(found - least);
      }),
      { numRuns: 6 },
    );
    expect(Math.max(...off)).toBeLessThanOrEqual(1);
    expect(off.filter((o) => o === 0).length).toBeGreaterThanOrEqual(5);
  }, 180_000);
});

describe('worked by hand', () => {
  it('two glue-ups with six clamps each cannot share eight: the second begins when the first is out of its clamps', () => {
    const glue = (id: string) =>
      task(id, 10, [], { wait: 120, holds: [{ resource: 'clamps', amount: 6, after: 120 }] });
    const given = problem([glue('a'), glue('b')], { capacities: new Map([['clamps', 8]]) });
    const schedule = firstSchedule(given);
    expect([begins(schedule, 'a'), begins(schedule, 'b')].sort((x, y) => x - y)).toEqual([0, 130]);
    expect(judged(given, schedule)).toMatchObject({ gap: 0, proven: true });
  });

  it('more clamps than there are: it takes all of them', () => {
    const given = problem([task('a', 10, [], { holds: [{ resource: 'clamps', amount: 20, after: 60 }] })], {
      capacities: new Map([['clamps', 8]]),
    });
    expect(firstSchedule(given).unplaced).toEqual([]);
  });

  it('three boards planed at one setting set the planer once: 3 minutes saved twice', () => {
    const planed = (id: string) => task(id, 10, [], { machines: ['planer'], setting: { key: '31', minutes: 3 } });
    const schedule = firstSchedule(problem(['a', 'b', 'c'].map(planed)));
    expect(schedule.score.length).toBe(24);
    expect([...schedule.placed.values()].filter((p) => p.shared)).toHaveLength(2);
  });

  it('glue is not begun where somebody could not stay to scrape it; what can be broken off goes on the next evening', () => {
    const evenings = [0, 1, 2].map((k) => ({ from: k * 1440, to: k * 1440 + 100 }));
    const people = [{ id: 'one', open: evenings }];
    const given = problem(
      [task('a', 80), task('b', 10, ['a'], { stay: 30, unbroken: true, wait: 60 }), task('c', 50, ['b'])],
      { people },
    );
    const schedule = firstSchedule(given);
    expect(handsOf(schedule, 'b')).toEqual([[1440, 1450]]);
    expect(handsOf(firstSchedule(problem([task('a', 150)], { people })), 'a')).toEqual([
      [0, 100],
      [1440, 1490],
    ]);
  });

  it('waits go on at night, and a finish hardens after it is dry: lateness is of what was asked for', () => {
    const given = (cured: boolean) =>
      problem([task('a', 10, [], { wait: 720, cure: 1440 })], { dues: new Map([['a', { at: 1000, cured }]]) });
    expect(firstSchedule(given(false)).boards.get('a')).toMatchObject({ handled: 730, used: 2170, late: -270 });
    expect(firstSchedule(given(true)).boards.get('a')).toMatchObject({ late: 1170 });
    expect(boundsOf(given(true)).worst).toBeCloseTo(1170, -1);
  });

  it('a pin is kept, others go round it; one that cannot be is loose and told', () => {
    const pinned = problem([task('a', 30, [], { pinned: 100 }), task('b', 120)]);
    const kept = firstSchedule(pinned);
    expect([begins(kept, 'a'), handsOf(kept, 'b')]).toEqual([
      100,
      [
        [0, 100],
        [130, 150],
      ],
    ]);
    const late = firstSchedule(problem([task('a', 50), task('a2', 10, ['a'], { pinned: 20 })]));
    expect([late.loose, begins(late, 'a2')]).toEqual([['a2'], 50]);
    const past = firstSchedule(problem([task('a', 10, [], { pinned: 20 })], { from: 50 }));
    expect([past.loose, begins(past, 'a')]).toEqual([['a'], 50]);
  });

  it('nobody who ever comes: nothing is placed, and it is said of each step', () => {
    const schedule = firstSchedule(
      problem([task('a', 10), task('a2', 5, ['a'])], { people: [{ id: 'one', open: [] }] }),
    );
    expect(schedule.unplaced).toEqual(['a', 'a2']);
    expect(schedule.score.length).toBe(Infinity);
  });

  it('two pairs of hands work beside each other, and a step that wants both has both', () => {
    const open = [{ from: 0, to: 1000 }];
    const people = [
      { id: 'a', open },
      { id: 'b', open },
    ];
    expect(firstSchedule(problem([task('x', 60), task('y', 60)], { people })).score.length).toBe(60);
    const both = firstSchedule(problem([task('x', 60), task('y', 30, [], { people: 2 })], { people }));
    expect(both.placed.get('y')!.people).toEqual(['a', 'b']);
    expect(both.score.length).toBe(90);
    expect(firstSchedule(problem([task('x', 60, [], { person: 'b' })], { people })).placed.get('x')!.people).toEqual([
      'b',
    ]);
  });
});

describe('hours by the clock on the wall', () => {
  const night = Array.from({ length: 7 }, () => ({ from: '01:00', to: '05:00' }));
  const minutesOn = (date: string) => {
    const zone = 'Europe/Vienna';
    const from = momentOf(zone, dayNumber(date), 0);
    const [open] = openingsFrom({ hours: night, away: [], zone }, from, 1);
    return open!.to - open!.from;
  };

  // European summer time: from 1:00 UTC on the last Sunday of March to 1:00 UTC on the last Sunday of October (Directive 2000/84/EC).
  it.each([
    ['2026-03-28', 240],
    ['2026-03-29', 180],
    ['2026-10-25', 300],
    ['2026-10-26', 240],
  ])('from 1 to 5 on %s are %i minutes', (date, minutes) => {
    expect(minutesOn(date)).toBe(minutes);
  });

  it('days away are shut, evenings more are open, and both count in the shop', () => {
    const hours = Array.from({ length: 7 }, () => ({ from: '18:00', to: '20:00' }));
    const opens = openingsFrom(
      {
        hours: [...hours.slice(0, 6), null],
        away: [{ from: '2026-12-01', to: '2026-12-02' }],
        openToo: [{ day: '2026-12-06', from: '09:00', to: '10:00' }],
        zone: 'UTC',
      },
      dayNumber('2026-11-30') * 1440,
      8,
    );
    expect(opens.map((o) => [Math.floor(o.from / 1440) - dayNumber('2026-11-30'), o.to - o.from])).toEqual([
      [0, 120],
      [3, 120],
      [4, 120],
      [5, 120],
      [6, 60],
      [7, 120],
    ]);
  });
});
