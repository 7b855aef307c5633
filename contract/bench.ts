import { z } from 'zod';
import { INSTRUMENT_KINDS, READING_UNITS } from '#core/bench/reading.ts';
import { idSchema } from '#core/units/textSchema.ts';

/** Largest picture that is kept, bytes: a photograph made small in the browser is far below. */
export const GREATEST_PICTURE_BYTES = 1_000_000;

export const PICTURE_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;

/** A picture from the bench, its bytes in base64. */
export const pictureSchema = z.strictObject({
  type: z.enum(PICTURE_TYPES),
  data: z
    .base64({ error: 'must be bytes in base64' })
    .min(16, { error: 'must be a picture' })
    .max(Math.ceil(GREATEST_PICTURE_BYTES / 3) * 4, { error: 'must be at most 1 MB of picture' }),
});
export type Picture = z.infer<typeof pictureSchema>;

/** Something of a board that takes its time by itself. */
export const waitSchema = z.strictObject({
  board: idSchema,
  name: z.string(),
  fact: idSchema,
  step: z.string(),
  copy: z.int(),
  for: z.string(),
  from: z.iso.datetime({ precision: 3 }),
  until: z.iso.datetime({ precision: 3 }),
});
export type StoredWait = z.infer<typeof waitSchema>;

/** Every wait of every board, the one that is over first before the others, and what time it is. */
export const waitsSchema = z.strictObject({ now: z.iso.datetime({ precision: 3 }), waits: z.array(waitSchema) });
export type Waits = z.infer<typeof waitsSchema>;

/** What an instrument sends. */
export const readingSchema = z.strictObject({
  instrument: z.enum(INSTRUMENT_KINDS),
  value: z.number().min(-1e6, { error: 'must be at least -1000000' }).max(1e6),
  unit: z.enum(READING_UNITS),
  flat: z.boolean(),
});

/** What was sent since a reading, the oldest first; without one only which was the last. */
export const readingsSchema = z.strictObject({
  last: z.int(),
  readings: z.array(readingSchema.extend({ id: z.int() })),
});
export type Readings = z.infer<typeof readingsSchema>;

export const readingsQuerySchema = z.object({
  after: z.coerce
    .number({ error: 'must be a number' })
    .int({ error: 'must be a whole number' })
    .min(0, { error: 'must not be negative' })
    .max(2 ** 31, { error: 'must be at most 2147483648' })
    .optional(),
});
