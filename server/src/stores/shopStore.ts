import type { Knex } from 'knex';
import type { StoredShop } from '#contract/shop.ts';
import { DEFAULT_SHOP, shopSchema, type Shop } from '#core/shop/shop.ts';
import { Problem } from '../problem.ts';
import { readDocument } from './document.ts';
import { putNext } from './versioned.ts';

/** The shop in use; others may be set aside. */
const SHOP_ID = 1;

interface ShopRow {
  id: number;
  version: number;
  document: unknown;
  demo: number;
  updated_at: Date;
}

function toStored(row: Pick<ShopRow, 'document' | 'version' | 'demo'> | undefined): StoredShop {
  return row
    ? { shop: readDocument(shopSchema, row.document), version: row.version, demo: Boolean(row.demo) }
    : { shop: DEFAULT_SHOP, version: 0, demo: false };
}

/** The shop; common-practice defaults (version 0) until somebody describes it. */
export async function readShop(db: Knex): Promise<StoredShop> {
  return toStored(await db<ShopRow>('shops').where({ id: SHOP_ID }).first());
}

/** The shop, held until the transaction ends. @throws Problem 409 stale with the stored shop */
export async function shopToChange(tx: Knex.Transaction, version: number): Promise<StoredShop> {
  const stored = toStored(await tx<ShopRow>('shops').where({ id: SHOP_ID }).forUpdate().first());
  if (stored.version !== version) throw stale(stored);
  return stored;
}

/** Puts a shop in the place of the one in use. @param basedOn the version of that one @throws Problem 409 stale with the stored shop */
export async function putShop(tx: Knex.Transaction, basedOn: number, shop: Shop, demo: boolean): Promise<StoredShop> {
  const columns = { document: JSON.stringify(shop), demo };
  await putNext(tx, 'shops', { id: SHOP_ID, basedOn, columns }, async () => stale(await readShop(tx)));
  return { shop, version: basedOn + 1, demo };
}

const stale = (current: StoredShop): Problem =>
  new Problem(409, 'stale', 'The shop was changed elsewhere meanwhile.', [], { current });

/** @throws Problem 409 stale with the stored shop */
export async function saveShop(tx: Knex.Transaction, version: number, shop: Shop): Promise<StoredShop> {
  const { demo } = await shopToChange(tx, version);
  return putShop(tx, version, shop, demo);
}

/** The demo is one no longer: somebody made it a shop of their own. @throws Problem 409 stale with the stored shop */
export async function keepDemo(tx: Knex.Transaction, version: number): Promise<StoredShop> {
  const { shop } = await shopToChange(tx, version);
  return putShop(tx, version, shop, false);
}
