import type { Knex } from 'knex';
import { shoppingDocumentSchema, type ShoppingDocument, type StoredShopping } from '#contract/money.ts';
import { Problem } from '../problem.ts';
import { readDocument } from './document.ts';
import { putNext } from './versioned.ts';

/** The shop in use has one list. */
const ID = 1;

interface ShoppingRow {
  id: number;
  version: number;
  document: unknown;
}

const toStored = (row: ShoppingRow | undefined): StoredShopping =>
  row
    ? { version: row.version, shopping: readDocument(shoppingDocumentSchema, row.document) }
    : { version: 0, shopping: { boards: null, ticked: [] } };

/** What is to be bought; for all boards in work (version 0) until somebody chooses. */
export async function readShopping(db: Knex): Promise<StoredShopping> {
  return toStored(await db<ShoppingRow>('shopping').where({ id: ID }).first());
}

/** @throws Problem 409 stale with the stored one */
export async function saveShopping(
  tx: Knex.Transaction,
  version: number,
  shopping: ShoppingDocument,
): Promise<StoredShopping> {
  const columns = { document: JSON.stringify(shopping) };
  await putNext(tx, 'shopping', { id: ID, basedOn: version, columns }, async () => {
    const current = await readShopping(tx);
    return new Problem(409, 'stale', 'The shopping list was changed elsewhere meanwhile.', [], { current });
  });
  return { version: version + 1, shopping };
}
