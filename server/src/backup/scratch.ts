import { entryOf } from '#core/lists/there.ts';
import mysql from 'mysql2/promise';
import { fillScratch } from './fillScratch.ts';
import { BackupError, type Keeper } from './keeper.ts';
import { clientArguments, withDatabase } from './mariadbClient.ts';

/** The databases of a restore: what is stored, where a backup is tried out, and what was stored before. */
export interface RestoreDatabases {
  now: string;
  scratch: string;
  before: string;
}

export function restoreDatabases(url: string): RestoreDatabases {
  const { name } = clientArguments(url);
  return { now: name, scratch: `${name}_restore`, before: `${name}_before` };
}

export const quoted = (name: string) => `\`${name.replaceAll('`', '``')}\``;

/** Nobody waits longer than this for tables that change places, while everybody else would wait behind it, seconds. */
const SWAP_WAIT_SECONDS = 10;

/** Works on a connection of its own. */
export async function withConnection<T>(url: string, work: (connection: mysql.Connection) => Promise<T>): Promise<T> {
  const connection = await mysql.createConnection(url);
  // One that is cut off says so to whoever waits for it.
  connection.on('error', () => {});
  try {
    return await work(connection);
  } finally {
    await connection.end().catch(() => connection.destroy());
  }
}

export async function tablesOf(connection: mysql.Connection, database: string): Promise<string[]> {
  const [rows] = await connection.query(
    'select table_name as name from information_schema.tables where table_schema = ?',
    [database],
  );
  return (rows as { name: string }[]).map((r) => r.name);
}

/**
 * Fills the scratch database from a backup.
 * @param signal lets go of it
 * @returns its url
 * @throws BackupError when the account may not make one, or the backup holds what no backup of Cadenza holds
 */
export async function loadScratch({ url }: Pick<Keeper, 'url'>, file: string, signal: AbortSignal): Promise<string> {
  const { scratch } = restoreDatabases(url);
  await dropScratch(url);
  await withConnection(url, (c) => c.query(`create database ${quoted(scratch)} character set utf8mb4`)).catch(
    (error: Error) => {
      throw new BackupError(
        `A backup is tried out in a database ${scratch} first, and that cannot be made (${error.message}). Let this account make it; nothing was changed.`,
      );
    },
  );
  const filled = withDatabase(url, scratch);
  try {
    await withConnection(filled, (c) => {
      // What the database is at just now ends with its connection.
      const drop = () => c.destroy();
      signal.addEventListener('abort', drop, { once: true });
      return fillScratch(c, file, signal).finally(() => signal.removeEventListener('abort', drop));
    });
  } catch (error) {
    await dropScratch(url);
    signal.throwIfAborted();
    if (error instanceof BackupError) throw new BackupError(`${error.message}. Nothing was changed.`);
    throw new BackupError(
      `The backup cannot be read (${(error as Error).message.slice(0, 200)}). Nothing was changed.`,
    );
  }
  return filled;
}

export async function dropScratch(url: string): Promise<void> {
  await withConnection(url, (c) => c.query(`drop database if exists ${quoted(restoreDatabases(url).scratch)}`));
}

/** Puts the tables of the scratch database in the place of those that are stored, which are kept beside them: one statement, all or nothing. */
export async function swapIn(url: string): Promise<void> {
  const { now, scratch, before } = restoreDatabases(url);
  await withConnection(url, async (c) => {
    await c.query('set foreign_key_checks = 0');
    await c.query(`drop database if exists ${quoted(before)}`);
    await c.query(`create database ${quoted(before)} character set utf8mb4`);
    await rename(c, [
      [now, before],
      [scratch, now],
    ]);
    await c.query(`drop database if exists ${quoted(scratch)}`);
  });
}

/** What was stored before the last restore and what is stored now change places. @returns false when nothing was stored before */
export async function swapBack(url: string): Promise<boolean> {
  const { now, scratch, before } = restoreDatabases(url);
  return withConnection(url, async (c) => {
    await c.query('set foreign_key_checks = 0');
    if ((await tablesOf(c, before)).length === 0) return false;
    await c.query(`drop database if exists ${quoted(scratch)}`);
    await c.query(`create database ${quoted(scratch)} character set utf8mb4`);
    await rename(c, [
      [now, scratch],
      [before, now],
      [scratch, before],
    ]);
    await c.query(`drop database ${quoted(scratch)}`);
    return true;
  });
}

/** Moves all tables of databases, one pair after the other, in one statement. */
async function rename(c: mysql.Connection, moves: readonly (readonly [from: string, to: string])[]): Promise<void> {
  const held = new Map<string, string[]>();
  for (const [from, to] of moves)
    for (const name of [from, to]) if (!held.has(name)) held.set(name, await tablesOf(c, name));
  const steps = moves.flatMap(([from, to]) => {
    const tables = entryOf(held, from);
    held.set(from, []);
    held.set(to, tables);
    return tables.map((table) => `${quoted(from)}.${quoted(table)} to ${quoted(to)}.${quoted(table)}`);
  });
  if (steps.length === 0) return;
  await c.query(`set session lock_wait_timeout = ${SWAP_WAIT_SECONDS}`);
  await c.query(`rename table ${steps.join(', ')}`).catch((error: Error & { code?: string }) => {
    throw error.code === 'ER_LOCK_WAIT_TIMEOUT'
      ? new BackupError(
          'Somebody takes everything out just now, or works on all of it. Try again in a moment; nothing was changed.',
        )
      : error;
  });
}
