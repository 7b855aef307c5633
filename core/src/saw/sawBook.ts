import { grouped } from '../lists/grouped.ts';
import type { CutPlan, PromisedRange } from '../cutting/cutPlan.ts';
import type { DoneBlank, SawState } from './planInput.ts';
import { demandKey } from './demandKey.ts';
import type { SawBook, StoredPromise } from './sawRecords.ts';

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
  return grouped(ranges, (range) => range.pieceId);
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
