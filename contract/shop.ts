import { z } from 'zod';
import { shopSchema } from '#core/shop/shop.ts';
import { speciesSchema } from '#core/wood/species.ts';
import { versionSchema } from './version.ts';

/** The shop in use. `demo`: it is the made-up one that Cadenza came with. */
export const storedShopSchema = z.strictObject({ shop: shopSchema, version: z.int(), demo: z.boolean() });
export type StoredShop = z.infer<typeof storedShopSchema>;

export const shopChangeSchema = z.strictObject({ version: versionSchema, shop: shopSchema });

/** The version of the shop that goes aside, or that is no demo any more. */
export const shopVersionSchema = z.strictObject({ version: versionSchema });

/** A shop that was set aside whole, with how many boards and pieces. */
export const shopAsideSchema = z.strictObject({
  id: z.int(),
  name: z.string(),
  demo: z.boolean(),
  setAsideAt: z.iso.datetime(),
  boards: z.int(),
  pieces: z.int(),
  /** Boards in its log. */
  finished: z.int(),
});
export type ShopAside = z.infer<typeof shopAsideSchema>;
export const shopsAsideSchema = z.array(shopAsideSchema);

export const allSpeciesSchema = z.array(speciesSchema);
/** A species with how it was when the change was begun. */
export const speciesChangeSchema = z.strictObject({ before: speciesSchema, species: speciesSchema });
