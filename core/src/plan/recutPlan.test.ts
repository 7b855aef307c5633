import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CHEVRON, END_GRAIN, framedBoard, recutBoard, type RecutChoices } from '../board/recutForTests.ts';
import { asLargeAs } from '../board/again.ts';
import { recutOf, slicesFrom } from '../board/recut.ts';
import { recipeProblems, stripsOf, TURNS } from '../board/recipe.ts';
import { followPlan } from '../follow/followPlan.ts';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { checkPlan } from '../checks/checkPlan.ts';
import { movedBy } from '../recipe/motion.ts';
import { volume } from '../recipe/solid.ts';
import { outlineArea } from '../features/outline.ts';
import { faceOf } from './face.ts';
import { stagesOf } from './stages.ts';
import { unwarned } from '../follow/unwarnedForTests.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { makePlan, type Plan, type RecutPlan } from './plan.ts';
import { figuresAndRungsAgree, followsOrTells } from './recipePropertiesForTests.ts';
import { plainBoard, plainPiece, planInput } from './planArbitrary.ts';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';

const INCH = 25.4;
const tenths = (least: number, most: number) => fc.integer({ min: least * 10, max: most * 10 }).map((n) => n / 10);
const choices: fc.Arbitrary<RecutChoices> = fc
  .record({
    thickness: fc.option(tenths(8, 45), { nil: null }),
    pitch: fc.option(tenths(12, 60), { nil: null }),
    first: fc.oneof(fc.constant(0), tenths(0, 80)),
    angle: fc.oneof(fc.constant(0), tenths(-60, 60)),
    stagger: fc.boolean(),
    count: fc.option(fc.integer({ min: 1, max: 24 }), { nil: null }),
    panels: fc.integer({ min: 1, max: 3 }),
    up: fc.boolean(),
    turns: fc.array(
      fc.record({
        turn: fc.constantFrom(...TURNS.filter((t) => t !== 'up')),
        pattern: fc.array(fc.boolean(), { minLength: 1, maxLength: 4 }),
      }),
      { maxLength: 3 },
    ),
    shifts: fc.oneof(fc.constant<number[]>([]), fc.array(tenths(-20, 20), { minLength: 1, maxLength: 3 })),
    runs: fc.constantFrom('along' as const, 'across' as const),
    inTurn: fc.oneof(
      { weight: 2, arbitrary: fc.constant<RecutChoices['inTurn']>([]) },
      fc.array(
        fc.array(fc.record({ species: fc.constantFrom('maple-hard', 'walnut-black'), width: tenths(5, 60) }), {
          minLength: 1,
          maxLength: 5,
        }),
        { minLength: 1, maxLength: 2 },
      ),
    ),
  })
  .map(({ up, stagger, turns, angle, ...rest }) => ({
    ...rest,
    angle,
    stagger: stagger ? angle : 0,
    turns: up ? [{ turn: 'up' as const, pattern: [true] }, ...turns] : turns,
  }));
const recuts = fc
  .tuple(workshopArbitrary, choices)
  .filter(([input]) => stripsOf(input.board).length > 0)
  .map(([input, choice]) => ({ ...input, board: recutBoard(input.board, choice) }));

const planned = (plan: Plan): RecutPlan => {
  if (!plan.recut) throw new Error('A flat board.');
  return plan.recut;
};
const wood = (cells: readonly { solid: Parameters<typeof volume>[0] }[]) =>
  cells.reduce((sum, c) => sum + volume(c.solid), 0);
/** Plenty of thick beech. */
const RACK = [plainPiece({ mark: 'A1', length: 2400, width: 220, thickness: 56, count: 8 })];

