import { z } from 'zod';
import { factSchema, factsSchema } from '#core/facts/fact.ts';
import { idSchema } from '#core/units/textSchema.ts';

/** More than a device gathers while it is alone for a day; a longer list comes in parts. */
export const MOST_FACTS_SENT = 500;

/** What happened to a board, to be added to its list. A fact that is there already, word for word, is taken as done. */
export const newFactsSchema = z.strictObject({
  facts: z
    .array(factSchema)
    .min(1, { error: 'must be at least one fact' })
    .max(MOST_FACTS_SENT, { error: `must be at most ${MOST_FACTS_SENT} facts at once` })
    .refine((all) => new Set(all.map((f) => f.id)).size === all.length, { error: 'must each have an id of their own' }),
});

/** All that happened to a board, in the order it arrived. */
export const boardFactsSchema = z.strictObject({
  facts: factsSchema,
  /** Who noted them, by ids from the shop's list of people: of those that came from a device that is somebody's. */
  by: z.record(idSchema, idSchema),
});
export type BoardFacts = z.infer<typeof boardFactsSchema>;
