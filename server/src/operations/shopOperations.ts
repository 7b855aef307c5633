import { allSpeciesSchema, shopChangeSchema, speciesChangeSchema, storedShopSchema } from '#contract/shop.ts';
import { speciesSchema } from '#core/wood/species.ts';
import type { Operation } from '../operation.ts';
import { Problem, validated } from '../problem.ts';
import { reply } from '../reply.ts';
import { readShop, saveShop } from '../stores/shopStore.ts';
import { addMissingSpecies, allSpecies, changeSpecies } from '../stores/speciesStore.ts';

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
    summary: 'Add a species; one that is known stays as it is',
    ok: [201, 'All species', allSpeciesSchema],
    errors: [400],
    input: speciesSchema,
    run: async (tx, { body }) => {
      await addMissingSpecies(tx, [validated(speciesSchema, body)]);
      return reply(await allSpecies(tx), 201);
    },
  },
  {
    method: 'put',
    path: '/species/{code}',
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
    summary: 'Change the shop',
    ok: [200, 'Saved', storedShopSchema],
    errors: [400, 409],
    input: shopChangeSchema,
    run: async (tx, { body }) => {
      const { version, shop } = validated(shopChangeSchema, body);
      return reply(await saveShop(tx, version, shop));
    },
  },
];
