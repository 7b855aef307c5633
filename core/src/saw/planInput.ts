import type { Board } from '../board/board.ts';
import type { Blank, CutPlan, PromisedRange } from '../cutting/cutPlan.ts';
import type { Fact } from '../facts/fact.ts';
import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import type { Species } from '../wood/species.ts';

/** A blank that is cut already, with the piece it came from as it was then. Strips that failed are not in it. */
export interface DoneBlank {
  piece: Piece;
  blank: Blank;
}

/** What has been decided and done about the wood of a board. */
export interface SawState {
  /** The board's key in demands and blanks. */
  key: string;
  /** Wood promised to other boards. */
  promised: readonly PromisedRange[];
  /** Plan that was improved or kept; it holds while every strip and piece in it is still as it was. */
  chosen: CutPlan | null;
  done: readonly DoneBlank[];
}

export const NOTHING_SAWN: SawState = { key: '', promised: [], chosen: null, done: [] };

/** Everything a plan is made from. */
export interface PlanInput {
  board: Board;
  rack: readonly Piece[];
  shop: Shop;
  species: readonly Species[];
  /** Left out: nothing is promised, decided or cut. */
  saw?: SawState;
  /** What happened at the bench. Left out: nothing did. */
  facts?: readonly Fact[];
}
