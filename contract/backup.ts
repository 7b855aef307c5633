import { z } from 'zod';
import { idSchema } from '#core/units/textSchema.ts';

/** How much is stored. */
export const storeContentsSchema = z.strictObject({
  /** Name of the shop in use; null while there is none. */
  shop: z.string().nullable(),
  boards: z.int(),
  removedBoards: z.int(),
  revisions: z.int(),
  pieces: z.int(),
  plans: z.int(),
  cuttings: z.int(),
  runs: z.int(),
  facts: z.int(),
  /** Boards in the log. */
  finished: z.int(),
  /** Shops that were set aside, with their boards. */
  shopsAside: z.int(),
  /** When a board was last changed, ISO; null when there is none. */
  newest: z.iso.datetime({ precision: 3 }).nullable(),
});
export type StoreContents = z.infer<typeof storeContentsSchema>;

/** Fewer copies than that keep nothing that is noticed late, more than that fill a disk. */
const MOST_KEPT = 365;
export const copiesChangeSchema = z.strictObject({
  daily: z.boolean(),
  keep: z
    .int()
    .min(1, { error: 'must be at least 1 copy' })
    .max(MOST_KEPT, { error: `must be at most ${MOST_KEPT} copies` }),
});
export type CopiesChange = z.infer<typeof copiesChangeSchema>;

/** Names of copies that Cadenza makes by itself. */
export const COPY_NAME = /^cadenza-\d{4}-\d\d-\d\dT\d{6}Z\.sql$/;
const copyNameSchema = z.string().regex(COPY_NAME, { error: 'must be one of the copies' });

export const copySchema = z.strictObject({
  name: copyNameSchema,
  /** Bytes. */
  size: z.int(),
  madeAt: z.iso.datetime({ precision: 3 }),
});
export type Copy = z.infer<typeof copySchema>;

/** How it stands with the copies of all that is stored. */
export const copiesSchema = z.strictObject({
  ...copiesChangeSchema.shape,
  /** Where they lie, on the machine that serves. */
  folder: z.string(),
  /** The newest first. */
  copies: z.array(copySchema),
  /** When the last good one was made, by whichever server; null while there is none. */
  lastGoodAt: z.iso.datetime({ precision: 3 }).nullable(),
  /** Why the last try failed, as a sentence; null when it did not. */
  trouble: z.string().nullable(),
  /** A copy is wished every day, and the last good one is too old. */
  old: z.boolean(),
  /** What was stored before the last restore is still there. */
  canGoBack: z.boolean(),
});
export type Copies = z.infer<typeof copiesSchema>;

/** A look into a backup before anything is done with it. */
export const insideSchema = z.strictObject({
  /** By this it is restored, or brought in. */
  token: idSchema,
  madeAt: z.iso.datetime({ precision: 3 }).nullable(),
  /** It carries a checksum, and it fits; one of an earlier Cadenza has none. */
  checksum: z.boolean(),
  holds: storeContentsSchema,
  /** What is here now, and would be replaced. */
  here: storeContentsSchema,
});
export type Inside = z.infer<typeof insideSchema>;

export const tokenSchema = z.strictObject({ token: idSchema });
