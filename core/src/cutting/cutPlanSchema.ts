import { z } from 'zod';
import type { CutPlan } from './cutPlan.ts';

const number = z.number();
const whole = z.int().min(0);
const text = z.string().max(200);

/** No piece is longer, mm: what a client sends beyond it is no place on a piece. */
const GREATEST_PLACE = 20_000;
const place = number
  .min(-1, { error: 'must not be negative' })
  .max(GREATEST_PLACE, { error: `must be at most ${GREATEST_PLACE} mm` });
const size = number
  .positive({ error: 'must be greater than 0' })
  .max(GREATEST_PLACE, { error: `must be at most ${GREATEST_PLACE} mm` });
/** An amount in the shop's currency. */
const amount = number
  .min(-1e9, { error: 'must be at least -1 000 000 000' })
  .max(1e9, { error: 'must be at most 1 000 000 000' });

const waySchema = z.strictObject({ shows: z.enum(['edge', 'face']), rip: size, thickness: size });

/** Where one strip lies in its blank, as a client sends it: the rest is worked out again. */
const bareStripSchema = z.strictObject({
  board: text,
  stripId: text,
  copy: whole,
  spare: whole,
  way: waySchema,
  from: place,
  layer: whole,
  layers: whole,
});
const bareBlankSchema = z.strictObject({
  pieceId: text,
  unit: whole,
  from: place,
  length: size,
  strips: z.array(bareStripSchema).min(1).max(400),
});

const proofSchema = z.strictObject({ species: text, total: amount, bound: amount.nullable() });

/** A cut plan as it is sent and decided: places of blanks and strips, and what was proven. Lengths in mm from the marked end. */
export const bareCutSchema = z.strictObject({
  blanks: z.array(bareBlankSchema).max(5000),
  bound: amount.nullable(),
  proofs: z.array(proofSchema).max(100),
});
export type BareCut = z.infer<typeof bareCutSchema>;
export type BareBlank = BareCut['blanks'][number];

const phrase = z.array(
  z.union([z.string(), z.strictObject({ mm: number, rounding: z.enum(['nearest', 'up', 'down']).optional() })]),
);
const demandSchema = z.strictObject({
  board: text,
  strip: whole,
  stripId: text,
  copy: whole,
  spare: whole,
  species: text,
  length: number,
  ways: z.array(waySchema).min(1),
  from: z.array(text).nullable(),
  together: text.nullable(),
});
export const rippedStripSchema = z.strictObject({
  demand: demandSchema,
  way: waySchema,
  from: number,
  planed: number,
  order: z.enum(['crosscutFirst', 'ripFirst', 'fullLength']),
  layer: whole,
  layers: whole,
});
export const blankSchema = z.strictObject({
  number: whole,
  pieceId: text,
  unit: whole,
  from: number,
  length: number,
  strips: z.array(rippedStripSchema),
  leftoverWidth: number,
  done: z.boolean(),
});
const leftoverSchema = z.strictObject({
  pieceId: text,
  unit: whole,
  from: number,
  length: number,
  across: number,
  width: number,
  side: z.boolean(),
  kept: z.boolean(),
});
const shortageSchema = z.strictObject({
  species: text,
  length: number,
  rip: number,
  thickness: number,
  strips: z.array(whole),
  parts: whole,
  reason: z.enum(['noSpecies', 'tooThin', 'tooNarrow', 'tooShort', 'defects', 'usedUp']),
  shortBy: number,
  say: phrase,
  buy: z.strictObject({
    species: text,
    thickness: number,
    quarters: text,
    width: number,
    length: number,
    pieces: whole,
  }),
});
const scoreSchema = z.strictObject({ wood: number, pieces: number, planks: number, leftovers: number, total: number });

/** A whole cut plan, as it is stored and served. */
export const cutPlanSchema: z.ZodType<CutPlan> = z.strictObject({
  method: z.enum(['first-fit', 'improved', 'kept']),
  blanks: z.array(blankSchema),
  leftovers: z.array(leftoverSchema),
  shortages: z.array(shortageSchema),
  score: scoreSchema,
  bound: number.nullable(),
  gap: number.nullable(),
  proofs: z.array(proofSchema),
});
