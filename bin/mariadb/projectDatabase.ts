import { join, resolve } from 'node:path';
import { ROOT } from '../root.ts';
import { startProjectDatabase, type DatabaseOptions, type ProjectDatabase } from './database.ts';

/**
 * The database that the commands work on: `DATABASE_URL` when it is set, else Cadenza's own in `CADENZA_DATA` (by default .data),
 * started when it is not running.
 */
export async function openProjectDatabase(options: DatabaseOptions = {}): Promise<ProjectDatabase> {
  const { DATABASE_URL: url } = process.env;
  if (url) return { url, keeperUrl: url, trouble: () => null, stop: async () => {} };
  return startProjectDatabase(join(dataFolder(), 'mariadb'), options);
}

const dataFolder = (): string => process.env.CADENZA_DATA ?? join(ROOT, '.data');

/** Where copies of all that is stored are kept: `CADENZA_COPIES`, best on another disk, else beside the database. */
export const copiesFolder = (): string => resolve(process.env.CADENZA_COPIES ?? join(dataFolder(), 'copies'));
