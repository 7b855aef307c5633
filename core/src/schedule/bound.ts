import { entryOf } from '../lists/there.ts';
import { fit } from './freeTime.ts';
import { anyoneOf, OpenTime } from './openTime.ts';
import type { Opening } from './openings.ts';
import type { ScheduleProblem, Task } from './task.ts';

/** Work that one pool of people, or one machine, must do. */
interface Pool {
  open: OpenTime;
  /** Task and minutes of it that cannot be saved. */
  work: { i: number; minutes: number }[];
  /** Minutes to set the machine up once for each setting, where all tasks with it are counted. */
  settings: { of: readonly number[]; minutes: number }[];
}

interface Window {
  /** Earliest beginning, and latest end of the hands. */
  head: number;
  end: number;
}

/** What no schedule can beat. */
export interface Bounds {
  /** Minutes from the beginning until the last wait is over, at least. */
  length: number;
  /** Shop hours until the last hands are off, at least: open minutes. */
  open: number;
  /** The board that is latest is at least so late, minutes; 0 where nothing need be. */
  worst: number;
}

/** So near a bound is looked for, minutes. */
const NEAR = 1;

/**
 * Bounds below the length and the greatest lateness of every schedule: a moment by which everything is done is refuted where some tasks, begun no earlier and ended no later than they must be,
 * want more minutes of the people or of a machine than are open in between (energetic reasoning over time windows; a relaxation that lets work be broken off and shared at will).
 */
export function boundsOf(problem: ScheduleProblem): Bounds {
  const { from, tasks, dues } = problem;
  if (tasks.length === 0) return { length: 0, open: 0, worst: 0 };
  const index = new Map(tasks.map((t, i) => [t.id, i]));
  const followers = followersOf(tasks, index);
  const anyone = anyoneOf(problem);
  const groups = new Map<string, number[]>();
  tasks.forEach((t, i) => {
    if (t.setting) groups.set(settingOf(t), [...(groups.get(settingOf(t)) ?? []), i]);
  });
  const least = tasks.map((t) =>
    t.setting && (groups.get(settingOf(t))?.length ?? 0) > 1 ? Math.max(0, t.minutes - t.setting.minutes) : t.minutes,
  );
  const open = merged(problem.people.map((p) => p.open));
  const finish = finisher(problem, open, least);
  const heads = headsOf(problem, index, finish);
  const pools = poolsOf(problem, groups, least, anyone);
  const windows = (last: (task: Task) => number): Window[] => {
    const ends = latestEnds(tasks, followers, anyone, least, last);
    return tasks.map((_, i) => ({ head: heads[i] as number, end: ends[i] as number }));
  };
  const refuted = (last: (task: Task) => number): boolean => {
    const all = windows(last);
    return (
      all.some(({ head, end }, i) => anyone.before(end) - anyone.before(head) < (least[i] as number) - NEAR / 10) ||
      pools.some((pool) => overfull(pool, all))
    );
  };
  const path = Math.max(...tasks.map((t, i) => finish(i, heads[i] as number) + t.wait));
  const inTurn = oneAtATime(problem, open, heads, (i, at) => endFrom(tasks, followers, finish, i, at));
  // The same of the hands alone, waits behind the last of them not counted.
  const lastHands = Math.max(
    ...tasks.map((_, i) => finish(i, heads[i] as number)),
    oneAtATime(problem, open, heads, (i, at) => endFrom(tasks, followers, finish, i, at, true)),
  );
  const hands = smallest(lastHands - from, (minutes) => refuted((task) => from + minutes + task.wait));
  const length = smallest(Math.max(0, path - from, inTurn - from), (minutes) => refuted(() => from + minutes));
  const dueBy = (late: number) => (task: Task) => dueOf(problem, task) + late;
  const worst = dues.size === 0 || !refuted(dueBy(0)) ? 0 : smallest(0, (late) => refuted(dueBy(late)));
  return { length, open: anyone.before(from + hands), worst };
}

/** When a task's wait must be over for its board to be in time; Infinity for a board without a day. */
function dueOf({ dues }: Pick<ScheduleProblem, 'dues'>, task: Task): number {
  const due = dues.get(task.board);
  return due ? due.at - (due.cured ? task.cure : 0) : Infinity;
}

