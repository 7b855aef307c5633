import { describe, expect, it } from 'vitest';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import type { Ladder } from './ladder.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { stripsOf, withStrips } from '../board/recipe.ts';

/** A ladder as a maker would write it on the wall: rung, what it takes, what is left. */
const written = (ladder: Ladder) =>
  ladder.rungs.map((r) => [r.id, Number(r.taken.toFixed(6)), Number(r.after.toFixed(6))]);

describe('worked by hand: six 46 mm strips on edge from one 2000 x 150 x 50 rough plank, for 400 x 260 x 30', () => {
  const { ladders } = makePlan(planInput(plainBoard(), [plainPiece()]));

  it("thickness comes from the stock's width", () => {
    expect(ladders.thickness.rungs[0]!.before).toBe(150);
    expect(written(ladders.thickness)).toEqual([
      ['joint-edge', 2, 148],
      ['rip', 116, 32],
      ['flatten-panel', 1.5, 30.5],
      ['sand', 0.5, 30],
    ]);
  });

  it('width comes from six thicknesses', () => {
    expect(ladders.width.rungs[0]!.before).toBe(300);
    expect(written(ladders.width)).toEqual([
      ['plane-strips', 24, 276],
      ['trim-edges', 16, 260],
    ]);
  });

  it('length carries snipe, kerfs and creep', () => {
    expect(ladders.length.rungs[0]!.before).toBe(2000);
    expect(written(ladders.length)).toEqual([
      ['stock-end', 10, 1990],
      ['crosscut', 1561, 429],
      ['creep', 3, 426],
      ['first-end', 13, 413],
      ['second-end', 13, 400],
    ]);
    expect(phraseText(ladders.length.rungs[3]!.why, DEFAULT_DISPLAY)).toContain('The planer snipes 10 mm at each end');
  });
});

describe('worked by hand: two strips lying flat from 30 mm rough stock, for 400 x 150 x 24', () => {
  const board = plainBoard({ construction: 'face', thickness: 24, width: 150 }, [80, 76]);
  const { ladders, strips } = makePlan(planInput(board, [plainPiece({ thickness: 30 })]));

  it("thickness comes from the stock's thickness, every bite with its habit", () => {
    expect(written(ladders.thickness)).toEqual([
      ['flatten-stock', 1.6, 28.4],
      ['skim', 1.6, 26.8],
      ['thickness', 0.8, 26],
      ['flatten-panel', 1.5, 24.5],
      ['sand', 0.5, 24],
    ]);
    expect(ladders.thickness.rungs.map((r) => r.habit)).toEqual([
      'flattenRough',
      'skimRough',
      null,
      'panelFlatten',
      'sanding',
    ]);
  });

  it('width comes from the rips: kerf and jointing of each strip, then the trims', () => {
    expect(ladders.width.rungs[0]!.before).toBe(80 + 76 + 2 * 1 + 2 * 3);
    expect(written(ladders.width)).toEqual([
      ['kerfs', 6, 158],
      ['joint-strips', 2, 156],
      ['trim-edges', 6, 150],
    ]);
  });

  it('the outer strips carry the trim', () => {
    expect(strips.map((s) => [s.rough.width, s.milled.width, s.finished.width])).toEqual([
      [81, 80, 77],
      [77, 76, 73],
    ]);
  });
});

it('an outer strip thinner than the trim is gone in the finished board, and the next one carries the rest', () => {
  const shop = { ...DEFAULT_SHOP, habits: { ...DEFAULT_SHOP.habits, panelEdgeTrim: 5 } };
  const { strips } = makePlan(planInput(plainBoard({ width: 80 }, [2, 43, 45]), [plainPiece()], shop));
  expect(strips.map((s) => s.finished.width)).toEqual([0, 40, 40]);
  expect(strips[0]!.grams).toBe(0);
});

it('a tapering piece counts as wide as it is where the strips are cut, and strips that were rolled do not stand on edge', () => {
  const taper = plainPiece({
    length: 450,
    width: 40,
    thickness: 40,
    farEnd: { width: 44, thickness: 40 },
    straight: 'both',
  });
  const standing = makePlan(planInput(plainBoard({ thickness: 38 }, [20]), [taper])).ladders.thickness;
  // Cut from the wider far end inward: 10 mm trimmed, 429 long, so the narrow end of the blank lies 11 mm from the mark.
  expect(standing.rungs[0]!.before).toBeCloseTo(40 + (4 * 11) / 450, 9);
  const rolled = plainBoard({ thickness: 20 }, [30]);
  const lying = makePlan(
    planInput(
      withStrips(
        rolled,
        stripsOf(rolled).map((s) => ({ ...s, rolled: true })),
      ),
      [taper],
    ),
  ).ladders.thickness;
  expect(lying.rungs.map((r) => r.id)).toEqual(['flatten-stock', 'skim', 'thickness', 'flatten-panel', 'sand']);
});
