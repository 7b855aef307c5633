import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measuresOf } from '../bench/measures.ts';
import type { Fact } from '../facts/fact.ts';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { logEntrySchema, type Pair } from './entry.ts';
import { entryOf, pairsOf } from './entryOf.ts';
import { lessonsOf, median, quantile } from './lessons.ts';

const AT = '2026-11-27T08:00:00.000Z';
const pair = (happened: number, change: Partial<Pair> = {}): Pair => ({
  what: 'flatten',
  step: 'flattenPanel',
  machine: 'Planer',
  species: null,
  width: 250,
  planned: DEFAULT_SHOP.habits.panelFlatten,
  happened,
  ...change,
});

describe('robust figures', () => {
  // Worked by hand: of 1.6, 1.9, 2.1, 2.2, 2.4 the third is the middle one, and 0.8 of the way lies 0.2 past the fourth.
  it.each([
    [[1.6, 2.4, 2.1, 1.9, 2.2], 2.1, 2.24],
    [[4, 1, 3, 2], 2.5, 3.4],
    [[7], 7, 7],
  ])('of %j the middle is %f, four in five stay within %f', (values, middle, covered) => {
    expect(median(values)).toBeCloseTo(middle, 9);
    expect(quantile(values, 0.8)).toBeCloseTo(covered, 9);
  });

  it('lie among the figures, grow with the share, and care for no order', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -100, max: 100, noNaN: true }), { minLength: 1 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (values, a, b) => {
          const [low, high] = [quantile(values, Math.min(a, b)), quantile([...values].reverse(), Math.max(a, b))];
          expect(low).toBeLessThanOrEqual(high + 1e-9);
          expect(low).toBeGreaterThanOrEqual(Math.min(...values) - 1e-9);
          expect(high).toBeLessThanOrEqual(Math.max(...values) + 1e-9);
        },
      ),
    );
    expect(() => median([])).toThrow('There is no quantile of nothing.');
  });
});

describe('lessons', () => {
  const seven = [1.6, 1.9, 2, 2.1, 2.2, 2.3, 2.4];

  it('say what happened, how often and how far apart, and change one habit when they are taken', () => {
    const [lesson, ...rest] = lessonsOf(
      seven.map((h) => pair(h)),
      DEFAULT_SHOP,
    );
    expect(rest).toEqual([]);
    expect(phraseText(lesson!.says, DEFAULT_DISPLAY)).toBe(
      `Panels lost 2.1 mm at flattening (7 of them, 1.6 mm to 2.4 mm); the habit says ${DEFAULT_SHOP.habits.panelFlatten} mm.`,
    );
    expect(lesson!.suggested).toBe(2.3);
    const changed = lesson!.change!(DEFAULT_SHOP);
    expect(changed).toEqual({ ...DEFAULT_SHOP, habits: { ...DEFAULT_SHOP.habits, panelFlatten: 2.3 } });
    // The next plan shows it: strips are milled thicker by as much.
    const input = planInput(plainBoard(), [plainPiece({ length: 4000 })]);
    expect(
      makePlan({ ...input, shop: changed }).allowances.glueThickness - makePlan(input).allowances.glueThickness,
    ).toBeCloseTo(2.3 - DEFAULT_SHOP.habits.panelFlatten, 9);
  });

  it('fewer than five pairs teach nothing; what is as the habit says asks for no change', () => {
    expect(
      lessonsOf(
        seven.slice(0, 4).map((h) => pair(h)),
        DEFAULT_SHOP,
      ),
    ).toEqual([]);
    const [same] = lessonsOf(
      Array.from({ length: 6 }, () => pair(DEFAULT_SHOP.habits.panelFlatten)),
      DEFAULT_SHOP,
    );
    expect(same!.change).toBeNull();
  });

  it('one figure that is far off moves them little', () => {
    const usual = lessonsOf(
      seven.map((h) => pair(h)),
      DEFAULT_SHOP,
    )[0]!;
    const odd = lessonsOf(
      [...seven, 40].map((h) => pair(h)),
      DEFAULT_SHOP,
    )[0]!;
    expect(odd.suggested - usual.suggested).toBeLessThan(0.2);
  });

  it('times change the pace by the middle of what steps took for what was planned', () => {
    const taken = [9, 12, 12, 12, 30].map((happened) => pair(happened, { what: 'minutes', planned: 10 }));
    const [lesson] = lessonsOf(taken, DEFAULT_SHOP);
    expect(lesson).toMatchObject({ id: 'minutes', median: 1.2, suggested: 1.2 });
    expect(lesson!.change!(DEFAULT_SHOP).pace.work).toBe(1.2);
  });
});

describe('a finished board', () => {
  it('is a whole snapshot of any board, which the schema of the log takes', () => {
    fc.assert(
      fc.property(workshopArbitrary, (input) => {
        const entry = entryOf(input, null, AT, 'A hut');
        expect(logEntrySchema.safeParse(entry).error?.issues ?? []).toEqual([]);
        expect(JSON.parse(JSON.stringify(entry))).toEqual(entry);
        const { ladders } = makePlan(input);
        expect(entry.reached.thickness).toBe(ladders.thickness.reached);
        for (const { corners } of entry.face)
          for (const [x, y] of corners) {
            expect(x).toBeGreaterThanOrEqual(-0.01);
            expect(x).toBeLessThanOrEqual(input.board.length + 0.01);
            expect(y).toBeGreaterThanOrEqual(-0.01);
            expect(y).toBeLessThanOrEqual(input.board.width + 0.01);
          }
      }),
      { numRuns: 40 },
    );
  });

  it('pairs what flattening took with what the habit said, and minutes with what was planned: worked by hand', () => {
    const input = planInput(plainBoard({ thickness: 20 }), [plainPiece({ length: 4000, thickness: 40 })]);
    const { operations } = makePlan(input);
    const flatten = operations.find((o) => o.kind === 'flattenPanel')!;
    const [{ thing, copy, stage, dimension, expected }] = measuresOf(flatten, operations, input.board, input.shop) as [
      ReturnType<typeof measuresOf>[number],
    ];
    const facts: Fact[] = [
      { kind: 'measured', id: 'm', at: AT, thing, copy, stage, dimension, value: expected! - 0.7 },
      { kind: 'done', id: 'd', at: AT, step: flatten.id, copy: 1, minutes: 44 },
    ];
    const pairs = pairsOf({ ...input, facts }, makePlan({ ...input, facts }));
    const habit = DEFAULT_SHOP.habits.panelFlatten;
    expect(pairs).toHaveLength(2);
    expect(pairs[0]).toMatchObject({
      what: 'flatten',
      planned: habit,
      happened: expect.closeTo(habit + 0.7, 9) as number,
    });
    expect(pairs[1]).toMatchObject({ what: 'minutes', step: 'flattenPanel', happened: 44 });
  });
});
