import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { panelWidth } from '../board/board.ts';
import { backedBoard, framedBoard, insetBoard, recutBoard, type BackChoice } from '../board/recutForTests.ts';
import { stripsOf } from '../board/recipe.ts';
import { checkPlan } from '../checks/checkPlan.ts';
import { followPlan } from '../follow/followPlan.ts';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { bounds, volume } from '../recipe/solid.ts';
import type { Phrase } from '../units/phrase.ts';
import { makePlan } from './plan.ts';
import { figuresAndRungsAgree, followsOrTells } from './recipePropertiesForTests.ts';
import { plainBoard, plainPiece, planInput } from './planArbitrary.ts';

const tenths = (least: number, most: number) => fc.integer({ min: least * 10, max: most * 10 }).map((n) => n / 10);
const SPECIES = ['maple-hard', 'beech-european', 'walnut-black', 'padauk'];
const RING = {
  species: 'beech-european',
  widths: [20, 20, 20, 20] as [number, number, number, number],
  first: 'sides' as const,
};
const LOOKS = ['flat', 'flat', 'parts', 'rows', 'framed', 'framed rows'] as const;
const inside = (board: ReturnType<typeof plainBoard>, look: (typeof LOOKS)[number]) => {
  if (look === 'parts')
    return insetBoard(board, [{ species: 'walnut-black', width: 12, at: board.length / 2, angle: 20, jog: 3 }]);
  if (look === 'rows') return recutBoard(board);
  if (look === 'framed') return framedBoard(board, [RING]);
  return look === 'flat' ? board : framedBoard(recutBoard(board), [RING, RING]);
};

const backs = fc.record({
  species: fc.constantFrom(...SPECIES),
  widths: fc.array(tenths(30, 90), { minLength: 2, maxLength: 10 }),
  runs: fc.constantFrom('along' as const, 'across' as const),
  thickness: tenths(4, 12),
});
const choiceOf = ({
  species,
  widths,
  ...rest
}: { species: string; widths: number[] } & Omit<BackChoice, 'strips'>) => ({
  ...rest,
  strips: widths.map((width) => ({ species, width })),
});
const boards = fc
  .tuple(workshopArbitrary, backs, fc.constantFrom(...LOOKS))
  .filter(([input]) => stripsOf(input.board).length > 0)
  .map(([input, choice, look]) => {
    const { board } = input;
    const width = Math.max(30, panelWidth(board) - 45);
    return { ...input, board: backedBoard(inside({ ...board, width }, look), choiceOf(choice)) };
  });
const RACK = SPECIES.map((species, i) =>
  plainPiece({ id: `p${i}`, mark: `P${i}`, species, length: 2400, width: 220, thickness: 56, count: 6 }),
);
/** Backs that cover boards, in a shop that has everything. */
const rich = fc
  .tuple(
    fc.constantFrom(...SPECIES),
    fc.constantFrom('along' as const, 'across' as const),
    tenths(5, 9),
    fc.array(tenths(30, 50), { minLength: 4, maxLength: 6 }),
    fc.constantFrom('flat' as const, 'framed' as const, 'parts' as const),
    fc.constantFrom(1, 1, 2),
  )
  .map(([species, runs, thickness, widths, look, count]) => {
    const sum = widths.reduce((a, b) => a + b, 0);
    const board = plainBoard({ length: 420, width: sum - 35, thickness: 24, count }, widths);
    const many = Math.ceil(((runs === 'along' ? board.width : board.length) + 20) / 60);
    const strips = Array.from({ length: many }, () => ({ species, width: 60 }));
    return planInput(backedBoard(inside(board, look), { strips, runs, thickness }), RACK);
  });
const both = fc.oneof({ weight: 3, arbitrary: boards }, { weight: 2, arbitrary: rich });

describe('a back under a board', () => {
  it('the blind maker ends with the planned board, cell by cell, or the plan has told what he met: 120 recipes', () => {
    expect(followsOrTells(both, 120, ['partTooShort', 'lowPressure', 'glueTime'])).toBeGreaterThan(10);
  }, 240_000);

  it('no figure stands in a step that is not in one of its instructions, and every rung adds up: 60 recipes', () => {
    figuresAndRungsAgree(boards, 60);
  }, 120_000);
});

describe('worked sums', () => {
  const strips = (many: number) => Array.from({ length: many }, () => ({ species: 'walnut-black', width: 60 }));
  const of = (choice: Partial<BackChoice> = {}, thickness = 24) => {
    const board = plainBoard({ length: 420, width: 240, thickness }, [45, 45, 45, 45, 45, 45]);
    const input = planInput(
      backedBoard(board, { strips: strips(choice.runs === 'across' ? 8 : 5), runs: 'along', thickness: 6, ...choice }),
      RACK,
    );
    return {
      input,
      plan: makePlan(input),
      found: (rule: string) => checkPlan(makePlan(input), input).filter((f) => f.rule === rule),
    };
  };
  const figure = (phrase: Phrase) => phrase.flatMap((p) => (typeof p !== 'string' && 'mm' in p ? [p.mm] : []));

  it.each(['along', 'across'] as const)(
    'under a board of 24 a back of 6 running %s leaves 18 above it; all of it is wood',
    (runs) => {
      const { plan, input } = of({ runs });
      expect([plan.ladders.thickness.reached, plan.back!.inside.thickness]).toEqual([24, 18]);
      const { board } = plan.wood!;
      const [l, w, t] = board.size;
      expect([l, w, t]).toEqual([420, 240, 24].map((v) => expect.closeTo(v, 9) as number));
      expect(board.cells.reduce((sum, c) => sum + volume(c.solid), 0) / (l * w * t)).toBeCloseTo(1, 9);
      // Sanding takes half off each face.
      const under = board.cells.filter((c) => c.strip.startsWith('under')).map((c) => bounds(c.solid));
      const sanded = plan.shop.habits.sanding / 2;
      for (const b of under) expect([b.least[2], b.greatest[2]]).toEqual([0, expect.closeTo(6 - sanded, 9)]);
      const across = under.filter((b) => b.least[1] < 1e-9 && b.greatest[1] > 240 - 1e-9);
      expect(across.length).toBe(runs === 'across' ? under.length : 0);
      expect(
        followPlan(plan, input).failures.filter((f) => !['partTooShort', 'lowPressure', 'glueTime'].includes(f.code)),
      ).toEqual([]);
    },
  );

  it('across the grain above it the season pulls; along it hardly, and two layers are a note', () => {
    const [cross] = of({ runs: 'across' }).found('cross-grain');
    expect(figure(cross!.what)[0]).toBeCloseTo(Math.abs(of({ runs: 'across' }).plan.back!.movement.across), 9);
    expect(of().found('cross-grain')).toEqual([]);
    expect(of().found('two-layers')).toHaveLength(1);
  });

  it('too narrow a back, and too thick a one, are stops; their ways out lead out', () => {
    const [narrow] = of({ strips: strips(4) }).found('back-narrow');
    const missing = figure(narrow!.waysOut[0]!)[0]!;
    expect(of({ strips: [...strips(4), { species: 'walnut-black', width: missing }] }).found('back-narrow')).toEqual(
      [],
    );
    expect(
      of({ strips: [...strips(4), { species: 'walnut-black', width: missing - 0.1 }] }).found('back-narrow'),
    ).toHaveLength(1);
    expect(of({ thickness: 20 }).found('back-thick')).toHaveLength(1);
    expect(of({ thickness: 19 }).found('back-thick')).toEqual([]);
  });
});
