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
  });
}

/** Tables this server makes; anything else in the database was not made here. */
const OWN_TABLES = ['species', 'pieces', 'shops', 'boards', 'revisions', 'knex_migrations', 'knex_migrations_lock'];

/** Names of tables that do not belong to Cadenza. */
export async function foreignTables(db: Knex): Promise<string[]> {
  const rows = await db<{ name: string }>('information_schema.tables').select({ name: 'table_name' }).whereRaw('table_schema = database()');
  return rows.map((r) => r.name).filter((name) => !OWN_TABLES.includes(name));
}

/** Brings the tables up to date. Several servers may do it at once: Knex holds a lock. */
export async function migrate(db: Knex): Promise<void> {
  await db.migrate.latest({
    migrationSource: {
      getMigrations: () => Promise.resolve(Object.keys(migrations).sort()),
      getMigrationName: (name: string) => name,
      getMigration: (name: string) => Promise.resolve(migrations[name]!),
    },
  });
}
