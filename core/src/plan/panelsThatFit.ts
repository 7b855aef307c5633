import type { Board } from '../board/board.ts';
import { withOperation } from '../board/looks.ts';
import { rowsOf } from '../board/again.ts';
import { stripsOf } from '../board/recipe.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';

/**
 * From how many panels alike the slices of a board come, so that the rack has a piece of every species as long as they ask: as few as can be.
 * @returns 1 for a flat board, and where no number of panels would do
 */
export function panelsThatFit({ rack, shop }: Pick<PlanInput, 'rack' | 'shop'>, board: Board): number {
  const recut = rowsOf(board, shop);
  if (!recut) return 1;
  const species = [...new Set(stripsOf(board).map((s) => s.species))];
  const longest = Math.min(
    ...species.map((code) =>
      Math.max(0, ...rack.filter((p) => p.species === code).map((p) => p.length - 2 * shop.habits.stockEndTrim)),
    ),
  );
  for (let panels = 1; panels <= Math.min(recut.all.length, MOST_PANELS); panels += 1) {
    const asked = rowsOf(withOperation(board, 'slice', recut.slice.id, { panels }), shop);
    if (asked && asked.panelLength <= longest + LENGTH_TOLERANCE_MM) return panels;
  }
  return 1;
}

/** More panels than this nobody glues for one batch. */
const MOST_PANELS = 12;

/** The same board from as many panels as the rack's lengths ask. */
export function fromPanelsThatFit(input: Pick<PlanInput, 'rack' | 'shop'>, board: Board): Board {
  const recut = rowsOf(board, input.shop);
  return recut ? withOperation(board, 'slice', recut.slice.id, { panels: panelsThatFit(input, board) }) : board;
}
