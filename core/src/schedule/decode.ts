import { entryOf, nth } from '../lists/there.ts';
import { anyoneOf, type OpenTime } from './openTime.ts';
import { fit, NO_TIME, take, type Free } from './freeTime.ts';
import type { Opening } from './openings.ts';
import type { BoardTimes, Placed, Schedule, ScheduleProblem, Score, Task } from './task.ts';

/** A machine in use, or left as it was set between two tasks that share the setting. */
interface InUse extends Opening {
  key: string | null;
  /** Nobody is at it: whoever leaves it as it is set may use it. */
  left: boolean;
}

/** So much of something is held from one moment to another. */
interface Holding {
  from: number;
  until: number;
  amount: number;
}

/** A task with everything that it names by number. */
interface Known {
  task: Task;
  after: readonly number[];
  followers: number[];
  machines: readonly number[];
  holds: readonly { resource: number; amount: number; after: number }[];
  /** Who could do it: numbers of people, one or several at once. */
  crews: readonly (readonly number[])[];
  unbroken: boolean;
  stay: number;
  board: number;
}

/** Where a task is. */
interface Spot {
  people: readonly number[];
  hands: Opening[];
  until: number;
  shared: boolean;
}

/** What an order gave: every task by its number. */
interface Outcome {
  spots: (Spot | null)[];
  /** The board that is latest, or done last. */
  last: number;
  loose: ReadonlySet<number>;
  score: Score;
}

/**
 * Gives every task its place, one after the other in an order: where it is done first beside those that have theirs (serial schedule generation). Pinned ones take theirs before all
 * others; where something they wait for is not over then, the pin is loose.
 */
export class Decoder {
  private readonly known: Known[];
  private readonly numbers: ReadonlyMap<string, number>;
  private readonly boards: string[];
  private readonly resources: string[];
  private readonly capacities: number[];
  private readonly machineCount: number;
  private readonly pinned: number[];
  private readonly dues: (readonly [at: number, cured: boolean] | null)[];
  private readonly opened: OpenTime;
  /** With one pair of hands nothing else can be in use. */
  private readonly alone: boolean;

  constructor(readonly problem: ScheduleProblem) {
    const { tasks, people, capacities, dues } = problem;
    this.numbers = new Map(tasks.map((t, i) => [t.id, i]));
    this.boards = [...new Set(tasks.map((t) => t.board))];
    const machines = [...new Set(tasks.flatMap((t) => t.machines))];
    this.machineCount = machines.length;
    this.resources = [...capacities.keys()];
    this.capacities = [...capacities.values()];
    this.alone = people.length === 1;
    this.opened = anyoneOf(problem);
    const longest = Math.max(0, ...people.flatMap((p) => p.open.map((o) => o.to - o.from)));
    this.known = tasks.map((task): Known => ({
      task,
      after: task.after.map((id) => entryOf(this.numbers, id)),
      followers: [],
      machines: task.machines.map((m) => machines.indexOf(m)),
      holds: task.holds.flatMap(({ resource, amount, after }) => {
        const k = this.resources.indexOf(resource);
        // More than there is of it is all of it.
        return k < 0 ? [] : [{ resource: k, amount: Math.min(amount, nth(this.capacities, k)), after }];
      }),
      crews: crewsFor(
        task,
        people.map((p) => p.id),
      ),
      unbroken: task.unbroken && task.minutes <= longest,
      stay: task.minutes + task.stay <= longest ? task.stay : 0,
      board: this.boards.indexOf(task.board),
    }));
    this.known.forEach((k, i) => k.after.forEach((a) => this.of(a).followers.push(i)));
    this.pinned = tasks.flatMap((t, i) => (t.pinned === null ? [] : [i]));
    this.dues = this.boards.map((b) => {
      const due = dues.get(b);
      return due ? [due.at, due.cured] : null;
    });
  }

  /** Ids as numbers of tasks. */
  numbersOf(order: readonly string[]): number[] {
    return order.map((id) => entryOf(this.numbers, id));
  }

  /** Numbers of the tasks that a task comes after. */
  before(task: number): readonly number[] {
    return this.of(task).after;
  }

  /** The board of a task, by its number. */
  boardOf(task: number): number {
    return this.of(task).board;
  }

  /** Carries an order out. @param order numbers of all tasks, each after those it depends on */
  run(order: readonly number[]): Outcome {
    const loose = new Set<number>();
    for (;;) {
      const outcome = this.attempt(order, loose);
      if (outcome) return outcome;
    }
  }

  /** The same with everything that is told of a schedule. */
  schedule(order: readonly string[]): Schedule {
    const numbers = this.numbersOf(order);
    return this.told(numbers, this.run(numbers));
  }

