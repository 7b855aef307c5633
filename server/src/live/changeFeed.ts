import type { Knex } from 'knex';
import type { LiveChange } from '#contract/live.ts';
import { changesAfter, newestChange } from '../stores/changeStore.ts';

/** So often the database is asked what is new while anybody listens, ms. */
const LOOK_EVERY_MS = 200;
/** Numbers are given out before they are committed: those among so many behind the newest that were not there yet are looked for again. */
const LATE = 300;
const MOST_AT_ONCE = 2000;

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
        this.newest = Math.max(this.newest, last.id);
        for (const { id } of fresh) this.told.add(id);
        for (const id of this.told) if (id <= this.newest - 2 * LATE) this.told.delete(id);
        for (const listener of [...this.listeners]) listener(fresh);
      }
    } catch {
      // The database is gone for now: every request says so itself.
    }
    this.next(this.everyMs);
  }
}
