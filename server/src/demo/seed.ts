import type { Knex } from 'knex';
import { addBoard } from '../stores/boardStore.ts';
import { addPiece } from '../stores/rackStore.ts';
import { tramShedBoards, tramShedRack, tramShedShop } from './tramShed.ts';

/**
 * Loads the demo into a database where nothing was ever entered. Everything or nothing, and only once however many servers start together.
 * @returns whether it did
 */
export async function seedDemo(db: Knex): Promise<boolean> {
  return db.transaction(async (tx) => {
    for (const table of ['shops', 'pieces', 'boards']) if (await tx(table).first()) return false;
    // The shop's primary key lets only one of several servers pass.
    const first = await tx('shops').insert({ id: 1, version: 1, document: JSON.stringify(tramShedShop), updated_at: new Date() })
      .then(() => true, (error: { code?: string }) => {
        if (error.code === 'ER_DUP_ENTRY') return false;
        throw error;
      });
    if (!first) return false;
    for (const { id, ...fields } of tramShedRack) await addPiece(tx, fields, id);
    for (const board of tramShedBoards) await addBoard(tx, board);
    return true;
  });
}
