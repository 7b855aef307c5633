import { firstOf } from '../lists/there.ts';
import { NOTHING_WORKED } from '../features/feature.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import type { Shop } from '../shop/shop.ts';
import { panelSaw } from '../shop/tools.ts';
import type { Board } from './board.ts';
import { shopFor } from './differences.ts';
import { aboveBack } from './back.ts';
import { frameOf } from './frame.ts';
import { insetAsMade, insetOf, type Inset } from './inset.ts';
import { firstPanelRecipe, flatRecipe, stripsIn } from './recipe.ts';
import { ofKind, recutAsMade, recutOf, slicesFrom, type Recut } from './recut.ts';

/** What is made of a first panel before it is a board: rows of slices, or parts with strips between them. */
export type Again = Recut | Inset;

/** The board inside the frame and above the back; a board without either is its own. @param own the shop; where the board differs from it is taken into account here */
export function fieldOf(board: Board, own: Shop): Board {
  return frameOf(board, own)?.field ?? aboveBack(board, own);
}

/** How a board, or what its frame goes round, is cut and glued again; null for a flat one. @param own the shop; where the board differs from it is taken into account here */
export function againOf(board: Board, own: Shop): Again | null {
  const field = fieldOf(board, own);
  return recutOf(field, own) ?? insetOf(field, own);
}

/** The rows of a board, or of what its frame goes round; null where there are none. */
export function rowsOf(board: Board, own: Shop): Recut | null {
  return recutOf(fieldOf(board, own), own);
}

/** What is put into a board, or into what its frame goes round; null where nothing is. */
export function partsOf(board: Board, own: Shop): Inset | null {
  return insetOf(fieldOf(board, own), own);
}

/**
 * The same board as large as a panel of a length lets it be: as long, or as wide, as all of its slices make it.
 * @param length of each of its panels, mm
 * @returns null where not one slice comes out of it
 */
export function asLargeAs(board: Board, own: Shop, length: number): Board | null {
  const field = fieldOf(board, own);
  const recut = recutOf(field, own);
  if (!recut) return null;
  const rows = Math.floor((slicesFrom(recut, length) * recut.slice.panels) / board.count) * recut.kinds.length;
  if (rows < 1) return null;
  const side = recut.last.runs === 'across' ? 'length' : 'width';
  // What is round the rows stays as wide as it is.
  const sized = { ...board, [side]: rows * recut.row + board[side] - field[side] };
  return {
    ...sized,
    recipe: sized.recipe.map((o) => (o.kind === 'slice' && o.id === recut.slice.id ? { ...o, count: null } : o)),
  };
}

/** The same of panels that came out otherwise than they were asked. @param thickness of all once flat @param widths of each in turn once its long edges are true, mm */
export function asMade(again: Again, thickness: number, widths: readonly number[]): Again {
  return again.how === 'rows' ? recutAsMade(again, thickness, widths) : insetAsMade(again, thickness, firstOf(widths));
}

/** How many first panels a batch takes: slices of any number of boards come from one, parts from one each. */
const panelsAlike = (again: Again, board: Board): number => (again.how === 'rows' ? again.slices.length : board.count);

const PANEL_BOARDS = new WeakMap<Again, Map<number, Board>>();

/**
 * The first panel of a board that is cut again, as a flat board of its own: as long as its slices or parts need, true on both long edges, and as thick as they want it. Everything
 * up to that panel is planned as for any flat board; strips that are put in later are cut with its own. A flat board is its own, a framed one what is inside its frame.
 * @param kind which of the panels that rows come from in turn, from 0
 */
export function panelBoardOf(given: Board, own: Shop, kind = 0): Board {
  const board = fieldOf(given, own);
  const made = againOf(given, own);
  if (!made) return board;
  const boards = PANEL_BOARDS.get(made) ?? new Map<number, Board>();
  PANEL_BOARDS.set(made, boards);
  const known = boards.get(kind);
  if (known) return known;
  const again = made.how === 'rows' && kind > 0 ? ofKind(made, kind) : made;
  const shop = shopFor(board, own);
  const { kerf } = panelSaw(shop, again.panelWidth);
  const endTrim = Math.max(shop.habits.panelEndTrim, flattenerLimits(shop).snipe);
  const panel: Board = {
    ...board,
    length: again.panelLength - shop.habits.creep - 2 * (endTrim + kerf),
    width: again.trueWidth,
    thickness: again.thickness,
    // Of the others of several in turn only their own strips: they are cut with those of the first.
    recipe:
      kind > 0 ? flatRecipe(stripsIn(again.panel, board), again.panel.id) : firstPanelRecipe(board, again.panel.id),
    count: panelsAlike(again, board),
    perPanel: 1,
    worked: NOTHING_WORKED,
    // It is sanded when it is a board.
    differs: { ...board.differs, habits: { ...board.differs.habits, sanding: 0 } },
  };
  boards.set(kind, panel);
  return panel;
}
