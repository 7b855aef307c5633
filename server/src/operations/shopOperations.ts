import { certain } from '#core/lists/there.ts';
import { EVERYTHING } from '#contract/live.ts';
import {
  allSpeciesSchema,
  shopChangeSchema,
  shopsAsideSchema,
  shopVersionSchema,
  speciesChangeSchema,
  storedShopSchema,
} from '#contract/shop.ts';
import { speciesSchema } from '#core/wood/species.ts';
import { numberIn, type Operation } from '../operation.ts';
import { Problem, validated } from '../problem.ts';
import { reply } from '../reply.ts';
import { beginShop, shopsAside, takeUpShop, throwShopAway } from '../stores/asideStore.ts';
import { keepDemo, readShop, saveShop } from '../stores/shopStore.ts';
import { addSpecies, allSpecies, changeSpecies } from '../stores/speciesStore.ts';

export const shopOperations: readonly Operation[] = [
  {
    method: 'get',
    path: '/species',
    summary: 'Known species',
    ok: [200, 'All species', allSpeciesSchema],
    errors: [],
    run: async (db) => reply(await allSpecies(db)),
  },
  {
    method: 'post',
    path: '/species',
    touches: ['species'],
    summary: 'Add a species; one that is known stays as it is',
    ok: [201, 'All species', allSpeciesSchema],
    errors: [400, 409],
    input: speciesSchema,
    run: async (tx, { body }) => {
      await addSpecies(tx, validated(speciesSchema, body));
      return reply(await allSpecies(tx), 201);
    },
  },
  {
    method: 'put',
    path: '/species/{code}',
    touches: ['species'],
    summary: 'Change a species that was added by hand, knowing how it was',
    ok: [200, 'All species', allSpeciesSchema],
    errors: [400, 404, 409],
    input: speciesChangeSchema,
    run: async (tx, { params, body }) => {
      const { before, species } = validated(speciesChangeSchema, body);
      // Pieces and boards name it by its code.
      if (species.code !== params.code || before.code !== params.code)
        throw new Problem(
          409,
          'another-species',
          `The address names the species "${params.code}"; what was sent is "${species.code}", before "${before.code}".`,
        );
      await changeSpecies(tx, before, species);
      return reply(await allSpecies(tx));
    },
  },
  {
    method: 'get',
    path: '/shop',
    summary: 'The shop',
    ok: [200, 'The shop', storedShopSchema],
    errors: [],
    run: async (db) => reply(await readShop(db)),
  },
  {
    method: 'put',
    path: '/shop',
    touches: ['shop'],
    summary: 'Change the shop',
    ok: [200, 'Saved', storedShopSchema],
    errors: [400, 409],
    input: shopChangeSchema,
    run: async (tx, { body }) => {
      const { version, shop } = validated(shopChangeSchema, body);
      return reply(await saveShop(tx, version, shop));
    },
  },
  {
    method: 'post',
    path: '/shop/begin',
    touches: EVERYTHING,
    summary: 'Set the shop aside whole, with its boards and its rack, and begin another with nothing in its rack',
    ok: [200, 'The new shop', storedShopSchema],
    errors: [400, 409],
    input: shopChangeSchema,
    run: async (tx, { body }) => {
      const { version, shop } = validated(shopChangeSchema, body);
      return reply(await beginShop(tx, version, shop));
    },
  },
  {
    method: 'post',
    path: '/shop/keep',
    touches: ['shop'],
    summary: 'Say that the demo is a shop of one’s own from now on',
    ok: [200, 'The shop', storedShopSchema],
    errors: [400, 409],
    input: shopVersionSchema,
    run: async (tx, { body }) => reply(await keepDemo(tx, validated(shopVersionSchema, body).version)),
  },
  {
    method: 'get',
    path: '/shops/aside',
    summary: 'Shops that were set aside',
    ok: [200, 'Those not thrown away', shopsAsideSchema],
    errors: [],
    run: async (db) => reply(await shopsAside(db)),
  },
  {
    method: 'post',
    path: '/shops/aside/{number}/take-up',
    touches: EVERYTHING,
    summary: 'Take a shop up again; the one in use goes aside for it',
    ok: [200, 'The shop', storedShopSchema],
    errors: [400, 404, 409],
    input: shopVersionSchema,
    run: async (tx, { params, body }) =>
      reply(
        await takeUpShop(
          tx,
          numberIn(certain(params.number, 'the number of the address'), 'This shop'),
          validated(shopVersionSchema, body).version,
        ),
      ),
  },
  {
    method: 'post',
    path: '/shops/aside/{number}/throw-away',
    touches: ['shop'],
    summary: 'Throw a shop away that was set aside',
    ok: [200, 'Shops that are still aside', shopsAsideSchema],
    errors: [404],
    input: null,
    run: async (tx, { params }) =>
      reply(await throwShopAway(tx, numberIn(certain(params.number, 'the number of the address'), 'This shop'), true)),
  },
  {
    method: 'post',
    path: '/shops/aside/{number}/restore',
    touches: ['shop'],
    summary: 'Bring a shop back that was thrown away',
    ok: [200, 'Shops that are aside', shopsAsideSchema],
    errors: [404],
    input: null,
    run: async (tx, { params }) =>
      reply(await throwShopAway(tx, numberIn(certain(params.number, 'the number of the address'), 'This shop'), false)),
  },
];
