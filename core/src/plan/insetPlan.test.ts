import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { panelWidth } from '../board/board.ts';
import { insetBoard, type InsertChoice } from '../board/recutForTests.ts';
import { stripsOf } from '../board/recipe.ts';
import { checkPlan } from '../checks/checkPlan.ts';
import { followPlan } from '../follow/followPlan.ts';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { bounds, volume } from '../recipe/solid.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import type { Phrase } from '../units/phrase.ts';
import { faceOf } from './face.ts';
import { makePlan, type InsetPlan, type Plan } from './plan.ts';
import { figuresAndRungsAgree, followsOrTells } from './recipePropertiesForTests.ts';
import { stagesOf } from './stages.ts';
import { plainBoard, plainPiece, planInput } from './planArbitrary.ts';

const INCH = 25.4;
const tenths = (least: number, most: number) => fc.integer({ min: least * 10, max: most * 10 }).map((n) => n / 10);
const SPECIES = ['maple-hard', 'beech-european', 'walnut-black'];
const inserts: fc.Arbitrary<InsertChoice[]> = fc.array(
  fc.record({
    species: fc.constantFrom(...SPECIES),
    width: tenths(3, 40),
    at: fc.integer({ min: 0, max: 100 }),
    angle: fc.oneof(fc.constant(0), tenths(-60, 60)),
    jog: fc.oneof(fc.constant(0), tenths(-8, 8)),
  }),
  { minLength: 1, maxLength: 3 },
);
const boards = fc
  .tuple(workshopArbitrary, inserts)
  .filter(([input]) => stripsOf(input.board).length > 0)
  .map(([input, choice]) => {
    const { board } = input;
    // As wide as trims and jogs may leave it, and places as hundredths of its length: most of them are boards.
    const width = Math.max(30, Math.min(board.width, panelWidth(board) - 40));
    const at = choice.map((c) => ({ ...c, at: (board.length * c.at) / 100 }));
    return { ...input, board: insetBoard({ ...board, width }, at) };
  });

const planned = (plan: Plan): InsetPlan => {
  if (plan.again?.how !== 'parts') throw new Error('Nothing is put in.');
  return plan.again;
};
const wood = ({ cells }: Workpiece) => cells.reduce((sum, c) => sum + volume(c.solid), 0);
const RACK = [
  plainPiece({ length: 2400, width: 220, thickness: 56, count: 8 }),
  plainPiece({ id: 'w', mark: 'W1', species: 'walnut-black', length: 2400, width: 220, thickness: 56, count: 4 }),
];
/** Wide panels in a shop that has everything: most of them are made without a word. */
const rich = fc.tuple(inserts, fc.array(tenths(30, 50), { minLength: 3, maxLength: 6 })).map(([choice, widths]) => {
  const sum = widths.reduce((a, b) => a + b, 0);
  const at = choice.map((c, k) => ({
    ...c,
    at: (400 * (k + 0.3 + (0.4 * c.at) / 100)) / choice.length,
    angle: c.angle / 3,
  }));
  return planInput(
    insetBoard(plainBoard({ length: 400, width: Math.max(30, sum - 45), thickness: 20 }, widths), at),
    RACK,
  );
});
const both = fc.oneof({ weight: 3, arbitrary: boards }, { weight: 1, arbitrary: rich });

const band = (change: Partial<InsertChoice> = {}): InsertChoice => ({
  species: 'walnut-black',
  width: 20,
  at: 150,
  angle: 0,
  jog: 0,
  ...change,
});

describe('strips put into a panel', () => {
  it('the blind maker ends with the planned board, cell by cell, or the plan has told what he met: 160 recipes', () => {
    // What is put in is often short at a saw: a caution, and no reason to stop.
    expect(followsOrTells(both, 160, ['partTooShort'])).toBeGreaterThan(10);
  }, 240_000);

  it('no figure stands in a step that is not in one of its instructions, and every rung adds up: 80 recipes', () => {
    figuresAndRungsAgree(boards, 80);
  }, 120_000);

  it('the block is full of wood, as large as was read backward, and the board comes out of it whole: 300 recipes', () => {
    let looked = 0;
    fc.assert(
      fc.property(inserts, fc.array(tenths(15, 60), { minLength: 1, maxLength: 6 }), (choice, widths) => {
        const sum = widths.reduce((a, b) => a + b, 0);
        // One after the other with room between them, half as slanted: most of them lie on the panel.
        const at = choice.map((c, k) => ({
          ...c,
          at: (600 * (k + 0.3 + (0.4 * c.at) / 100)) / choice.length,
          angle: c.angle / 2,
        }));
        const board = insetBoard(plainBoard({ length: 600, width: Math.max(20, sum - 45), thickness: 20 }, widths), at);
        const input = planInput(board, RACK);
        const plan = makePlan(input);
        const inset = planned(plan);
        const rules = new Set(checkPlan(plan, input).flatMap((f) => (f.severity === 'stop' ? [f.rule] : [])));
        // Cuts that leave the panel or each other make no block, and are stops.
        if (['insert-misses', 'inserts-cross', 'panel-width'].some((rule) => rules.has(rule)) || !plan.wood) return;
        looked += 1;
        const { length, width, height } = inset.block;
        expect(Math.abs(wood(plan.wood.panel) / (length * width * height) - 1)).toBeLessThan(1e-9);
        const [l, w, t] = plan.wood.board.size;
        expect([l, w]).toEqual([600, expect.closeTo(board.width, 9)]);
        expect(Math.abs(wood(plan.wood.board) / (l * w * t) - 1)).toBeLessThan(1e-9);
      }),
      { numRuns: 300 },
    );
    expect(looked).toBeGreaterThan(60);
  }, 240_000);
});

