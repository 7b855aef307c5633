import { entryOf, lastOf, nth } from '../lists/there.ts';
import { boundsOf, type Bounds } from './bound.ts';
import { Decoder } from './decode.ts';
import { NO_TIME } from './freeTime.ts';
import { orderBy, orderLike, rulesFor, type Rule } from './orders.ts';
import type { Schedule, ScheduleProblem, Score } from './task.ts';

/** Less than this is no better, minutes: a schedule that people know is not turned over for it. */
export const WORTH_MINUTES = 15;

/** One figure for a schedule, so that two can be compared: what is late counts most, then when everything is done, then shop hours; boards that are done sooner decide between equals. */
export function penaltyOf({ late, worst, length, open, average }: Score): number {
  return late === Infinity ? Infinity : 1e6 * (late + worst) + 1000 * length + open + average / 10;
}

/** A schedule, and how good it is known to be. */
export interface Judged {
  schedule: Schedule;
  bounds: Bounds;
  /** By how much all of it could be over sooner at most, as a share of the bound; 0 is proven best. */
  gap: number;
  /** It is known that no schedule is later or longer than it must be. */
  proven: boolean;
}

/** @param bounds left out: worked out here */
export function judged(problem: ScheduleProblem, schedule: Schedule, bounds: Bounds = boundsOf(problem)): Judged {
  const { length } = schedule.score;
  const gap = bounds.length <= 0 ? 0 : Math.max(0, (length - bounds.length) / bounds.length);
  return { schedule, bounds, gap, proven: isProven(schedule.score, bounds) };
}

/** So near its bound nobody looks further, minutes. */
const NEAR_MINUTES = 2;

const isProven = ({ length, worst }: Score, bounds: Bounds): boolean =>
  length <= bounds.length + NEAR_MINUTES && worst <= bounds.worst + NEAR_MINUTES;

/** The best of the rules of thumb, or the order that was kept before: at once. @param kept ids in the order that was kept; tasks it does not know are put where they are urgent */
export function firstSchedule(problem: ScheduleProblem, kept: readonly string[] = []): Schedule {
  const rules = rulesFor(problem);
  const decoder = new Decoder(problem);
  if (kept.length > 0) return decoder.schedule(orderLike(problem, kept, nth(rules, 0)));
  return rules
    .map((rule) => decoder.schedule(orderBy(problem, rule)))
    .reduce((best, own) => (penaltyOf(own.score) < penaltyOf(best.score) - NO_TIME ? own : best));
}

/** As many tasks are put in every order that there is, and the best is proven to be. */
const FEW_TASKS = 7;

/** Numbers from 0 to 1 that are the same for the same seed (xorshift32). */
function randomFrom(seed: number): () => number {
  let state = seed | 0 || 1;
  return () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) / 2 ** 32;
  };
}

/** Accepted while it is no worse than it was so many looks ago (late acceptance hill climbing). */
const MEMORY = 60;
/** Of so many looks at single tasks one begins anew from a rule of thumb with some noise. */
const FRESH_EVERY = 12;
/** So many looks without anything better and both searches begin anew elsewhere. */
const PATIENCE = 400;
/** Of three looks two are at whose turn it is, one at single tasks. */
const TURNS_OF = 3;

/** A search that goes on from where it is while that is no worse than it was some looks ago. */
class Climb<T> {
  private readonly memory: number[];
  private looks = 0;

  constructor(
    public at: T,
    public cost: number,
  ) {
    this.memory = Array<number>(MEMORY).fill(cost);
  }

  /** Goes there, or stays. */
  offer(there: T, cost: number): boolean {
    const slot = this.looks % MEMORY;
    const goes = cost <= (this.memory[slot] as number) || cost <= this.cost;
    if (goes) {
      this.at = there;
      this.cost = cost;
    }
    this.memory[slot] = Math.min(this.memory[slot] as number, this.cost);
    this.looks += 1;
    return goes;
  }

  /** Goes there in any case, and forgets what was. */
  restart(there: T, cost: number): void {
    this.at = there;
    this.cost = cost;
    this.memory.fill(cost);
  }
}

