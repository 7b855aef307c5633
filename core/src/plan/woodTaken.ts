import { allowancesFor } from '../board/allowances.ts';
import { panelBoardOf } from '../board/again.ts';
import type { Board } from '../board/board.ts';
import { madeFor } from '../board/madeFor.ts';
import { cutForBoard } from '../saw/cutForBoard.ts';
import { withoutFailed } from '../saw/failedStrips.ts';
import { piecesCut } from '../saw/piecesCut.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { Piece } from '../stock/piece.ts';

/** A mark may be inlaid with any wood that is left. */
const mayTakeAnyWood = ({ worked }: Pick<Board, 'worked'>): boolean =>
  worked.features.some((feature) => feature.kind === 'mark');

/** Species of the pieces that a plan looks at; null for all of them. */
export function speciesLookedAt(board: Pick<Board, 'recipe' | 'worked'>): ReadonlySet<string> | null {
  return mayTakeAnyWood(board) ? null : new Set(board.recipe.flatMap((o) => (o.kind === 'strip' ? [o.species] : [])));
}

/** A piece as a plan looks at it: a note on it decides nothing. */
export function asPlanned({ note: _note, ...piece }: Piece): Omit<Piece, 'note'> {
  return piece;
}

/**
 * What the steps of a board take from the rack, as text. While it stays the same, with the board, the shop, the species and what happened, all that is to be done
 * on the board is the same, whatever else in the rack changed. It costs a fraction of the plan.
 */
export function woodTaken(input: PlanInput): string {
  const given = withoutFailed(input);
  const { board, shop, rack, facts } = given;
  const allowances = allowancesFor(board, shop, madeFor(panelBoardOf(board, shop), facts));
  const { cutting, outdated } = cutForBoard(given, allowances);
  const pieces = mayTakeAnyWood(board) ? rack : [...piecesCut(given, cutting).values()];
  return JSON.stringify([cutting, outdated, pieces.map(asPlanned)]);
}
