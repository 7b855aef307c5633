import { certain, lastOf } from '#core/lists/there.ts';
import type { Knex } from 'knex';
import { migrations } from '../migrations/index.ts';
import { isDatabaseGone } from '../problem.ts';
import { forgetWork } from './workStore.ts';

/** The database cannot be used as it is; the message is one sentence with the way out. */
export class StoreError extends Error {
  override name = 'StoreError';
}

/** Tables this server makes; anything else in the database was not made here. */
const OWN_TABLES = [
  'species',
  'pieces',
  'shops',
  'shops_aside',
  'boards',
  'revisions',
  'facts',
  'pictures',
  'log_entries',
  'readings',
  'saw_book',
  'cut_plans',
  'cut_plan_boards',
  'promises',
  'cuttings',
  'cutting_boards',
  'glue_runs',
  'writes',
  'schedules',
  'calendar_addresses',
  'board_work',
  'shopping',
  'changes',
  'presences',
  'doors',
  'devices',
  'invitations',
  'attempts',
  'keeping',
];
const BOOKKEEPING = ['knex_migrations', 'knex_migrations_lock'];
/** Tables that hold what people entered. */
const ENTERED = ['boards', 'pieces', 'shops'];

/** How long a server waits for another one that is bringing the tables up to date, seconds. */
const MIGRATION_WAIT_SECONDS = 120;

/**
 * Brings the tables up to date. Several servers may start at once: a lock of the database lets one after the other in, and goes away with
 * the connection of one that is killed.
 * @throws StoreError for a database of others, of a newer Cadenza, or with a part missing; nothing is changed then
 */
export async function openStore(db: Knex): Promise<void> {
  try {
    await db.transaction(async (holder) => {
      const [[lock]] = (await holder.raw("select get_lock(concat('cadenza.', database()), ?) as got", [
        MIGRATION_WAIT_SECONDS,
      ])) as [[{ got: number | null }]];
      if (lock.got !== 1)
        throw new StoreError(
          `Another Cadenza has been bringing this database up to date for ${MIGRATION_WAIT_SECONDS} s. Start again when it is done.`,
        );
      try {
        await refuseForeign(db);
        await runMigrations(db);
        await refuseIncomplete(db);
        await forgetWork(db);
      } finally {
        await holder.raw("select release_lock(concat('cadenza.', database()))");
      }
    });
  } catch (error) {
    throw asStoreError(error);
  }
}

/** Codes of the database that say how it stands with its tables, not with Cadenza. */
const OF_THE_TABLES =
  /^ER_(NO_SUCH_TABLE|BAD_FIELD_ERROR|TABLE|KEY|CANT|DUP|FK|PARSE|WRONG|UNKNOWN|DBACCESS|TABLEACCESS|SPECIFIC|CONSTRAINT|DATA|TRUNCATED|CHECK|NO_REFERENCED|ROW_IS)/;

function asStoreError(error: unknown): unknown {
  const { code, message } = error as Error & { code?: string };
  if (error instanceof StoreError || isDatabaseGone(error) || !code || !OF_THE_TABLES.test(code)) return error;
  // Knex puts the statement before what the database says of it.
  const said = lastOf(message.split(' - '));
  return new StoreError(
    `The tables in the database are not as Cadenza made them (${said}). Restore a backup, or point DATABASE_URL at an empty database.`,
  );
}

async function tablesThere(db: Knex): Promise<Set<string>> {
  const [rows] = (await db.raw(
    'select table_name as name from information_schema.tables where table_schema = database()',
  )) as [{ name: string }[]];
  return new Set(rows.map((r) => r.name));
}

async function refuseForeign(db: Knex): Promise<void> {
  const there = await tablesThere(db);
  const foreign = [...there].filter((name) => !OWN_TABLES.includes(name) && !BOOKKEEPING.includes(name));
  if (foreign.length > 0)
    throw new StoreError(
      `The database holds tables that Cadenza did not make (${foreign.slice(0, 3).join(', ')}). Point DATABASE_URL at an empty database.`,
    );
  if (there.has('knex_migrations')) {
    const done = (await db<{ name: string }>('knex_migrations').select('name').orderBy('name')).map((r) => r.name);
    const unknown = done.find((name) => !(name in migrations));
    if (unknown !== undefined)
      throw new StoreError(
        `The database was made by a newer Cadenza (${unknown}). Update this one, or restore a backup that it made.`,
      );
    if (done.length > 0) return;
  }
  // Nothing says that these were made here, and the first migration would begin anew: never over what somebody entered.
  for (const table of ENTERED.filter((name) => there.has(name))) {
    if (await db(table).first())
      throw new StoreError(
        `The database holds a table ${table} with rows in it, but no record of who made it. Point DATABASE_URL at an empty database.`,
      );
  }
}

async function runMigrations(db: Knex): Promise<void> {
  // A server killed in the middle leaves Knex's own lock behind; the one held here makes it safe to take it away.
  if (await db.schema.hasTable('knex_migrations_lock')) await db.migrate.forceFreeMigrationsLock();
  await db.migrate.latest({
    migrationSource: {
      getMigrations: () => Promise.resolve(Object.keys(migrations).sort()),
      getMigrationName: (name: string) => name,
      getMigration: (name: string) => Promise.resolve(certain(migrations[name])),
    },
  });
}

async function refuseIncomplete(db: Knex): Promise<void> {
  const there = await tablesThere(db);
  const missing = OWN_TABLES.filter((name) => !there.has(name));
  if (missing.length > 0)
    throw new StoreError(
      `The database lacks Cadenza's ${missing.length === 1 ? 'table' : 'tables'} ${missing.join(', ')}. Restore a backup; nothing was changed.`,
    );
}

/** Name of the newest migration that a database has; null when it has none. */
export async function storeVersion(db: Knex): Promise<string | null> {
  const [row] = await db<{ name: string }>('knex_migrations').select('name').orderBy('name', 'desc').limit(1);
  return row?.name ?? null;
}
