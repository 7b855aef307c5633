import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import type { Planning } from './plannedWork.ts';

/** What the thread is given: the moment, and a cell that is not 0 as soon as nobody waits any more. */
export interface PlanningTask {
  now: number;
  stop: Int32Array;
}

/** How often the thread is told that nobody waits any more, ms. */
const TOLD_EVERY_MS = 200;

/** One thread that plans boards, with a few connections of its own; it is gone when nothing was planned for a minute. */
export class PlanningThread {
  private readonly pool: Piscina<PlanningTask, void>;

  constructor(databaseUrl: string) {
    this.pool = new Piscina({
      filename: fileURLToPath(new URL('./planningWorker.mjs', import.meta.url)),
      workerData: { databaseUrl },
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 60_000,
      atomics: 'disabled',
    });
  }

  readonly plan: Planning = async (now, stopped) => {
    const stop = new Int32Array(new SharedArrayBuffer(Int32Array.BYTES_PER_ELEMENT));
    const telling = setInterval(() => Atomics.store(stop, 0, stopped.value ? 1 : 0), TOLD_EVERY_MS).unref();
    try {
      await this.pool.run({ now, stop });
    } finally {
      clearInterval(telling);
    }
  };

  async stop(): Promise<void> {
    await this.pool.destroy();
  }
}
