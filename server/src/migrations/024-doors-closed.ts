import type { Knex } from 'knex';

/** Writes whose answers are secrets: they are told once, to whoever asked, and kept nowhere. */
const SECRET_ANSWERS = ['post /devices/invite', 'post /schedule/calendar'];

/** Secrets are stored as what cannot be turned back: the address of the calendar has a table of its own, which no backup carries. What is to be done on a board is kept with the wood that it takes. */
export async function up(db: Knex): Promise<void> {
  if (!(await db.schema.hasTable('calendar_addresses')))
    await db.schema.createTable('calendar_addresses', (t) => {
      t.charset('utf8mb4');
      t.collate('utf8mb4_nopad_bin');
      // One row: a new address closes the one before.
      t.integer('id').primary();
      t.string('secret_hash', 64).notNullable();
    });
  if (await db.schema.hasColumn('schedules', 'calendar_secret')) {
    await db.raw(
      'insert ignore into calendar_addresses (id, secret_hash) select id, sha2(calendar_secret, 256) from schedules where calendar_secret is not null',
    );
    await db.schema.alterTable('schedules', (t) => {
      t.dropColumn('calendar_secret');
    });
  }
  await db('writes').whereIn('operation', SECRET_ANSWERS).update({ answer: null, headers: null });
  // Nothing is lost with it: it is worked out again.
  await db.schema.dropTableIfExists('board_work');
  await db.schema.createTable('board_work', (t) => {
    t.string('board_id', 40).primary();
    t.string('state', 64).notNullable();
    t.string('wood', 64).notNullable();
    t.specificType('summary', 'longtext').notNullable();
    t.specificType('document', 'longtext').notNullable();
  });
}

/** An older Cadenza knows secrets only in clear: the address is closed. */
export async function down(db: Knex): Promise<void> {
  await db.schema.dropTableIfExists('calendar_addresses');
  if (!(await db.schema.hasColumn('schedules', 'calendar_secret')))
    await db.schema.alterTable('schedules', (t) => {
      t.string('calendar_secret', 64).nullable().unique();
    });
  await db.schema.dropTableIfExists('board_work');
  await db.schema.createTable('board_work', (t) => {
    t.string('board_id', 40).primary();
    t.string('state', 64).notNullable();
    t.specificType('document', 'longtext').notNullable();
  });
}
