import fc from 'fast-check';
import loadHighs, { type Highs } from 'highs';
import { beforeAll, describe, expect, it } from 'vitest';
import { makePlan } from '../plan/plan.ts';
import { NOTHING_WORKED } from '../features/feature.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';
import { cutProblemFor } from '../saw/cutForBoard.ts';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { highsSolver } from './highsSolver.ts';
import { improveCut } from './improveCut.ts';
import { sectionsFor, widestStrip } from './sections.ts';
import { AS_IT_LIES, flatRecipe } from '../board/recipe.ts';

const sectionsOf = (board: Parameters<typeof planInput>[0], rack: Parameters<typeof planInput>[1]) =>
  makePlan(planInput(board, rack)).sections;

let highs: Highs;
beforeAll(async () => {
  highs = await loadHighs();
});

describe('sectionsFor', () => {
  it('every width that is offered can be cut, as often as is said', () => {
    fc.assert(
      fc.property(planInputArbitrary, fc.nat(40), (input, pick) => {
        const { sections } = makePlan(input);
        const section = sections[pick % Math.max(1, sections.length)];
        if (!section || section.count > 60) return;
        const strips = Array.from({ length: section.count }, (_, i) => ({
          id: `s${i}`,
          species: section.species,
          width: section.width,
          ...AS_IT_LIES,
        }));
        // Offers are counted in lengths of one board.
        const board = { ...input.board, count: 1, recipe: flatRecipe(strips), worked: NOTHING_WORKED };
        const shop = { ...input.shop, cutting: { ...input.shop.cutting, spares: 0 } };
        const alone = makePlan({ ...input, shop, board, rack: input.rack.filter((p) => p.id === section.pieceId) });
        // First fit may waste a place beside a defect; then the search shows that the count is right.
        if (alone.cutting.shortages.length > 0) {
          const problem = cutProblemFor([{ key: '', board, done: [] }], {
            ...input,
            shop,
            rack: input.rack.filter((p) => p.id === section.pieceId),
            promised: [],
          });
          expect(
            improveCut(problem, highsSolver(highs), { seconds: 10, now: () => performance.now() / 1000 }).shortages,
          ).toEqual([]);
        }
        expect(alone.ladders.thickness.shortBy > 1e-5).toBe(section.tooThinBy > 1e-5);
      }),
      { numRuns: 300 },
    );
  });

  it('edge grain offers the planed thickness, as many as lengths times rips', () => {
    // 50 rough planes to 46.8; (1980 + 3) / (429 + 3) = 4 lengths, (148 + 3) / (32 + 3) = 4 rips.
    expect(sectionsOf(plainBoard(), [plainPiece()])).toEqual([
      {
        pieceId: 'p1',
        mark: 'P1',
        species: 'maple-hard',
        rings: 'flat',
        width: 46.8,
        count: 16,
        resawn: false,
        tooThinBy: 0,
      },
      // Resawn: (46.8 - 1 kerf - 1.6 planed clean) / 2, twice as many.
      {
        pieceId: 'p1',
        mark: 'P1',
        species: 'maple-hard',
        rings: 'flat',
        width: 22.1,
        count: 32,
        resawn: true,
        tooThinBy: 0,
      },
    ]);
  });

  it('a table saw resaws with its own kerf and a cleaner face, no higher than its blade; what is left fat is ripped taller (by hand)', () => {
    const halfOf = (change: Partial<Shop>) =>
      makePlan(planInput(plainBoard(), [plainPiece()], { ...DEFAULT_SHOP, ...change })).sections.find((s) => s.resawn)
        ?.width;
    // (46.8 - 3 kerf - 2 * 0.5) / 2
    expect(halfOf({ schools: { ...DEFAULT_SHOP.schools, thin: 'thinRip' } })).toBe(21.4);
    // No band saw: the way round is the table saw, if it reaches 32 mm; a circular saw is none.
    expect(halfOf({ bandSaw: null })).toBe(21.4);
    expect(halfOf({ bandSaw: null, saw: { ...DEFAULT_SHOP.saw, cutDepth: 30 } })).toBeUndefined();
    expect(halfOf({ bandSaw: null, saw: { ...DEFAULT_SHOP.saw, kind: 'circular' } })).toBeUndefined();
    const fat = makePlan(
      planInput(plainBoard({}, [40, 6]), [plainPiece()], {
        ...DEFAULT_SHOP,
        schools: { ...DEFAULT_SHOP.schools, thin: 'fat' },
      }),
    );
    expect(fat.strips.map((s) => s.rough.thickness - fat.allowances.glueThickness)).toEqual([
      0,
      expect.closeTo(1.6, 9),
    ]);
    expect(fat.operations.find((o) => o.kind === 'planeStrips' || o.kind === 'resaw')!.machine).not.toBe('Planer');
    expect(phraseText(fat.operations.find((o) => o.kind === 'flattenPanel')!.lines[0]!, DEFAULT_DISPLAY)).toMatch(
      /^strip 2 stands .* proud/,
    );
  });

  it('face grain offers the width whole and in equal parts, and says how much too thin a piece is', () => {
    const face = plainBoard({ construction: 'face', thickness: 30 });
    const sections = sectionsOf(face, [plainPiece({ thickness: 30 })]);
    // Usable width 148: whole 148 - 1 for jointing, halves (148 + 3) / 2 - 3 - 1 = 71.5, thirds 46.3 ...
    expect(sections.slice(0, 3).map((s) => s.width)).toEqual([147, 71.5, 46.3]);
    expect(sections[0]!.tooThinBy).toBeCloseTo(32 - 26.8, 9);
    expect(widestStrip(sections, 'maple-hard')).toBe(147);
    expect(widestStrip(sections, 'pear')).toBe(0);
  });

  it('offers nothing from a piece too short or too narrow for one strip', () => {
    const board = plainBoard();
    const { allowances } = makePlan(planInput(board, []));
    const rack = [plainPiece({ length: 440 }), plainPiece({ width: 33 })];
    expect(sectionsFor(board, allowances, rack, planInput(board, []).shop, [])).toEqual([]);
  });
});
