import { HAND_STEP, MM_PER_INCH, type UnitSystem } from '../units/length.ts';
import { NOTHING_MADE, type Made } from '../facts/made.ts';
import type { Shop } from '../shop/shop.ts';
import { panelBoardOf } from './again.ts';
import { allowancesFor, stacksOfPanel } from './allowances.ts';
import type { Board } from './board.ts';
import { shopFor } from './differences.ts';
import { freeId } from './inserts.ts';
import {
  AS_IT_LIES,
  inWorkingOrder,
  stripsOf,
  withStrips,
  type Recipe,
  type RecipeOperation,
  type StackOperation,
  type Strip,
  type StripOperation,
} from './recipe.ts';
import { sticksIn, type Stack } from './stack.ts';

/** Bits of one wood: what they are of, and how long each is, mm. */
export interface BitWood {
  species: string;
  length: number;
}

/** What stacks begin with, mm, in round figures of the units that are read (common practice): thin accents of bits an inch or so long. */
const USUAL: Readonly<Record<UnitSystem, { accent: number; bit: number; depth: number }>> = {
  metric: { accent: 3, bit: 30, depth: 16 },
  inch: { accent: MM_PER_INCH / 8, bit: 1.25 * MM_PER_INCH, depth: 0.75 * MM_PER_INCH },
};

const stackIn = (recipe: Recipe, id: string): StackOperation | undefined =>
  recipe.find((o): o is StackOperation => o.kind === 'stack' && o.id === id);

/** Why a board takes no accents of bits; null where it takes some. */
export function noStackBecause(board: Pick<Board, 'recipe'>): 'sliced' | 'narrow' | null {
  if (board.recipe.some((o) => o.kind === 'slice')) return 'sliced';
  // Each wants a long strip on both sides.
  return stripsOf(board).length < 2 ? 'narrow' : null;
}

/** The same board with one more stack: an accent behind its first strip, and one before its last where there are more than two. A board that takes none stays as it is. @param woods of its bits in turn */
export function withStack<B extends Pick<Board, 'recipe'>>(
  board: B,
  woods: readonly string[],
  system: UnitSystem = 'metric',
): B {
  if (noStackBecause(board) !== null || woods.length === 0) return board;
  const { accent, bit, depth } = USUAL[system];
  let recipe: Recipe = [...board.recipe];
  const sticks = woods.map((species): StripOperation => {
    const stick: StripOperation = { kind: 'strip', ...AS_IT_LIES, id: freeId(recipe, 'bits'), species, width: depth };
    recipe = [...recipe, stick];
    return stick;
  });
  const id = freeId(recipe, 'stack');
  const stack: StackOperation = { kind: 'stack', id, takes: sticks.map((s) => s.id), bits: woods.map(() => bit) };
  const begun = { ...board, recipe: inWorkingOrder([...recipe, stack]) };
  const one = withAccent(begun, id, 1, accent);
  const last = stripsOf(one).length - 1;
  return last > 2 ? withAccent(one, id, last, accent) : one;
}

/** The same board with one more accent of a stack. @param at its place among the strips, from 0 */
export function withAccent<B extends Pick<Board, 'recipe'>>(board: B, id: string, at: number, width: number): B {
  const stack = stackIn(board.recipe, id);
  const first = stack && sticksIn(stack, board.recipe)[0];
  if (!first) return board;
  const accent: Strip = {
    ...AS_IT_LIES,
    id: freeId(board.recipe, 'accent'),
    species: first.species,
    width,
    stack: id,
  };
  const strips: readonly Strip[] = stripsOf(board);
  return withStrips(board, strips.toSpliced(at, 0, accent));
}

