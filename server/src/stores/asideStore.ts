import { isDeepStrictEqual } from 'node:util';
import type { Knex } from 'knex';
import type { ShopAside, StoredShop } from '#contract/shop.ts';
import { DEFAULT_SHOP, shopSchema, type Shop } from '#core/shop/shop.ts';
import { notFound } from '../problem.ts';
import { readDocument } from './document.ts';
import { holdSawBook } from './sawStore.ts';
import { putShop, shopToChange } from './shopStore.ts';

interface AsideRow {
  id: number;
  document: unknown;
  demo: number;
  set_aside_at: Date;
  thrown_away_at: Date | null;
}

/** What goes aside with its shop. Species are everybody's. */
const WITH_THE_SHOP = ['boards', 'pieces', 'log_entries'] as const;

/** Shops that were set aside and not thrown away, the one set aside last first. */
export async function shopsAside(db: Knex): Promise<ShopAside[]> {
  const rows = await db<AsideRow>('shops_aside').whereNull('thrown_away_at').orderBy('id', 'desc').select();
  const counts = new Map<string, number>();
  for (const table of WITH_THE_SHOP)
    for (const { aside_id, n } of await db(table)
      .whereNotNull('aside_id')
      .groupBy('aside_id')
      .select<{ aside_id: number; n: number }[]>('aside_id', db.raw('count(*) as n')))
      counts.set(`${table} ${aside_id}`, Number(n));
  return rows.map((row) => ({
    id: row.id,
    name: readDocument(shopSchema, row.document).name,
    demo: Boolean(row.demo),
    setAsideAt: row.set_aside_at.toISOString(),
    boards: counts.get(`boards ${row.id}`) ?? 0,
    pieces: counts.get(`pieces ${row.id}`) ?? 0,
    finished: counts.get(`log_entries ${row.id}`) ?? 0,
  }));
}

/**
 * Sets the shop aside whole, with its boards, its rack and its log, and begins another with nothing in any of them. What was kept and cut stays with the boards it was for.
 * @throws Problem 409 stale with the stored shop
 */
export async function beginShop(tx: Knex.Transaction, version: number, shop: Shop, demo = false): Promise<StoredShop> {
  await setAside(tx, version);
  return putShop(tx, version, shop, demo);
}

/** Takes a shop up again that was set aside; the one that is in use goes aside for it. @throws Problem 404, 409 stale with the stored shop */
export async function takeUpShop(tx: Knex.Transaction, id: number, version: number): Promise<StoredShop> {
  const row = await readAside(tx, id);
  await setAside(tx, version);
  for (const table of WITH_THE_SHOP)
    await tx(table).where({ aside_id: id }).update({ aside_id: null, removed_at: null });
  await tx('shops_aside').where({ id }).delete();
  return putShop(tx, version, readDocument(shopSchema, row.document), Boolean(row.demo));
}

/** Throws a shop away that was set aside, or brings it back among those. @throws Problem 404 */
export async function throwShopAway(tx: Knex.Transaction, id: number, away: boolean): Promise<ShopAside[]> {
  const changed = await tx('shops_aside')
    .where({ id })
    .update({ thrown_away_at: away ? new Date() : null });
  if (changed === 0) throw notFound('This shop');
  return shopsAside(tx);
}

async function readAside(tx: Knex.Transaction, id: number): Promise<AsideRow> {
  const row = await tx<AsideRow>('shops_aside').where({ id }).whereNull('thrown_away_at').forUpdate().first();
  if (!row) throw notFound('This shop');
  return row;
}

/** Whatever is in use goes out of sight under one number; what was removed before stays removed. A shop that nobody touched yet leaves nothing behind. */
async function setAside(tx: Knex.Transaction, version: number): Promise<void> {
  await holdSawBook(tx);
  const { shop, demo } = await shopToChange(tx, version);
  if (await isUntouched(tx, shop)) return;
  const now = new Date();
  const [id] = await tx('shops_aside').insert({ document: JSON.stringify(shop), demo, set_aside_at: now });
  for (const table of WITH_THE_SHOP) await tx(table).whereNull('removed_at').update({ aside_id: id, removed_at: now });
}

async function isUntouched(tx: Knex.Transaction, shop: Shop): Promise<boolean> {
  if (!isDeepStrictEqual(shop, DEFAULT_SHOP)) return false;
  for (const table of WITH_THE_SHOP) if (await tx(table).whereNull('removed_at').first()) return false;
  return true;
}
