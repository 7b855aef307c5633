import knexModule, { type Knex } from 'knex';
import { migrations } from '../migrations/index.ts';

const { knex } = knexModule;

/** A pool of connections to MariaDB. Fails fast when the database is gone, so that a request gets its sentence. */
export function openDatabase(url: string): Knex {
  return knex({
    client: 'mysql2',
    connection: { uri: url, connectTimeout: 3000, decimalNumbers: true, timezone: 'Z', charset: 'utf8mb4', supportBigNumbers: true } as Knex.MySql2ConnectionConfig,
    pool: { min: 0, max: 8 },
    acquireConnectionTimeout: 4000,
    // Every failed request says so itself; the pool's own lines would only repeat it.
    log: { warn: () => {}, error: () => {}, debug: () => {}, deprecate: () => {} },
  });
}

/** Tables this server makes; anything else in the database was not made here. */
const OWN_TABLES = ['species', 'pieces', 'shops', 'boards', 'revisions', 'saw_book', 'cut_plans', 'cut_plan_boards', 'promises', 'cuttings', 'cutting_boards', 'glue_runs', 'knex_migrations', 'knex_migrations_lock'];

/** Names of tables that do not belong to Cadenza. */
export async function foreignTables(db: Knex): Promise<string[]> {
  const [rows] = (await db.raw('select table_name as name from information_schema.tables where table_schema = database()')) as [{ name: string }[]];
  return rows.map((r) => r.name).filter((name) => !OWN_TABLES.includes(name));
}

/** How long a server waits for another one that is bringing the tables up to date, seconds. */
const MIGRATION_WAIT_SECONDS = 120;

/**
 * Brings the tables up to date. Several servers may start at once: a lock of the database lets one after the other in, and goes away with
 * the connection of one that is killed.
 */
export async function migrate(db: Knex): Promise<void> {
  await db.transaction(async (holder) => {
    await holder.raw("select get_lock(concat('cadenza.', database()), ?)", [MIGRATION_WAIT_SECONDS]);
    try {
      await runMigrations(db);
    } finally {
      await holder.raw("select release_lock(concat('cadenza.', database()))");
    }
  });
}

async function runMigrations(db: Knex): Promise<void> {
  // A server killed in the middle leaves Knex's own lock behind; the one held here makes it safe to take it away.
  if (await db.schema.hasTable('knex_migrations_lock')) await db.migrate.forceFreeMigrationsLock();
  await db.migrate.latest({
    migrationSource: {
      getMigrations: () => Promise.resolve(Object.keys(migrations).sort()),
      getMigrationName: (name: string) => name,
      getMigration: (name: string) => Promise.resolve(migrations[name]!),
    },
  });
}
