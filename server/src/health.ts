import { Router } from 'express';
import type { Knex } from 'knex';

const PROBE_MS = 2000;

/** 200 while the database answers, 503 when it is gone; a pool that is busy is not gone. */
export function healthRoutes(db: Knex, trouble: () => string | null): Router {
  return Router().get('/health', async (_request, response) => {
    const reachable = await Promise.race([
      db.raw('select 1').then(
        () => true,
        (error: Error) => error.name === 'KnexTimeoutError',
      ),
      new Promise<boolean>((resolve) => setTimeout(resolve, PROBE_MS, false).unref()),
    ]);
    response
      .status(reachable ? 200 : 503)
      .json({ status: reachable ? 'ok' : 'database-gone', database: { reachable, trouble: trouble() } });
  });
}
