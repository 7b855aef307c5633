import type { Knex } from 'knex';
import { upgradeBoardTo16, upgradeShopTo16 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

type Json = Record<string, unknown>;
const REVISION = ['board_id', 'number'] as const;
/** The shop in use, and those that were set aside. */
const SHOPS = ['shops', 'shops_aside'];

/** The board and the shop that a finished one was planned with. */
const ofEntry =
  (board: (json: Json) => Json) =>
  (entry: Json): Json => ({ ...entry, board: board((entry.board ?? {}) as Json) });

/** Days that are due have a time, steps can be pinned, boards have a price; shops have people, days away, room and prices. The order in which steps are done is kept, and what is to be bought. */
export async function up(db: Knex): Promise<void> {
  for (const table of SHOPS) await rewriteDocuments(db, table, ['id'], upgradeShopTo16);
  await rewriteDocuments(db, 'revisions', REVISION, upgradeBoardTo16);
  await rewriteDocuments(db, 'log_entries', ['id'], ofEntry(upgradeBoardTo16));
  await db('revisions').update({ format_version: 16 });
  await db('log_entries').update({ format_version: 16 });
  if (!(await db.schema.hasTable('schedules')))
    await db.schema.createTable('schedules', (table) => {
      table.integer('id').primary();
      table.integer('version').notNullable();
      table.json('document').notNullable();
      // Who knows it may read the calendar; null until somebody asks for an address.
      table.string('calendar_secret', 64).nullable().unique();
      table.dateTime('updated_at', { precision: 3 }).notNullable();
    });
  // Since when a piece lies in the rack; of those that lay there before anybody asked, since they were changed last.
  if (!(await db.schema.hasColumn('pieces', 'since'))) {
    await db.schema.alterTable('pieces', (table) => {
      table.dateTime('since', { precision: 3 }).nullable();
    });
    await db('pieces').update({ since: db.ref('updated_at') });
  }
  // What is still to be done on each board, as it was worked out last; nothing is lost with it.
  if (!(await db.schema.hasTable('board_work')))
    await db.schema.createTable('board_work', (table) => {
      table.string('board_id', 40).primary();
      table.string('state', 64).notNullable();
      table.specificType('document', 'longtext').notNullable();
    });
  if (!(await db.schema.hasTable('shopping')))
    await db.schema.createTable('shopping', (table) => {
      table.integer('id').primary();
      table.integer('version').notNullable();
      table.json('document').notNullable();
      table.dateTime('updated_at', { precision: 3 }).notNullable();
    });
}

const without = (json: Json, fields: readonly string[]): Json =>
  Object.fromEntries(Object.entries(json).filter(([key]) => !fields.includes(key)));

const plain = (board: Json): Json => {
  const due = board.due as { day?: unknown } | null | undefined;
  return { ...without(board, ['pins', 'price']), due: due?.day ?? null };
};

/** An older Cadenza knows the day that is due, and none of the rest. */
export async function down(db: Knex): Promise<void> {
  await db.schema.dropTableIfExists('schedules');
  await db.schema.dropTableIfExists('board_work');
  await db.schema.dropTableIfExists('shopping');
  if (await db.schema.hasColumn('pieces', 'since'))
    await db.schema.alterTable('pieces', (table) => {
      table.dropColumn('since');
    });
  const bare = (shop: Json): Json => ({
    ...without(shop, ['zone', 'people', 'away', 'openToo', 'space', 'prices']),
    glues: ((shop.glues ?? []) as Json[]).map((glue) => without(glue, ['shelfGrams', 'pricePerKg'])),
  });
  for (const table of SHOPS) await rewriteDocuments(db, table, ['id'], bare);
  await rewriteDocuments(db, 'revisions', REVISION, plain);
  await rewriteDocuments(db, 'log_entries', ['id'], ofEntry(plain));
  await db('revisions').update({ format_version: 15 });
  await db('log_entries').update({ format_version: 15 });
}
