import { firstOf, nth } from '../lists/there.ts';
import { widthReached, type Allowances, endSpare } from '../board/allowances.ts';
import type { Board } from '../board/board.ts';
import { panelWidthMade } from '../board/madeFor.ts';
import type { Made } from '../facts/made.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import type { Shop } from '../shop/shop.ts';
import { panelSaw } from '../shop/tools.ts';
import { longestThatFits, placeBoards, placeMixed, widestThatFits, type ClearPanel } from './placement.ts';

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
  /** Of a cut along one board only: where that board begins and ends along the panel. */
  from?: number;
  to?: number;
}

/** The longest panel of a batch with what is cut from it. Lengths in mm. */
export interface TrimLayout {
  length: number;
  width: number;
  /** Of the saw that squares its ends and cuts boards apart. */
  kerf: number;
  /** Off the far side before the first long edge is trimmed. */
  far: number;
  boards: PanelRect[];
  /** Where the boards of each panel of the batch lie, the longest first; the others hold no bad places. */
  panels: PanelRect[][];
  cuts: TrimCut[];
  /** At each end: where strips may not all lie, and how far the planer dug in; 0 where nothing did. */
  creep: number;
  snipe: number;
  /** Boards that bad places leave no room for, and what would fit instead, all of them: as long at this width, or as wide at this length; 0 where nothing would; `at` is where the longest ones lie. */
  missing: number;
  instead: { length: number; width: number; at: PanelRect[] } | null;
  /** Other boards that fit, and how many of them do not. */
  others: (PanelRect & { name: string })[];
  missingOthers: number;
  /** Lengths of panel that are left over and long enough to keep, in order. */
  offcuts: number[];
}

/** How much of what is too wide comes off the far side, mm: half of it, or where a long edge was marked before the glue-up, nothing off that one. */
function farSide({ worked }: Pick<Board, 'worked'>, { schools }: Pick<Shop, 'schools'>, tooWide: number): number {
  if (schools.engraving !== 'outerStrip') return tooWide / 2;
  const marked = (side: 'far' | 'near') =>
    worked.features.some((f) => f.kind === 'mark' && f.face === side && f.method !== 'inlay');
  return marked('far') ? 0 : marked('near') ? tooWide : tooWide / 2;
}

/** What boards are trimmed from when it is glued of rows: as far as all of them reach. Lengths in mm. */
export interface Block {
  length: number;
  width: number;
  /** Least that goes off each long edge, and off each end. */
  side: number;
  end: number;
}

/**
 * Where boards come out of the panel: in the middle of its width, and behind creep, end trim and the kerf of the first cut along it; where bad places are in the way,
 * as near to that as they can lie; in the middle of a block of rows. Both long edges first, then one end, then the other cuts with the same long edge to the fence.
 */
