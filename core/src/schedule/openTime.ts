import type { Opening } from './openings.ts';
import type { ScheduleProblem } from './task.ts';

/** Open minutes up to any moment, of several people together or of whoever is there. */
export class OpenTime {
  private readonly starts: Float64Array;
  private readonly sums: Float64Array;
  private readonly rates: Float64Array;

  /** @param most minutes counted for one minute: 1 counts whoever is there once */
  constructor(lists: readonly (readonly Opening[])[], most = Infinity) {
    const turns = lists.flat().flatMap((o) => [
      { at: o.from, by: 1 },
      { at: o.to, by: -1 },
    ]);
    turns.sort((a, b) => a.at - b.at);
    this.starts = new Float64Array(turns.length);
    this.sums = new Float64Array(turns.length);
    this.rates = new Float64Array(turns.length);
    let [there, sum, last] = [0, 0, turns[0]?.at ?? 0];
    turns.forEach(({ at, by }, i) => {
      sum += Math.min(there, most) * (at - last);
      there += by;
      last = at;
      this.starts[i] = at;
      this.sums[i] = sum;
      this.rates[i] = Math.min(there, most);
    });
  }

  /** Minutes that are open before a moment. */
  before(at: number): number {
    if (at === Infinity) return this.sums.length === 0 ? 0 : this.read(this.sums, this.sums.length - 1);
    const i = this.lastUpTo(this.starts, at);
    return i < 0 ? 0 : this.read(this.sums, i) + this.read(this.rates, i) * (at - this.read(this.starts, i));
  }

  /** The last moment from which so many minutes are open before an end; -Infinity when there never were so many. */
  leaving(end: number, minutes: number): number {
    // What never need be over need never be begun.
    if (end === Infinity) return Infinity;
    const goal = this.before(end) - minutes;
    if (goal < -1e-9) return -Infinity;
    let [low, high] = [-1, this.sums.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.read(this.sums, middle) <= goal + 1e-9) low = middle;
      else high = middle - 1;
    }
    if (low < 0) return this.read(this.starts, 0);
    const rate = this.read(this.rates, low);
    return Math.min(end, rate > 0 ? this.read(this.starts, low) + (goal - this.read(this.sums, low)) / rate : end);
  }

  private lastUpTo(list: Float64Array, value: number): number {
    let [low, high] = [-1, list.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.read(list, middle) <= value) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  private read(list: Float64Array, i: number): number {
    return list[i] as number;
  }
}

/** Time in which anybody is there. */
export function anyoneOf({ people }: Pick<ScheduleProblem, 'people'>): OpenTime {
  return new OpenTime(
    people.map((p) => p.open),
    1,
  );
}
