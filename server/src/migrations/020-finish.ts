import type { Knex } from 'knex';
import { upgradeBoardTo15, upgradeShopTo15 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

type Json = Record<string, unknown>;
const REVISION = ['board_id', 'number'] as const;
/** The shop in use, and those that were set aside. */
const SHOPS = ['shops', 'shops_aside'];

/** The board that a finished one was planned as. */
const ofEntry =
  (change: (board: Json) => Json) =>
  (entry: Json): Json => ({ ...entry, board: change((entry.board ?? {}) as Json) });

/** Finishes are records of the shop, boards say which they get, when they are due and what is packed with them. */
export async function up(db: Knex): Promise<void> {
  for (const table of SHOPS) await rewriteDocuments(db, table, ['id'], upgradeShopTo15);
  await rewriteDocuments(db, 'revisions', REVISION, upgradeBoardTo15);
  await rewriteDocuments(db, 'log_entries', ['id'], ofEntry(upgradeBoardTo15));
  await db('revisions').update({ format_version: 15 });
  await db('log_entries').update({ format_version: 15 });
}

const without = (json: Json, fields: readonly string[]): Json =>
  Object.fromEntries(Object.entries(json).filter(([key]) => !fields.includes(key)));

const plain = (board: Json): Json => without(board, ['finish', 'due', 'pack']);

/** An older Cadenza knows none of it, nor what was measured since: that is left out. */
export async function down(db: Knex): Promise<void> {
  await db('facts')
    .whereRaw(`json_value(document, '$.dimension') in ('creep', 'snipe', 'endTrim') or json_value(document, '$.side') is not null`)
    .delete();
  await db('boards').update({ facts: db('facts').whereRaw('facts.board_id = boards.id').count() });
  for (const table of SHOPS)
    await rewriteDocuments(db, table, ['id'], (shop) => without(shop, ['papers', 'finishes', 'bath', 'careWords']));
  await rewriteDocuments(db, 'revisions', REVISION, plain);
  await rewriteDocuments(db, 'log_entries', ['id'], ofEntry(plain));
  await db('revisions').update({ format_version: 14 });
  await db('log_entries').update({ format_version: 14 });
}
