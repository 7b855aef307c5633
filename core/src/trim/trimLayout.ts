import { widthReached, type Allowances } from '../board/allowances.ts';
import { panelWidth, type Board } from '../board/board.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import type { Shop } from '../shop/shop.ts';

/** A rectangle on the panel: `x` from its left end, `y` from its far edge, mm. */
export interface PanelRect {
  x: number;
  y: number;
  length: number;
  width: number;
}

/** A cut through the panel, in working order. `at` is where the kept wood begins or ends, mm; the blade runs on the waste side of it. */
export interface TrimCut {
  number: number;
  along: 'edge' | 'end';
  at: number;
}

/** The longest panel of a batch with what is cut from it. Lengths in mm. */
export interface TrimLayout {
  length: number;
  width: number;
  boards: PanelRect[];
  cuts: TrimCut[];
  /** At each end: where strips may not all lie, and how far the planer dug in; 0 where nothing did. */
  creep: number;
  snipe: number;
}

/**
 * Where boards come out of the panel: in the middle of its width, and behind creep, end trim and the kerf of the first cut along it.
 * Both long edges first, then one end, then the other cuts with the same long edge to the fence.
 */
export function trimLayout(board: Board, allowances: Pick<Allowances, 'panels' | 'endTrim'>, shop: Shop): TrimLayout {
  const panel = allowances.panels[0]!;
  const width = panelWidth(board);
  const reached = widthReached(board, width, shop);
  const { saw: { kerf }, habits: { creep } } = shop;
  const y = (width - reached) / 2;
  const first = creep / 2 + allowances.endTrim + kerf;
  const boards = Array.from({ length: panel.boards }, (_, i) => ({ x: first + i * (board.length + kerf), y, length: board.length, width: reached }));
  const ends = [first, ...boards.map((b) => b.x + b.length)];
  return {
    length: panel.length, width, boards, creep: creep / 2, snipe: flattenerLimits(shop).snipe,
    cuts: [...[y, y + reached].map((at) => ({ along: 'edge' as const, at })), ...ends.map((at) => ({ along: 'end' as const, at }))].map((cut, i) => ({ number: i + 1, ...cut })),
  };
}
