import { join, resolve } from 'node:path';
import { ROOT } from '../root.ts';
import { startProjectDatabase, type DatabaseOptions, type ProjectDatabase } from './database.ts';

/** A database of one's own, or another one; of which nobody knows an account that sees nothing but the database in which a backup is tried out, unless it is named. */
export type OpenedDatabase = Omit<ProjectDatabase, 'loaderUrl'> & { loaderUrl: string | null };

/**
 * The database that the commands work on: `DATABASE_URL` when it is set, else Cadenza's own in `CADENZA_DATA` (by default .data),
 * started when it is not running.
 */
export async function openProjectDatabase(options: DatabaseOptions = {}): Promise<OpenedDatabase> {
  const { DATABASE_URL: url, CADENZA_LOADER_URL: loaderUrl = null } = process.env;
  if (url) return { url, keeperUrl: url, loaderUrl, trouble: () => null, stop: async () => {} };
  return startProjectDatabase(join(dataFolder(), 'mariadb'), options);
}

const dataFolder = (): string => process.env.CADENZA_DATA ?? join(ROOT, '.data');

/** Where copies of all that is stored are kept: `CADENZA_COPIES`, best on another disk, else beside the database. */
export const copiesFolder = (): string => resolve(process.env.CADENZA_COPIES ?? join(dataFolder(), 'copies'));
