import { nth } from '../lists/there.ts';
import { withOperation, withTurns } from './looks.ts';
import type { Recipe } from './recipe.ts';
import { recutRecipe, type Recut } from './recut.ts';

/** How one row lies: turned over lengthwise, end for end, and how far it is shifted along, mm. */
export interface RowLie {
  over: boolean;
  endForEnd: boolean;
  shift: number;
}

/** How each row of a board lies; turns of one kind undo each other, and rows that go round and over end the same in either order. */
export function rowLies({ all, rows }: Pick<Recut, 'all' | 'rows'>): RowLie[] {
  return all.slice(0, rows).map(({ turns, shift }) => ({
    over: turns.filter((t) => t === 'over').length % 2 === 1,
    endForEnd: turns.filter((t) => t === 'endForEnd').length % 2 === 1,
    shift,
  }));
}

/** The shortest beginning of a list that, repeated, gives the list. */
export function shortestPattern<T>(list: readonly T[]): T[] {
  for (let n = 1; n < list.length; n += 1)
    if (list.every((one, i) => one === nth(list, i % n))) return list.slice(0, n);
  return [...list];
}

/** The same board with its rows lying so, told by the shortest patterns that repeat. */
export function withRowLies<B extends { readonly recipe: Recipe }>(board: B, lies: readonly RowLie[]): B {
  const last = recutRecipe(board.recipe)?.last;
  if (!last || lies.length === 0) return board;
  const shifts = shortestPattern(lies.map((l) => l.shift));
  const turned = withTurns(board, [
    { turn: 'over', pattern: shortestPattern(lies.map((l) => l.over)) },
    { turn: 'endForEnd', pattern: shortestPattern(lies.map((l) => l.endForEnd)) },
  ]);
  return withOperation(turned, 'glue', last.id, { shifts: shifts.some((s) => s !== 0) ? shifts : [] });
}

/** Rows that change places: slices are alike, so they exchange how they lie. @param order for each of `rows`, which of them comes there */
export function reordered(lies: readonly RowLie[], rows: readonly number[], order: readonly number[]): RowLie[] {
  const moved = new Map(rows.map((row, i) => [row, nth(lies, nth(rows, nth(order, i)))]));
  return lies.map((lie, i) => moved.get(i) ?? lie);
}

/** Patterns that are laid in one step; `strip` is the width of a strip, mm. */
export const ROW_PATTERNS = {
  alike: { name: 'All alike', lie: () => ({ over: false, endForEnd: false, shift: 0 }) },
  secondRound: {
    name: 'Every second end for end',
    lie: (i: number) => ({ over: false, endForEnd: i % 2 === 1, shift: 0 }),
  },
  secondOver: {
    name: 'Every second turned over',
    lie: (i: number) => ({ over: i % 2 === 1, endForEnd: false, shift: 0 }),
  },
  pairs: { name: 'In pairs', lie: (i: number) => ({ over: false, endForEnd: i % 4 > 1, shift: 0 }) },
  halfBrick: {
    name: 'Every second by half a strip',
    lie: (i: number, _: number, strip: number) => ({
      over: false,
      endForEnd: false,
      shift: i % 2 === 1 ? strip / 2 : 0,
    }),
  },
  thirds: {
    name: '1-2-3 by a third of a strip',
    lie: (i: number, _: number, strip: number) => ({ over: false, endForEnd: false, shift: ((i % 3) * strip) / 3 }),
  },
  mirror: {
    name: 'Mirrored about the middle',
    lie: (i: number, rows: number) => ({ over: false, endForEnd: i >= rows / 2, shift: 0 }),
  },
} as const satisfies Record<string, { name: string; lie: (i: number, rows: number, strip: number) => RowLie }>;
export type RowPattern = keyof typeof ROW_PATTERNS;

/** The same board with its rows in a pattern. */
export function inPattern<B extends { readonly recipe: Recipe }>(
  board: B,
  pattern: RowPattern,
  { rows, widths }: Pick<Recut, 'rows' | 'widths'>,
): B {
  const strip = widths.length === 0 ? 0 : widths.reduce((sum, w) => sum + w, 0) / widths.length;
  const { lie } = ROW_PATTERNS[pattern];
  return withRowLies(
    board,
    Array.from({ length: rows }, (_, i) => lie(i, rows, strip)),
  );
}
