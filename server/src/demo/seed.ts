import type { Knex } from 'knex';
import { addBoard } from '../stores/boardStore.ts';
import { addPiece } from '../stores/rackStore.ts';
import { DEFAULT_SHOP, type Shop } from '#core/shop/shop.ts';
import { addFacts } from '../stores/factStore.ts';
import { addEntry } from '../stores/logStore.ts';
import { finishedBoards, halfDoneFacts } from './atTheBench.ts';
import { forTheMules } from './mules.ts';
import { tramShedBoards, tramShedHalfDone, tramShedRack, tramShedShop } from './tramShed.ts';

/**
 * Loads the demo into a database where nothing was ever entered. Everything or nothing, and only once however many servers start together.
 * @returns whether it did
 */
export async function seedDemo(db: Knex): Promise<boolean> {
  return db.transaction(async (tx) => {
    if (!(await isFirst(tx, tramShedShop, true))) return false;
    for (const { id, ...fields } of tramShedRack) await addPiece(tx, fields, id);
    const { id } = await addBoard(tx, tramShedHalfDone);
    await addFacts(tx, id, halfDoneFacts(Date.now()));
    for (const entry of finishedBoards(Date.now())) await addEntry(tx, entry);
    for (const board of tramShedBoards) await addBoard(tx, forTheMules(board, Date.now()));
    return true;
  });
}

/**
 * Makes a database where nothing was ever entered a shop of one's own: usual figures, an empty rack, and no demo, now or later.
 * @returns whether it did
 */
export async function beginOwn(db: Knex): Promise<boolean> {
  return db.transaction((tx) => isFirst(tx, DEFAULT_SHOP, false));
}

/** Stores the first shop of a database, if nothing was ever entered into it. */
async function isFirst(tx: Knex.Transaction, shop: Shop, demo: boolean): Promise<boolean> {
  for (const table of ['shops', 'pieces', 'boards']) if (await tx(table).first()) return false;
  // The shop's primary key lets only one of several servers pass.
  return tx('shops')
    .insert({ id: 1, version: 1, document: JSON.stringify(shop), demo, updated_at: new Date() })
    .then(
      () => true,
      (error: { code?: string }) => {
        if (error.code === 'ER_DUP_ENTRY') return false;
        throw error;
      },
    );
}
