import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainBoard } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { asLook, isFlatLook, lookOf, LOOKS, withTurns } from './looks.ts';
import { recipeSchema, stripsOf } from './recipe.ts';
import { recutOf } from './recut.ts';
import { inPattern, ROW_PATTERNS, rowLies, shortestPattern, withRowLies, type RowPattern } from './rowPatterns.ts';

const six = plainBoard({}, [40, 40, 40, 40, 40, 40]);

describe('looks', () => {
  it('each begins a recipe that is in order, with the same strips, from every other one and from none', () => {
    for (const from of LOOKS)
      for (const to of LOOKS)
        for (const board of [six, plainBoard({}, [])]) {
          const began = asLook({ ...board, construction: 'edge' as const }, from);
          const made = asLook(began, to);
          expect(recipeSchema.safeParse(made.recipe).error?.issues ?? []).toEqual([]);
          expect(stripsOf(made)).toEqual(stripsOf(board));
          // Edge or face is told by the construction, which stays; into nothing nothing is put in, and nothing goes round it.
          const begins = to === 'endGrain' || to === 'chevron';
          const flat = isFlatLook(to) || (stripsOf(board).length === 0 && !begins);
          expect(lookOf(made)).toBe(flat ? 'edge' : to);
        }
  });

  it('back to flat nothing of what was cut again is left', () => {
    expect(asLook(asLook(six, 'chevron'), 'edge').recipe).toEqual(six.recipe);
  });

  it('strips that are called like an operation keep their names', () => {
    const named = { ...six, recipe: six.recipe.map((o) => o) };
    const board = plainBoard({}, [30, 30]);
    const [first] = stripsOf(board);
    const clash = asLook(
      { ...board, recipe: [{ ...first!, id: 'slices' }, { ...named.recipe.at(-1)!, takes: ['slices'] } as never] },
      'endGrain',
    );
    expect(recipeSchema.safeParse(clash.recipe).success).toBe(true);
    expect(stripsOf(clash)[0]!.id).toBe('slices');
  });
});

describe('rows by the handful', () => {
  const end = asLook(six, 'endGrain');
  const liesOf = (board: typeof end) => rowLies(recutOf(board, DEFAULT_SHOP)!);

  it('lie as they were laid, whatever that is, and the recipe says it by the shortest pattern', () => {
    const lies = fc.array(
      fc.record({
        over: fc.boolean(),
        endForEnd: fc.boolean(),
        shift: fc.constantFrom(0, 0, 7.5, -20),
      }),
      { minLength: 14, maxLength: 14 },
    );
    fc.assert(
      fc.property(lies, (wanted) => {
        const laid = withRowLies(end, wanted);
        expect(recipeSchema.safeParse(laid.recipe).error?.issues ?? []).toEqual([]);
        expect(liesOf(laid)).toEqual(wanted);
        // Laid twice it is the same recipe.
        expect(withRowLies(laid, wanted).recipe).toEqual(laid.recipe);
        expect(stripsOf(laid)).toEqual(stripsOf(end));
      }),
    );
  });

  it('a pattern is the shortest that repeats to the whole list', () => {
    expect(shortestPattern([false, true, false, true, false])).toEqual([false, true]);
    expect(shortestPattern([1, 2, 3, 1, 2])).toEqual([1, 2, 3]);
    expect(shortestPattern([1, 1, 2])).toEqual([1, 1, 2]);
    expect(shortestPattern([])).toEqual([]);
  });

  it.each(Object.keys(ROW_PATTERNS) as RowPattern[])(
    '%s is laid in one step, and comes back as it was laid',
    (pattern) => {
      const recut = recutOf(end, DEFAULT_SHOP)!;
      const laid = inPattern(end, pattern, recut);
      const lies = liesOf(laid);
      expect(lies).toEqual(lies.map((_, i) => ROW_PATTERNS[pattern].lie(i, lies.length, 40)));
      expect(recutOf(laid, DEFAULT_SHOP)!.up).toBe(true);
    },
  );

  it('turns that turn nothing leave no operation behind, and slices that were turned up stay so', () => {
    const bare = withTurns(end, [{ turn: 'over', pattern: [false, false] }]);
    expect(bare.recipe.filter((o) => o.kind === 'turn').map((o) => o.turn)).toEqual(['up']);
  });
});
