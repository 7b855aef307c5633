import { backOf, backOperationOf } from './back.ts';
import type { Board } from './board.ts';
import { freeId } from './inserts.ts';
import {
  AS_IT_LIES,
  stripsOf,
  type BackOperation,
  type Recipe,
  type RecipeOperation,
  type StripOperation,
} from './recipe.ts';
import type { Shop } from '../shop/shop.ts';
import { HAND_STEP, type UnitSystem } from '../units/length.ts';

/** What a strip of a back is like. */
export type BackWood = Pick<StripOperation, 'species' | 'width'>;

/** Strips of a back begin no wider than this, mm: what most stock gives lying flat (common practice). */
const USUAL_STRIP_MM = 60;

/** The same board without its back. */
export function withoutBack<B extends { readonly recipe: Recipe }>(board: B): B {
  const made = backOperationOf(board.recipe);
  if (!made) return board;
  const gone = new Set<RecipeOperation>([made.operation, ...made.strips]);
  return { ...board, recipe: board.recipe.filter((o) => !gone.has(o)) };
}

/** The same board with a back under all there is, in place of the one it had. A board without strips has nothing to be glued under. @param own strips that are there already */
export function withBackOf<B extends { readonly recipe: Recipe }>(
  given: B,
  strips: readonly BackWood[],
  { runs, thickness }: Pick<BackOperation, 'runs' | 'thickness'>,
  own: readonly StripOperation[] = [],
  id?: string,
): B {
  const board = withoutBack(given);
  const last = board.recipe.at(-1);
  if (!last || stripsOf(board).length === 0 || strips.length === 0) return board;
  let recipe: Recipe = [...board.recipe];
  const ids = strips.map((wood, i) => {
    const known = own[i];
    const name = known && !recipe.some((o) => o.id === known.id) ? known.id : freeId(recipe, 'back-strip');
    recipe = [
      ...recipe,
      // It lies flat, whatever the strips above it do.
      { kind: 'strip', ...AS_IT_LIES, ...(known ?? { rolled: liesOnEdge(board) }), id: name, ...wood },
    ];
    return name;
  });
  const name = id !== undefined && !recipe.some((o) => o.id === id) ? id : freeId(recipe, 'back');
  return { ...board, recipe: [...recipe, { kind: 'back', id: name, takes: [last.id, ...ids], runs, thickness }] };
}

/** Whether strips of a board stand on edge where nobody said otherwise. */
const liesOnEdge = (board: { readonly recipe: Recipe; readonly construction?: Board['construction'] }): boolean =>
  board.construction !== 'face';

/** The same board with a back of one wood, as many equal strips as cover it. @param own the shop */
export function withBack(
  board: Board,
  own: Shop,
  { species, runs, thickness }: Pick<BackOperation, 'runs' | 'thickness'> & { species: string },
  system: UnitSystem = 'metric',
): Board {
  const begun = withBackOf(board, [{ species, width: USUAL_STRIP_MM }], { runs, thickness });
  return withBackFilled(begun, own, system);
}

/** The same board with its back of as many equal strips as cover it, of the wood of its first. @param own the shop @param system in whose round figures */
export function withBackFilled(board: Board, own: Shop, system: UnitSystem = 'metric'): Board {
  const back = backOf(board, own);
  const first = back?.strips[0]?.strip;
  if (!back || !first) return board;
  const many = Math.max(1, Math.ceil(back.wantedWidth / USUAL_STRIP_MM));
  // Up to a round figure: what is too much falls off.
  const width = Math.ceil(back.wantedWidth / many / HAND_STEP[system]) * HAND_STEP[system];
  return withBackOf(
    board,
    Array.from({ length: many }, () => ({ species: first.species, width })),
    back.operation,
    back.strips.map((s) => s.strip),
    back.operation.id,
  );
}

/** The same board with its back of other strips, thickness or direction. */
export function withBackChanged<B extends { readonly recipe: Recipe }>(
  board: B,
  change: { strips?: readonly BackWood[]; runs?: BackOperation['runs']; thickness?: number },
): B {
  const made = backOperationOf(board.recipe);
  if (!made) return board;
  const { runs, thickness, id } = made.operation;
  const woods = change.strips ?? made.strips.map(({ species, width }) => ({ species, width }));
  return withBackOf(
    board,
    woods,
    { runs: change.runs ?? runs, thickness: change.thickness ?? thickness },
    made.strips,
    id,
  );
}

/** The same board with what is above its back changed; the back stays under it. */
export function aboveTheBack<B extends { readonly recipe: Recipe }>(board: B, change: (above: B) => B): B {
  const made = backOperationOf(board.recipe);
  if (!made) return change(board);
  const { operation, strips } = made;
  return withBackOf(
    change(withoutBack(board)),
    strips.map(({ species, width }) => ({ species, width })),
    { runs: operation.runs, thickness: operation.thickness },
    strips,
    operation.id,
  );
}
