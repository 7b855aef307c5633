import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainBoard } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { aboveBack, backOf, backOperationOf, missingOf } from './back.ts';
import { aboveTheBack, withBack, withBackChanged, withBackFilled, withoutBack } from './backs.ts';
import { framesOf } from './frame.ts';
import { ringOf, withFrame, withFrameMoved, withoutFrame } from './frames.ts';
import { withInsert, withoutInsert } from './inserts.ts';
import { insertsOf } from './inset.ts';
import { withoutSlices, withSlices } from './looks.ts';
import { insetBoard, recutBoard } from './recutForTests.ts';
import { cutStripsOf, recipeProblems, stripsOf, withStrips } from './recipe.ts';

const plain = () => plainBoard({ length: 400, width: 250, thickness: 25 }, [40, 40, 40, 40, 40, 40, 40]);
const HOW = { species: 'walnut-black', runs: 'across' as const, thickness: 6 };
const insides = fc.constantFrom(
  plain(),
  withFrame(plain(), ringOf('walnut-black', 20)),
  recutBoard(plain()),
  insetBoard(plain(), [{ species: 'walnut-black', width: 10, at: 150, angle: 0, jog: 0 }]),
);
const ops = (board: ReturnType<typeof plain>) => board.recipe.filter((o) => o.kind !== 'strip').map((o) => o.kind);

describe('a back under a board', () => {
  it('covers it, is changed, and taken off leaves it as it was', () => {
    fc.assert(
      fc.property(
        insides,
        fc.constantFrom('along' as const, 'across' as const),
        fc.integer({ min: 2, max: 15 }),
        (board, runs, thickness) => {
          const made = withBack(board, DEFAULT_SHOP, { ...HOW, runs, thickness });
          expect(recipeProblems(made.recipe)).toEqual([]);
          const back = backOf(made, DEFAULT_SHOP)!;
          expect(missingOf(back)).toBe(0);
          // No more than a strip too many.
          expect(back.width - back.wantedWidth).toBeLessThan(back.strips.length);
          expect(back.inside.thickness).toBe(Math.max(5, 25 - thickness));
          // It lies flat under strips that stand.
          expect(back.strips.every((s) => s.strip.rolled)).toBe(true);
          expect(back.strips.map((s) => s.number)).toEqual(
            back.strips.map((_, i) => cutStripsOf(board).length + 1 + i),
          );
          // Numbered there as here.
          expect(cutStripsOf(aboveBack(made, DEFAULT_SHOP)).map((s) => s.id)).toEqual(
            cutStripsOf(made).map((s) => s.id),
          );
          const other = withBackChanged(made, { runs: runs === 'along' ? 'across' : 'along', thickness: 3 });
          expect(backOperationOf(other.recipe)!.operation).toMatchObject({ thickness: 3 });
          expect(missingOf(backOf(withBackFilled(other, DEFAULT_SHOP), DEFAULT_SHOP)!)).toBe(0);
          const fewer = withBackChanged(made, { strips: [{ species: 'maple-hard', width: 55 }] });
          expect(backOperationOf(fewer.recipe)!.strips.map((s) => [s.species, s.width])).toEqual([['maple-hard', 55]]);
          for (const one of [other, fewer]) expect(recipeProblems(one.recipe)).toEqual([]);
          expect(withoutBack(made).recipe).toEqual(board.recipe);
          expect(withoutBack(board)).toBe(board);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('for a reader of inches its strips are equal and a whole number of thirty-seconds', () => {
    const back = backOf(withBack(plain(), DEFAULT_SHOP, HOW, 'inch'), DEFAULT_SHOP)!;
    const [width] = back.strips.map((s) => (s.strip.width * 32) / 25.4);
    expect(width).toBeCloseTo(Math.round(width!), 9);
    expect(new Set(back.strips.map((s) => s.strip.width)).size).toBe(1);
    expect(missingOf(back)).toBe(0);
  });

  it('whatever is done above it, it stays under all of it, its strips what they were', () => {
    const backed = withBack(plain(), DEFAULT_SHOP, HOW);
    const own = backOperationOf(backed.recipe)!.strips;
    const framed = withFrame(withFrame(backed, ringOf('maple-hard', 20)), ringOf('walnut-black', 12));
    const [first] = framesOf(framed.recipe);
    const band = withInsert(framed, { species: 'maple-hard', width: 12, at: 100, angle: 0, jog: 0 });
    const boards = [
      framed,
      withFrameMoved(framed, first!.operation.id, 1),
      withoutFrame(framed, first!.operation.id),
      band,
      withInsert(backed, { species: 'maple-hard', width: 12, at: 100, angle: 0, jog: 0 }),
      withoutInsert(band, insertsOf(band.recipe)[0]!.operation.id),
      withSlices(framed),
      withoutSlices(withSlices(framed)),
      withStrips(framed, stripsOf(plain()).slice(0, 3)),
    ];
    for (const board of boards) {
      expect(recipeProblems(board.recipe)).toEqual([]);
      expect(ops(board).at(-1)).toBe('back');
      expect(backOperationOf(board.recipe)!.strips).toEqual(own);
    }
    expect(ops(withSlices(framed))).toEqual(['glue', 'slice', 'turn', 'turn', 'glue', 'frame', 'frame', 'back']);
    expect(ops(withoutInsert(band, insertsOf(band.recipe)[0]!.operation.id))).toEqual(ops(framed));
    expect(aboveTheBack(plain(), (b) => b)).toEqual(plain());
    const empty = { ...plain(), recipe: [] };
    expect(withBack(empty, DEFAULT_SHOP, HOW)).toEqual(empty);
  });
});
