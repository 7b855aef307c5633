import { z } from 'zod';
import { idSchema, lineOfText } from '#core/units/textSchema.ts';

/** What a change is about: by these an open page knows whether it shows it. */
export const TOPICS = [
  'boards',
  'facts',
  'runs',
  'pictures',
  'rack',
  'saw',
  'species',
  'shop',
  'schedule',
  'shopping',
  'log',
  'readings',
  'devices',
  'keeping',
  'here',
] as const;
export type Topic = (typeof TOPICS)[number];
/** Another shop is in use: all of it is another. */
export const EVERYTHING: readonly Topic[] = TOPICS.filter((t) => t !== 'here');

/** Something that was stored. */
export const liveChangeSchema = z.strictObject({
  /** Later ones are higher, though not every number comes. */
  id: z.int(),
  topics: z.array(z.enum(TOPICS)),
  /** The board it is about; null for what is about no single one. */
  board: z.string().nullable(),
  /** The page that did it, which has it already; null where none said so. */
  tab: z.string().nullable(),
});
export type LiveChange = z.infer<typeof liveChangeSchema>;

/** A page that is open somewhere. */
export const presenceSchema = z.strictObject({ tab: z.string(), name: z.string(), board: z.string().nullable() });
export type Presence = z.infer<typeof presenceSchema>;

/** Who listens, where, and from which change on. */
export const liveQuerySchema = z.object({
  tab: idSchema,
  name: lineOfText(0, 40).default(''),
  board: idSchema.optional(),
  after: z.coerce
    .number({ error: 'must be a whole number' })
    .int({ error: 'must be a whole number' })
    .min(0, { error: 'must not be negative' })
    .optional(),
});

/** The header by which a page says which one it is. */
export const TAB_HEADER = 'cadenza-tab';
