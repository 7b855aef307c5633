import { z } from 'zod';
import type { CutPlan, PromisedRange } from '../cutting/cutPlan.ts';
import { blankSchema } from '../cutting/cutPlanSchema.ts';
import { pieceSchema } from '../stock/piece.ts';
import type { DoneBlank, SawState } from './context.ts';
import { demandKey } from './cutForBoard.ts';

const id = z.string({ error: 'must be text' }).min(1, { error: 'must not be empty' }).max(40, { error: 'must be at most 40 characters' });
const whole = z.int({ error: 'must be a whole number' }).min(0, { error: 'must not be negative' });

/** One strip of one copy of a board, or one of its spares. */
export const stripNameSchema = z.strictObject({ board: id, stripId: id, copy: whole, spare: whole });
export type StripName = z.infer<typeof stripNameSchema>;

/** What the saw did with one piece: how it was, what was cut, which strips failed, and what went back to the rack. */
export const cuttingRecordSchema = z.strictObject({
  planId: id, pieceId: id, unit: whole, piece: pieceSchema, blanks: z.array(blankSchema), failed: z.array(stripNameSchema),
  leftovers: z.array(z.strictObject({ id, mark: z.string(), from: z.number(), length: z.number(), across: z.number(), width: z.number() })),
});
export type CuttingRecord = z.infer<typeof cuttingRecordSchema>;

/** A cut plan that was kept for one board or several: its wood is promised to them. */
export interface KeptPlan {
  id: string;
  boards: string[];
  keptAt: string;
  plan: CutPlan;
}

/** A piece that was cut. */
export interface StoredCutting {
  id: string;
  boards: string[];
  cutAt: string;
  version: number;
  record: CuttingRecord;
}

/** Everything that is promised and cut, over all boards. */
export interface SawBook {
  plans: KeptPlan[];
  cuttings: StoredCutting[];
}

export const EMPTY_SAW_BOOK: SawBook = { plans: [], cuttings: [] };

/** Wood promised to boards other than these. A blank that such a board shares with another stays promised. */
export function promisedToOthers(book: SawBook, boards: readonly string[]): PromisedRange[] {
  return book.plans.flatMap(({ plan }) => plan.blanks.filter((b) => b.strips.some((s) => !boards.includes(s.demand.board)))
    .map((b) => ({ pieceId: b.pieceId, unit: b.unit, from: b.from, to: b.from + b.length })));
}

/** Blanks that are cut already for a board, without the strips that failed. */
export function doneFor(book: SawBook, board: string): DoneBlank[] {
  return book.cuttings.flatMap(({ record }) => {
    const failed = new Set(record.failed.map(demandKey));
    return record.blanks.map((blank) => ({
      piece: record.piece, blank: { ...blank, done: true, strips: blank.strips.filter(({ demand }) => demand.board === board && !failed.has(demandKey(demand))) },
    }));
  }).filter(({ blank }) => blank.strips.length > 0);
}

/** What the plan of one board needs to know of the saw book. */
export function sawStateFor(book: SawBook, board: string): SawState {
  const chosen = book.plans.find((p) => p.boards.includes(board))?.plan ?? null;
  return { key: board, promised: promisedToOthers(book, [board]), chosen: chosen && chosen.blanks.length > 0 ? chosen : null, done: doneFor(book, board) };
}
