import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { CutPlan } from '#core/cutting/cutPlan.ts';
import { firstFit } from '#core/cutting/firstFit.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { cutProblemFor } from '#core/saw/cutForBoard.ts';
import { AS_IT_LIES, flatRecipe } from '#core/board/recipe.ts';
import { CutSearch } from './cutSearch.ts';
import type { CutAnswer, CutRequest } from './cutWorker.ts';

/** A worker that answers when it is told to. */
class PretendWorker {
  static made: PretendWorker[] = [];
  onmessage: ((event: { data: CutAnswer }) => void) | null = null;
  onerror: (() => void) | null = null;
  request: CutRequest | null = null;
  ended = false;

  constructor() {
    PretendWorker.made.push(this);
  }

  postMessage(request: CutRequest): void {
    this.request = request;
  }

  terminate(): void {
    this.ended = true;
  }

  answer(done: boolean, change: Partial<CutPlan> = {}): void {
    this.onmessage?.({ data: { plan: { ...firstFit(this.request!.problem), ...change }, done } });
  }
}

const strips = ['maple-hard', 'pear', 'cherry-wild', 'pear'].map((species, i) => ({
  id: `s${i}`,
  species,
  width: 40,
  ...AS_IT_LIES,
}));
const input = planInput(plainBoard({ recipe: flatRecipe(strips) }), [
  plainPiece({ id: 'm', mark: 'M' }),
  plainPiece({ id: 'p', mark: 'P', species: 'pear' }),
  plainPiece({ id: 'c', mark: 'C', species: 'cherry-wild' }),
]);
const problem = cutProblemFor([{ key: 'b', board: input.board, done: [] }], { ...input, promised: [] });

let told: { plan: CutPlan; done: boolean }[];
const search = (of = problem) => new CutSearch(of, 5, (plan, done) => told.push({ plan, done }));

beforeEach(() => {
  told = [];
  PretendWorker.made = [];
  vi.stubGlobal('Worker', PretendWorker);
  vi.stubGlobal('navigator', { hardwareConcurrency: 4 });
});
afterEach(() => void vi.unstubAllGlobals());

describe('the search for a better cut plan', () => {
  it('has a first answer at once, and shares species out: every strip and every piece to one worker', () => {
    search();
    expect(told).toHaveLength(1);
    expect(told[0]!.done).toBe(false);
    expect(told[0]!.plan.blanks.flatMap((b) => b.strips)).toHaveLength(strips.length);
    const shares = PretendWorker.made.map((w) => w.request!.problem);
    expect(shares).toHaveLength(2);
    const ids = (of: typeof problem) => of.demands.map((d) => d.stripId);
    expect(shares.flatMap(ids).sort()).toEqual(ids(problem).sort());
    expect(shares.flatMap((s) => s.rack.map((p) => p.id)).sort()).toEqual(['c', 'm', 'p']);
    for (const { demands, rack } of shares)
      expect(new Set(rack.map((p) => p.species))).toEqual(new Set(demands.map((d) => d.species)));
  });

  it('is done when the last worker is, and ends each as it is done', () => {
    search();
    const [one, two] = PretendWorker.made as [PretendWorker, PretendWorker];
    one.answer(true);
    expect([told.at(-1)!.done, one.ended, two.ended]).toEqual([false, true, false]);
    two.answer(false);
    expect(told.at(-1)!.done).toBe(false);
    two.answer(true);
    expect([told.at(-1)!.done, two.ended]).toEqual([true, true]);
  });

  it('tells nothing any more once it is stopped: an answer on its way is about a board that has changed', () => {
    const old = search();
    const late = [...PretendWorker.made];
    old.stop();
    search();
    const before = told.length;
    for (const worker of late) worker.answer(true, { method: 'improved' });
    late[0]!.onerror?.();
    expect(told).toHaveLength(before);
    expect(late.every((w) => w.ended)).toBe(true);
    // The search that goes on is heard.
    PretendWorker.made.at(-1)!.answer(false);
    expect(told).toHaveLength(before + 1);
  });

  it('a worker that breaks leaves its first answer, and the others go on', () => {
    search();
    const [one, two] = PretendWorker.made as [PretendWorker, PretendWorker];
    one.onerror?.();
    two.answer(true);
    expect(told.at(-1)!.done).toBe(true);
    expect(told.at(-1)!.plan.blanks.flatMap((b) => b.strips)).toHaveLength(strips.length);
  });

  it('with nothing to cut is done at once', () => {
    search({ ...problem, demands: [] });
    expect([told.length, told[0]!.done, PretendWorker.made.length]).toEqual([1, true, 0]);
  });
});