export function trimLayout(
  board: Board,
  allowances: Pick<Allowances, 'panels' | 'endTrim'>,
  shop: Shop,
  made: Made,
  block?: Block,
): TrimLayout {
  const { boards: count, length: planned } = firstOf(allowances.panels);
  const length = made.panelLength ?? planned;
  const width = block ? (made.width.glued ?? block.width) : panelWidthMade(board, made);
  const wide = block ? Math.max(0, Math.min(board.width, width - 2 * block.side)) : widthReached(board, width, shop);
  const reached = Math.min(width, made.width.trimmed ?? wide);
  const { kerf } = panelSaw(shop, width);
  const {
    habits: { creep, keepLength, panelEdgeTrim },
  } = shop;
  const { spots } = made;
  const middle = block ? (width - reached) / 2 : farSide(board, shop, width - reached);
  const ends = block ? Math.max(0, length - board.length) / 2 : creep / 2 + allowances.endTrim + kerf;
  // Round bad places a block may be cut as near to its ends as that leaves them clean.
  const first = block && spots.length > 0 ? Math.min(block.end, ends) : ends;
  const side = block?.side ?? panelEdgeTrim;
  const clear: ClearPanel = {
    left: first,
    right: length - first,
    far: Math.min(side, middle),
    near: width - Math.min(side, width - reached - middle),
  };
  // Both long edges are trimmed first: nothing that is cut off afterwards is wider.
  const wanted = (block ? [] : board.worked.others).filter((o) => o.width <= reached + 1e-6);
  const { y, xs, others } = placeMixed(
    clear,
    spots,
    { length: board.length, width: reached },
    count,
    wanted,
    kerf,
    middle,
  );
  const missing = count - xs.length;
  const far = xs.length > 0 ? y : middle;
  const boards = xs.map((x) => ({ x, y, length: board.length, width: reached }));
  const placed = others.map(({ index, ...at }) => ({
    ...at,
    length: nth(wanted, index).length,
    width: nth(wanted, index).width,
    name: nth(wanted, index).name,
  }));
  const all: PanelRect[] = [...boards, ...placed].sort((a, b) => a.x - b.x);
  const endOf = (i: number) => (i < 0 ? 0 : nth(all, i).x + nth(all, i).length + kerf);
  // What lies right behind another begins where the kerf of its end cut ends: no cut of its own.
  const cutEnds = all
    .flatMap((b, i) => (i > 0 && Math.abs(b.x - endOf(i - 1)) < 1e-6 ? [b.x + b.length] : [b.x, b.x + b.length]))
    // The outer faces of the outer rows may be the board's ends as they are.
    .filter((at) => !block || (at > 1e-6 && at < length - 1e-6));
  const left = [...all.map((b, i) => b.x - kerf - endOf(i - 1)), length - endOf(all.length - 1)];
  const longest = missing === 0 ? 0 : longestThatFits(clear, spots, reached, count, kerf, middle);
  const lain =
    longest > 0
      ? placeBoards(clear, spots, { length: longest, width: reached }, count, kerf, middle)
      : { y: 0, xs: [] };
  return {
    length,
    width,
    kerf,
    boards,
    far,
    panels: allowances.panels.map((panel, k) =>
      k === 0
        ? boards
        : Array.from({ length: panel.boards }, (_, i) => ({
            x: ends + i * (board.length + kerf),
            y: far,
            length: board.length,
            width: reached,
          })),
    ),
    creep: creep / 2,
    snipe: flattenerLimits(shop).snipe,
    missing,
    instead:
      missing === 0
        ? null
        : {
            length: longest,
            width: widestThatFits(clear, spots, board.length, count, kerf, middle),
            at: lain.xs.map((x) => ({ x, y: lain.y, length: longest, width: reached })),
          },
    others: placed,
    missingOthers: board.worked.others.length - placed.length,
    offcuts: all.length > 0 ? left.filter((l) => l >= keepLength) : [],
    cuts: [
      ...(boards.length > 0
        ? [y, y + reached]
            .filter((at) => !block || (at > 1e-6 && at < width - 1e-6))
            .map((at) => ({ along: 'edge' as const, at }))
        : []),
      ...cutEnds.map((at) => ({ along: 'end' as const, at })),
      // Narrower ones are ripped once they are cut off.
      ...placed.flatMap((o) =>
        [o.y, o.y + o.width]
          .filter((at) => boards.length === 0 || (Math.abs(at - y) > 1e-6 && Math.abs(at - y - reached) > 1e-6))
          .map((at) => ({ along: 'edge' as const, at, from: o.x, to: o.x + o.length })),
      ),
    ].map((cut, i) => ({ number: i + 1, ...cut })),
  };
}

/** Where each board of the longest panel lies along it, from the panel's left end to the board's, mm; a board that finds no room is left out. */
export function boardPlaces({ boards }: Pick<TrimLayout, 'boards'>): number[] {
  return boards.map((b) => b.x).sort((a, b) => a - b);
}

/** Where the first board's share of its strips begins along their blanks, mm: the board with what is trimmed off its ends. */
export function shareStart(
  { length }: Pick<Board, 'length'>,
  { roughLength }: Pick<Allowances, 'roughLength'>,
  trim: Pick<TrimLayout, 'boards'>,
): number {
  const [first] = boardPlaces(trim);
  return first === undefined ? 0 : first - endSpare(length, { roughLength });
}