describe('boards that are cut and glued again', () => {
  it('the blind maker ends with the planned board, cell by cell, or the plan has told what he met: 120 recipes', () => {
    // Of strips too narrow for their cut nothing is left, and that is all there is to say.
    const nothingLeft = (plan: Plan, input: PlanInput) => {
      const nothing = Object.values(plan.ladders).some((l) => l.reached <= 0);
      if (!nothing && planned(plan).rowLength > 20 && planned(plan).trueWidth > 0) return false;
      expect(checkPlan(plan, input).map((f) => f.rule)).toContain('panel-width');
      return true;
    };
    expect(followsOrTells(recuts, 120, [], nothingLeft)).toBeGreaterThan(2);
  }, 240_000);

  it('no figure stands in a step that is not in one of its instructions, and every rung adds up: 100 recipes', () => {
    figuresAndRungsAgree(recuts, 100);
  }, 120_000);

  it('the block is full of wood, as large as was read backward, and the board is cut out of it whole: 300 recipes', () => {
    let looked = 0;
    fc.assert(
      fc.property(
        choices,
        fc.array(tenths(6, 60), { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 1, max: 2 }),
        (choice, widths, count) => {
          const board = recutBoard(plainBoard({ length: 180, width: 90, thickness: 20, count }, widths), choice);
          const plan = makePlan(planInput(board, RACK));
          const recut = planned(plan);
          if (recut.rowLength <= 0) expect(plan.wood).toBeNull();
          if (!plan.wood) return;
          looked += 1;
          const { length, width, height } = recut.block;
          const block = length * width * height;
          expect(Math.abs(wood(plan.wood.panel.cells) / block - 1)).toBeLessThan(1e-9);
          const [l, w, t] = plan.wood.board.size;
          if (l * w * t > 1) expect(Math.abs(wood(plan.wood.board.cells) / (l * w * t) - 1)).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 300 },
    );
    expect(looked).toBeGreaterThan(180);
  }, 240_000);
});

describe('worked sums', () => {
  const end = (change: Partial<RecutChoices> = {}, size: Parameters<typeof plainBoard>[0] = {}) =>
    recutBoard(
      plainBoard({ length: 400, width: 250, thickness: 35, ...size }, [45, 45, 45, 45, 45, 45]),
      change,
      END_GRAIN,
    );

  it('400 x 250 x 35 of end grain from a panel 30 thick is 14 rows; what is lost is what the shop takes (common practice)', () => {
    const plan = makePlan(planInput(end(), RACK));
    const recut = planned(plan);
    expect([recut.rows, recut.row, recut.up]).toEqual([14, 30, true]);
    const { habits, planer, saw } = DEFAULT_SHOP;
    // A slice is the board with its sanding and the flattening of end grain.
    expect(recut.pitch).toBeCloseTo(35 + habits.sanding + habits.endGrainFlatten, 9);
    const ends = habits.creep + 2 * Math.max(habits.panelEndTrim, planer!.snipe);
    expect(recut.panelLength).toBeCloseTo(14 * (recut.pitch + saw.kerf) + saw.kerf + ends, 9);
    expect([plan.ladders.length.reached, plan.ladders.thickness.reached]).toEqual([400, 35]);
    expect(plan.operations.filter((o) => o.kind === 'slice')).toHaveLength(1);
  });

  it('a first cut 40 further in makes the panel 40 longer; that much of every strip is in no row', () => {
    for (const look of [END_GRAIN, CHEVRON]) {
      const of = (first: number) => {
        const board = recutBoard(
          plainBoard({ length: 400, width: 250, thickness: 35 }, Array(8).fill(45) as number[]),
          { first },
          look,
        );
        const plan = makePlan(planInput(board, RACK));
        const [cut] = plan.operations.flatMap((o) => (o.kind === 'slice' ? o.instructions : []));
        return { plan, recut: planned(plan), end: cut!.do === 'slice' ? cut.end : 0 };
      };
      const [usual, further] = [of(0), of(40)];
      expect(further.recut.panelLength - usual.recut.panelLength).toBeCloseTo(40, 9);
      expect(further.end - usual.end).toBeCloseTo(40, 9);
      // Nothing else of the board changes, but where along its strips its wood was.
      expect(further.plan.worked.size).toEqual(usual.plan.worked.size);
      const along = ({ plan }: typeof usual) => {
        const [cell] = plan.wood!.board.cells;
        const middle = [0, 1, 2].map(
          (i) => cell!.solid.corners.reduce((sum, c) => sum + c[i]!, 0) / cell!.solid.corners.length,
        );
        return movedBy(cell!.inPiece, [middle[0]!, middle[1]!, middle[2]!])[0];
      };
      expect(along(further) - along(usual)).toBeCloseTo(40, 6);
    }
  });

  it('slices of 1 in from a panel 3/4 in thick, kerf 1/8: 24 are 27 in of panel and a board of 18 in (common practice)', () => {
    const board = recutBoard(
      plainBoard({ length: 18 * INCH, width: 10 * INCH, thickness: 20 }, Array(9).fill(1.5 * INCH) as number[]),
      { thickness: 0.75 * INCH, pitch: INCH, count: 24 },
    );
    const shop = { ...DEFAULT_SHOP, crosscutSaw: { ...DEFAULT_SHOP.crosscutSaw, kerf: INCH / 8 } };
    const plan = makePlan(planInput(board, RACK, shop));
    const recut = planned(plan);
    expect(recut.rows * recut.row).toBeCloseTo(18 * INCH, 9);
    expect((recut.rows * (recut.pitch + recut.kerf)) / INCH).toBeCloseTo(27, 9);
    expect(plan.ladders.length.reached).toBeCloseTo(18 * INCH, 6);
  });

  it('the other way round: the board that a panel of a length gives asks for no longer a panel, and one row more would', () => {
    fc.assert(
      fc.property(choices, tenths(150, 2400), fc.integer({ min: 1, max: 3 }), (choice, long, count) => {
        const board = recutBoard(
          plainBoard({ length: 300, width: 120, thickness: 20, count }, [40, 40, 40, 40]),
          choice,
        );
        const large = asLargeAs(board, DEFAULT_SHOP, long);
        const one = recutOf(board, DEFAULT_SHOP)!;
        if (!large) {
          expect(slicesFrom(one, long) * one.slice.panels).toBeLessThan(count);
          return;
        }
        const recut = recutOf(large, DEFAULT_SHOP)!;
        expect(recut.panelLength).toBeLessThanOrEqual(long + 1e-6);
        expect(recut.slice.count).toBeNull();
        const more = { ...large, [choice.runs === 'across' ? 'length' : 'width']: (recut.rows + 1) * recut.row };
        expect(recutOf(more, DEFAULT_SHOP)!.panelLength).toBeGreaterThan(long - 1e-6);
      }),
      { numRuns: 300 },
    );
  });

  it('three boards from two panels: 42 rows, 21 of each, one set-up for all slices, and each board has its own', () => {
    const board = end({ panels: 2 }, { count: 3 });
    const input = planInput(board, RACK);
    const plan = makePlan(input);
    const recut = planned(plan);
    expect(recut.slices).toEqual([21, 21]);
    expect([1, 2, 3].map((b) => recut.all.filter((r) => r.board === b).length)).toEqual([14, 14, 14]);
    expect(plan.operations.filter((o) => o.kind === 'slice')).toHaveLength(1);
    expect(plan.allowances.panels).toHaveLength(2);
    expect(followPlan(plan, input).failures.filter((f) => f.code !== 'tooWideForMachine')).toEqual([]);
  });

  const TWO = [
    { species: 'walnut-black', width: 60 },
    { species: 'maple-hard', width: 50 },
    { species: 'walnut-black', width: 60 },
    { species: 'maple-hard', width: 50 },
    { species: 'walnut-black', width: 60 },
  ];
  const WOODS = [
    ...RACK,
    plainPiece({ id: 'w', mark: 'W1', species: 'walnut-black', length: 2400, width: 220, thickness: 66, count: 4 }),
  ];

  it('rows of two panels in turn, every third shifted by half a strip, with a border: each row is of its panel, and the border round them', () => {
    const inTurn = [TWO];
    const board = framedBoard(end({ inTurn, panels: 1, shifts: [0, 0, 22] }), [
      { species: 'walnut-black', widths: [25, 25, 25, 25], first: 'sides' },
    ]);
    const input = planInput(board, WOODS);
    expect(recipeProblems(board.recipe)).toEqual([]);
    const plan = makePlan(input);
    const recut = planned(plan);
    expect(recut.all.map((r) => r.kind)).toEqual(recut.all.map((_, i) => i % 2));
    // As many slices of each panel as rows whose turn it is.
    expect(recut.kinds.map((k) => k.slices)).toEqual([[Math.ceil(recut.rows / 2)], [Math.floor(recut.rows / 2)]]);
    const first = stripsOf(board).length;
    const own = plan.strips.filter((s) => s.id.startsWith('turn-2'));
    expect(own.map((s) => s.number)).toEqual([1, 2, 3, 4, 5].map((n) => first + n));
    // Its strips are as long as its own slices ask, and it is glued, made flat and true on its own.
    for (const s of own) expect(s.milled.length).toBeCloseTo(recut.kinds[1]!.panelLength, 9);
    const steps = plan.operations.map((o) => o.id);
    for (const id of ['layOut', 'flattenPanel', 'trimEdges'])
      expect([id, steps.filter((s) => s === id || s === `${id}:panel 2`).length]).toEqual([id, 2]);
    expect(plan.operations.filter((o) => o.kind === 'slice')).toHaveLength(1);
    const spoiled = followPlan(plan, input).failures.filter(
      (f) => !['tooWideForMachine', 'partTooShort'].includes(f.code),
    );
    expect(spoiled).toEqual([]);
    // In the middle of the board cells of both panels, each in rows of its own.
    const rows = new Map<number, Set<boolean>>();
    for (const c of faceOf(plan, board))
      if (c.row !== null) rows.set(c.row, (rows.get(c.row) ?? new Set()).add(c.strip > first));
    expect([...rows.values()].every((of) => of.size === 1)).toBe(true);
    expect([...rows].filter(([row, of]) => of.has(true) !== (row % 2 === 0))).toEqual([]);
  });

  it('one row from two panels in turn: the second would be glued for nothing, and it says so', () => {
    const input = planInput(end({ inTurn: [TWO], count: 1 }), WOODS);
    expect(checkPlan(makePlan(input), input).filter((f) => f.rule === 'panel-idle')).toMatchObject([
      { severity: 'stop' },
    ]);
    const more = planInput(end({ inTurn: [TWO], count: 2 }), WOODS);
    expect(checkPlan(makePlan(more), more).filter((f) => f.rule === 'panel-idle')).toEqual([]);
  });

  it('eleven staggered strips at 35 degrees: each slice is the width over the cosine long, and staggering saves the triangles', () => {
    const strips = Array(11).fill(1.75 * INCH) as number[];
    const flat = plainBoard({ length: 400, width: 300, thickness: 25 }, strips);
    const a = (35 * Math.PI) / 180;
    const [staggered, flush] = [CHEVRON, { ...CHEVRON, stagger: 0 }].map((look) =>
      planned(makePlan(planInput(recutBoard(flat, {}, look), RACK))),
    );
    const { trueWidth, rowLength, pitch } = staggered!;
    expect(rowLength).toBeCloseTo(trueWidth / Math.cos(a) - pitch * Math.tan(a), 9);
    // Flush, the cut leans over the whole panel; staggered, over one strip.
    expect(flush!.panelLength - staggered!.panelLength).toBeCloseTo((trueWidth - 1.75 * INCH) * Math.tan(a), 6);
    expect(staggered!.offsets.map((o) => o / INCH)[0]).toBeCloseTo(10 * 1.75 * Math.tan(a), 9);
  });

  it('every third row shifted by half a strip loses that at the ends of the rows, and no more', () => {
    const [flush, shifted] = [[], [0, 0, 22.5]].map((shifts) => planned(makePlan(planInput(end({ shifts }), RACK))));
    expect(flush!.rowLength - shifted!.rowLength).toBeCloseTo(22.5, 9);
  });

  it('end grain moves along the board and across it by its rings; the same strips flat move across alone', () => {
    const strips = [45, 45, 45, 45, 45, 45];
    const flat = makePlan(planInput(plainBoard({ length: 400, width: 250, thickness: 35 }, strips), RACK));
    const up = makePlan(planInput(end(), RACK));
    expect(flat.movement.along).toBe(0);
    const species = planInput(plainBoard(), RACK).species.find((s) => s.code === RACK[0]!.species)!;
    const change = up.movement.dampMoisture - up.movement.dryMoisture;
    // Flat-sawn stock standing on edge: its thickness, radial, lies across the board; its width, tangential, along it.
    expect(up.movement.along).toBeCloseTo(400 * species.tangential! * change, 6);
    expect(up.movement.across).toBeCloseTo(up.ladders.width.reached * species.radial! * change, 6);
  });

  it('in every cell of an end-grain board the grain stands upright; of a chevron it runs aslant, to and fro', () => {
    const upright = makePlan(planInput(end(), RACK)).wood!.board.cells;
    for (const { inPiece } of upright) expect(Math.abs(inPiece.up[0])).toBeCloseTo(1, 9);
    const flat = plainBoard({ length: 300, width: 150, thickness: 25 }, Array(8).fill(40) as number[]);
    const { cells } = makePlan(planInput(recutBoard(flat, {}, CHEVRON), RACK)).wood!.board;
    const slopes = new Set(cells.map(({ inPiece }) => Math.sign(inPiece.along[0] * inPiece.across[0])));
    expect([...slopes].sort()).toEqual([-1, 1]);
  });

  it('each cell lies where its strip was crosscut from its piece: nowhere two cells are the same wood', () => {
    const { cells } = makePlan(planInput(end(), RACK)).wood!.board;
    const middles = cells.map((cell) => {
      const { corners } = cell.solid;
      const at = [0, 1, 2].map((axis) => corners.reduce((s, c) => s + c[axis as 0 | 1 | 2], 0) / corners.length);
      return movedBy(cell.inPiece, at as unknown as [number, number, number]);
    });
    const seen = new Set(
      cells.map((c, i) => `${c.piece!.id}/${c.unit}/${middles[i]!.map((v) => Math.round(v)).join('/')}`),
    );
    expect(seen.size).toBe(cells.length);
  });
});

describe('what is told of the face and the stages', () => {
  it('cells cover the whole show face of a board, rows alternate, and grain stands or lies as it was laid', () => {
    for (const [look, widths] of [
      [END_GRAIN, Array(6).fill(45)],
      [CHEVRON, Array(11).fill(40)],
    ] as [RecutChoices, number[]][]) {
      const board = recutBoard(plainBoard({ length: 380, width: 240, thickness: 30 }, widths), {}, look);
      const plan = makePlan(planInput(board, RACK));
      const cells = faceOf(plan, board);
      const { length, width } = plan.worked.size;
      const area = cells.reduce(
        (sum, c) => sum + outlineArea({ closed: true, vertices: c.polygon.map(([x, y]) => ({ x, y, bulge: 0 })) }),
        0,
      );
      expect(area).toBeCloseTo(length * width, 4);
      expect(new Set(cells.map((c) => c.row)).size).toBe(planned(plan).rows);
      for (const { grain } of cells) expect(Math.hypot(...grain)).toBeCloseTo(1, 9);
      expect(cells.every((c) => Math.abs(c.grain[2]) > 0.99)).toBe(look === END_GRAIN);
      expect(stagesOf(plan, board).map((s) => s.kind)).toEqual(['panel', 'slices', 'rows', 'block', 'board']);
    }
    const flat = plainBoard({}, [40, 50]);
    const plan = makePlan(planInput(flat, RACK));
    expect(faceOf(plan, flat).map((c) => [c.strip, c.row])).toEqual([
      [1, null],
      [2, null],
    ]);
    expect(stagesOf(plan, flat).map((s) => s.kind)).toEqual(['panel', 'board']);
  });
});

describe('what goes wrong is told', () => {
  const strips = [45, 45, 45, 45, 45, 45];
  const rules = (change: Partial<RecutChoices>, look = END_GRAIN, widths = strips) => {
    const board = recutBoard(plainBoard({ length: 400, width: 250, thickness: 35 }, widths), change, look);
    const input = planInput(board, RACK);
    return checkPlan(makePlan(input), input).map((f) => `${f.severity} ${f.rule}`);
  };

  it.each([
    ['too few rows', { count: 10 }, END_GRAIN, strips, 'stop rows-short'],
    ['slices too thin', { pitch: 30 }, END_GRAIN, strips, 'stop board-thickness'],
    ['a panel too narrow', {}, END_GRAIN, [45, 45, 45], 'stop panel-width'],
    ['a square cut that is not turned up', { angle: 0, stagger: 0 }, CHEVRON, strips, 'stop end-grain-joint'],
    ['thin rows', { thickness: 8 }, END_GRAIN, strips, 'caution thin-rows'],
    ['strips not alike from both edges', {}, END_GRAIN, [46, 45, 45, 45, 45, 44], 'caution corners'],
    ['little left to hold', { panels: 5 }, END_GRAIN, strips, 'note last-slices'],
  ] as const)('%s', (_, change, look, widths, told) => {
    expect(rules(change, look, [...widths])).toContain(told);
  });

  it('slanted joints slide: two clamps beside those across them must open along the rows; square rows slide nowhere', () => {
    const board = recutBoard(
      plainBoard({ length: 400, width: 200, thickness: 25 }, Array(11).fill(44) as number[]),
      {},
      CHEVRON,
    );
    const kind = { ...DEFAULT_SHOP.clamps[0]!, opening: 900, force: 5 };
    const told = (count: number, more: number, opening: number) => {
      const clamps = [
        { ...kind, count },
        { ...kind, id: 'more', kind: 'f' as const, count: more, opening, force: 0.01, reach: 1 },
      ];
      const input = planInput(board, RACK, { ...DEFAULT_SHOP, clamps });
      const plan = makePlan(input);
      const across = Math.max(...planned(plan).gluing.glueUps.map((g) => g.clamps.placed.length));
      const found = checkPlan(plan, input).some((f) => f.rule === 'clamps-two-ways');
      return { found, across, wide: planned(plan).rowLength };
    };
    const { across, wide } = told(60, 1, 100);
    expect(told(across, 1, wide + 30).found).toBe(true);
    expect(told(across + 2, 0, wide).found).toBe(false);
    expect(told(across, 2, wide + 30).found).toBe(false);
    expect(rules({})).not.toContain('caution clamps-two-ways');
  });

  it('corners of equal strips meet, and rows meant to lie apart are no mismatch', () => {
    expect(rules({})).not.toContain('caution corners');
    expect(rules({ shifts: [0, 22.5] }, END_GRAIN, [46, 45, 45, 45, 45, 44])).not.toContain('caution corners');
  });
});

describe('short bits, grain the short way', () => {
  it('three sections of salvaged bits, each made flat, then joined: a board wider than it is long, followed to the last coat', () => {
    // Bits of 300 to 420 mm, none as long as the board: they lie across it.
    const bits = [420, 380, 300, 350, 400, 310].map((length, i) =>
      plainPiece({
        id: `bit${i}`,
        mark: `S${i + 1}`,
        length,
        width: 180,
        thickness: 42,
        origin: { kind: 'salvage', of: '' },
      }),
    );
    const widths = Array<number>(15).fill(32);
    const groups = [5, 5, 5];
    const flat = plainBoard({ length: 260, width: 470, thickness: 24 }, widths);
    const board = { ...flat, gluing: { ...flat.gluing, groups } };
    const input = planInput(board, bits);
    const plan = makePlan(input);
    expect(plan.cutting.shortages).toEqual([]);
    const first = plan.gluing.glueUps.filter((g) => g.level === 1);
    expect(first.map((g) => [g.firstStrip, g.lastStrip])).toEqual([
      [1, 5],
      [6, 10],
      [11, 15],
    ]);
    expect(plan.gluing.glueUps.at(-1)!.joins).toEqual(first.map((g) => g.id));
    expect(unwarned(plan, input)).toEqual([]);
    expect([plan.ladders.length.reached, plan.ladders.width.reached, plan.ladders.thickness.reached]).toEqual([
      260, 470, 24,
    ]);
    const { boards } = followPlan(plan, input);
    expect(boards).toHaveLength(1);
  });
});

describe('end grain and knives', () => {
  const shop = (change: Partial<Shop['planer'] & object> = {}): Shop => ({
    ...DEFAULT_SHOP,
    schools: { ...DEFAULT_SHOP.schools, endGrain: 'guarded', flatten: 'planer' },
    planer: { ...DEFAULT_SHOP.planer!, width: 320, head: 'helical', ...change },
  });
  const of = (own: Shop) => {
    const board = recutBoard(
      plainBoard({ length: 400, width: 250, thickness: 35 }, Array<number>(6).fill(45)),
      {},
      END_GRAIN,
    );
    const input = { ...planInput(board, RACK), shop: own };
    const plan = makePlan(input);
    const step = plan.operations.find((o) => o.id === 'flattenPanel:rows')!;
    return { step, knives: followPlan(plan, input).failures.filter((f) => f.code === 'endGrainKnives'), plan, input };
  };

  it('scrap goes round the rows first, and no pass is deeper than half a millimetre; without it the blind maker stops', () => {
    const { step, knives, plan, input } = of(shop());
    expect(step.machine).toMatch(/planer/i);
    expect(step.instructions.map((i) => i.do)).toEqual(['guard', 'flatten']);
    const [guard, flatten] = step.instructions;
    expect(guard).toMatchObject({ high: plan.again!.block.height, pass: 0.5 });
    expect(step.passes! * 0.5).toBeGreaterThanOrEqual(DEFAULT_SHOP.habits.endGrainFlatten);
    expect(knives).toEqual([]);
    const bare = {
      ...plan,
      operations: plan.operations.map((o) => (o === step ? { ...o, instructions: [flatten!] } : o)),
    };
    expect(followPlan(bare, input).failures.map((f) => f.code)).toContain('endGrainKnives');
  });

  it('where the scrap does not fit beside it, or the head is a straight one, something else makes it flat', () => {
    const block = of(shop()).plan.again!.block.width;
    expect(of(shop({ width: block + 40 })).step.machine).toMatch(/planer/i);
    for (const own of [shop({ width: block + 39.9 }), shop({ head: 'straight' })]) {
      const { step, knives } = of(own);
      expect([step.machine, step.instructions.map((i) => i.do)]).toEqual([
        expect.not.stringMatching(/planer/i),
        expect.not.arrayContaining(['guard']),
      ]);
      expect(knives).toEqual([]);
    }
  });
});
