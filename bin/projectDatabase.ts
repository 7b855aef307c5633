import { join } from 'node:path';
import { startProjectDatabase, type ProjectDatabase } from './database.ts';
import { ROOT } from './root.ts';

/**
 * The database that the commands work on: `DATABASE_URL` when it is set, else Cadenza's own in `CADENZA_DATA` (by default .data),
 * started when it is not running.
 */
export async function openProjectDatabase(): Promise<ProjectDatabase> {
  const url = process.env.DATABASE_URL;
  return url ? { url, stop: async () => {} } : startProjectDatabase(join(process.env.CADENZA_DATA ?? join(ROOT, '.data'), 'mariadb'));
}
