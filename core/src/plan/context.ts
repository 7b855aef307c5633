import type { Allowances } from '../board/allowances.ts';
import type { Board } from '../board/board.ts';
import type { CutPlan } from '../cutting/cutPlan.ts';
import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import type { Species } from '../wood/species.ts';

/** Everything a plan is made from. */
export interface PlanInput {
  board: Board;
  rack: readonly Piece[];
  shop: Shop;
  species: readonly Species[];
}

/** What the parts of a plan share while it is made. */
export interface PlanContext extends PlanInput {
  allowances: Allowances;
  cutting: CutPlan;
  pieces: ReadonlyMap<string, Piece>;
  panelWidth: number;
}
