import type { Knex } from 'knex';
import type { LiveChange } from '#contract/live.ts';
import { changesAfter, newestChange } from '../stores/changeStore.ts';

/** So often the database is asked what is new while anybody listens, ms. */
const LOOK_EVERY_MS = 200;
/** Numbers are given out before they are committed: those among so many behind the newest that were not there yet are looked for again. */
const LATE = 300;
const MOST_AT_ONCE = 2000;
/** One that is not there after so long was never committed, ms: a number is given out last of all in what is stored. */
const GIVEN_UP_MS = 10_000;

type Listener = (changes: readonly LiveChange[]) => void;

/**
 * What is stored, by whichever server on this database, told to whoever listens here. The database is asked once for all of them, and not at all while nobody
 * listens; one that is gone is asked again until it is back.
 */
export class ChangeFeed {
  private readonly listeners = new Set<Listener>();
  private timer: ReturnType<typeof setTimeout> | undefined;
  private newest = 0;
  /** Numbers that were told, as far as they may come again. */
  private told = new Set<number>();
  /** Since when a number is missing that was skipped while somebody listened. */
  private readonly skipped = new Map<number, number>();
  private stopped = false;

  constructor(
    private readonly db: Knex,
    private readonly everyMs = LOOK_EVERY_MS,
  ) {}

  /** Tells a listener everything that is stored from now on. @returns ends it @throws what the database says when it cannot be asked */
  async subscribe(listener: Listener): Promise<() => void> {
    if (this.listeners.size === 0) await this.begin();
    this.listeners.add(listener);
    if (this.listeners.size === 1) this.next(this.everyMs);
    return () => {
      this.listeners.delete(listener);
      if (this.listeners.size === 0) clearTimeout(this.timer);
    };
  }

  /** What is there already is told to nobody. */
  private async begin(): Promise<void> {
    const newest = await newestChange(this.db);
    this.told = new Set((await changesAfter(this.db, newest - LATE, MOST_AT_ONCE)).map((c) => c.id));
    this.newest = Math.max(newest, ...this.told);
    // What is older than all that is kept was forgotten.
    const oldest = Math.min(this.newest, ...this.told);
    this.noteSkipped(this.missing().filter((id) => id > oldest));
  }

  stop(): void {
    this.stopped = true;
    clearTimeout(this.timer);
    this.listeners.clear();
  }

  /** Numbers that were given out, as far as anybody knows, and are not committed yet: or never will be. */
  private missing(): number[] {
    const missing: number[] = [];
    for (let id = Math.max(1, this.newest - LATE + 1); id < this.newest; id += 1)
      if (!this.told.has(id)) missing.push(id);
    return missing;
  }

  /** Up to this number everything was told that will ever come: from there a page goes on that comes back, to whichever server. */
  get whole(): number {
    const given = Date.now() - GIVEN_UP_MS;
    let first = this.newest + 1;
    for (const [id, since] of this.skipped) if (since > given) first = Math.min(first, id);
    return first - 1;
  }

  private noteSkipped(missing: readonly number[]): void {
    const now = Date.now();
    const before = new Map(this.skipped);
    this.skipped.clear();
    for (const id of missing) this.skipped.set(id, before.get(id) ?? now);
  }

  private next(delay: number): void {
    clearTimeout(this.timer);
    if (!this.stopped && this.listeners.size > 0) this.timer = setTimeout(() => void this.look(), delay).unref();
  }

  private async look(): Promise<void> {
    try {
      const found = await changesAfter(this.db, this.newest, MOST_AT_ONCE, this.missing());
      const fresh = found.filter((c) => !this.told.has(c.id));
      const last = fresh.at(-1);
      if (last) {
        const before = this.newest;
        this.newest = Math.max(this.newest, last.id);
        for (const { id } of fresh) this.told.add(id);
        for (const id of this.told) if (id <= this.newest - 2 * LATE) this.told.delete(id);
        this.noteSkipped(this.missing().filter((id) => this.skipped.has(id) || id > before));
        for (const listener of [...this.listeners]) listener(fresh);
      }
    } catch {
      // The database is gone for now: every request says so itself.
    }
    this.next(this.everyMs);
  }
}
