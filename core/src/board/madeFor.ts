import type { Fact } from '../facts/fact.ts';
import { madeOf, NOTHING_MADE, type Made } from '../facts/made.ts';
import { panelWidth, type Board } from './board.ts';
import { stripsOf } from './recipe.ts';

/** What is there already of a board: its panel is what the last operation of its recipe gives. @param facts left out: nothing happened */
export function madeFor({ recipe }: Pick<Board, 'recipe'>, facts: readonly Fact[] | undefined): Made {
  if (!facts || facts.length === 0) return NOTHING_MADE;
  return madeOf(
    facts,
    recipe.at(-1)?.id,
    recipe.flatMap((o) => (o.kind === 'strip' ? [o.id] : [])),
  );
}

/** The same of what is no board yet: nobody sands it, so that no pit of it is sanded out or filled. */
export function madeOnTheWay(board: Pick<Board, 'recipe'>, facts: readonly Fact[] | undefined): Made {
  const made = madeFor(board, facts);
  return made === NOTHING_MADE ? made : { ...made, pits: {}, filled: 0 };
}

/** How wide a panel of strips is, mm: as it was measured, or as its strips were; planned where nobody measured. */
export function panelWidthMade(
  board: Pick<Board, 'recipe'>,
  { width, strips }: Pick<Made, 'width' | 'strips'>,
): number {
  if (width.glued !== null) return width.glued;
  const planned = panelWidth(board);
  if (strips.size === 0) return planned;
  const differs = stripsOf(board).reduce((sum, s) => sum + ((strips.get(s.id)?.width ?? s.width) - s.width), 0);
  return Math.max(0, planned + differs);
}
