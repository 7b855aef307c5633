import { Router } from 'express';
import type { Knex } from 'knex';
import { z } from 'zod';
import { shopSchema } from '#core/shop/shop.ts';
import { validated } from '../problem.ts';
import { readShop, saveShop } from '../stores/shopStore.ts';
import { allSpecies } from '../stores/speciesStore.ts';
import { versionSchema } from './version.ts';

export const shopChangeSchema = z.strictObject({ version: versionSchema, shop: shopSchema });

export function shopRoutes(db: Knex): Router {
  return Router()
    .get('/species', async (_request, response) => {
      response.json(await allSpecies(db));
    })
    .get('/shop', async (_request, response) => {
      response.json(await readShop(db));
    })
    .put('/shop', async (request, response) => {
      const { version, shop } = validated(shopChangeSchema, request.body);
      response.json(await saveShop(db, version, shop));
    });
}
