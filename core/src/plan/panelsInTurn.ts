import { panelBoardOf, rowsOf } from '../board/again.ts';
import { allowancesFor } from '../board/allowances.ts';
import { madeOnTheWay, panelWidthMade } from '../board/madeFor.ts';
import { stripsOf } from '../board/recipe.ts';
import type { PlanContext } from '../ladders/context.ts';
import { nth } from '../lists/there.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { trimLayout } from '../trim/trimLayout.ts';
import { dirtySideUp, shareOf, stripBodies } from '../bodies/stripBody.ts';

/** The first panels of a board: nothing is numbered before them. */
export const NONE_BEFORE: PlanContext['before'] = { panels: 0, strips: 0 };

/** What is shared of another of the panels that rows come from in turn: its strips are cut with those of the first. @param kind which, from 1 */
export function inTurn(first: PlanContext, given: PlanInput, kind: number): PlanContext {
  const { shop, cutting, pieces } = first;
  const board = panelBoardOf(given.board, given.shop, kind);
  const made = madeOnTheWay(board, given.facts);
  const allowances = {
    ...allowancesFor(given.board, given.shop, made, kind),
    loose: first.allowances.loose,
  };
  const trim = trimLayout(board, allowances, shop, made);
  const share = shareOf(board, allowances, trim);
  const rows = rowsOf(given.board, given.shop);
  const own = rows && nth(rows.kinds, kind);
  return {
    ...first,
    board,
    made,
    allowances,
    trim,
    turnedOver: allowances.panels.map((_, k) =>
      dirtySideUp(stripsOf(board), stripBodies(board, cutting, pieces, share, k + 1)),
    ),
    panelWidth: panelWidthMade(board, made),
    ahead: own?.panel.stagger ? own.offsets : null,
    wished: board,
    before: own?.before ?? NONE_BEFORE,
  };
}
