import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { panelWidth } from '../board/board.ts';
import { frameOf } from '../board/frame.ts';
import { framedBoard, insetBoard, recutBoard, CHEVRON, type RingChoice } from '../board/recutForTests.ts';
import { stripsOf } from '../board/recipe.ts';
import { checkPlan } from '../checks/checkPlan.ts';
import { followPlan } from '../follow/followPlan.ts';
import { unwarned } from '../follow/unwarnedForTests.ts';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { volume } from '../recipe/solid.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { ofKind } from '../steps/instruction.ts';
import { phraseText } from '../units/phrase.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import { makePlan, type FramePlan, type Plan } from './plan.ts';
import { figuresAndRungsAgree, followsOrTells } from './recipePropertiesForTests.ts';
import { plainBoard, plainPiece, planInput } from './planArbitrary.ts';

const tenths = (least: number, most: number) => fc.integer({ min: least * 10, max: most * 10 }).map((n) => n / 10);
const SPECIES = ['maple-hard', 'beech-european', 'walnut-black', 'padauk'];
const ringOf = (least: number, most: number): fc.Arbitrary<RingChoice> =>
  fc.record({
    species: fc.constantFrom(...SPECIES),
    widths: fc.tuple(tenths(least, most), tenths(least, most), tenths(least, most), tenths(least, most)),
    first: fc.constantFrom('sides', 'ends'),
  });
const rings = fc.array(ringOf(3, 40), { minLength: 1, maxLength: 2 });
const INSIDE = ['flat', 'flat', 'parts', 'rows', 'chevron'] as const;

const inside = (board: ReturnType<typeof plainBoard>, look: (typeof INSIDE)[number]) =>
  look === 'flat'
    ? board
    : look === 'parts'
      ? insetBoard(board, [{ species: 'walnut-black', width: 12, at: board.length / 2, angle: 20, jog: 3 }])
      : look === 'rows'
        ? recutBoard(board)
        : recutBoard(board, {}, CHEVRON);

const boards = fc
  .tuple(workshopArbitrary, rings, fc.constantFrom(...INSIDE))
  .filter(([input]) => stripsOf(input.board).length > 0)
  .map(([input, choice, look]) => {
    const { board } = input;
    const wide = choice.reduce((sum, r) => sum + r.widths[0] + r.widths[1], 0);
    const across = look === 'rows' ? board.width : Math.max(30, panelWidth(board) - 45 + wide);
    return { ...input, board: framedBoard(inside({ ...board, width: across }, look), choice) };
  });
const RACK = [
  plainPiece({ length: 2400, width: 220, thickness: 56, count: 8 }),
  plainPiece({ id: 'w', mark: 'W1', species: 'walnut-black', length: 2400, width: 220, thickness: 56, count: 4 }),
  plainPiece({ id: 'b', mark: 'B1', species: 'beech-european', length: 2400, width: 220, thickness: 56, count: 4 }),
  plainPiece({ id: 'p', mark: 'K1', species: 'padauk', length: 2400, width: 220, thickness: 56, count: 4 }),
];
/** Panels wide enough in a shop that has everything: most of them are made without a word. */
const rich = fc
  .tuple(
    fc.array(ringOf(20, 40), { minLength: 1, maxLength: 2 }),
    fc.array(tenths(30, 50), { minLength: 4, maxLength: 6 }),
    fc.constantFrom('flat' as const, 'parts' as const),
    fc.constantFrom(1, 1, 2, 3),
    fc.constantFrom(1, 2),
  )
  .map(([choice, widths, look, count, perPanel]) => {
    const wide = choice.reduce((sum, r) => sum + r.widths[0] + r.widths[1], 0);
    const sum = widths.reduce((a, b) => a + b, 0);
    const board = plainBoard(
      { length: 600, width: sum - 35 + wide, thickness: 20, count, perPanel: look === 'flat' ? perPanel : 1 },
      widths,
    );
    return planInput(framedBoard(inside(board, look), choice), RACK);
  });
const both = fc.oneof({ weight: 3, arbitrary: boards }, { weight: 2, arbitrary: rich });

