import type mysql from 'mysql2/promise';
import type { Inside } from '#contract/backup.ts';
import { openDatabase } from '../stores/database.ts';
import { StoreError } from '../stores/openStore.ts';
import { checkBackup, type BackupFile } from './backupFile.ts';
import { carryOver, forgetThePlace } from './carryOver.ts';
import { contentsOf, inspectStore, type InspectedStore } from './inspectStore.ts';
import { BackupError, type Keeper } from './keeper.ts';
import {
  dropScratch,
  loadScratch,
  quoted,
  restoreDatabases,
  swapBack,
  swapIn,
  tablesOf,
  withConnection,
} from './scratch.ts';

type Tools = Omit<Keeper, 'folder'>;

/** A backup that was read whole, and tried out. */
export interface LookedAt extends BackupFile, InspectedStore {}

/** A backup, and what it is called in what is said of it. */
export interface Named {
  file: string;
  name?: string;
}

/**
 * Reads a backup whole and tries it out in a database of its own. Nothing that is stored is touched.
 * @throws BackupError when it is none, is not whole, is of a newer Cadenza, or holds what cannot be read
 */
export async function lookInside(tools: Tools, backup: Named, signal?: AbortSignal): Promise<LookedAt> {
  return alone(tools.url, () => inScratch(tools, backup, (looked) => Promise.resolve(looked), signal));
}

/** The same, and what is stored here beside it. */
export async function compared(tools: Tools, backup: Named, signal: AbortSignal): Promise<Omit<Inside, 'token'>> {
  const { holds, madeAt, checksum } = await lookInside(tools, backup, signal);
  const db = openDatabase(tools.url, 1);
  try {
    return { holds, madeAt, checksum, here: await contentsOf(db) };
  } finally {
    await db.destroy();
  }
}

/**
 * Puts what a backup holds in the place of what is stored, all at once; what was stored is kept beside it. Servers may go on meanwhile: open pages are told.
 * @throws BackupError as `lookInside`; nothing was changed then
 */
export async function restore(tools: Tools, backup: Named): Promise<LookedAt> {
  const { now, scratch, before } = restoreDatabases(tools.url);
  return alone(tools.url, () =>
    inScratch(tools, backup, async (looked) => {
      await withConnection(tools.url, (c) => fitOver(c, scratch, now));
      await swapIn(tools.url);
      // What was written in the very moment between the two.
      await withConnection(tools.url, (c) => fitOver(c, now, before));
      return looked;
    }),
  );
}

/** What was stored before the last restore and what is stored now change places. @returns false when nothing was stored before @throws BackupError while somebody else restores */
export async function goBack({ url }: Pick<Keeper, 'url'>): Promise<boolean> {
  const { now, before } = restoreDatabases(url);
  return alone(url, async () => {
    if (!(await canGoBack({ url }))) return false;
    await withConnection(url, (c) => fitOver(c, before, now));
    await swapBack(url);
    await withConnection(url, (c) => fitOver(c, now, before));
    return true;
  });
}

/** Whether what was stored before the last restore is there. */
export async function canGoBack({ url }: Pick<Keeper, 'url'>): Promise<boolean> {
  const { before } = restoreDatabases(url);
  return withConnection(url, async (c) => {
    const [rows] = await c.query('select 1 from information_schema.tables where table_schema = ? limit 1', [before]);
    return (rows as unknown[]).length > 0;
  });
}

/** Fits a database over another as far as that one is one of this Cadenza's: a broken one, or an empty one, has nothing that could go on. */
async function fitOver(c: mysql.Connection, to: string, from: string): Promise<void> {
  const [a, b] = [await newestMigration(c, to), await newestMigration(c, from)];
  const there = new Set(await tablesOf(c, from));
  const whole = (await tablesOf(c, to)).every((table) => there.has(table));
  if (a !== null && a === b && whole) await carryOver(c, to, from);
  else if (a !== null) await forgetThePlace(c, to);
}

async function newestMigration(c: mysql.Connection, database: string): Promise<string | null> {
  const [rows] = await c
    .query(`select max(name) as name from ${quoted(database)}.knex_migrations`)
    .catch(() => [[] as { name: string }[]]);
  return (rows as { name: string | null }[])[0]?.name ?? null;
}

/** Nothing that a shop grows to takes longer to be read, ms. */
const LONGEST_LOOK_MS = 900_000;

/**
 * Works with what a backup holds while it stands in the scratch database, which is gone afterwards.
 * @param gone whoever asked for it has gone: it is let go of
 */
export async function inScratch<T>(
  tools: Tools,
  { file, name = file }: Named,
  work: (looked: LookedAt, url: string) => Promise<T>,
  gone?: AbortSignal,
): Promise<T> {
  const said = await checkBackup(file, name);
  const late = AbortSignal.timeout(LONGEST_LOOK_MS);
  const signal = gone ? AbortSignal.any([gone, late]) : late;
  try {
    const url = await loadScratch(tools, file, signal);
    const inspected = await inspectStore(url, signal);
    if (inspected.unreadable.length > 0)
      throw new BackupError(
        `${name} holds what this Cadenza cannot read: ${inspected.unreadable.slice(0, 3).join('; ')}. Nothing was changed.`,
      );
    return await work({ ...said, ...inspected }, url);
  } catch (error) {
    if (late.aborted)
      throw new BackupError(
        `${name} took longer than ${LONGEST_LOOK_MS / 60_000} minutes to read, and was let go of. Nothing was changed.`,
      );
    throw error instanceof StoreError ? new BackupError(`${name}: ${error.message} Nothing was changed.`) : error;
  } finally {
    await dropScratch(tools.url);
  }
}

/** One at a time, over all servers and commands: there is one scratch database. @throws BackupError */
export async function alone<T>(url: string, work: () => Promise<T>): Promise<T> {
  return withConnection(url, async (c) => {
    const lock = `cadenza.restore.${restoreDatabases(url).now}`;
    const [rows] = await c.query('select get_lock(?, 0) as got', [lock]);
    if ((rows as { got: number | null }[])[0]?.got !== 1)
      throw new BackupError('Somebody looks into a backup, or restores one, just now. Try again in a moment.');
    return work();
  });
}
