import { Router } from 'express';
import type { Knex } from 'knex';

const PROBE_MS = 2000;

/**
 * Whether the process lives (`/health/live`: always, while it answers), and whether it is ready for work (`/health/ready`, and `/health` of old): 503 while the database
 * is gone, or while it is ending. A pool that is busy is not gone.
 */
export function healthRoutes(db: Knex, trouble: () => string | null, ending: () => boolean): Router {
  const router = Router();
  router.get('/health/live', (_request, response) => {
    response.json({ status: 'alive' });
  });
  router.get(['/health', '/health/ready'], async (_request, response) => {
    const reachable = await Promise.race([
      db.raw('select 1').then(
        () => true,
        (error: Error) => error.name === 'KnexTimeoutError',
      ),
      new Promise<boolean>((resolve) => setTimeout(resolve, PROBE_MS, false).unref()),
    ]);
    const ready = reachable && !ending();
    response.status(ready ? 200 : 503).json({
      status: ready ? 'ok' : reachable ? 'ending' : 'database-gone',
      database: { reachable, trouble: trouble() },
    });
  });
  return router;
}
