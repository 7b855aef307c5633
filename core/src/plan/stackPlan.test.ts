import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Board } from '../board/board.ts';
import { stripsOf } from '../board/recipe.ts';
import { backedBoard, framedBoard, insetBoard, stackedBoard, type StackChoice } from '../board/recutForTests.ts';
import { accentsGiven, bitsAlong } from '../board/accents.ts';
import { checkPlan } from '../checks/checkPlan.ts';
import { followPlan } from '../follow/followPlan.ts';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { bounds, volume } from '../recipe/solid.ts';
import { ofKind } from '../steps/instruction.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import type { Phrase } from '../units/phrase.ts';
import { makePlan } from './plan.ts';
import { plainBoard, plainPiece, planInput } from './planArbitrary.ts';
import { figuresAndRungsAgree, followsOrTells } from './recipePropertiesForTests.ts';

const tenths = (least: number, most: number) => fc.integer({ min: least * 10, max: most * 10 }).map((n) => n / 10);
const SPECIES = ['maple-hard', 'beech-european', 'walnut-black', 'padauk'];
const stackArbitrary: fc.Arbitrary<StackChoice> = fc.record({
  bits: fc.array(fc.record({ species: fc.constantFrom(...SPECIES), length: tenths(10, 90) }), {
    minLength: 1,
    maxLength: 4,
  }),
  depth: tenths(8, 40),
  accents: fc.array(
    fc.record({
      at: fc.nat(12),
      width: fc.constantFrom(2.5, 3.2, 4, 6.5),
      endForEnd: fc.boolean(),
      turned: fc.boolean(),
    }),
    { minLength: 1, maxLength: 4 },
  ),
});
const RING = {
  species: 'beech-european',
  widths: [20, 20, 20, 20] as [number, number, number, number],
  first: 'sides' as const,
};
const LOOKS = ['flat', 'flat', 'parts', 'framed', 'backed'] as const;
const made = (board: Board, stacks: StackChoice[], look: (typeof LOOKS)[number]): Board => {
  const stacked = stackedBoard(board, stacks);
  if (look === 'framed') return framedBoard(stacked, [RING]);
  if (look === 'parts')
    return insetBoard(stacked, [{ species: 'walnut-black', width: 12, at: board.length / 2, angle: 20, jog: 3 }]);
  if (look === 'flat') return stacked;
  const strips = Array.from({ length: 5 }, () => ({ species: 'beech-european', width: 60 }));
  return backedBoard(stacked, { strips, runs: 'along', thickness: 6 });
};
const boards = fc
  .tuple(workshopArbitrary, fc.array(stackArbitrary, { minLength: 1, maxLength: 2 }), fc.constantFrom(...LOOKS))
  .filter(([input]) => stripsOf(input.board).length > 1)
  .map(([input, stacks, look]) => ({ ...input, board: made(input.board, stacks, look) }));

const RACK = SPECIES.map((species, i) =>
  plainPiece({ id: `p${i}`, mark: `P${i}`, species, length: 2400, width: 220, thickness: 56, count: 6 }),
);
const SHOP = {
  ...DEFAULT_SHOP,
  bandSaw: { kerf: 1.2, clean: 0.5, resawHeight: 150 },
  clamps: DEFAULT_SHOP.clamps.map((c) => ({ ...c, opening: 900, count: 12 })),
};
/** Accents between long strips, in a shop that has everything. */
const rich = fc
  .tuple(
    fc.array(fc.record({ species: fc.constantFrom(...SPECIES), length: tenths(20, 60) }), {
      minLength: 1,
      maxLength: 3,
    }),
    fc.array(fc.record({ width: fc.constantFrom(3.2, 5), endForEnd: fc.boolean(), turned: fc.boolean() }), {
      minLength: 1,
      maxLength: 3,
    }),
    fc.constantFrom(...LOOKS),
    fc.constantFrom(1, 1, 2),
    fc.constantFrom(1, 2),
  )
  .map(([bits, accents, look, count, perPanel]) => {
    const strips = [40, 45, 40, 45, 40];
    const board = plainBoard({ length: 360, width: 195, thickness: 30, count, perPanel }, strips);
    // Every second place: a strip, an accent, a strip.
    const placed = accents.map((a, i) => ({ ...a, at: 1 + 2 * i }));
    return planInput(made(board, [{ bits, depth: 36, accents: placed }], look), RACK, SHOP);
  });
const both = fc.oneof({ weight: 3, arbitrary: boards }, { weight: 2, arbitrary: rich });

