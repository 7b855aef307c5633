import { z } from 'zod';
import { boardSchema } from '../board/board.ts';
import { factsSchema } from '../facts/fact.ts';
import { originKinds } from '../stock/piece.ts';
import { idSchema, lineOfText } from '../units/textSchema.ts';

const mm = z.number({ error: 'must be a length in millimetres' }).min(0, { error: 'must not be negative' });
const minutes = z.number({ error: 'must be a number of minutes' }).min(0, { error: 'must not be negative' });
const sizes = z.strictObject({ length: mm, width: mm, thickness: mm });
const whenSchema = z.iso.datetime({ precision: 3, error: 'must be a date and time such as 2026-11-26T18:30:00.000Z' });

/** What flattening took of long grain or of end grain, and sanding; how far strips crept, the planer dug in, an end was unsound, all in mm; how many of a strip were spoiled, with how many spares; how much finish a board drank, g; hands-on minutes. */
const PAIRED = ['flatten', 'flattenEnd', 'sand', 'creep', 'snipe', 'endTrim', 'spoiled', 'uptake', 'minutes'] as const;

/** What a figure was planned as and came to: what lessons are drawn from. Lengths in mm, times in minutes. */
export const pairSchema = z.strictObject({
  /** What is compared. */
  what: z.enum(PAIRED),
  /** Kind of the step, and the tool that did it. */
  step: lineOfText(1, 40),
  machine: lineOfText(1, 80).nullable(),
  species: lineOfText(1, 40).nullable(),
  /** Of the panel, or of the strip. */
  width: mm.nullable(),
  planned: z.number(),
  happened: z.number(),
});
export type Pair = z.infer<typeof pairSchema>;

/** Something that was done to a board after it was handed over. */
export const careSchema = z.strictObject({
  at: whenSchema,
  what: z.enum(['oiled', 'sanded', 'repaired']),
  note: lineOfText(0, 300),
});
export type Care = z.infer<typeof careSchema>;

/** What the face of a finished board is drawn from: convex shapes in mm from its left end and far edge, and their species. */
const faceSchema = z
  .array(
    z.strictObject({
      species: lineOfText(1, 40),
      corners: z
        .array(z.tuple([z.number(), z.number()]))
        .min(3)
        .max(24),
    }),
  )
  .max(20_000, { error: 'must be at most 20 000 shapes' });

/** A finished board as it was: nothing that changes later changes it. */
export const logEntrySchema = z.strictObject({
  /** The board it was planned as. */
  board: boardSchema,
  boardId: idSchema.nullable(),
  finishedAt: whenSchema,
  /** For whom it is; empty where nobody said. */
  forWhom: lineOfText(0, 80),
  wished: sizes,
  reached: sizes,
  /** What it was made of: mark of the piece, species, and how long the part was that came of it, and where it came from. */
  pieces: z
    .array(
      z.strictObject({
        mark: lineOfText(1, 40),
        species: lineOfText(1, 40),
        length: mm,
        width: mm,
        /** What it was before; left out by boards that were logged before anybody asked. */
        origin: z.enum(originKinds).optional(),
        of: lineOfText(0, 120).optional(),
      }),
    )
    .max(2000, { error: 'must be at most 2000 pieces' }),
  glue: lineOfText(0, 80),
  finish: lineOfText(0, 120),
  minutesPlanned: minutes,
  /** Of the steps a clock ran for, what it counted, and what was planned of the same ones. */
  minutesTaken: minutes,
  minutesPlannedOfTaken: minutes,
  /** What the wood of all copies cost, in the shop's currency; null where no piece has a price. */
  cost: z.number().min(0).nullable(),
  currency: lineOfText(0, 8),
  grams: z.number().min(0).nullable(),
  /** Everything that was noted, as it was noted. */
  facts: factsSchema,
  pairs: z.array(pairSchema).max(2000, { error: 'must be at most 2000 pairs' }),
  face: faceSchema,
  care: z.array(careSchema).max(500, { error: 'must be at most 500 entries' }),
});
export type LogEntry = z.infer<typeof logEntrySchema>;
