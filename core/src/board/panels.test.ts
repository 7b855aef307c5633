import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainBoard } from '../plan/planArbitrary.ts';
import { asPanelSees, fromPanel, panelCount, withoutPanelInTurn, withPanelInTurn } from './panels.ts';
import { recutBoard } from './recutForTests.ts';
import { cutStripsOf, panelsOfRecipe, recipeProblems, stripsOf, withStrips } from './recipe.ts';

const two = () => {
  const board = plainBoard({ length: 400, width: 250, thickness: 35 }, [45, 30, 45, 30, 45]);
  return recutBoard(
    withStrips(
      board,
      stripsOf(board).map((s, i) => ({ ...s, species: i % 2 === 0 ? 'maple-hard' : 'walnut-black' })),
    ),
  );
};

describe('panels that rows come from in turn', () => {
  it('one more has the strips of the first, its woods exchanged; three are the most', () => {
    const board = two();
    const more = withPanelInTurn(board);
    expect(recipeProblems(more.recipe)).toEqual([]);
    expect(panelCount(more)).toBe(2);
    const own = cutStripsOf(more).slice(5);
    expect(own.map((s) => s.width)).toEqual([45, 30, 45, 30, 45]);
    expect(own.map((s) => s.species)).toEqual(
      stripsOf(board).map((s) => (s.species === 'maple-hard' ? 'walnut-black' : 'maple-hard')),
    );
    const three = withPanelInTurn(more);
    expect([panelCount(three), panelCount(withPanelInTurn(three))]).toEqual([3, 3]);
    expect(recipeProblems(three.recipe)).toEqual([]);
    const flat = plainBoard();
    expect(withPanelInTurn(flat)).toBe(flat);
    // Of one wood it is laid the other way round.
    const one = withPanelInTurn(recutBoard(plainBoard({}, [45, 30, 20])));
    expect(
      cutStripsOf(one)
        .slice(3)
        .map((s) => s.width),
    ).toEqual([20, 30, 45]);
  });

  it('each panel sees itself as the first and lays its own strips; the others and the turn stay', () => {
    const three = withPanelInTurn(withPanelInTurn(two()));
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2 }),
        fc.array(fc.integer({ min: 5, max: 90 }), { minLength: 1, maxLength: 6 }),
        (k, widths) => {
          expect(fromPanel(asPanelSees(three, k), k)).toEqual(three);
          const seen = asPanelSees(three, k);
          const own = stripsOf(seen);
          const laid = widths.map((width, i) => ({ ...own[i % own.length]!, id: `new-${i}`, width }));
          const changed = fromPanel(withStrips(seen, laid), k);
          expect(recipeProblems(changed.recipe)).toEqual([]);
          const panels = panelsOfRecipe(changed.recipe);
          expect(panels.map((p) => p.takes.length)).toEqual([0, 1, 2].map((i) => (i === k ? widths.length : 5)));
          expect(panels.filter((_, i) => i !== k)).toEqual(panelsOfRecipe(three.recipe).filter((_, i) => i !== k));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('taken out, its strips go with it; the last one stays', () => {
    const board = two();
    const three = withPanelInTurn(withPanelInTurn(board));
    for (const k of [0, 1, 2]) {
      const less = withoutPanelInTurn(three, k);
      expect(recipeProblems(less.recipe)).toEqual([]);
      expect(panelsOfRecipe(less.recipe)).toEqual(panelsOfRecipe(three.recipe).filter((_, i) => i !== k));
      expect(cutStripsOf(less)).toHaveLength(10);
    }
    expect(withoutPanelInTurn(withoutPanelInTurn(three, 2), 1)).toEqual(board);
    expect(withoutPanelInTurn(board, 0)).toBe(board);
  });
});
