import { join } from 'node:path';
import { ROOT } from '../root.ts';
import { startProjectDatabase, type DatabaseOptions, type ProjectDatabase } from './database.ts';

/**
 * The database that the commands work on: `DATABASE_URL` when it is set, else Cadenza's own in `CADENZA_DATA` (by default .data),
 * started when it is not running.
 */
export async function openProjectDatabase(options: DatabaseOptions = {}): Promise<ProjectDatabase> {
  const url = process.env.DATABASE_URL;
  if (url) return { url, keeperUrl: url, trouble: () => null, stop: async () => {} };
  return startProjectDatabase(join(process.env.CADENZA_DATA ?? join(ROOT, '.data'), 'mariadb'), options);
}
