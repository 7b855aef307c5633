import { z } from 'zod';
import { shopSchema } from '#core/shop/shop.ts';
import { speciesSchema } from '#core/wood/species.ts';
import { versionSchema } from './version.ts';

export const storedShopSchema = z.strictObject({ shop: shopSchema, version: z.int() });
export type StoredShop = z.infer<typeof storedShopSchema>;

export const shopChangeSchema = z.strictObject({ version: versionSchema, shop: shopSchema });

export const allSpeciesSchema = z.array(speciesSchema);
/** A species with how it was when the change was begun. */
export const speciesChangeSchema = z.strictObject({ before: speciesSchema, species: speciesSchema });
