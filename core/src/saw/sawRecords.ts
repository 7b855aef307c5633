import { z } from 'zod';
import { blankSchema, cutPlanSchema } from '../cutting/cutPlanSchema.ts';
import { pieceSchema } from '../stock/piece.ts';

const id = z.string().min(1).max(40);
const whole = z.int().min(0);

/** One strip of one copy of a board, or one of its spares. */
export const stripNameSchema = z.strictObject({ board: id, stripId: id, copy: whole, spare: whole });
export type StripName = z.infer<typeof stripNameSchema>;

/** What the saw did with one piece: how it was, what was cut, which strips failed, and what went back to the rack. */
export const cuttingRecordSchema = z.strictObject({
  planId: id,
  pieceId: id,
  unit: whole,
  piece: pieceSchema,
  blanks: z.array(blankSchema),
  failed: z.array(stripNameSchema),
  leftovers: z.array(
    z.strictObject({
      id,
      mark: z.string(),
      from: z.number(),
      length: z.number(),
      across: z.number(),
      width: z.number(),
    }),
  ),
});
export type CuttingRecord = z.infer<typeof cuttingRecordSchema>;

/** A cut plan that was kept for one board or several: its wood is promised to them. */
const keptPlanSchema = z.strictObject({
  id: z.string(),
  boards: z.array(z.string()),
  keptAt: z.iso.datetime(),
  plan: cutPlanSchema,
});
export type KeptPlan = z.infer<typeof keptPlanSchema>;

/** A piece that was cut. */
const storedCuttingSchema = z.strictObject({
  id: z.string(),
  boards: z.array(z.string()),
  cutAt: z.iso.datetime(),
  version: z.int(),
  record: cuttingRecordSchema,
});
export type StoredCutting = z.infer<typeof storedCuttingSchema>;

/** A length of a piece that a kept plan promises, and the boards whose strips come from it. */
export const promiseSchema = z.strictObject({
  planId: id,
  pieceId: id,
  unit: whole,
  from: z.number(),
  to: z.number(),
  boards: z.array(id),
});
export type StoredPromise = z.infer<typeof promiseSchema>;

/** What the saw book says to some boards: all the wood that is promised, the plans that were kept for them, and what was cut for them. */
export const sawBookSchema = z.strictObject({
  promises: z.array(promiseSchema),
  plans: z.array(keptPlanSchema),
  cuttings: z.array(storedCuttingSchema),
});
export type SawBook = z.infer<typeof sawBookSchema>;