const framed = (plan: Plan): FramePlan => {
  if (!plan.frame) throw new Error('Nothing is framed.');
  return plan.frame;
};
const wood = ({ cells }: Workpiece) => cells.reduce((sum, c) => sum + volume(c.solid), 0);

describe('a frame round a board', () => {
  it('the blind maker ends with the planned board, cell by cell, or the plan has told what he met: 160 recipes', () => {
    expect(followsOrTells(both, 160, ['partTooShort'])).toBeGreaterThan(20);
  }, 240_000);

  it('no figure stands in a step that is not in one of its instructions, and every rung adds up: 80 recipes', () => {
    figuresAndRungsAgree(boards, 80);
  }, 120_000);
});

describe('worked sums', () => {
  const RING: RingChoice = { species: 'walnut-black', widths: [30, 30, 30, 30], first: 'sides' };
  const of = (choice: RingChoice[], change: Parameters<typeof plainBoard>[0] = {}) => {
    const input = planInput(
      framedBoard(plainBoard({ length: 400, width: 250, thickness: 20, ...change }, [45, 45, 45, 45, 45]), choice),
      RACK,
    );
    return { input, plan: makePlan(input) };
  };

  it('a frame of 30 all round with 3 off each edge at the end leaves a field smaller by 60 less 6', () => {
    const { plan, input } = of([RING]);
    const { field, side, end, block } = framed(plan);
    expect([field.length, field.width]).toEqual([400 + 2 * end - 60, 250 + 2 * side - 60]);
    expect(block).toEqual({ length: 400 + 2 * end, width: 250 + 2 * side });
    expect([plan.ladders.length.reached, plan.ladders.width.reached]).toEqual([400, 250]);
    // Sides as long as the field, ends over all of it.
    const [far, near, left] = plan.strips.slice(5).map((s) => s.milled.length - DEFAULT_SHOP.habits.creep);
    expect([far, near, left]).toEqual(
      [field.length, field.length, block.width].map((v) => expect.closeTo(v, 9) as number),
    );
    expect(followPlan(plan, input).failures.filter((f) => f.code !== 'partTooShort')).toEqual([]);
  });

  it('sides that cannot both close in time are glued on one after the other, each named once, and the maker ends with the planned frame', () => {
    const { input } = of([RING, { ...RING, widths: [10, 12, 14, 16] }]);
    const slow = { ...input, shop: { ...input.shop, pace: { ...input.shop.pace, spreadMinutesPerM2: 330 } } };
    const plan = makePlan(slow);
    const titles = plan.operations
      .filter((o) => (o.kind === 'glue' || o.kind === 'join') && ofKind(o.instructions, 'glue')[0]!.parts.length === 2)
      .map((o) => phraseText(o.title, { system: 'metric', denominator: 32, metricStep: 0.1 }));
    expect(titles.length).toBeGreaterThan(1);
    expect(new Set(titles).size).toBe(titles.length);
    expect(unwarned(plan, slow)).toEqual([]);
  });

  it('is full of wood, and no wood is lost', () => {
    const { plan } = of([RING, { ...RING, widths: [10, 12, 14, 16], first: 'ends', species: 'maple-hard' }]);
    const [l, w, t] = plan.wood!.panel.size;
    expect(wood(plan.wood!.panel) / (l * w * t)).toBeCloseTo(1, 9);
    expect(wood(plan.wood!.board)).toBeCloseTo(400 * 250 * 20, 3);
    expect([l, w]).toEqual([framed(plan).block.length, framed(plan).block.width]);
  });

  it('a frame wider than the board is a stop, and so narrow that a field is left it is none', () => {
    const rules = (width: number) => {
      const { plan, input } = of([{ ...RING, widths: [width, width, width, width] }]);
      return checkPlan(plan, input).map((f) => f.rule);
    };
    const { side } = frameOf(of([RING]).input.board, DEFAULT_SHOP)!;
    expect(rules((250 + 2 * side - 10) / 2 + 0.1)).toContain('frame-wide');
    expect(rules((250 + 2 * side - 10) / 2 - 0.1)).not.toContain('frame-wide');
  });
});
