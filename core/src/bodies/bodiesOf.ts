import { allowancesFor } from '../board/allowances.ts';
import { panelBoardOf } from '../board/again.ts';
import { shopFor } from '../board/differences.ts';
import { madeFor } from '../board/madeFor.ts';
import { trimLayout } from '../trim/trimLayout.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { piecesCut } from '../saw/piecesCut.ts';
import { cutForBoard } from '../saw/cutForBoard.ts';
import { shareOf, stripBodies, type StripBody } from './stripBody.ts';

/** Where the strips of a board lie in their pieces, without the rest of its plan: for small pictures of many boards. */
export function bodiesOf(input: PlanInput): StripBody[] {
  const board = panelBoardOf(input.board, input.shop);
  const made = madeFor(board, input.facts);
  const allowances = allowancesFor(input.board, input.shop, made);
  const { cutting } = cutForBoard(input, allowances);
  const pieces = piecesCut(input, cutting);
  const trim = trimLayout(board, allowances, shopFor(board, input.shop), made);
  return stripBodies(board, cutting, pieces, shareOf(board, allowances, trim));
}
