import { z } from 'zod';
import { logEntrySchema, careSchema, pairSchema } from '#core/log/entry.ts';
import { idSchema, lineOfText } from '#core/units/textSchema.ts';

/** What a list shows of a finished board. */
export const listedEntrySchema = z.strictObject({
  id: idSchema,
  version: z.int(),
  name: z.string(),
  use: z.string(),
  forWhom: z.string(),
  finishedAt: z.iso.datetime({ precision: 3 }),
  /** Codes of its species. */
  species: z.array(z.string()),
  length: z.number(),
  width: z.number(),
  thickness: z.number(),
  minutesPlanned: z.number(),
  minutesTaken: z.number(),
  cost: z.number().nullable(),
  mishaps: z.int(),
});
export type ListedEntry = z.infer<typeof listedEntrySchema>;

export const LOG_SORTS = ['newest', 'oldest', 'name', 'longest', 'dearest'] as const;
export type LogSort = (typeof LOG_SORTS)[number];

/** What is asked of the log: words, a species, a board it was planned as, an order, and where the page begins. */
export const logQuerySchema = z.object({
  words: z.string().max(120).optional(),
  species: z.string().max(40).optional(),
  board: idSchema.optional(),
  sort: z.enum(LOG_SORTS).optional(),
  from: z.coerce
    .number({ error: 'must be a number' })
    .int({ error: 'must be a whole number' })
    .min(0, { error: 'must not be negative' })
    .max(1_000_000, { error: 'must be at most 1000000' })
    .optional(),
});
export type LogQuery = z.infer<typeof logQuerySchema>;

/** A page of the log, and how many boards there are that were asked for. */
export const logPageSchema = z.strictObject({ count: z.int(), entries: z.array(listedEntrySchema) });
export type LogPage = z.infer<typeof logPageSchema>;

export const storedEntrySchema = z.strictObject({ id: idSchema, version: z.int(), entry: logEntrySchema });
export type StoredEntry = z.infer<typeof storedEntrySchema>;

/** What may be said of a finished board later: whose it is, and what was done to it since. */
export const entryChangeSchema = z.strictObject({
  version: z.int(),
  forWhom: lineOfText(0, 80).optional(),
  care: careSchema.optional(),
});
export type EntryChange = z.infer<typeof entryChangeSchema>;

export const allPairsSchema = z.strictObject({ pairs: z.array(pairSchema) });
