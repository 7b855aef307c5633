import type { Knex } from 'knex';

/** Copies of all that is stored are made by themselves; of what happened at the bench is known by whom it was noted, where devices say whose they are; and a device says the passphrase again before it decides on others. */
export async function up(db: Knex): Promise<void> {
  if (!(await db.schema.hasTable('keeping')))
    await db.schema.createTable('keeping', (t) => {
      t.charset('utf8mb4');
      t.collate('utf8mb4_nopad_bin');
      // One row, for all servers on this database.
      t.integer('id').primary();
      t.boolean('daily').notNullable();
      t.integer('keep').notNullable();
      t.datetime('last_good_at', { precision: 3 }).nullable();
      t.string('trouble', 500).nullable();
    });
  if (!(await db.schema.hasColumn('facts', 'by_person')))
    await db.schema.alterTable('facts', (t) => {
      t.string('by_person', 40).nullable();
    });
  if (!(await db.schema.hasColumn('devices', 'confirmed_at')))
    await db.schema.alterTable('devices', (t) => {
      t.datetime('confirmed_at', { precision: 3 }).nullable();
    });
}

/** An older Cadenza asks for no copies and knows nobody. */
export async function down(db: Knex): Promise<void> {
  await db.schema.dropTableIfExists('keeping');
  if (await db.schema.hasColumn('facts', 'by_person'))
    await db.schema.alterTable('facts', (t) => {
      t.dropColumn('by_person');
    });
  if (await db.schema.hasColumn('devices', 'confirmed_at'))
    await db.schema.alterTable('devices', (t) => {
      t.dropColumn('confirmed_at');
    });
}
