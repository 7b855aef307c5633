import type { Fact } from '../facts/fact.ts';
import { madeOf, NOTHING_MADE, type Made } from '../facts/made.ts';
import type { Board } from './board.ts';

/** What is there already of a board: its panel is what the last operation of its recipe gives. @param facts left out: nothing happened */
export function madeFor({ recipe }: Pick<Board, 'recipe'>, facts: readonly Fact[] | undefined): Made {
  return facts ? madeOf(facts, recipe.at(-1)?.id) : NOTHING_MADE;
}
