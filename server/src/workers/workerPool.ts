import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import type { Call } from '../operation.ts';
import { Problem, type ProblemParts } from '../problem.ts';
import type { Reply } from '../reply.ts';

/** A request as it goes to another thread. */
export interface WorkerRequest {
  operation: string;
  call: Omit<Call, 'body'>;
  bytes: Uint8Array;
}

/** What comes back: bytes, so that nothing large is taken apart and put together between threads. */
export type WorkerAnswer =
  | { ok: true; reply: Omit<Reply, 'json' | 'write'>; json: Uint8Array | null }
  | { ok: false; problem: ProblemParts };

const MOST_THREADS = 2;
/** Waiting requests beyond this are told to come back. */
const MOST_WAITING = 40;

/** Threads for requests that may take long: the event loop stays free for everybody else. Each has a few connections of its own. */
export class WorkerPool {
  private readonly pool: Piscina<WorkerRequest, WorkerAnswer>;

  constructor(databaseUrl: string) {
    this.pool = new Piscina({
      filename: fileURLToPath(new URL('./worker.mjs', import.meta.url)),
      workerData: { databaseUrl },
      minThreads: 0,
      maxThreads: MOST_THREADS,
      idleTimeout: 60_000,
      maxQueue: MOST_WAITING,
      // A thread that slept between tasks could not see that the database had closed its connections.
      atomics: 'disabled',
    });
  }

  /** @throws Problem */
  async run(request: WorkerRequest): Promise<Reply> {
    if (this.pool.queueSize >= MOST_WAITING)
      throw new Problem(
        503,
        'busy',
        'Many large requests are waiting already. Nothing was changed; try again in a moment.',
      );
    const answer = await this.pool.run(request);
    if (!answer.ok) throw Problem.from(answer.problem);
    return { ...answer.reply, json: answer.json === null ? null : Buffer.from(answer.json).toString('utf8') };
  }

  async stop(): Promise<void> {
    await this.pool.destroy();
  }
}
