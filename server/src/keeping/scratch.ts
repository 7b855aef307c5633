import { entryOf } from '#core/lists/there.ts';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createReadStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import mysql from 'mysql2/promise';
import { KeepingError, programOf, type Keeper } from './keeper.ts';
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
  try {
    return await work(connection);
  } finally {
    await connection.end();
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
 * @returns its url
 * @throws KeepingError when the account may not make one, or the backup cannot be read to its end
 */
export async function loadScratch(keeper: Omit<Keeper, 'folder'>, file: string): Promise<string> {
  const { url, loader } = keeper;
  if (loader === null)
    throw new KeepingError(
      'This database has no account that sees nothing but the one in which a backup is tried out. Restore in a terminal (npm run restore), or name such an account: CADENZA_LOADER_URL.',
    );
  const { scratch } = restoreDatabases(url);
  await dropScratch(url);
  await withConnection(url, (c) => c.query(`create database ${quoted(scratch)} character set utf8mb4`)).catch(
    (error: Error) => {
      throw new KeepingError(
        `A backup is tried out in a database ${scratch} first, and that cannot be made (${error.message}). Let this account make it; nothing was changed.`,
      );
    },
  );
  const client = programOf(keeper, 'mariadb');
  const { args, env, name } = clientArguments(withDatabase(loader, scratch));
  // A dump is a program for the client: in its sandbox, where it has one, it can reach neither files nor a shell.
  const child = spawn(client, [...args, '--local-infile=0', '--loose-sandbox', name], {
    env,
    stdio: ['pipe', 'ignore', 'pipe'],
  });
  let complaint = '';
  child.stderr.on('data', (chunk: Buffer) => (complaint += chunk.toString()));
  // A client that gives up closes its input: its own word says more than the broken pipe.
  const fed = pipeline(createReadStream(file), child.stdin).catch(() => {});
  const [code] = (await once(child, 'close')) as [number];
  await fed;
  if (code !== 0) {
    await dropScratch(url);
    throw new KeepingError(
      `The backup cannot be read (${/^ERROR \d+ \(\w+\) at line \d+|^ERROR.*/m.exec(complaint)?.[0] ?? 'no reason given'}). Nothing was changed.`,
    );
  }
  return withDatabase(url, scratch);
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
      ? new KeepingError(
          'Somebody takes everything out just now, or works on all of it. Try again in a moment; nothing was changed.',
        )
      : error;
  });
}
