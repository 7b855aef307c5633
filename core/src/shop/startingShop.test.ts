import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newBoard } from '../board/board.ts';
import { flatRecipe, AS_IT_LIES } from '../board/recipe.ts';
import { makePlan } from '../plan/plan.ts';
import { checkPlan } from '../checks/checkPlan.ts';
import { plainPiece, planInput } from '../plan/planArbitrary.ts';
import { propose } from '../propose/propose.ts';
import { openWishes } from '../propose/wishes.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import { MM_PER_INCH } from '../units/length.ts';
import { formatLength, type LengthDisplay } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { clampKinds, USUAL_GLUES } from './gluing.ts';
import { hoursIds, startingAnswersSchema, startingShop, usualAnswers, type StartingAnswers } from './startingShop.ts';
import { shopSchema } from './shop.ts';

const width = fc.option(fc.constantFrom(150, 260, 330.2, 400), { nil: null });
const answers: fc.Arbitrary<StartingAnswers> = fc.record({
  name: fc.constant('Shed'),
  system: fc.constantFrom('metric' as const, 'inch' as const),
  currency: fc.constant('EUR'),
  saw: fc.constantFrom('table' as const, 'circular' as const, 'hand' as const),
  crosscutSaw: fc.constantFrom(
    'mitre' as const,
    'sled' as const,
    'track' as const,
    'circular' as const,
    'hand' as const,
  ),
  jointer: width,
  planer: width,
  head: fc.constantFrom('straight' as const, 'helical' as const),
  drumSander: width,
  bandSaw: fc.boolean(),
  router: fc.boolean(),
  handTools: fc.record({ planes: fc.boolean(), beltSander: fc.boolean(), orbitalSander: fc.boolean() }),
  clamps: fc.array(
    fc.record({ kind: fc.constantFrom(...clampKinds), opening: fc.constantFrom(600, 914.4), count: fc.nat(12) }),
    { maxLength: 3 },
  ),
  glue: fc.constantFrom(...USUAL_GLUES.map((g) => g.id)),
  hours: fc.constantFrom(...hoursIds),
});

const INCH: LengthDisplay = { system: 'inch', denominator: 32, metricStep: 0.1 };
/** Whether a length lies on a grid of so many lines an inch. */
const onLines = (mm: number, lines: number) =>
  Math.abs((mm / MM_PER_INCH) * lines - Math.round((mm / MM_PER_INCH) * lines)) < 1e-6;

