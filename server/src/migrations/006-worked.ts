import type { Knex } from 'knex';
import { upgradeBoardTo6, upgradeShopTo6 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

/** Boards say what is worked into them; the shop has the habits and questions that go with it. */
export async function up(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'shops', ['id'], upgradeShopTo6);
  await rewriteDocuments(db, 'revisions', ['board_id', 'number'], upgradeBoardTo6);
  await db('revisions').update({ format_version: 6 });
}

/** What an older Cadenza does not know is refused by it; nothing else changes. */
export async function down(db: Knex): Promise<void> {
  const without = (record: unknown, ...keys: string[]) => Object.fromEntries(Object.entries((record ?? {})).filter(([key]) => !keys.includes(key)));
  await rewriteDocuments(db, 'shops', ['id'], (shop) => ({ ...shop, habits: without(shop.habits, 'leaveBeneath', 'leaveBeside'), schools: without(shop.schools, 'grooveOrder', 'engraving', 'endGrain') }));
  await rewriteDocuments(db, 'revisions', ['board_id', 'number'], (board) => without(board, 'worked'));
}