/** The same board with one more accent of a stack where it is buried best: in the widest gap between its accents that has long strips on both sides; none where there is no such place. */
export function withOneMoreAccent<B extends Pick<Board, 'recipe'>>(board: B, id: string): B {
  const strips = stripsOf(board);
  const like = strips.find((s) => s.stack === id);
  // Between two long strips, the farther from every accent the better.
  const places = strips.flatMap((s, i) => {
    const before = strips[i - 1];
    if (i === 0 || s.stack !== null || !before || before.stack !== null) return [];
    const far = Math.min(...strips.flatMap((other, k) => (other.stack === null ? [] : [k < i ? i - k : k - i + 1])));
    return [{ at: i, far }];
  });
  const best = places.sort((a, b) => b.far - a.far || a.at - b.at)[0];
  return like && best ? withAccent(board, id, best.at, like.width) : board;
}

/** The same board without the last accent of a stack; with its only one the stack goes. */
export function withOneAccentLess<B extends Pick<Board, 'recipe'>>(board: B, id: string): B {
  const last = stripsOf(board).findLast((s) => s.stack === id);
  return last
    ? withStrips(
        board,
        stripsOf(board).filter((s) => s !== last),
      )
    : board;
}

/** The same board without a stack and its accents. */
export function withoutStack<B extends Pick<Board, 'recipe'>>(board: B, id: string): B {
  return withStrips(
    board,
    stripsOf(board).filter((s) => s.stack !== id),
  );
}

/** The same board with a stack of other bits, deeper or shallower, or with its accents as wide. Its sticks keep their ids as far as there are as many. */
export function withStackChanged<B extends Pick<Board, 'recipe'>>(
  board: B,
  id: string,
  change: { bits?: readonly BitWood[]; depth?: number; accents?: number },
): B {
  const stack = stackIn(board.recipe, id);
  if (!stack || change.bits?.length === 0) return board;
  const before = sticksIn(stack, board.recipe);
  const depth = change.depth ?? before[0]?.width ?? 0;
  const bits = change.bits ?? before.map((s, i) => ({ species: s.species, length: stack.bits[i] ?? 0 }));
  const gone = new Set<RecipeOperation>([stack, ...before]);
  let recipe: Recipe = board.recipe.filter((o) => !gone.has(o));
  const sticks = bits.map(({ species }, i): StripOperation => {
    const own = before[i];
    const stick: StripOperation = {
      ...(own ?? { kind: 'strip', ...AS_IT_LIES, id: freeId([...recipe, ...before], 'bits') }),
      species,
      width: depth,
    };
    recipe = [...recipe, stick];
    return stick;
  });
  const first = sticks[0]?.species ?? '';
  const changed: StackOperation = { ...stack, takes: sticks.map((s) => s.id), bits: bits.map((b) => b.length) };
  // An accent is told by the wood that its bits begin with.
  const accents = recipe.map((o): RecipeOperation =>
    o.kind === 'strip' && o.stack === id ? { ...o, species: first, width: change.accents ?? o.width } : o,
  );
  return { ...board, recipe: inWorkingOrder([...accents, changed]) };
}

/** The stacks that a board asks for, before anything is planned. @param own the shop; where the board differs from it is taken into account here */
export function stacksAsked(board: Board, own: Shop, made: Pick<Made, 'panelLength'> = NOTHING_MADE): Stack[] {
  const panel = panelBoardOf(board, own);
  return stacksOfPanel(panel, allowancesFor(board, own, made), shopFor(panel, own));
}

/** The same board with its stacks as deep as their accents and the spares of those ask, up to a round figure. @param own the shop @param id of the stack; left out for all of them */
export function withStacksFitted(board: Board, own: Shop, id: string | null, system: UnitSystem = 'metric'): Board {
  return stacksAsked(board, own)
    .filter((s) => id === null || s.operation.id === id)
    .reduce(
      (so, { operation, wantedDepth }) =>
        withStackChanged(so, operation.id, {
          depth: Math.ceil(wantedDepth / HAND_STEP[system] - 1e-6) * HAND_STEP[system],
        }),
      board,
    );
}
