import type { Knex } from 'knex';

/** What a shop has finished goes aside with it, and a board is found in the log by its id. Runs again cleanly when a first run was killed. */
export async function up(db: Knex): Promise<void> {
  await db.raw('alter table log_entries add column if not exists aside_id int null');
  await db.raw('alter table log_entries drop foreign key if exists log_entries_aside_id_foreign');
  await db.raw(
    'alter table log_entries add constraint log_entries_aside_id_foreign foreign key (aside_id) references shops_aside (id)',
  );
  // What was finished by a shop that was set aside before this step is known by its board.
  await db.raw(`update log_entries join boards on boards.id = log_entries.board_id
    set log_entries.aside_id = boards.aside_id, log_entries.removed_at = boards.removed_at
    where boards.aside_id is not null and log_entries.removed_at is null`);
}

/** What was set aside stays out of sight, as things that were removed. */
export async function down(db: Knex): Promise<void> {
  await db.raw('alter table log_entries drop foreign key if exists log_entries_aside_id_foreign');
  await db.raw('alter table log_entries drop column if exists aside_id');
}