function followersOf(tasks: readonly Task[], index: ReadonlyMap<string, number>): number[][] {
  const followers: number[][] = tasks.map(() => []);
  tasks.forEach((t, i) => t.after.forEach((id) => followers[entryOf(index, id)]?.push(i)));
  return followers;
}

/** When the hands of each task must be off at the latest, backward from when its wait must be over. */
function latestEnds(
  tasks: readonly Task[],
  followers: readonly (readonly number[])[],
  anyone: OpenTime,
  least: readonly number[],
  last: (task: Task) => number,
): Float64Array {
  const ends = new Float64Array(tasks.length);
  for (let i = tasks.length - 1; i >= 0; i -= 1) {
    const task = tasks[i] as Task;
    let end = last(task) - task.wait;
    for (const f of followers[i] as number[])
      end = Math.min(end, anyone.leaving(ends[f] as number, least[f] as number) - task.wait);
    ends[i] = end;
  }
  return ends;
}

/** When each task must be begun at the latest for its board to be in time, minutes since 1970, had it the shop for itself; those of boards without a day are left out. */
export function latestStarts(problem: ScheduleProblem): Map<string, number> {
  const { tasks } = problem;
  const index = new Map(tasks.map((t, i) => [t.id, i]));
  const anyone = anyoneOf(problem);
  const minutes = tasks.map((t) => t.minutes);
  const ends = latestEnds(tasks, followersOf(tasks, index), anyone, minutes, (t) => dueOf(problem, t));
  return new Map(
    tasks.flatMap((t, i) => {
      const end = ends[i] as number;
      return Number.isFinite(end) ? [[t.id, anyone.leaving(end, t.minutes)] as const] : [];
    }),
  );
}

const settingOf = (task: Task): string => `${task.machines[0]}\n${task.setting?.key}`;

/** When everything that follows a task could be over, had it the shop for itself. @param at when the task's own wait is over */
function endFrom(
  tasks: readonly Task[],
  followers: readonly (readonly number[])[],
  finish: Finish,
  task: number,
  at: number,
  handsOnly = false,
): number {
  const ready = new Map<number, number>((followers[task] as number[]).map((f) => [f, at]));
  // Before what follows it nobody's hands are on anything that is known.
  let end = handsOnly ? -Infinity : at;
  // Tasks come after those they depend on.
  for (let i = task + 1; i < tasks.length; i += 1) {
    const from = ready.get(i);
    if (from === undefined) continue;
    const hands = finish(i, from);
    const until = hands + (tasks[i] as Task).wait;
    end = Math.max(end, handsOnly ? hands : until);
    for (const f of followers[i] as number[]) ready.set(f, Math.max(ready.get(f) ?? 0, until));
  }
  return end;
}

/** How many lengths of holding are told apart: more only cost time. */
const CLASSES = 3;

/**
 * Tasks of which no two can hold something at once (each takes more than half of it) hold it one after the other, and each is begun while somebody is there. The earliest moment
 * at which all of them can be over, by dynamic programming over how many of each length are done, plus the shortest wait that follows any of them.
 */
function oneAtATime(
  { people, capacities, tasks, from }: ScheduleProblem,
  open: readonly Opening[],
  heads: Float64Array,
  end: (task: number, at: number) => number,
): number {
  let most = from;
  const longest = Math.max(0, ...people.flatMap((p) => p.open.map((o) => o.to - o.from)));
  for (const [resource, capacity] of capacities) {
    const all = tasks.flatMap((task, i) => {
      const held = task.holds.find((h) => h.resource === resource);
      return held && held.amount > 0
        ? [
            {
              i,
              amount: Math.min(held.amount, capacity),
              hands: task.minutes + (task.unbroken ? stayOf(task, longest) : 0),
              holds: task.minutes + held.after,
              // Its wait may be over before it lets go, or after.
              waitsOn: task.wait - held.after,
            },
          ]
        : [];
    });
    const ended = (own: typeof all, over: number) => {
      most = Math.max(most, Math.min(...own.map((o) => end(o.i, over + o.waitsOn))));
    };
    const headOf = (own: typeof all) => Math.min(...own.map((o) => heads[o.i] as number));
    const large = all.filter((o) => o.amount > capacity / 2);
    if (large.length > 1) ended(large, allDone(classesOf(large), open, headOf(large)));
    // Of what takes at least so much and lasts at least so long only so many can be held at once.
    for (const amount of new Set(all.map((o) => o.amount)))
      for (const holds of new Set(all.map((o) => Math.floor(o.holds / 30) * 30))) {
        const own = all.filter((o) => o.amount >= amount && o.holds >= holds);
        const atOnce = Math.floor(capacity / amount + 1e-6);
        if (own.length <= atOnce || atOnce < 1) continue;
        const alike = { holds: Math.min(...own.map((o) => o.holds)), hands: Math.min(...own.map((o) => o.hands)) };
        ended(own, sideBySide(own.length, atOnce, alike, open, headOf(own)));
      }
  }
  return most;
}

