import type { StoredShop } from '#contract/shop.ts';
import type { Knex } from 'knex';
import { DEFAULT_SHOP, shopSchema, type Shop } from '#core/shop/shop.ts';
import { Problem } from '../problem.ts';
import { readDocument } from './document.ts';

/** One shop an installation. */
const SHOP_ID = 1;

interface ShopRow {
  id: number;
  version: number;
  document: unknown;
  updated_at: Date;
}

function toStored(row: Pick<ShopRow, 'document' | 'version'>): StoredShop {
  return { shop: readDocument(shopSchema, row.document), version: row.version };
}

/** The shop; common-practice defaults (version 0) until somebody describes it. */
export async function readShop(db: Knex): Promise<StoredShop> {
  const row = await db<ShopRow>('shops').where({ id: SHOP_ID }).first();
  return row ? toStored(row) : { shop: DEFAULT_SHOP, version: 0 };
}

/** @throws Problem 409 stale with the stored shop */
export async function saveShop(tx: Knex.Transaction, version: number, shop: Shop): Promise<StoredShop> {
  const document = JSON.stringify(shop);
  const row = await tx<ShopRow>('shops').where({ id: SHOP_ID }).forUpdate().first();
  const stored = row ? toStored(row) : { shop: DEFAULT_SHOP, version: 0 };
  if (stored.version !== version)
    throw new Problem(409, 'stale', 'The shop was changed elsewhere meanwhile.', [], { current: stored });
  await tx<ShopRow>('shops')
    .insert({ id: SHOP_ID, version: version + 1, document, updated_at: new Date() })
    .onConflict('id')
    .merge();
  return { shop, version: version + 1 };
}