/**
 * Looks for a better schedule, a few orders at a time, so that whoever watches sees it come and may stop. The same seed looks at the same orders. Two searches help each other: one changes whose turn
 * it is, board by board up to its next wait in clamps or bath; the other moves single tasks, mostly those of the board that ends last.
 */
export class Improver {
  readonly bounds: Bounds;
  best: Schedule;
  private readonly decoder: Decoder;
  private readonly rules: Rule[];
  private readonly tasks: Climb<number[]>;
  private readonly turns: Climb<string[]>;
  /** Tasks of each board up to each wait that holds something. */
  private readonly stretches: ReadonlyMap<string, number[][]>;
  /** The board that ends last in the order that is worked on, by its number. */
  private last = -1;
  private bestCost: number;
  private looks = 0;
  /** Looks since the best one was found, or since both searches began anew. */
  private idle = 0;
  private readonly random: () => number;
  private done = false;

  constructor(
    private readonly problem: ScheduleProblem,
    first: Schedule,
    seed = 1,
  ) {
    this.bounds = boundsOf(problem);
    this.decoder = new Decoder(problem);
    this.rules = rulesFor(problem);
    this.best = first;
    this.bestCost = penaltyOf(first.score);
    this.stretches = stretchesOf(problem);
    this.tasks = new Climb(this.decoder.numbersOf(first.order), this.bestCost);
    this.turns = new Climb(inTurn(this.stretches), Infinity);
    this.random = randomFrom(seed * 7919 + 17);
    if (problem.tasks.length <= FEW_TASKS) this.lookAtAll();
  }

  judged(): Judged {
    const known = judged(this.problem, this.best, this.bounds);
    return this.done ? { ...known, gap: 0, proven: true } : known;
  }

  get finished(): boolean {
    const { score } = this.best;
    return this.done || this.problem.tasks.length < 2 || isProven(score, this.bounds);
  }

  /** Looks at so many more orders. @returns whether the best one is another now */
  look(times: number): boolean {
    const before = this.best;
    for (let k = 0; k < times && !this.finished; k += 1) {
      this.looks += 1;
      this.idle += 1;
      if (this.idle > PATIENCE) this.beginAnew();
      if (this.looks % TURNS_OF !== 0 && this.turns.at.length > 2) {
        const turns = this.otherTurns();
        const order = this.orderOf(turns);
        const { cost, last } = this.lookAt(order);
        this.turns.offer(turns, cost);
        if (cost < this.tasks.cost) {
          this.tasks.restart(order, cost);
          this.last = last;
        }
      } else {
        const order = this.looks % FRESH_EVERY === 0 ? this.noisy() : this.otherTasks();
        const { cost, last } = this.lookAt(order);
        if (this.tasks.offer(order, cost)) this.last = last;
      }
    }
    return this.best !== before;
  }

  private lookAt(order: number[]): { cost: number; last: number } {
    const outcome = this.decoder.run(order);
    const cost = penaltyOf(outcome.score);
    if (cost < this.bestCost - NO_TIME) {
      this.bestCost = cost;
      this.best = this.decoder.told(order, outcome);
      this.idle = 0;
    }
    return { cost, last: outcome.last };
  }

  /** One search goes on from the best order there is or from a rule with noise, the other from turns in any order. */
  private beginAnew(): void {
    this.idle = 0;
    const order = this.random() < 0.5 ? this.decoder.numbersOf(this.best.order) : this.noisy();
    const own = this.lookAt(order);
    this.tasks.restart(order, own.cost);
    this.last = own.last;
    const turns = [...this.turns.at];
    for (let i = turns.length - 1; i > 0; i -= 1) {
      const k = Math.floor(this.random() * (i + 1));
      [turns[i], turns[k]] = [nth(turns, k), nth(turns, i)];
    }
    this.turns.restart(turns, this.lookAt(this.orderOf(turns)).cost);
  }

  /** Somebody's turn comes earlier or later. */
  private otherTurns(): string[] {
    const turns = [...this.turns.at];
    const from = Math.floor(this.random() * turns.length);
    const to = this.near(from, turns.length, 4, this.random() * 2 - 1);
    const [one] = turns.splice(from, 1);
    turns.splice(to, 0, one as string);
    return turns;
  }

