import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { END_GRAIN, recutBoard, type RecutChoices } from '../board/recutForTests.ts';
import { recutOf, recutRecipe } from '../board/recut.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { fromPanelsThatFit, panelsThatFit } from './panelsThatFit.ts';
import { plainBoard, plainPiece } from './planArbitrary.ts';

const STRIPS = [45, 45, 45, 45, 45, 45];
const board = (change: Partial<RecutChoices> = {}, count = 1) =>
  recutBoard(plainBoard({ length: 400, width: 250, thickness: 35, count }, STRIPS), change, END_GRAIN);
const rackOf = (...lengths: number[]): Piece[] =>
  lengths.map((length, i) => plainPiece({ id: `p${i}`, mark: `P${i}`, length }));
const panelsOf = (rack: readonly Piece[], of = board()) => panelsThatFit({ rack, shop: DEFAULT_SHOP }, of);
/** How long stock must be for a board from so many panels. */
const asks = (panels: number, of = board()) => {
  const asked = { ...of, recipe: of.recipe.map((o) => (o.kind === 'slice' ? { ...o, panels } : o)) };
  return recutOf(asked, DEFAULT_SHOP)!.panelLength + 2 * DEFAULT_SHOP.habits.stockEndTrim;
};

describe('panels that the lengths of the rack ask', () => {
  it('one where a piece is long enough to the millimetre, two where a tenth is missing', () => {
    const long = asks(1);
    expect(panelsOf(rackOf(long))).toBe(1);
    expect(panelsOf(rackOf(long - 0.1))).toBe(2);
    expect(panelsOf(rackOf(asks(3)))).toBe(3);
  });

  it('the longest piece counts, not the first, and not how many there are', () => {
    expect(panelsOf(rackOf(300, 2400, 500))).toBe(1);
    expect(panelsOf(rackOf(...Array<number>(40).fill(asks(2))))).toBe(2);
  });

  it('of two species the shorter one decides', () => {
    const of = board();
    const two = {
      ...of,
      recipe: of.recipe.map((o) => (o.kind === 'strip' && o.id === 's2' ? { ...o, species: 'cherry-black' } : o)),
    };
    const rack = rackOf(2400);
    const cherry = plainPiece({ id: 'c', mark: 'C1', species: 'cherry-black', length: asks(2) });
    expect(panelsOf([...rack, cherry], two)).toBe(2);
    // Where a species is not there at all, no number of panels would do, and none is made up.
    expect(panelsOf(rack, two)).toBe(1);
  });

  it('a flat board is one panel, whatever the rack has; wood too short for a single slice asks for nothing', () => {
    expect(panelsOf(rackOf(100), plainBoard())).toBe(1);
    expect(panelsOf(rackOf(100))).toBe(1);
    expect(panelsOf([])).toBe(1);
  });

  it('as few as can be: so many fit, and one fewer would not; no more panels than slices, nor than anybody glues', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 150, max: 2500 }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 24 }),
        (long, boards, count) => {
          const of = board({ count }, boards);
          const panels = panelsOf(rackOf(long), of);
          const fits = (n: number) => asks(n, of) <= long + 1e-6;
          expect(panels).toBeLessThanOrEqual(Math.min(count * boards, 12));
          if (panels > 1) expect([fits(panels), fits(panels - 1)]).toEqual([true, false]);
          else if (!fits(1)) for (let n = 2; n <= Math.min(count * boards, 12); n += 1) expect(fits(n)).toBe(false);
        },
      ),
      { numRuns: 150 },
    );
  });

  it('the board that follows is the same but for its panels; every slice is still made', () => {
    const of = board({ count: 14 }, 3);
    const input = { rack: rackOf(asks(4, of)), shop: DEFAULT_SHOP };
    const shared = fromPanelsThatFit(input, of);
    expect(recutRecipe(shared.recipe)!.slice.panels).toBe(4);
    expect(recutOf(shared, DEFAULT_SHOP)!.slices).toEqual([11, 11, 10, 10]);
    const back = { ...shared, recipe: shared.recipe.map((o) => (o.kind === 'slice' ? { ...o, panels: 1 } : o)) };
    expect(back).toEqual(of);
    expect(fromPanelsThatFit(input, plainBoard())).toEqual(plainBoard());
  });
});
