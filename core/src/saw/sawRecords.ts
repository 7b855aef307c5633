import { z } from 'zod';
import type { CutPlan, PromisedRange } from '../cutting/cutPlan.ts';
import { blankSchema, cutPlanSchema } from '../cutting/cutPlanSchema.ts';
import { pieceSchema } from '../stock/piece.ts';
import type { DoneBlank, SawState } from './planInput.ts';
import { demandKey } from './cutForBoard.ts';

const id = z
  .string({ error: 'must be text' })
  .min(1, { error: 'must not be empty' })
  .max(40, { error: 'must be at most 40 characters' });
const whole = z.int({ error: 'must be a whole number' }).min(0, { error: 'must not be negative' });

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

export const EMPTY_SAW_BOOK: SawBook = { promises: [], plans: [], cuttings: [] };

/** What a plan promises, blank by blank. */
export function promisesOf(planId: string, plan: Pick<CutPlan, 'blanks'>): StoredPromise[] {
  return plan.blanks.map((b) => ({
    planId,
    pieceId: b.pieceId,
    unit: b.unit,
    from: b.from,
    to: b.from + b.length,
    boards: [...new Set(b.strips.map((s) => s.demand.board))],
  }));
}

/** Wood promised to boards other than these. A blank that such a board shares with another stays promised. */
export function promisedToOthers(book: Pick<SawBook, 'promises'>, boards: readonly string[]): PromisedRange[] {
  return book.promises
    .filter((p) => p.boards.some((b) => !boards.includes(b)))
    .map(({ pieceId, unit, from, to }) => ({ pieceId, unit, from, to }));
}

/** Promised wood, piece by piece. */
export function promisedByPiece(ranges: readonly PromisedRange[]): Map<string, PromisedRange[]> {
  const byPiece = new Map<string, PromisedRange[]>();
  for (const range of ranges) {
    const known = byPiece.get(range.pieceId);
    if (known) known.push(range);
    else byPiece.set(range.pieceId, [range]);
  }
  return byPiece;
}

/** Blanks that are cut already for a board, without the strips that failed. */
export function doneFor(book: SawBook, board: string): DoneBlank[] {
  return book.cuttings
    .flatMap(({ record }) => {
      const failed = new Set(record.failed.map(demandKey));
      return record.blanks.map((blank) => ({
        piece: record.piece,
        blank: {
          ...blank,
          done: true,
          strips: blank.strips.filter(({ demand }) => demand.board === board && !failed.has(demandKey(demand))),
        },
      }));
    })
    .filter(({ blank }) => blank.strips.length > 0);
}

/** What the plan of one board needs to know of the saw book. */
export function sawStateFor(book: SawBook, board: string): SawState {
  const chosen = book.plans.find((p) => p.boards.includes(board))?.plan ?? null;
  return {
    key: board,
    promised: promisedToOthers(book, [board]),
    chosen: chosen && chosen.blanks.length > 0 ? chosen : null,
    done: doneFor(book, board),
  };
}