describe('accents of bits', () => {
  it('the blind maker ends with the planned board, bit by bit, or the plan has told what he met: 120 recipes', () => {
    expect(followsOrTells(both, 120, ['partTooShort', 'lowPressure', 'glueTime'])).toBeGreaterThan(10);
  }, 240_000);

  it('no figure stands in a step that is not in one of its instructions, and every rung adds up: 60 recipes', () => {
    figuresAndRungsAgree(boards, 60);
  }, 120_000);
});

describe('worked sums', () => {
  const bits = [
    { species: 'walnut-black', length: 30 },
    { species: 'maple-hard', length: 20 },
  ];
  const of = (change: Partial<StackChoice> = {}, look: (typeof LOOKS)[number] = 'flat', shop = SHOP, count = 1) => {
    const board = plainBoard({ length: 360, width: 195, thickness: 30, count }, [40, 45, 40, 45, 40]);
    const accents = [1, 3, 5].map((at) => ({ at, width: 3.2 }));
    const input = planInput(made(board, [{ bits, depth: 30, accents, ...change }], look), RACK, shop);
    const plan = makePlan(input);
    return {
      input,
      plan,
      stack: plan.stacks[0]!.stack,
      found: (rule: string) => checkPlan(plan, input).filter((f) => f.rule === rule),
    };
  };
  const noSpares = { ...SHOP, cutting: { ...SHOP.cutting, spares: 0 } };
  const figures = (phrase: Phrase) => phrase.flatMap((p) => (typeof p !== 'string' && 'mm' in p ? [p.mm] : []));

  it('three accents of 3.2, a kerf of 1.2 and 0.5 off each sawn face want 14, and what flattening takes; a spare 5.4 more', () => {
    const flatten = SHOP.habits.panelFlatten;
    expect(of({}, 'flat', noSpares).stack.wantedDepth).toBeCloseTo(14 + flatten, 9);
    const spares = SHOP.cutting.spares;
    expect(of().stack.wantedDepth).toBeCloseTo(14 + flatten + spares * 5.4, 9);
    const [depth, exact] = [14 + flatten - 0.1, 14 + flatten];
    const [stop] = of({ depth }, 'flat', noSpares).found('stack-shallow');
    expect(figures(stop!.what)[0]).toBeCloseTo(exact, 9);
    expect(of({ depth: exact }, 'flat', noSpares).found('stack-shallow')).toEqual([]);
    // The last accent is what such a stack does not give; of one as deep as a single accent the first is left.
    const given = (deep: number) => accentsGiven(of({ depth: deep }, 'flat', noSpares).stack).length;
    expect([depth, exact, 3.2 + flatten, 3].map(given)).toEqual([2, 3, 1, 0]);
    // Its way out leads out.
    expect(of({ depth: figures(stop!.waysOut[0]!)[0]! }, 'flat', noSpares).found('stack-shallow')).toEqual([]);
  });

  it('bits are as many as fill the panel, the middle of the pattern in the middle of the panel; strips are long enough to be held at the last cut', () => {
    const { stack, plan } = of();
    const { length } = plan.allowances.panels[0]!;
    expect(stack.glued).toBeGreaterThanOrEqual(length);
    expect(stack.glued - stack.bits.at(-1)!.length).toBeLessThan(length);
    expect(stack.off).toBeCloseTo((stack.glued - length) / 2, 9);
    const { kerf } = SHOP.crosscutSaw;
    for (const { bit, count, length: long } of stack.sticks)
      expect(long).toBeCloseTo(kerf + count * (bit + kerf) + 150, 9);
    const [cut] = plan.operations.flatMap((o) => ofKind(o.instructions, 'cutBits'));
    expect(cut).toMatchObject({ each: 30, first: kerf, hold: 150 });
  });

  it.each(LOOKS)('all of the board is wood, of each accent just what it measures, %s', (look) => {
    const { plan, input } = of(
      {
        accents: [
          { at: 2, width: 5 },
          { at: 4, width: 5, endForEnd: true, turned: true },
        ],
      },
      look,
    );
    const { board } = plan.wood!;
    const [l, w, t] = board.size;
    expect(board.cells.reduce((sum, c) => sum + volume(c.solid), 0) / (l * w * t)).toBeCloseTo(1, 9);
    for (const accent of ['accent-1-1', 'accent-1-2']) {
      const own = board.cells.filter((c) => c.accent === accent);
      const high = look === 'backed' ? t - 6 + plan.shop.habits.sanding / 2 : t;
      // A frame is trimmed with the board; across a slanted strip the half behind lies a jog nearer, and begins sooner.
      const slant = (20 * Math.PI) / 180;
      const long = {
        flat: l,
        backed: l,
        framed: l + 2 * plan.shop.habits.panelEdgeTrim - 40,
        parts: l - 12 / Math.cos(slant) + 3 * Math.tan(slant),
      }[look];
      expect(own.reduce((sum, c) => sum + volume(c.solid), 0)).toBeCloseTo(long * 5 * high, 3);
      // Every cell knows the strip that its bit was cut from, never the accent.
      expect(new Set(own.map((c) => c.strip))).toEqual(new Set(['stick-1-1', 'stick-1-2']));
    }
    expect(
      followPlan(plan, input).failures.filter((f) => !['partTooShort', 'lowPressure', 'glueTime'].includes(f.code)),
    ).toEqual([]);
  });

  it('what shows along an accent is what counting bits from the middle of the board says, either way round', () => {
    for (const endForEnd of [false, true]) {
      const { plan, stack } = of({ accents: [{ at: 2, width: 5, endForEnd }] });
      const own = plan.wood!.board.cells.filter((c) => c.accent !== undefined);
      const round = bits[0]!.length + bits[1]!.length;
      for (let x = 1.37; x < 360; x += 7.13) {
        const cell = own.find((c) => {
          const { least, greatest } = bounds(c.solid);
          return x >= least[0] && x < greatest[0];
        })!;
        const middle = (endForEnd ? -1 : 1) * (x - 180);
        const at = (middle + stack.glued / 2) % round;
        expect([x, cell.strip]).toEqual([x, at < bits[0]!.length ? 'stick-1-1' : 'stick-1-2']);
      }
      const told = bitsAlong(stack, { endForEnd });
      expect(told.reduce((sum, b) => sum + b.to - b.from, 0)).toBeCloseTo(stack.length, 9);
    }
  });

  it('of a batch each panel has its own stack; every strip that bits are cut from has a place in the rack or is missing', () => {
    const { plan, stack } = of({}, 'flat', SHOP, 2);
    const cut = (many: typeof plan, id: string) =>
      many.cutting.blanks.flatMap((b) => b.strips).filter((s) => s.demand.stripId === id && s.demand.spare === 0)
        .length;
    for (const { strip } of stack.sticks) expect(cut(plan, strip.id)).toBe(2);
    const made = plan.operations
      .flatMap((o) => ofKind(o.instructions, 'resaw'))
      .filter((r) => r.part.id.startsWith('stack'));
    expect(made.map((r) => r.layers.filter((l) => !/spare/.test(l.part.id)).map((l) => l.strip))).toEqual([
      [2, 4, 6],
      [2, 4, 6],
    ]);
    const poor = makePlan({
      ...planInput(
        of().input.board,
        RACK.filter((p) => p.species !== 'maple-hard'),
        SHOP,
      ),
    });
    expect(cut(poor, 'stick-1-2')).toBe(0);
    expect(poor.cutting.shortages.flatMap((s) => s.strips)).toContain(stack.sticks[1]!.number);
  });

  it('an accent at an edge, or beside another, is held by nothing; high boards and shops without a saw for it are stops', () => {
    const bare = (places: number[]) =>
      of({ accents: places.map((at) => ({ at, width: 3.2 })) })
        .found('stack-bare')
        .flatMap((f) => f.strips);
    expect(bare([0])).toEqual([1]);
    expect(bare([2, 3])).toEqual([3, 4]);
    expect(bare([1, 3])).toEqual([]);
    expect(
      of({}, 'flat', { ...SHOP, bandSaw: { ...SHOP.bandSaw, resawHeight: 25 } }).found('stack-resaw'),
    ).toHaveLength(1);
    expect(of().found('stack-resaw')).toEqual([]);
    expect(of().found('short-bits')).toHaveLength(1);
    expect(of({ bits: bits.map((b) => ({ ...b, length: 50 })) }).found('short-bits')).toEqual([]);
    // One round longer than the panel: the last wood never comes.
    const idle = of({ bits: [...bits, { species: 'beech-european', length: 400 }, { species: 'padauk', length: 30 }] });
    expect(idle.found('stack-idle').flatMap((f) => f.strips)).toEqual([idle.stack.sticks[3]!.number]);
    expect(idle.plan.cutting.blanks.flatMap((b) => b.strips).some((s) => s.demand.stripId === 'stick-1-4')).toBe(false);
  });
});