/** Neighbours of like length make a class, each as short as its shortest. */
function classesOf(
  own: readonly { hands: number; holds: number }[],
): { count: number; holds: number; hands: number }[] {
  const sorted = [...own].sort((a, b) => a.holds - b.holds);
  const cuts = sorted
    .slice(1)
    .map((o, k) => ({ k: k + 1, jump: o.holds - (sorted[k] as (typeof sorted)[number]).holds }))
    .sort((a, b) => b.jump - a.jump)
    .slice(0, CLASSES - 1)
    .map((c) => c.k)
    .sort((a, b) => a - b);
  return [0, ...cuts].map((start, c) => {
    const members = sorted.slice(start, [...cuts, sorted.length][c]);
    return {
      count: members.length,
      holds: Math.min(...members.map((m) => m.holds)),
      hands: Math.min(...members.map((m) => m.hands)),
    };
  });
}

/** When so many that are alike can be over, so many at a time, each begun where its hands fit before the shop shuts: whoever is free first takes the next. */
function sideBySide(
  count: number,
  atOnce: number,
  { holds, hands }: { holds: number; hands: number },
  open: readonly Opening[],
  first: number,
): number {
  const free = Array<number>(atOnce).fill(first);
  let over = first;
  for (let n = 0; n < count; n += 1) {
    const k = free.indexOf(Math.min(...free));
    over = Math.max(over, beginIn(open, free[k] as number, hands) + holds);
    free[k] = beginIn(open, free[k] as number, hands) + holds;
  }
  return over;
}

/** The first moment from one on at which hands fit before the shop shuts. */
function beginIn(open: readonly Opening[], at: number, hands: number): number {
  const there = open.find((o) => Math.max(o.from, at) + hands <= o.to + 1e-6);
  return there ? Math.max(there.from, at) : at;
}

/** Somebody must stay by it before the shop shuts, where any day is long enough for that. */
const stayOf = (task: Task, longest: number): number => (task.minutes + task.stay <= longest ? task.stay : 0);

/** When so many of each length can be over, one at a time, each begun where its hands fit before the shop shuts. */
function allDone(
  classes: readonly { count: number; holds: number; hands: number }[],
  open: readonly Opening[],
  first: number,
): number {
  const known = new Map<string, number>();
  const done = (counts: number[]): number => {
    if (counts.every((c) => c === 0)) return first;
    const key = counts.join();
    const before = known.get(key);
    if (before !== undefined) return before;
    let best = Infinity;
    classes.forEach(({ holds, hands }, c) => {
      if ((counts[c] as number) === 0) return;
      const fewer = counts.map((n, k) => (k === c ? n - 1 : n));
      best = Math.min(best, beginIn(open, done(fewer), hands) + holds);
    });
    known.set(key, best);
    return best;
  };
  return done(classes.map((c) => c.count));
}

/** When anybody is there. */
function merged(lists: readonly (readonly Opening[])[]): Opening[] {
  const all = lists.flat().sort((a, b) => a.from - b.from);
  const open: Opening[] = [];
  for (const o of all) {
    const last = open.at(-1);
    if (last && o.from <= last.to) last.to = Math.max(last.to, o.to);
    else open.push({ ...o });
  }
  return open;
}

