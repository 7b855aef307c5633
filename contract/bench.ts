import { z } from 'zod';
import { idSchema } from '#core/units/textSchema.ts';

/** Largest picture that is kept, bytes: a photograph made small in the browser is far below. */
export const GREATEST_PICTURE_BYTES = 1_000_000;

export const PICTURE_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;

/** A picture from the bench, its bytes in base64. */
export const pictureSchema = z.strictObject({
  type: z.enum(PICTURE_TYPES, { error: `must be one of ${PICTURE_TYPES.join(', ')}` }),
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