describe('worked sums', () => {
  const STRIPS = [45, 45, 45, 45, 45, 45];
  const board = (inserts: InsertChoice[], change: Parameters<typeof plainBoard>[0] = {}) =>
    insetBoard(plainBoard({ length: 450, width: 240, thickness: 25, ...change }, STRIPS), inserts);
  const of = (inserts: InsertChoice[], change: Parameters<typeof plainBoard>[0] = {}) => {
    const input = planInput(board(inserts, change), RACK);
    return { input, plan: makePlan(input) };
  };

  it('two bands, 7 in from each end: the panel is shorter by both and longer by two kerfs; every cut is told from the left end', () => {
    const width = 1.5 * INCH;
    const { input, plan } = of(
      [7 * INCH + width / 2, 18 * INCH - 7 * INCH - width / 2].map((at) => band({ width, at })),
      { length: 18 * INCH },
    );
    const inset = planned(plan);
    const flat = makePlan(planInput(plainBoard({ length: 18 * INCH, width: 240, thickness: 25 }, STRIPS), RACK));
    const kerf = inset.inserts[0]!.kerf;
    expect(inset.panelLength).toBeCloseTo(flat.allowances.panels[0]!.length - 2 * width + 2 * kerf, 9);
    expect([inset.steps, plan.ladders.length.reached, plan.ladders.width.reached]).toEqual([0, 18 * INCH, 240]);
    // The second cut: all of the board before the band, without the first band but with its kerf, behind what is trimmed.
    const [first, second] = inset.inserts;
    expect(first!.sawnAt).toBeCloseTo(inset.end + 7 * INCH, 9);
    expect(second!.sawnAt).toBeCloseTo(inset.end + 18 * INCH - 7 * INCH - width - width + kerf, 9);
    // Each band shows where it was wished: its far and its near edge from the left end of the board.
    const shown = plan.wood!.board.cells.filter((c) => c.strip.startsWith('band')).map((c) => bounds(c.solid));
    expect(shown.map((b) => [b.least[0] / INCH, b.greatest[0] / INCH].map((v) => Math.round(v * 1e6) / 1e6))).toEqual([
      [7, 8.5],
      [9.5, 11],
    ]);
    // Short parts at a saw are told of by a caution.
    expect(followPlan(plan, input).failures.filter((f) => f.code !== 'partTooShort')).toEqual([]);
    expect(stagesOf(plan, input.board).map((s) => [s.kind, s.count])).toEqual([
      ['panel', 1],
      ['parts', 3],
      ['block', 1],
      ['board', 1],
    ]);
  });

  it('a slanted strip moves what lies behind it by its width less a kerf over the cosine, and nothing across', () => {
    const inset = planned(of([band({ at: 225, angle: 30 })]).plan);
    const { kerf, moved, length } = inset.inserts[0]!;
    expect(moved[0]).toBeCloseTo((20 - kerf) / Math.cos(Math.PI / 6), 9);
    expect([moved[1], inset.steps]).toEqual([0, 0]);
    // From edge to edge along the cut, its ends as slanted.
    expect(length).toBeCloseTo(
      inset.trueWidth / Math.cos(Math.PI / 6) + 20 * Math.tan(Math.PI / 6) + DEFAULT_SHOP.habits.creep,
      9,
    );
  });

  it('a jog is lost at both edges together, once for parts that jog there and back', () => {
    const there = planned(of([band({ jog: 9 })]).plan);
    const back = planned(of([band({ jog: 9 }), band({ at: 300, jog: -9 })]).plan);
    const on = planned(of([band({ jog: 9 }), band({ at: 300, jog: 9 })]).plan);
    expect([there, back, on].map((i) => i.trueWidth - i.block.width)).toEqual([9, 9, 18]);
    expect(there.wantedPanelWidth).toBe(240 + 9 + 4 * DEFAULT_SHOP.habits.panelEdgeTrim);
  });

  it('where strips are put in in another order than they lie, each still lies where it was wished', () => {
    const [a, b] = [band({ at: 300, width: 12 }), band({ at: 100, width: 30 })];
    const { input, plan } = of([a, b]);
    const middles = plan
      .wood!.board.cells.filter((c) => c.strip.startsWith('band'))
      .map(({ strip, solid }) => [strip, (bounds(solid).least[0] + bounds(solid).greatest[0]) / 2]);
    expect(middles.sort()).toEqual([
      ['band-1', expect.closeTo(300, 6)],
      ['band-2', expect.closeTo(100, 6)],
    ]);
    // Short parts at a saw are told of by a caution.
    expect(followPlan(plan, input).failures.filter((f) => f.code !== 'partTooShort')).toEqual([]);
  });

  it('each board of a batch has a panel and strips of its own, cut from the rack', () => {
    const { input, plan } = of([band()], { count: 3 });
    expect(plan.allowances.panels).toHaveLength(3);
    const own = plan.cutting.blanks.flatMap((b) => b.strips).filter((s) => s.demand.stripId === 'band-1');
    expect(
      own
        .filter((s) => s.demand.spare === 0)
        .map((s) => s.demand.copy)
        .sort(),
    ).toEqual([1, 2, 3]);
    expect(new Set(own.map((s) => s.demand.length)).size).toBe(1);
    // Short parts at a saw are told of by a caution.
    expect(followPlan(plan, input).failures.filter((f) => f.code !== 'partTooShort')).toEqual([]);
  });

  it('cells of the show face: the grain of a band runs across the board, that of the parts along it', () => {
    const { input, plan } = of([band()]);
    const cells = faceOf(plan, input.board);
    const along = (strip: number) => cells.filter((c) => c.strip === strip).map((c) => Math.abs(c.grain[0]));
    expect(along(7)).toEqual([expect.closeTo(0, 9)]);
    expect(along(1)).toEqual([expect.closeTo(1, 9), expect.closeTo(1, 9)]);
    expect(cells.filter((c) => c.species === 'walnut-black')).toHaveLength(1);
  });

  it('a band moves along the board with the seasons, by its share of it', () => {
    const none = makePlan(planInput(plainBoard({ length: 450, width: 240, thickness: 25 }, STRIPS), RACK));
    const { plan } = of([band({ width: 45 })]);
    expect(none.movement.along).toBe(0);
    expect(plan.movement.along).toBeGreaterThan(0);
    expect(plan.movement.along).toBeLessThan(0.15 * plan.movement.across * (450 / 240));
  });
});