/** The smallest figure that is not refuted, from one that may be: as far as it is not, everything above is not either. */
function smallest(least: number, refuted: (value: number) => boolean): number {
  if (!refuted(least)) return least;
  let [low, step] = [least, 60];
  while (refuted(low + step)) {
    low += step;
    step *= 2;
    if (step > 1e8) return Infinity;
  }
  let high = low + step;
  while (high - low > NEAR) {
    const middle = (low + high) / 2;
    if (refuted(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** When the hands of a task are off, begun at a moment or as soon after as it can be, if it had the shop for itself. */
type Finish = (task: number, at: number) => number;

function finisher({ tasks, people }: ScheduleProblem, open: readonly Opening[], least: readonly number[]): Finish {
  const free = [open.map((o) => ({ ...o, shut: o.to }))];
  const longest = Math.max(0, ...people.flatMap((p) => p.open.map((o) => o.to - o.from)));
  return (i, at) => {
    const task = tasks[i] as Task;
    const minutes = least[i] as number;
    const hands = fit(free, at, {
      minutes,
      stay: stayOf(task, longest),
      unbroken: task.unbroken && task.minutes <= longest,
    });
    return hands ? (hands[hands.length - 1] as Opening).to : Infinity;
  };
}

/** When each task could begin if it had the shop for itself. */
function headsOf({ from, tasks }: ScheduleProblem, index: ReadonlyMap<string, number>, finish: Finish): Float64Array {
  const heads = new Float64Array(tasks.length);
  tasks.forEach((task, i) => {
    let at = Math.max(from, task.notBefore);
    for (const id of task.after) {
      const k = entryOf(index, id);
      at = Math.max(at, finish(k, heads[k] as number) + (tasks[k] as Task).wait);
    }
    heads[i] = at;
  });
  return heads;
}

function poolsOf(
  { people, tasks }: ScheduleProblem,
  groups: ReadonlyMap<string, number[]>,
  least: readonly number[],
  anyone: OpenTime,
): Pool[] {
  const settings = [...groups.values()]
    .filter((of) => of.length > 1)
    .map((of) => ({ of, minutes: tasks[of[0] as number]?.setting?.minutes ?? 0 }));
  const all = (chosen: (t: Task) => boolean, minutes: (t: Task, i: number) => number) =>
    tasks.flatMap((t, i) => (chosen(t) ? [{ i, minutes: minutes(t, i) }] : []));
  const machines = [...new Set(tasks.flatMap((t) => t.machines))];
  return [
    {
      open: new OpenTime(people.map((p) => p.open)),
      work: all(
        () => true,
        (t, i) => (least[i] as number) * Math.min(t.people, people.length),
      ),
      settings,
    },
    ...people.flatMap((p): Pool[] => {
      const work = all(
        (t) => t.person === p.id,
        (_, i) => least[i] as number,
      );
      return work.length > 0 && people.length > 1 ? [{ open: new OpenTime([p.open]), work, settings: [] }] : [];
    }),
    ...(people.length > 1
      ? machines.map((machine) => ({
          open: anyone,
          work: all(
            (t) => t.machines.includes(machine),
            (_, i) => least[i] as number,
          ),
          settings: settings.filter((s) => tasks[s.of[0] as number]?.machines[0] === machine),
        }))
      : []),
  ];
}

/** Whether some of the work does not fit between the earliest beginning and the latest end of it. */
function overfull({ open, work, settings }: Pool, windows: readonly Window[]): boolean {
  const own = work
    .map(({ i, minutes }) => ({ i, minutes, ...(windows[i] as Window) }))
    .filter((w) => Number.isFinite(w.end))
    .sort((a, b) => a.end - b.end);
  if (own.length === 0) return false;
  const groupOf = new Map<number, number>();
  settings.forEach((s, g) => s.of.forEach((i) => groupOf.set(i, g)));
  const heads = [...new Set(own.map((w) => w.head))];
  const befores = own.map((w) => open.before(w.end));
  for (const head of heads) {
    const from = open.before(head);
    const missing = settings.map((s) => s.of.length);
    let sum = 0;
    for (let k = 0; k < own.length; k += 1) {
      const w = own[k] as (typeof own)[number];
      if (w.head < head) continue;
      sum += w.minutes;
      const g = groupOf.get(w.i);
      if (g !== undefined) {
        missing[g] = (missing[g] as number) - 1;
        if (missing[g] === 0) sum += settings[g]?.minutes ?? 0;
      }
      if (sum > (befores[k] as number) - from + NEAR / 10) return true;
    }
  }
  return false;
}
