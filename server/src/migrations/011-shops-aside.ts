import type { Knex } from 'knex';

const COLLATION = 'utf8mb4_nopad_bin';
/** What the shop of the demo is called: databases that were made before this step do not say that it is one. */
const DEMO_SHOP = 'The Tram Shed';

/** A whole shop with its boards and its rack can be set aside and taken up again. Runs again cleanly when a first run was killed. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`create table if not exists shops_aside (
    id int not null auto_increment primary key, document longtext not null check (json_valid(document)), demo boolean not null, set_aside_at datetime(3) not null,
    thrown_away_at datetime(3) null
  ) character set utf8mb4 collate ${COLLATION}`);
  for (const table of ['boards', 'pieces']) {
    await db.raw('alter table ?? add column if not exists aside_id int null', [table]);
    await db.raw('alter table ?? drop foreign key if exists ??', [table, `${table}_aside_id_foreign`]);
    await db.raw('alter table ?? add constraint ?? foreign key (aside_id) references shops_aside (id)', [
      table,
      `${table}_aside_id_foreign`,
    ]);
  }
  await db.raw('alter table shops add column if not exists demo boolean not null default false');
  await db.raw("update shops set demo = true where json_value(document, '$.name') = ?", [DEMO_SHOP]);
}

/** What was set aside stays out of sight, as things that were removed. */
export async function down(db: Knex): Promise<void> {
  for (const table of ['boards', 'pieces']) {
    await db.raw('alter table ?? drop foreign key if exists ??', [table, `${table}_aside_id_foreign`]);
    await db.raw('alter table ?? drop column if exists aside_id', [table]);
  }
  await db.raw('alter table shops drop column if exists demo');
  await db.raw('drop table if exists shops_aside');
}
