import type { Shop } from '../shop/shop.ts';
import type { Board } from './board.ts';

/**
 * Sizes to mill to, worked backward from the finished board by the shop's habits. Everything downstream (offers, cutting, ladders,
 * steps) takes its sizes from here.
 */
export interface Allowances {
  /** Strip length at rough crosscut: finished + creep + both end trims with their kerfs. */
  roughLength: number;
  /** Off each end of the panel before its kerf: the larger of habit and snipe. */
  endTrim: number;
  /** Thickness of strips when they are glued: finished + sanding + panel flattening. */
  glueThickness: number;
  /** Panel width that gives the finished width and both edge trims. */
  wantedPanelWidth: number;
  /** What the rip of a strip adds to its width for jointing both edges: 0 for edge grain, whose glue faces are planed. */
  ripExtra: number;
}

/** Width that is left of a panel once both long edges are trimmed, mm: what is wanted, or what there is. */
export function widthReached(board: Pick<Board, 'width'>, panel: number, shop: Shop): number {
  return Math.min(board.width, Math.max(0, panel - 2 * shop.habits.panelEdgeTrim));
}

export function allowancesFor(board: Board, shop: Shop): Allowances {
  const { habits, planer, saw } = shop;
  const endTrim = Math.max(habits.panelEndTrim, planer.snipe);
  return {
    roughLength: board.length + habits.creep + 2 * (endTrim + saw.kerf),
    endTrim,
    glueThickness: board.thickness + habits.sanding + habits.panelFlatten,
    wantedPanelWidth: board.width + 2 * habits.panelEdgeTrim,
    ripExtra: board.construction === 'face' ? 2 * habits.glueEdgeJoint : 0,
  };
}
