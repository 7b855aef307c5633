import { nth } from '../lists/there.ts';
import { freeId } from './inserts.ts';
import {
  GREATEST_PANEL_COUNT,
  panelsOfRecipe,
  stripsIn,
  stripsOf,
  type GlueOperation,
  type Recipe,
  type RecipeOperation,
  type StripOperation,
} from './recipe.ts';

/** The panels that rows of a board come from in turn; one for every other board with strips. */
export const panelCount = ({ recipe }: { readonly recipe: Recipe }): number => panelsOfRecipe(recipe).length;

/** The same recipe with the panels that rows come from gone on by so many: what was second is first. */
function turnedOn<B extends { readonly recipe: Recipe }>(board: B, by: number): B {
  return {
    ...board,
    recipe: board.recipe.map((o) => {
      if (o.kind !== 'slice') return o;
      const at = ((by % o.takes.length) + o.takes.length) % o.takes.length;
      return { ...o, takes: [...o.takes.slice(at), ...o.takes.slice(0, at)] };
    }),
  };
}

/** The board as one of its panels sees it: that one is the first, and its strips are those of the board. @param panel from 0 */
export const asPanelSees = <B extends { readonly recipe: Recipe }>(board: B, panel: number): B =>
  panel === 0 ? board : turnedOn(board, panel);

/** The board as it is, from how one of its panels sees it. */
export const fromPanel = <B extends { readonly recipe: Recipe }>(seen: B, panel: number): B =>
  panel === 0 ? seen : turnedOn(seen, -panel);

/** The same board with its rows coming from one more panel in turn: the strips of the first the other way round, and of its other wood where there are two. A board without slices takes none. */
export function withPanelInTurn<B extends { readonly recipe: Recipe }>(board: B): B {
  const [first] = panelsOfRecipe(board.recipe);
  const slice = board.recipe.find((o) => o.kind === 'slice');
  if (!first || !slice || slice.takes.length >= GREATEST_PANEL_COUNT || stripsOf(board).length === 0) return board;
  const woods = [...new Set(stripsOf(board).map((s) => s.species))];
  let recipe: Recipe = [...board.recipe];
  const strips = stripsOf(board).map((strip): StripOperation => {
    const at = woods.indexOf(strip.species);
    const own: StripOperation = {
      ...strip,
      id: freeId(recipe, 'turn-strip'),
      species: woods.length === 2 ? nth(woods, 1 - at) : strip.species,
    };
    recipe = [...recipe, own];
    return own;
  });
  const panel: GlueOperation = {
    ...first,
    id: freeId(recipe, 'panel'),
    takes: (woods.length === 2 ? strips : [...strips].reverse()).map((s) => s.id),
  };
  const at = board.recipe.indexOf(slice);
  return {
    ...board,
    recipe: [
      ...board.recipe.slice(0, at),
      ...strips,
      panel,
      { ...slice, takes: [...slice.takes, panel.id] },
      ...board.recipe.slice(at + 1),
    ],
  };
}

/** The same board without one of the panels that its rows come from; one is always left. @param panel from 0 */
export function withoutPanelInTurn<B extends { readonly recipe: Recipe }>(board: B, panel: number): B {
  const panels = panelsOfRecipe(board.recipe);
  const out = panels[panel];
  if (!out || panels.length < 2) return board;
  const gone = new Set<RecipeOperation>([out, ...stripsIn(out, board)]);
  return {
    ...board,
    recipe: board.recipe.flatMap((o): RecipeOperation[] => {
      if (gone.has(o)) return [];
      return o.kind === 'slice' ? [{ ...o, takes: o.takes.filter((id) => id !== out.id) }] : [o];
    }),
  };
}
