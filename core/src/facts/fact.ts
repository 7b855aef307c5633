import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';
import { idSchema, lineOfText } from '../units/textSchema.ts';

/** More than happens to a board in a life. */
export const MOST_FACTS = 10_000;

/** A rectangle on a panel, from its left end and its far edge, mm. */
const placeShape = {
  x: lengthBetween(0, 8000),
  y: lengthBetween(0, 1500),
  length: lengthBetween(1, 8000),
  width: lengthBetween(1, 1500),
};

/** A bad place found on the glued panel when it was flat. `id` is the place's own: what is found later about the same place has the same. */
export const spotSchema = z.strictObject({ id: idSchema, ...placeShape, what: lineOfText(1, 60) });
export type Spot = z.infer<typeof spotSchema>;

const factShape = {
  /** Made where it was noted, so that it arrives once however often it is sent. */
  id: idSchema,
  /** When it happened, by the clock of the device that noted it. */
  at: z.iso.datetime({ precision: 3, error: 'must be a date and time such as 2026-11-26T18:30:00.000Z' }),
};
/** What of the board it happened to: the operation of the recipe that made it, and which of its copies, counted from 1. */
const thingShape = {
  thing: idSchema,
  copy: z
    .int({ error: 'must be a whole number' })
    .min(1, { error: 'must be at least 1' })
    .max(50, { error: 'must be at most 50' }),
};

/** A thing that was made has this size. Measured again, the last measurement counts. */
const measuredSchema = z.strictObject({
  kind: z.literal('measured', { error: 'must be measured' }),
  ...factShape,
  ...thingShape,
  dimension: z.enum(['length'], { error: 'must be length' }),
  value: lengthBetween(1, 8000),
});

const badPlaceSchema = z.strictObject({
  kind: z.literal('badPlace', { error: 'must be badPlace' }),
  ...factShape,
  ...thingShape,
  spot: spotSchema,
});

/** An earlier fact was none. Taking back what takes back decides nothing: what is so after all is noted anew. */
const takenBackSchema = z.strictObject({
  kind: z.literal('takenBack', { error: 'must be takenBack' }),
  ...factShape,
  fact: idSchema,
});

/** Something that happened at the bench: noted once, never edited, at most taken back by another one. */
export const factSchema = z.discriminatedUnion('kind', [measuredSchema, badPlaceSchema, takenBackSchema], {
  error: 'must be one of measured, badPlace, takenBack',
});
export type Fact = z.infer<typeof factSchema>;

/** All that happened to a board. */
export const factsSchema = z
  .array(factSchema)
  .max(MOST_FACTS, { error: `must be at most ${MOST_FACTS} facts` })
  .refine((all) => new Set(all.map((f) => f.id)).size === all.length, { error: 'must each have an id of their own' });
