import type { Knex } from 'knex';

const TABLES = ['changes', 'presences', 'doors', 'devices', 'invitations', 'attempts'];

/** Several devices: what was stored is told to open pages, which say where they are; a passphrase stands before a shop that others can reach, and devices that are known have a session. */
export async function up(db: Knex): Promise<void> {
  const make = async (name: string, columns: (table: Knex.CreateTableBuilder) => void) => {
    if (await db.schema.hasTable(name)) return;
    await db.schema.createTable(name, (t) => {
      t.charset('utf8mb4');
      t.collate('utf8mb4_nopad_bin');
      columns(t);
    });
  };
  await make('changes', (t) => {
    t.bigIncrements('id');
    t.string('topics', 200).notNullable();
    t.string('board', 40).nullable();
    t.string('tab', 40).nullable();
    t.datetime('made_at', { precision: 3 }).notNullable();
    t.index('made_at', 'changes_made_at');
  });
  await make('presences', (t) => {
    t.string('tab', 40).primary();
    t.string('name', 40).notNullable();
    t.string('board', 40).nullable();
    t.datetime('seen_at', { precision: 3 }).notNullable();
  });
  // One row: the passphrase as a slow salted hash.
  await make('doors', (t) => {
    t.integer('id').primary();
    t.string('passphrase_hash', 200).notNullable();
    t.datetime('set_at', { precision: 3 }).notNullable();
  });
  await make('devices', (t) => {
    t.string('id', 40).primary();
    // Of the secret in its cookie.
    t.string('token_hash', 64).notNullable().unique();
    t.string('name', 40).notNullable();
    t.string('person', 40).nullable();
    t.string('may', 8).notNullable();
    t.datetime('made_at', { precision: 3 }).notNullable();
    t.datetime('seen_at', { precision: 3 }).notNullable();
  });
  await make('invitations', (t) => {
    t.string('code_hash', 64).primary();
    t.string('person', 40).nullable();
    t.string('may', 8).notNullable();
    t.datetime('expires_at', { precision: 3 }).notNullable();
  });
  // Sign-ins that failed, so that guessing is slow at every server.
  await make('attempts', (t) => {
    t.increments('id');
    t.string('address', 64).notNullable();
    t.datetime('made_at', { precision: 3 }).notNullable();
    t.index(['address', 'made_at'], 'attempts_address');
  });
}

/** An older Cadenza lets everybody in and tells nobody. */
export async function down(db: Knex): Promise<void> {
  for (const table of TABLES) await db.schema.dropTableIfExists(table);
}