  told(order: readonly number[], { spots, loose, score }: Outcome): Schedule {
    const { problem } = this;
    const placed = new Map<string, Placed>();
    const unplaced: string[] = [];
    this.known.forEach(({ task }, i) => {
      const spot = spots[i];
      if (!spot) return void unplaced.push(task.id);
      placed.set(task.id, { ...spot, task, people: spot.people.map((p) => nth(problem.people, p).id) });
    });
    return {
      placed,
      unplaced,
      loose: [...loose].map((i) => this.of(i).task.id),
      order: order.map((i) => this.of(i).task.id),
      boards: new Map(this.timesOf(spots).flatMap((t, i) => (t ? [[nth(this.boards, i), t]] : []))),
      score,
    };
  }

  private of(i: number): Known {
    return this.known[i] as Known;
  }

  /** @returns null where a pin turned out to be loose, which it is from then on */
  private attempt(order: readonly number[], loose: Set<number>): Outcome | null {
    const { problem, known } = this;
    const free = problem.people.map((p): Free[] => p.open.map((o) => ({ from: o.from, to: o.to, shut: o.to })));
    const uses = Array.from({ length: this.machineCount }, (): InUse[] => []);
    const holdings = this.resources.map((r): Holding[] =>
      problem.held.flatMap((h) => (h.resource === r ? [{ from: -Infinity, until: h.until, amount: h.amount }] : [])),
    );
    const state: State = { free, uses, holdings };
    const spots: (Spot | null)[] = Array<Spot | null>(known.length).fill(null);
    for (const i of this.pinned) {
      if (loose.has(i)) continue;
      const own = this.of(i);
      const at = own.task.pinned as number;
      const spot = at < problem.from ? null : this.spot(own, at, state);
      if (!spot || (spot.hands[0] as Opening).from > at + NO_TIME) {
        loose.add(i);
        continue;
      }
      this.put(own, spot, state);
      spots[i] = spot;
    }
    for (const i of order) {
      const own = this.of(i);
      let ready = Math.max(problem.from, own.task.notBefore);
      let never = false;
      for (const a of own.after) {
        const before = spots[a];
        if (before) ready = Math.max(ready, before.until);
        else never = true;
      }
      if (spots[i]) {
        if (!never && ready <= (own.task.pinned as number) + NO_TIME) continue;
        loose.add(i);
        return null;
      }
      if (never) continue;
      const spot = this.spot(own, own.task.pinned === null ? ready : Math.max(ready, own.task.pinned), state);
      if (!spot) continue;
      this.put(own, spot, state);
      spots[i] = spot;
    }
    return { spots, loose, ...this.scored(spots) };
  }

  /** Where a task is done first, from a moment on; null where nobody ever comes. */
  private spot(own: Known, from: number, state: State): Spot | null {
    let best: Spot | null = null;
    for (const crew of own.crews) {
      const found = this.spotFor(own, crew, from, state);
      if (found && (!best || endOf(found) < endOf(best) - NO_TIME)) best = found;
    }
    return best;
  }

  private spotFor(own: Known, people: readonly number[], from: number, { free, uses, holdings }: State): Spot | null {
    const { task, unbroken, stay } = own;
    const lists = people.map((p) => free[p] as Free[]);
    const machine = own.machines[0];
    for (let at = from; ;) {
      let hands = fit(lists, at, { minutes: task.minutes, stay, unbroken });
      if (!hands) return null;
      let shared = false;
      if (task.setting && machine !== undefined) {
        const before = lastBefore(uses[machine] as InUse[], (hands[0] as Opening).from);
        if (before && before.key === task.setting.key) {
          const less = fit(lists, at, { minutes: task.minutes - task.setting.minutes, stay, unbroken });
          // Begun earlier it might come before what it shares the setting with.
          if (less && (less[0] as Opening).from >= before.to - NO_TIME) {
            hands = less;
            shared = true;
          }
        }
      }
      const begins = (hands[0] as Opening).from;
      const ends = (hands[hands.length - 1] as Opening).to;
      let later = begins;
      for (let m = 0; m < own.machines.length; m += 1)
        later = Math.max(
          later,
          machineFree(
            uses[own.machines[m] as number] as InUse[],
            hands,
            m === 0 ? (task.setting?.key ?? null) : null,
            this.alone,
          ),
        );
      for (const { resource, amount, after } of own.holds)
        later = Math.max(
          later,
          holdFree(holdings[resource] as Holding[], begins, ends + after, amount, this.capacities[resource] as number),
        );
      if (later <= begins + NO_TIME) return { people, hands, until: ends + task.wait, shared };
      at = later;
    }
  }

  private put(own: Known, { people, hands, shared }: Spot, { free, uses, holdings }: State): void {
    for (const p of people) take(free[p] as Free[], hands);
    const [first, last] = [hands[0] as Opening, hands[hands.length - 1] as Opening];
    own.machines.forEach((machine, m) => {
      const list = uses[machine] as InUse[];
      const key = m === 0 ? (own.task.setting?.key ?? null) : null;
      const before = shared && key !== null ? lastBefore(list, first.from) : null;
      if (before && first.from > before.to + NO_TIME)
        insert(list, { from: before.to, to: first.from, key, left: true });
      for (const hand of hands) insert(list, { from: hand.from, to: hand.to, key, left: false });
    });
    for (const { resource, amount, after } of own.holds)
      (holdings[resource] as Holding[]).push({ from: first.from, until: last.to + after, amount });
  }

