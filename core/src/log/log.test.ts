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

describe('lessons on how the shop works', () => {
  // Worked by hand: of 2, 3, 4, 5, 6 the middle is 4, and 0.8 of the way lies 0.2 past the fourth.
  const five = [2, 3, 4, 5, 6];
  it.each([
    ['creep', 'Strips ended 4 mm out of line', (s: typeof DEFAULT_SHOP) => s.habits.creep],
    ['snipe', 'The planer dug in 4 mm from the end', (s: typeof DEFAULT_SHOP) => s.planer?.snipe],
    ['endTrim', 'Ends were sound 4 mm in', (s: typeof DEFAULT_SHOP) => s.habits.panelEndTrim],
  ] as const)('%s is kept where the plan reads it', (what, says, of) => {
    const [lesson] = lessonsOf(
      five.map((h) => pair(h, { what })),
      DEFAULT_SHOP,
    );
    expect(phraseText(lesson!.says, DEFAULT_DISPLAY)).toContain(says);
    expect([lesson!.suggested, of(lesson!.change!(DEFAULT_SHOP))]).toEqual([5.2, 5.2]);
  });

  it('weighed boards correct what a finish takes, in proportion: 1.5 times of 90, 90 and 400 g', () => {
    const pairs = [10, 12, 15, 18, 30].map((happened) =>
      pair(happened, { what: 'uptake', machine: 'Mineral oil', planned: 10 }),
    );
    const [lesson] = lessonsOf(pairs, DEFAULT_SHOP);
    expect(lesson).toMatchObject({ id: 'uptake-mineral-oil', median: 1.5 });
    const [oil, ...others] = lesson!.change!(DEFAULT_SHOP).finishes;
    expect([oil!.face, oil!.edge, oil!.end]).toEqual([135, 135, 600]);
    expect(others).toEqual(DEFAULT_SHOP.finishes.slice(1));
    expect(
      lessonsOf(
        pairs.map((p) => ({ ...p, machine: 'Gone' })),
        DEFAULT_SHOP,
      ),
    ).toEqual([]);
  });

  it('a board weighed bare and after its oil says what it drank', () => {
    const input = planInput(plainBoard(), [plainPiece({ length: 4000 })]);
    const plan = makePlan(input);
    const weigh = (kind: string, id: string, value: number): Fact => {
      const step = plan.operations.findLast((o) => o.kind === kind)!;
      const measure = measuresOf(step, plan.operations, input.board, input.shop).find((m) => m.dimension === 'weight')!;
      const { thing, copy, stage } = measure;
      return { kind: 'measured', id, at: AT, thing, copy, stage, dimension: 'weight', value, step: step.id };
    };
    const facts = [weigh('raiseGrain', 'a', 2000), weigh('oil', 'b', 2041)];
    const [told] = pairsOf({ ...input, facts }, plan).filter((p) => p.what === 'uptake');
    expect(told).toMatchObject({ machine: 'Mineral oil', happened: 41 });
    expect(told!.planned).toBeCloseTo(plan.finish.coatings[0]!.amount.total, 9);
  });

  it('a planer that is gone teaches nothing', () => {
    const pairs = five.map((h) => pair(h, { what: 'snipe' }));
    expect(lessonsOf(pairs, { ...DEFAULT_SHOP, planer: null })).toEqual([]);
  });

  const spoiled = (width: number, happened: number) => pair(happened, { what: 'spoiled', width });
  it('thin strips that are spoiled want spares, those that never are none; thicker ones move the limit', () => {
    const thin = [0, 0, 1, 2, 2].map((n) => spoiled(5, n));
    const [more] = lessonsOf(thin, DEFAULT_SHOP);
    expect(phraseText(more!.says, DEFAULT_DISPLAY)).toBe(
      'Of 5 strips up to 7 mm thick 5 were spoiled; 1 of each is cut to spare.',
    );
    expect(more!.change!(DEFAULT_SHOP).cutting.spares).toBe(2);
    const [none] = lessonsOf(
      thin.map((p) => ({ ...p, happened: 0 })),
      DEFAULT_SHOP,
    );
    expect(none!.change!(DEFAULT_SHOP).cutting.spares).toBe(0);
    const [thicker] = lessonsOf(
      [8, 9, 9.5, 10, 11].map((w) => spoiled(w, 1)),
      DEFAULT_SHOP,
    );
    expect(thicker!.change!(DEFAULT_SHOP).cutting.spareBelow).toBe(10.2);
    expect(
      lessonsOf(
        [8, 9, 9.5, 10, 11].map((w) => spoiled(w, 0)),
        DEFAULT_SHOP,
      ),
    ).toEqual([]);
  });

  it('pairs come of what was measured and of strips that failed, and no plan changes by either figure', () => {
    const input = planInput(plainBoard({ thickness: 20 }, [6, 46, 46, 46, 46]), [
      plainPiece({ length: 4000, thickness: 40 }),
    ]);
    const plan = makePlan(input);
    const asked = plan.operations.flatMap((step) =>
      measuresOf(step, plan.operations, input.board, input.shop).map((measure) => ({ step, measure })),
    );
    const facts = (['creep', 'snipe', 'endTrim'] as const).map((dimension, i): Fact => {
      const { step, measure } = asked.find((a) => a.measure.dimension === dimension)!;
      const { thing, copy, stage } = measure;
      return { kind: 'measured', id: dimension, at: AT, thing, copy, stage, dimension, value: 4 + i, step: step.id };
    });
    const given = { ...input, facts };
    expect(makePlan(given).operations).toEqual(plan.operations);
    const failed: Fact = { kind: 'failed', id: 'f', at: AT, what: 'strip', thing: 's1', copy: 1, why: 'torn out' };
    const pairs = pairsOf({ ...input, facts: [...facts, failed] }, makePlan(given));
    const told = ({ what, planned, happened, width }: Pair) => [what, planned, happened, width];
    const { habits, planer } = input.shop;
    expect(pairs.filter((p) => p.what !== 'minutes').map(told)).toEqual([
      ['creep', habits.creep, 4, plan.panelWidth],
      ['endTrim', habits.panelEndTrim, 6, plan.panelWidth],
      ['snipe', planer!.snipe, 5, plan.panelWidth],
      ['spoiled', 1, 1, 6],
    ]);
  });
});

describe('a finished board', () => {
  it('is a whole snapshot of any board, which the schema of the log takes', () => {
    fc.assert(
      fc.property(workshopArbitrary, (input) => {
        const entry = entryOf(input, null, AT, 'A hut');
        expect(logEntrySchema.safeParse(entry).error?.issues ?? []).toEqual([]);
        expect(JSON.parse(JSON.stringify(entry))).toEqual(entry);
        // What went on it, not what the shop usually puts on.
        if (input.board.finish)
          expect(entry.finish.split(', ').filter(Boolean)).toHaveLength(input.board.finish.length);
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
