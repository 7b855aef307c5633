import type { Knex } from 'knex';

/** Finished boards, as they were: what lists sort and search by stands in columns of its own, so that no document is read for them. */
export async function up(db: Knex): Promise<void> {
  if (await db.schema.hasTable('log_entries')) return;
  await db.schema.createTable('log_entries', (t) => {
    t.charset('utf8mb4');
    t.collate('utf8mb4_nopad_bin');
    t.string('id', 40).primary();
    t.string('board_id', 40).nullable().references('id').inTable('boards');
    t.integer('version').notNullable();
    t.integer('format_version').notNullable();
    t.string('name', 200).notNullable();
    t.string('use_for', 200).notNullable();
    t.string('for_whom', 80).notNullable();
    t.datetime('finished_at', { precision: 3 }).notNullable();
    // Codes between spaces, so that one is found whole.
    t.text('species').notNullable();
    // All that is searched, in small letters.
    t.text('words').notNullable();
    t.double('length').notNullable();
    t.double('width').notNullable();
    t.double('thickness').notNullable();
    t.double('minutes_planned').notNullable();
    t.double('minutes_taken').notNullable();
    t.double('cost').nullable();
    t.integer('mishaps').notNullable();
    t.json('pairs').notNullable();
    t.json('document').notNullable();
    t.datetime('removed_at', { precision: 3 }).nullable();
    t.index('finished_at', 'log_finished_at');
    t.check('version > 0', [], 'log_version_positive');
    t.check('length >= 0 and width >= 0 and thickness >= 0', [], 'log_sizes_not_negative');
  });
}

/** An older Cadenza knows no log. */
export async function down(db: Knex): Promise<void> {
  await db.schema.dropTableIfExists('log_entries');
}
