import type { Knex } from 'knex';

/** What instruments sent a moment ago, until the field that waits for it has it. */
export async function up(db: Knex): Promise<void> {
  if (await db.schema.hasTable('readings')) return;
  await db.schema.createTable('readings', (t) => {
    t.charset('utf8mb4');
    t.collate('utf8mb4_nopad_bin');
    t.increments('id');
    t.string('instrument', 20).notNullable();
    t.double('value').notNullable();
    t.string('unit', 4).notNullable();
    t.boolean('flat').notNullable();
    t.datetime('arrived_at', { precision: 3 }).notNullable();
    t.index('arrived_at', 'readings_arrived_at');
  });
}

/** An older Cadenza knows no instruments. */
export async function down(db: Knex): Promise<void> {
  await db.schema.dropTableIfExists('readings');
}