  private timesOf(spots: readonly (Spot | null)[]): (BoardTimes | null)[] {
    const times: (BoardTimes | null)[] = this.boards.map(() => null);
    spots.forEach((spot, i) => {
      if (!spot) return;
      const { board, task } = this.of(i);
      const own = (times[board] ??= { begun: Infinity, handled: -Infinity, used: -Infinity, late: null });
      own.begun = Math.min(own.begun, (spot.hands[0] as Opening).from);
      own.handled = Math.max(own.handled, spot.until);
      own.used = Math.max(own.used, spot.until + task.cure);
    });
    times.forEach((own, i) => {
      const due = this.dues[i];
      if (own && due) own.late = (due[1] ? own.used : own.handled) - due[0];
    });
    return times;
  }

  /** What is judged of a schedule. What never happens is worse than anything that does. */
  private scored(spots: readonly (Spot | null)[]): { score: Score; last: number } {
    let [late, worst, length, sum, count, last] = [0, 0, 0, 0, 0, 0];
    if (spots.some((s) => s === null))
      return { score: { late: Infinity, worst: Infinity, length: Infinity, open: Infinity, average: Infinity }, last };
    let latest = -Infinity;
    let hands = this.problem.from;
    for (const spot of spots) hands = Math.max(hands, endOf(spot as Spot));
    this.timesOf(spots).forEach((times, i) => {
      if (!times) return;
      const lateness = Math.max(0, times.late ?? 0);
      const takes = times.handled - this.problem.from;
      if (lateness * 1000 + takes > latest) [latest, last] = [lateness * 1000 + takes, i];
      late += lateness;
      worst = Math.max(worst, lateness);
      length = Math.max(length, takes);
      sum += takes;
      count += 1;
    });
    return {
      score: { late, worst, length, open: this.opened.before(hands), average: count === 0 ? 0 : sum / count },
      last,
    };
  }
}

interface State {
  free: Free[][];
  uses: InUse[][];
  holdings: Holding[][];
}

const endOf = ({ hands }: Spot): number => (hands[hands.length - 1] as Opening).to;

/** Those who could do a task: one pair of hands, or several at once. */
function crewsFor(task: Task, people: readonly string[]): number[][] {
  const all = people.map((_, i) => i);
  const own = task.person === null ? -1 : people.indexOf(task.person);
  if (task.people <= 1 || people.length < 2) return own >= 0 ? [[own]] : all.map((i) => [i]);
  if (own >= 0) return all.filter((i) => i !== own).map((i) => [own, i]);
  return all.flatMap((one) => all.slice(one + 1).map((other) => [one, other]));
}

/** Puts a stretch where it belongs by its beginning. */
function insert(list: InUse[], use: InUse): void {
  let i = list.length;
  while (i > 0 && (list[i - 1] as InUse).from > use.from) i -= 1;
  list.splice(i, 0, use);
}

/** What a machine was last used for before a moment. */
function lastBefore(uses: readonly InUse[], at: number): InUse | null {
  for (let i = uses.length - 1; i >= 0; i -= 1) {
    const use = uses[i] as InUse;
    if (!use.left && use.to <= at + NO_TIME) return use;
  }
  return null;
}

/** When to try again, because a machine is in use; the beginning of the hands where it is not. @param alone one pair of hands: only what was left as it is set stands in the way */
function machineFree(uses: readonly InUse[], hands: readonly Opening[], key: string | null, alone: boolean): number {
  let later = (hands[0] as Opening).from;
  const ends = (hands[hands.length - 1] as Opening).to;
  for (let i = uses.length - 1; i >= 0; i -= 1) {
    const use = uses[i] as InUse;
    if (use.from >= ends || use.to <= later) continue;
    if (use.left ? use.key === key : alone) continue;
    for (const h of hands)
      if (h.from < use.to - NO_TIME && h.to > use.from + NO_TIME) {
        later = Math.max(later, use.to);
        break;
      }
  }
  return later;
}

/** When to try again, because too much is held; the beginning where there is enough all the while. */
function holdFree(list: readonly Holding[], from: number, until: number, amount: number, capacity: number): number {
  let later = from;
  // What is held changes only where something begins.
  for (let k = -1; k < list.length; k += 1) {
    const at = k < 0 ? from : (list[k] as Holding).from;
    if (at < from || (k >= 0 && (at <= from || at >= until - NO_TIME))) continue;
    let held = 0;
    let soonest = Infinity;
    for (const h of list) {
      if (h.from > at + NO_TIME || h.until <= at + NO_TIME) continue;
      held += h.amount;
      soonest = Math.min(soonest, h.until);
    }
    if (held + amount > capacity + NO_TIME && soonest < Infinity) later = Math.max(later, soonest);
  }
  return later;
}

/** A schedule from an order of ids. */
export function decode(problem: ScheduleProblem, order: readonly string[]): Schedule {
  return new Decoder(problem).schedule(order);
}
