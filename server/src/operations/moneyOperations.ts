import { earlierPricesSchema, shoppingChangeSchema, storedShoppingSchema } from '#contract/money.ts';
import type { Operation } from '../operation.ts';
import { validated } from '../problem.ts';
import { reply } from '../reply.ts';
import { earlierPrices } from '../stores/logStore.ts';
import { readShopping, saveShopping } from '../stores/shoppingStore.ts';

/** What is to be bought. */
export const moneyOperations: readonly Operation[] = [
  {
    method: 'get',
    path: '/money/earlier',
    summary: 'What was asked for boards of the log, and how many were made in the last year',
    ok: [200, 'Earlier prices', earlierPricesSchema],
    errors: [],
    run: async (db) => reply(await earlierPrices(db, Date.now())),
  },
  {
    method: 'get',
    path: '/shopping',
    summary: 'For which boards is bought, and what is in the basket',
    ok: [200, 'The list', storedShoppingSchema],
    errors: [],
    run: async (db) => reply(await readShopping(db)),
  },
  {
    method: 'put',
    path: '/shopping',
    touches: ['shopping'],
    summary: 'Choose boards to buy for, and tick what is in the basket',
    ok: [200, 'The list', storedShoppingSchema],
    errors: [400, 409],
    input: shoppingChangeSchema,
    run: async (tx, { body }) => {
      const { version, shopping } = validated(shoppingChangeSchema, body);
      return reply(await saveShopping(tx, version, shopping));
    },
  },
];