  /** A place some way before or behind another; near ones oftener than far ones. @param way -1 to 1 */
  private near(from: number, count: number, span: number, way: number): number {
    const most = this.random() < 0.5 ? span : count;
    return Math.max(0, Math.min(count - 1, from + Math.round(way * most)));
  }

  private orderOf(turns: readonly string[]): number[] {
    const next = new Map<string, number>();
    return turns.flatMap((board) => {
      const k = next.get(board) ?? 0;
      next.set(board, k + 1);
      return nth(entryOf(this.stretches, board), k);
    });
  }

  /** A rule of thumb, each board and each task a little more or less urgent than it says. */
  private noisy(): number[] {
    const rule = nth(this.rules, Math.floor(this.random() * this.rules.length));
    const ranks = this.problem.tasks.map(rule).sort((a, b) => a - b);
    const spread = (lastOf(ranks) - nth(ranks, 0)) * this.random() * 0.5;
    const boards = new Map<string, number>();
    const noise = (board: string) => {
      const known = boards.get(board) ?? (this.random() - 0.5) * spread;
      boards.set(board, known);
      return known;
    };
    const urgent = new Map(
      this.problem.tasks.map((t) => [t.id, rule(t) + noise(t.board) + (this.random() - 0.5) * spread * 0.2]),
    );
    return this.decoder.numbersOf(orderBy(this.problem, (t) => entryOf(urgent, t.id)));
  }

  /** One task earlier or later in the order, with those that stand in its way as far as they depend on one another. */
  private otherTasks(): number[] {
    const order = [...this.tasks.at];
    let from = Math.floor(this.random() * order.length);
    // What ends last decides: half of the looks are at it, and bring it forward.
    const urgent = this.last >= 0 && this.random() < 0.5;
    for (let k = 0; urgent && k < order.length && this.decoder.boardOf(nth(order, from)) !== this.last; k += 1)
      from = (from + 1) % order.length;
    const way = urgent ? -this.random() : this.random() * 2 - 1;
    const to = this.near(from, order.length, Math.max(3, Math.ceil(order.length / 30)), way);
    const [low, high] = [Math.min(from, to), Math.max(from, to)];
    const moving = new Set([nth(order, from)]);
    const between = order.slice(low, high + 1);
    const walk = to < from ? [...between].reverse() : between;
    for (const one of walk) {
      const before = this.decoder.before(one);
      if (to < from && moving.has(one)) before.forEach((b) => moving.add(b));
      if (to > from && before.some((b) => moving.has(b))) moving.add(one);
    }
    const [block, rest] = [between.filter((t) => moving.has(t)), between.filter((t) => !moving.has(t))];
    order.splice(low, between.length, ...(to < from ? [...block, ...rest] : [...rest, ...block]));
    return order;
  }

  /** Every order of few tasks (serial generation over all lists contains a best schedule of this kind). */
  private lookAtAll(): void {
    const count = this.problem.tasks.length;
    const visit = (order: number[]): void => {
      if (order.length === count) return void this.lookAt(order);
      for (let i = 0; i < count; i += 1)
        if (!order.includes(i) && this.decoder.before(i).every((a) => order.includes(a))) visit([...order, i]);
    };
    visit([]);
    this.done = true;
  }
}

/** Tasks of each board in parts: up to each one that holds something, by their numbers. */
function stretchesOf({ tasks }: ScheduleProblem): Map<string, number[][]> {
  const stretches = new Map<string, number[][]>();
  tasks.forEach((task, i) => {
    const own = stretches.get(task.board) ?? [[]];
    lastOf(own).push(i);
    if (task.holds.length > 0) own.push([]);
    stretches.set(task.board, own);
  });
  return stretches;
}

/** Every board once, then every board again, as long as it has something left. */
function inTurn(stretches: ReadonlyMap<string, number[][]>): string[] {
  const most = Math.max(0, ...[...stretches.values()].map((own) => own.length));
  return Array.from({ length: most }, (_, k) =>
    [...stretches].flatMap(([board, own]) => (k < own.length ? [board] : [])),
  ).flat();
}
