import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flatRecipe, withStrips, stripsOf } from '../board/recipe.ts';
import { madeFor } from '../board/madeFor.ts';
import { makePlan } from '../plan/plan.ts';
import { panelFacts, plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { factsSchema, type Fact } from './fact.ts';
import { factsThatHold, thingOf } from './factsThatHold.ts';
import { madeOf, NOTHING_MADE } from './made.ts';

const when = fc.integer({ min: 0, max: 5 }).map((n) => `2026-01-01T08:00:0${n}.000Z`);
const about = { thing: fc.constantFrom('panel', 'another'), copy: fc.constantFrom(1, 2) };
const happened: fc.Arbitrary<Omit<Extract<Fact, { kind: 'measured' | 'badPlace' }>, 'id'>> = fc.oneof(
  fc.record({
    kind: fc.constant('measured' as const),
    at: when,
    ...about,
    dimension: fc.constant('length' as const),
    value: fc.integer({ min: 300, max: 900 }),
  }),
  fc.record({
    kind: fc.constant('badPlace' as const),
    at: when,
    ...about,
    spot: fc.record({
      id: fc.constantFrom('a', 'b', 'c'),
      x: fc.integer({ min: 0, max: 200 }),
      y: fc.constant(0),
      length: fc.integer({ min: 1, max: 50 }),
      width: fc.constant(10),
      what: fc.constant('Gap'),
    }),
  }),
);
/** Facts with ids of their own, some of them taken back. */
const factsArbitrary: fc.Arbitrary<Fact[]> = fc
  .record({ all: fc.array(happened, { maxLength: 8 }), back: fc.array(fc.nat(9), { maxLength: 4 }), at: when })
  .map(({ all, back, at }) => [
    ...all.map((f, i) => ({ ...f, id: `f${i}` }) as Fact),
    ...back.map((n, i): Fact => ({ kind: 'takenBack', id: `t${i}`, at, fact: `f${n}` })),
  ]);

describe('what happened, folded into what is there', () => {
  it('is the same in whatever order it arrives', () => {
    fc.assert(
      fc.property(
        factsArbitrary.chain((facts) =>
          fc.tuple(fc.constant(facts), fc.shuffledSubarray(facts, { minLength: facts.length })),
        ),
        ([facts, shuffled]) => {
          expect(factsSchema.safeParse(facts).success).toBe(true);
          expect(madeOf(shuffled, 'panel')).toEqual(madeOf(facts, 'panel'));
        },
      ),
    );
  });

  it('is, with the newest fact taken back, what it was before', () => {
    fc.assert(
      fc.property(factsArbitrary, happened, (facts, last) => {
        const newest: Fact = { ...last, id: 'z', at: '2026-01-01T09:00:00.000Z' } as Fact;
        const back: Fact = { kind: 'takenBack', id: 'y', at: '2026-01-01T07:00:00.000Z', fact: 'z' };
        expect(madeOf([...facts, newest, back], 'panel')).toEqual(madeOf(facts, 'panel'));
      }),
    );
  });

  it('holds what was measured or looked at last, of the first panel only', () => {
    fc.assert(
      fc.property(factsArbitrary, (facts) => {
        const held = factsThatHold(facts).filter((f) => thingOf(f)?.thing === 'panel' && thingOf(f)?.copy === 1);
        const { panelLength, spots } = madeOf(facts, 'panel');
        expect(panelLength).toBe(held.filter((f) => f.kind === 'measured').at(-1)?.value ?? null);
        for (const spot of spots)
          expect(held.filter((f) => f.kind === 'badPlace' && f.spot.id === spot.id).at(-1)).toMatchObject({ spot });
        expect(new Set(spots.map((s) => s.id)).size).toBe(spots.length);
        expect(spots.length).toBe(new Set(held.flatMap((f) => (f.kind === 'badPlace' ? [f.spot.id] : []))).size);
      }),
    );
  });

  it('nothing is decided by a second taking back, nor by facts about what the recipe no longer has', () => {
    const [glued] = panelFacts(700);
    const back: Fact = { kind: 'takenBack', id: 't', at: glued!.at, fact: glued!.id };
    const again: Fact = { kind: 'takenBack', id: 'u', at: glued!.at, fact: 't' };
    expect(madeOf([glued!, back, again], 'panel')).toEqual(NOTHING_MADE);
    expect(madeOf([glued!], 'other')).toEqual(NOTHING_MADE);
    expect(madeOf([glued!], undefined)).toEqual(NOTHING_MADE);
  });

  it('survives a new layout: the panel keeps its name while its strips come and go', () => {
    const board = plainBoard();
    const facts = panelFacts(512);
    const other = withStrips(board, [...stripsOf(board)].reverse().slice(1));
    expect(madeFor(other, facts).panelLength).toBe(512);
    expect(madeFor(withStrips({ ...board, recipe: [] }, stripsOf(board)), facts).panelLength).toBe(512);
    expect(madeFor({ recipe: flatRecipe(stripsOf(board), 'second') }, facts)).toEqual(NOTHING_MADE);
  });

  it('makes no wood from nothing: without facts the plan is the planned one, and a longer panel only takes more', () => {
    const input = planInput(plainBoard(), [plainPiece({ length: 4000 })]);
    const planned = makePlan(input);
    expect(makePlan({ ...input, facts: [] })).toEqual(planned);
    const longer = makePlan({ ...input, facts: panelFacts(600) });
    expect(longer.allowances.panels[0]!.length).toBe(600);
    expect(longer.cutting.blanks[0]!.length).toBeGreaterThan(planned.cutting.blanks[0]!.length);
    expect(longer.trim.boards[0]!.length).toBe(planned.trim.boards[0]!.length);
  });

  it('refuses by name what cannot have happened', () => {
    const bad = (change: object) => {
      const read = factsSchema.safeParse([{ ...panelFacts(700)[0], ...change }]);
      return read.success ? [] : read.error.issues.map((i) => `${i.path.join('.')} ${i.message}`);
    };
    expect(bad({})).toEqual([]);
    expect(bad({ value: 0 })).toEqual(['0.value must be at least 1 mm (0.0394 in)']);
    expect(bad({ at: 'yesterday' })[0]).toContain('0.at must be a date and time');
    expect(bad({ kind: 'wished' })[0]).toContain('0.kind must be one of');
    expect(bad({ copy: 0 })[0]).toContain('0.copy must be at least 1');
    expect(factsSchema.safeParse([...panelFacts(700), ...panelFacts(800)]).success).toBe(false);
  });
});
