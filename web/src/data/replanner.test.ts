import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, planInput } from '#core/plan/planArbitrary.ts';
import { EMPTY_SAW_BOOK } from '#core/saw/sawBook.ts';
import { PLAN_EVERY_MS, Replanner, type Planned, type Wanted } from './replanner.ts';

const base = planInput(plainBoard(), []);
const onePlan = makePlan(base);
const { board: _board, ...rest } = base;

const wanted = (length: number, change: Partial<Wanted> = {}): Wanted => ({
  state: { board: plainBoard({ length }), save: { kind: 'waiting' }, canUndo: false, canRedo: false },
  rest,
  book: EMPTY_SAW_BOOK,
  ...change,
});

/** A replanner whose plans are told from one another by the board they are of. */
function watched(options: { broken?: () => boolean } = {}) {
  const shown: Planned[] = [];
  const failures: unknown[] = [];
  let plans = 0;
  const replanner = new Replanner(wanted(400), {
    plan: () => {
      plans += 1;
      if (options.broken?.()) throw new Error('no plan');
      return onePlan;
    },
    check: () => [],
    publish: (planned) => shown.push(planned),
    fail: (error) => failures.push(error),
  });
  return { replanner, shown, failures, plans: () => plans };
}
const lengths = (shown: readonly Planned[]) => shown.map((p) => p.input.board.length);

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('a board that keeps changing', () => {
  it('is planned at once when the hands have rested, and then at its own pace, the last edit always', () => {
    const { replanner, shown, plans } = watched();
    vi.advanceTimersByTime(PLAN_EVERY_MS);
    for (let i = 1; i <= 30; i += 1) {
      replanner.want(wanted(400 + i));
      vi.advanceTimersByTime(16);
    }
    // Half a second of edits every frame: the first at once, and nothing of what lay between.
    expect([plans(), lengths(shown)]).toEqual([2, [401]]);
    vi.advanceTimersByTime(PLAN_EVERY_MS);
    expect(lengths(shown)).toEqual([401, 430]);
    vi.advanceTimersByTime(10 * PLAN_EVERY_MS);
    expect(lengths(shown)).toEqual([401, 430]);
  });

  it('shows the last edit whatever came before it and when', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ length: fc.integer({ min: 300, max: 500 }), after: fc.integer({ min: 0, max: 900 }) }), {
          minLength: 1,
          maxLength: 20,
        }),
        (edits) => {
          const { replanner, shown } = watched();
          for (const { length, after } of edits) {
            replanner.want(wanted(length));
            vi.advanceTimersByTime(after);
          }
          vi.advanceTimersByTime(2 * PLAN_EVERY_MS);
          expect(replanner.current.board.length).toBe(edits.at(-1)!.length);
          expect(replanner.current.board).toBe(replanner.current.input.board);
          // Never back to an edit that was shown to be older.
          const order = lengths(shown).map((l) => edits.findLastIndex((e) => e.length === l));
          expect(order.every((at) => at >= 0)).toBe(true);
        },
      ),
      { numRuns: 100 },
    );
  });

  it('an edit between plan and checks gives that plan up', () => {
    const { replanner, shown } = watched();
    vi.advanceTimersByTime(PLAN_EVERY_MS);
    replanner.want(wanted(401));
    // The plan is made in this task, its checks would come in the next.
    vi.advanceTimersToNextTimer();
    replanner.want(wanted(402));
    vi.advanceTimersByTime(2 * PLAN_EVERY_MS);
    expect(lengths(shown)).toEqual([402]);
  });

  it('what changes nothing of the plan is shown with the plan there is', () => {
    const { replanner, shown, plans } = watched();
    const { state } = wanted(400);
    const same = { ...state, board: replanner.current.board };
    const saved: Wanted['state'] = { ...same, save: { kind: 'saved', at: 'now' } };
    replanner.want({ state: saved, rest, book: EMPTY_SAW_BOOK });
    expect([plans(), shown.length, shown[0]!.save.kind]).toEqual([1, 1, 'saved']);
    replanner.want({ state: saved, rest, book: EMPTY_SAW_BOOK });
    vi.advanceTimersByTime(2 * PLAN_EVERY_MS);
    expect([plans(), shown.length]).toEqual([1, 1]);
  });

  it('facts, rack and saw are planned anew like the board', () => {
    const { replanner, plans } = watched();
    const { board } = replanner.current;
    const state = { ...wanted(400).state, board };
    for (const change of [{ facts: [] }, { rack: [] }, { saw: { key: '', promised: [], chosen: null, done: [] } }]) {
      replanner.want({ state, rest: { ...rest, ...change }, book: EMPTY_SAW_BOOK });
      vi.advanceTimersByTime(2 * PLAN_EVERY_MS);
    }
    expect(plans()).toBe(4);
  });

  it('what goes wrong is told, and the next edit is planned all the same', () => {
    let broken = false;
    const { replanner, shown, failures } = watched({ broken: () => broken });
    vi.advanceTimersByTime(PLAN_EVERY_MS);
    broken = true;
    replanner.want(wanted(401));
    vi.advanceTimersByTime(PLAN_EVERY_MS);
    expect([failures.length, shown.length]).toEqual([1, 0]);
    broken = false;
    replanner.want(wanted(402));
    vi.advanceTimersByTime(2 * PLAN_EVERY_MS);
    expect(lengths(shown)).toEqual([402]);
  });

  it('stops when its page is left', () => {
    const { replanner, shown } = watched();
    replanner.want(wanted(401));
    replanner.stop();
    vi.advanceTimersByTime(5 * PLAN_EVERY_MS);
    expect(shown).toEqual([]);
  });
});
