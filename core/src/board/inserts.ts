import { nth } from '../lists/there.ts';
import { insertsOf } from './inset.ts';
import {
  AS_IT_LIES,
  stripsOf,
  type InsertOperation,
  type Recipe,
  type RecipeOperation,
  type StripOperation,
} from './recipe.ts';

/** A strip to be put into a board, and where. */
export type Wanted = Pick<StripOperation, 'species' | 'width'> & Pick<InsertOperation, 'at' | 'angle' | 'jog'>;

/** An id that nothing of a recipe has. */
export function freeId(recipe: Recipe, begins: string): string {
  const taken = new Set(recipe.map((o) => o.id));
  for (let n = 1; ; n += 1) if (!taken.has(`${begins}-${n}`)) return `${begins}-${n}`;
}

/** The same board with one more strip put into its panel, after all others and before any frame. A board whose panel is sliced takes none, nor one without strips. */
export function withInsert<B extends { readonly recipe: Recipe }>(board: B, { species, width, ...where }: Wanted): B {
  const { recipe } = board;
  const framed = recipe.findIndex((o) => o.kind === 'frame' || o.kind === 'back');
  const last = (framed < 0 ? recipe : recipe.slice(0, framed)).findLast(
    (o) => o.kind === 'glue' || o.kind === 'insert',
  );
  if (!last || stripsOf(board).length === 0 || recipe.some((o) => o.kind === 'slice')) return board;
  const strip: StripOperation = { kind: 'strip', ...AS_IT_LIES, id: freeId(recipe, 'put-in'), species, width };
  const insert: InsertOperation = {
    kind: 'insert',
    id: freeId(recipe, 'insert'),
    takes: [last.id, strip.id],
    ...where,
  };
  const at = recipe.indexOf(last) + 1;
  const rest = recipe
    .slice(at)
    .map((o): RecipeOperation =>
      o.kind === 'frame' || o.kind === 'back'
        ? { ...o, takes: o.takes.map((t) => (t === last.id ? insert.id : t)) }
        : o,
    );
  return { ...board, recipe: [...recipe.slice(0, at), strip, insert, ...rest] };
}

/** The same board with one more strip put in, in the middle of the widest gap that the others leave. @param length of what it is put into, mm */
export function withInsertInGap<B extends { readonly recipe: Recipe }>(
  board: B,
  length: number,
  like: Pick<Wanted, 'species' | 'width' | 'angle'>,
): B {
  const edges = [0, ...insertsOf(board.recipe).map((i) => i.operation.at), length].sort((a, b) => a - b);
  const gaps = edges.slice(1).map((to, i) => ({ size: to - nth(edges, i), at: (to + nth(edges, i)) / 2 }));
  const { at } = gaps.reduce((a, g) => (g.size > a.size ? g : a));
  return withInsert(board, { ...like, jog: 0, at });
}

/** The same board without a strip that was put in: what was put in after it goes into what was there before. @param id of the insert */
export function withoutInsert<B extends { readonly recipe: Recipe }>(board: B, id: string): B {
  const out = insertsOf(board.recipe).find((i) => i.operation.id === id);
  if (!out) return board;
  const [before] = out.operation.takes;
  const recipe = board.recipe.flatMap((o): RecipeOperation[] => {
    if (o === out.operation || o === out.strip) return [];
    if (o.kind !== 'insert' && o.kind !== 'frame' && o.kind !== 'back') return [o];
    return [{ ...o, takes: o.takes.map((t) => (t === id && before !== undefined ? before : t)) }];
  });
  return { ...board, recipe };
}

/** The same board with a strip that is put in lying elsewhere, or with another strip in its place. @param id of the insert */
export function withInsertChanged<B extends { readonly recipe: Recipe }>(
  board: B,
  id: string,
  { species, width, ...where }: Partial<Wanted>,
): B {
  const changed = insertsOf(board.recipe).find((i) => i.operation.id === id);
  if (!changed) return board;
  const strip = { ...(species === undefined ? {} : { species }), ...(width === undefined ? {} : { width }) };
  return {
    ...board,
    recipe: board.recipe.map((o) =>
      o === changed.operation
        ? { ...changed.operation, ...where }
        : o === changed.strip
          ? { ...changed.strip, ...strip }
          : o,
    ),
  };
}
