import { z } from 'zod';
import { idSchema, lineOfText } from '#core/units/textSchema.ts';
import { versionSchema } from './version.ts';

/** What is to be bought: for which boards, and which lines are in the basket. */
export const shoppingDocumentSchema = z.strictObject({
  /** Null for all boards in work. */
  boards: z.array(idSchema).max(200, { error: 'must be at most 200 boards' }).nullable(),
  ticked: z
    .array(lineOfText(1, 120))
    .max(1000, { error: 'must be at most 1000 lines' })
    .refine((ids) => new Set(ids).size === ids.length, { error: 'must name each line once' }),
});
export type ShoppingDocument = z.infer<typeof shoppingDocumentSchema>;

export const storedShoppingSchema = z.strictObject({ version: z.int(), shopping: shoppingDocumentSchema });
export type StoredShopping = z.infer<typeof storedShoppingSchema>;

export const shoppingChangeSchema = z.strictObject({ version: versionSchema, shopping: shoppingDocumentSchema });

/** Boards of the log that a price is known of, and how many were made in the last year. */
export const earlierPricesSchema = z.strictObject({
  boardsYear: z.number(),
  prices: z.array(z.strictObject({ name: z.string(), length: z.number(), width: z.number(), price: z.number() })),
});
export type EarlierPrices = z.infer<typeof earlierPricesSchema>;
