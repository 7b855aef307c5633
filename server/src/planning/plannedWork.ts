import type { Knex } from 'knex';
import { boardsWithoutWork, stateOfShop } from '../stores/workStore.ts';

/** Brings what is to be done up to date, wherever that is done. @param stopped set to true when nobody waits any more @throws what the database says */
export type Planning = (now: number, stopped: { value: boolean }) => Promise<unknown>;

/** Whoever is answered at once with what is known comes back for the rest within this, ms. */
const WAITED_FOR_MS = 5000;

interface Run {
  /** State of the shop that it began with. */
  state: string;
  stopped: { value: boolean };
  /** Settles with whether it came to its end. */
  done: Promise<boolean>;
  waiting: number;
  end: ReturnType<typeof setTimeout> | undefined;
}

/** The planned work of the shop at one server: one run at a time, shared by all who ask, and let go of when nobody waits. */
export class PlannedWork {
  private known: string | null = null;
  private run: Run | null = null;

  constructor(
    private readonly db: Knex,
    private readonly planning: Planning,
    private readonly waitedForMs = WAITED_FOR_MS,
  ) {}

  /**
   * Waits until what is to be done is worked out.
   * @param now milliseconds since 1970
   * @param patienceMs how long at most
   * @param gone whoever asks has gone
   * @returns whether it is worked out
   */
  async settle(now: number, patienceMs: number, gone?: AbortSignal): Promise<boolean> {
    const until = Date.now() + patienceMs;
    const state = await stateOfShop(this.db, now);
    for (;;) {
      if (this.known === state && (await boardsWithoutWork(this.db)) === 0) return true;
      const run = this.run ?? this.begin(state, now);
      const left = until - Date.now();
      const ended = left > 0 && !gone?.aborted && (await this.join(run, left, gone));
      if (!ended) return false;
      // One that began before the last change knows nothing of it, and one that was let go of did not come to its end: another one follows.
      if (run.state === state && this.known === state) return true;
    }
  }

  private begin(state: string, now: number): Run {
    const stopped = { value: false };
    const run: Run = {
      state,
      stopped,
      done: this.planning(now, stopped).then(
        () => !stopped.value,
        (error: unknown) => {
          if (this.run === run) this.run = null;
          throw error;
        },
      ),
      waiting: 0,
      end: undefined,
    };
    this.run = run;
    this.letGo(run);
    run.done.then(
      (whole) => {
        clearTimeout(run.end);
        this.run = null;
        if (whole) this.known = state;
      },
      () => clearTimeout(run.end),
    );
    return run;
  }

  /** @returns whether the run ended while it was waited for */
  private async join(run: Run, patienceMs: number, gone?: AbortSignal): Promise<boolean> {
    run.waiting += 1;
    clearTimeout(run.end);
    let timer: ReturnType<typeof setTimeout> | undefined;
    try {
      const given = new Promise<false>((resolve) => {
        timer = setTimeout(resolve, patienceMs, false);
        gone?.addEventListener('abort', () => resolve(false), { once: true });
      });
      return await Promise.race([run.done.then(() => true), given]);
    } finally {
      clearTimeout(timer);
      run.waiting -= 1;
      this.letGo(run);
    }
  }

  private letGo(run: Run): void {
    if (run.waiting > 0 || this.run !== run) return;
    run.end = setTimeout(() => (run.stopped.value = true), this.waitedForMs).unref();
  }
}