describe('a shop from a few answers', () => {
  it('is a whole shop whatever is answered, and its plans are ones that the blind maker follows or that say what stops him', () => {
    fc.assert(
      fc.property(answers, (given) => {
        expect(startingAnswersSchema.safeParse(given).success).toBe(true);
        const shop = startingShop(given);
        expect(shopSchema.parse(shop)).toEqual(shop);
        const strips = [40, 30, 40, 30].map((w, i) => ({
          id: `s${i}`,
          species: 'maple-hard',
          width: w,
          ...AS_IT_LIES,
        }));
        const board = { ...newBoard(given.system), width: 130, recipe: flatRecipe(strips) };
        const input = planInput(board, [plainPiece({ length: 4000, thickness: 52 })], shop);
        expect(checkPlan(makePlan(input), input).filter((f) => f.rule === 'not-followed')).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it('works in ways that its tools allow', () => {
    const usual = usualAnswers('metric');
    const bare = {
      ...usual,
      planer: null,
      saw: 'circular' as const,
      handTools: { ...usual.handTools, orbitalSander: true },
    };
    expect(startingShop(bare).schools).toMatchObject({ straightEdge: 'stuck', thin: 'fat', flatten: 'orbital' });
    expect(startingShop({ ...bare, handTools: { ...bare.handTools, planes: true } }).schools).toMatchObject({
      straightEdge: 'handPlane',
      flatten: 'handPlanes',
    });
    expect(startingShop({ ...usual, jointer: 200, bandSaw: true }).schools).toMatchObject({
      straightEdge: 'jointer',
      thin: 'bandSaw',
      flatten: 'planer',
    });
    expect(startingShop({ ...usual, planer: null, drumSander: 400 }).schools.flatten).toBe('drum');
  });

  it('refuses by name what is no answer', () => {
    const bad = (change: object) => {
      const read = startingAnswersSchema.safeParse({ ...usualAnswers('metric'), ...change });
      return read.success ? [] : read.error.issues.map((i) => i.path.join('.'));
    };
    expect(bad({})).toEqual([]);
    expect(bad({ name: ' ' })).toEqual(['name']);
    expect(bad({ planer: 2 })).toEqual(['planer']);
    expect(bad({ clamps: [{ kind: 'pipe', opening: 900, count: -1 }] })).toEqual(['clamps.0.count']);
    expect(bad({ glue: 'spit' })).toEqual(['glue']);
    expect(bad({ hours: 'nights' })).toEqual(['hours']);
  });
});

describe('a shop of inches', () => {
  const shop = startingShop(usualAnswers('inch'));

  it('begins with figures that stand on its rules: kerf 1/8, allowances on thirty-seconds', () => {
    expect(formatLength(shop.saw.kerf, INCH)).toBe('1/8"');
    const { glueEdgeJoint, skimSurfaced, ...habits } = shop.habits;
    for (const [name, mm] of Object.entries(habits)) expect([name, onLines(mm, 32)]).toEqual([name, true]);
    // Off each of two edges or faces: together a thirty-second.
    for (const mm of [2 * glueEdgeJoint, 2 * skimSurfaced]) expect(onLines(mm, 32)).toBe(true);
    const { planer, crosscutSaw, router, clamps, pace } = shop;
    for (const mm of [
      planer!.width,
      planer!.snipe,
      crosscutSaw.kerf,
      router!.base,
      clamps[0]!.opening,
      pace.clampSpacing,
    ])
      expect(onLines(mm, 32)).toBe(true);
  });

  it('planes 4/4 rough stock to 7/8, as common practice has it', () => {
    const { flattenRough, skimRough } = shop.habits;
    expect(formatLength(MM_PER_INCH - flattenRough - 2 * skimRough, INCH)).toBe('7/8"');
  });

  it('lays out a board of 12 by 18 by 1 1/4 whose every size to cut to is on the grid: no sign behind any of them', () => {
    const board = {
      ...newBoard('inch'),
      recipe: flatRecipe(
        [1.75, 0.875, 1.75, 0.875, 1.75, 0.875, 1.75, 0.875, 1.75].map((w, i) => ({
          id: `s${i}`,
          species: 'maple-hard',
          width: w * MM_PER_INCH,
          ...AS_IT_LIES,
        })),
      ),
    };
    expect([board.width, board.length, board.thickness].map((mm) => formatLength(mm, INCH))).toEqual([
      '12"',
      '18"',
      '1 1/4"',
    ]);
    const plank = { length: 96 * MM_PER_INCH, width: 6 * MM_PER_INCH, thickness: 2 * MM_PER_INCH };
    const input = planInput(
      board,
      [plainPiece({ ...plank, mark: 'A' }), plainPiece({ ...plank, id: 'b', mark: 'B' })],
      shop,
    );
    const plan = makePlan(input);
    expect(plan.cutting.shortages).toEqual([]);
    const set = plan.operations.flatMap((o) => o.settings.map((s) => [s.label, phraseText([s.value], INCH)] as const));
    expect(set.length).toBeGreaterThan(5);
    // A stop is tried a little long first, and a thin strip ripped a little fat: those little ones are metric.
    expect(set.filter(([label, text]) => /[+−]/.test(text) && !/^Stop/.test(label))).toEqual([]);
  });

  it('is proposed boards in half, quarter and sixteenth inches, their strips on thirty-seconds', () => {
    const plank = (species: string, i: number) =>
      plainPiece({ id: `p${i}`, mark: `P${i}`, species, length: 2400, width: 150, thickness: 50 + i });
    const rack = ['maple-hard', 'walnut-black', 'cherry-black'].map(plank);
    let now = 0;
    const proposed = propose(
      { wishes: openWishes('inch'), rack, shop, species: HANDBOOK_SPECIES, promised: [], system: 'inch' },
      { seed: 3, seconds: 1e9, now: () => (now += 1) },
    );
    if (!proposed.ok) throw new Error('nothing proposed');
    expect(proposed.proposals.length).toBeGreaterThan(3);
    for (const { board } of proposed.proposals) {
      expect([onLines(board.length, 2), onLines(board.width, 16), onLines(board.thickness, 16)]).toEqual([
        true,
        true,
        true,
      ]);
      for (const o of board.recipe) if (o.kind === 'strip') expect(onLines(o.width, 32)).toBe(true);
    }
  });
});