describe('what goes wrong is told, and its way out leads out', () => {
  const STRIPS = [45, 45, 45, 45, 45, 45];
  const found = (inserts: InsertChoice[], rule: string, change: Parameters<typeof plainBoard>[0] = {}) => {
    const board = insetBoard(plainBoard({ length: 450, width: 240, thickness: 25, ...change }, STRIPS), inserts);
    const input = planInput(board, RACK);
    return checkPlan(makePlan(input), input).filter((f) => f.rule === rule);
  };
  const figure = (phrase: Phrase) => phrase.flatMap((p) => (typeof p !== 'string' && 'mm' in p ? [p.mm] : []))[0]!;

  it('a cut that leaves the panel through its end: moved as far as it says it does not', () => {
    const at = 40;
    const [finding] = found([band({ at, angle: 45 })], 'insert-misses');
    expect(finding).toMatchObject({ severity: 'stop', strips: [7], station: 'mill' });
    const by = figure(finding!.waysOut[0]!);
    expect(found([band({ at: at + by, angle: 45 })], 'insert-misses')).toEqual([]);
    expect(found([band({ at: at + by - 0.1, angle: 45 })], 'insert-misses')).toHaveLength(1);
    // From the other end alike.
    const [far] = found([band({ at: 450 - at, angle: 45 })], 'insert-misses');
    expect(found([band({ at: 450 - at - figure(far!.waysOut[0]!), angle: 45 })], 'insert-misses')).toEqual([]);
  });

  it('strips that run into each other: so far apart they do not', () => {
    const pair = (apart: number) => [band({ at: 200 }), band({ at: 200 + apart, angle: 20 })];
    const [finding] = found(pair(10), 'inserts-cross');
    expect(finding!.strips).toEqual([7, 8]);
    const by = figure(finding!.waysOut[0]!);
    expect(found(pair(10 + by), 'inserts-cross')).toEqual([]);
    expect(found(pair(10 + by - 0.1), 'inserts-cross')).toHaveLength(1);
  });

  it('beside the board, across the grain, end grain in the joint', () => {
    expect(found([band({ at: 451 })], 'insert-beside')).toHaveLength(1);
    expect(found([band({ at: 450 })], 'insert-beside')).toEqual([]);
    const [cross] = found([band()], 'cross-grain');
    const input = planInput(insetBoard(plainBoard({ length: 450, width: 240, thickness: 25 }, STRIPS), [band()]), RACK);
    expect(figure(cross!.what)).toBeCloseTo(Math.abs(makePlan(input).movement.across), 9);
    expect(found([band()], 'end-grain-joint')).toHaveLength(1);
    expect(found([band({ angle: 25 })], 'end-grain-joint')).toEqual([]);
    expect(found([band({ width: 4 })], 'narrow-strip')[0]!.strips).toContain(7);
  });
});
