import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AS_IT_LIES, flatRecipe, stripsOf } from '../board/recipe.ts';
import { readBackward, readForward } from './evaluate.ts';
import { stripWorkpiece } from './stripOperation.ts';
import { AT_REST, movedBy, type Triple } from './motion.ts';
import { bounds, volume } from './solid.ts';

const recipes = fc
  .array(fc.double({ min: 1, max: 120, noNaN: true }), { minLength: 1, maxLength: 30 })
  .map((widths) =>
    flatRecipe(widths.map((width, i) => ({ id: `s${i}`, species: 'maple-hard', width, ...AS_IT_LIES }))),
  );
const sizes = fc.record({
  length: fc.double({ min: 50, max: 2000, noNaN: true }),
  height: fc.double({ min: 5, max: 90, noNaN: true }),
});
const wood = { piece: null, unit: 0, inPiece: AT_REST };

describe('a recipe read both ways', () => {
  it('backward every strip is as long and as high as the panel, and as wide as it is laid out', () => {
    fc.assert(
      fc.property(recipes, sizes, (recipe, panel) => {
        const wanted = readBackward(recipe, panel);
        expect([...wanted.keys()].sort()).toEqual(
          stripsOf({ recipe })
            .map((s) => s.id)
            .sort(),
        );
        for (const strip of stripsOf({ recipe }))
          expect(wanted.get(strip.id)).toEqual([panel.length, strip.width, panel.height]);
      }),
    );
  });

  it('forward from what backward asks for comes just the panel that was wanted, with all the wood of its strips', () => {
    fc.assert(
      fc.property(recipes, sizes, (recipe, panel) => {
        const wanted = readBackward(recipe, panel);
        const made = readForward(recipe, (strip) => stripWorkpiece(strip, wanted.get(strip.id)!, wood))!;
        const width = stripsOf({ recipe }).reduce((sum, s) => sum + s.width, 0);
        expect(made.size[0]).toBeCloseTo(panel.length, 9);
        expect(made.size[1]).toBeCloseTo(width, 9);
        expect(made.size[2]).toBeCloseTo(panel.height, 9);
        const all = made.cells.reduce((sum, cell) => sum + volume(cell.solid), 0);
        expect(Math.abs(all / (panel.length * width * panel.height) - 1)).toBeLessThan(1e-9);
      }),
    );
  });

  it('of strips of unlike length and height the panel is as long as the shortest and as high as the lowest; no wood is lost by gluing', () => {
    fc.assert(
      fc.property(
        recipes,
        fc.array(fc.tuple(fc.double({ min: 20, max: 900, noNaN: true }), fc.double({ min: 5, max: 90, noNaN: true })), {
          minLength: 30,
          maxLength: 30,
        }),
        (recipe, lengths) => {
          const size = new Map(
            stripsOf({ recipe }).map((s, i): [string, Triple] => [s.id, [lengths[i]![0], s.width, lengths[i]![1]]]),
          );
          const made = readForward(recipe, (strip) => stripWorkpiece(strip, size.get(strip.id)!, wood))!;
          expect(made.size[0]).toBe(Math.min(...[...size.values()].map((s) => s[0])));
          expect(made.size[2]).toBe(Math.min(...[...size.values()].map((s) => s[2])));
          const before = [...size.values()].reduce((sum, [l, w, h]) => sum + l * w * h, 0);
          expect(made.cells.reduce((sum, c) => sum + volume(c.solid), 0) / before).toBeCloseTo(1, 9);
        },
      ),
    );
  });

  it('no two strips share a place, and a point of each still knows where it lay in its piece', () => {
    fc.assert(
      fc.property(recipes, sizes, (recipe, panel) => {
        const wanted = readBackward(recipe, panel);
        const { cells } = readForward(recipe, (strip) => stripWorkpiece(strip, wanted.get(strip.id)!, wood))!;
        let edge = 0;
        for (const cell of cells) {
          const { least, greatest } = bounds(cell.solid);
          expect(least[1]).toBeCloseTo(edge, 9);
          edge = greatest[1];
          // The strips lay at the corner of their pieces.
          movedBy(cell.inPiece, least).forEach((v) => expect(v).toBeCloseTo(0, 9));
        }
      }),
    );
  });

  it('an empty recipe gives nothing', () => {
    expect(readForward([], (strip) => stripWorkpiece(strip, [1, 1, 1], wood))).toBeNull();
    expect(readBackward([], { length: 400, height: 30 }).size).toBe(0);
  });
});
