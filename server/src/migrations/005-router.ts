import type { Knex } from 'knex';
import { upgradeShopTo5 } from '#core/format/upgrades.ts';
import { rewriteDocuments } from './rewriteDocuments.ts';

/** The shop says whether it has a router. */
export async function up(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'shops', ['id'], upgradeShopTo5);
  await db('revisions').update({ format_version: 5 });
}

/** A router that an older Cadenza does not know is refused by it; nothing else changes. */
export async function down(db: Knex): Promise<void> {
  await rewriteDocuments(db, 'shops', ['id'], ({ router: _, ...shop }) => shop);
}
