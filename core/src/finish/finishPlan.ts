import type { Board } from '../board/board.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import type { Made } from '../facts/made.ts';
import { sandedOff } from '../ladders/gluedThickness.ts';
import type { Finish } from '../shop/finishes.ts';
import type { Shop } from '../shop/shop.ts';
import type { ToolId } from '../shop/tools.ts';
import { finishesOf, missingFinishes } from './coats.ts';
import { facesTake, sidesToSand, type SidePlan } from './sanding.ts';
import { amountOf, type Amount, type Surface } from './surfaces.ts';

/** A finish that goes on a board, with how much of it one board takes. */
export interface Coating {
  finish: Finish;
  amount: Amount;
}

/** From the trimmed board to the one in somebody's kitchen. */
export interface FinishPlan {
  surfaces: readonly Surface[];
  sides: SidePlan[];
  /** What sanding both faces takes, all papers together, and what the plan has for it, mm. */
  takes: number;
  planned: number;
  /** What the habit would have to be for sanding to have room; null where it has. */
  habit: number | null;
  /** Finishes that are asked for and not on the shop's shelf, in words. */
  missing: string[];
  coatings: Coating[];
}

/** Less than this is no difference, mm. */
const SAME_MM = 0.1;

/** Half of the habit is off each face; a face with a pit has what its papers take anyway. */
function habitFor(sides: readonly SidePlan[], habit: number): number | null {
  const faces = sides.filter((s) => (s.side === 'top' || s.side === 'bottom') && s.pit === null);
  const wanted = 2 * Math.max(0, ...faces.map((s) => s.run.takes));
  return wanted > habit + SAME_MM ? Math.ceil(wanted * 10 - 1e-6) / 10 : null;
}

/** @param shop as the board is made in it @param flattened with what its faces were made flat */
export function finishPlanOf(
  { board, shop, made }: { board: Pick<Board, 'finish'>; shop: Shop; made: Pick<Made, 'pits'> },
  worked: Pick<WorkedBoard, 'edges' | 'features'>,
  surfaces: readonly Surface[],
  flattened: ToolId,
): FinishPlan {
  const shapes = Object.values(worked.edges).flatMap(({ top, bottom }) => [top.kind, bottom.kind]);
  const sides = sidesToSand(shop, flattened, made.pits, {
    groove: worked.features.some((f) => f.kind === 'groove'),
    edges: shapes.every((k) => k === 'straight') ? null : shapes.includes('underBevel') ? 'saw' : 'router',
  });
  const coatings = finishesOf(board, shop).map((finish) => ({ finish, amount: amountOf(finish, surfaces) }));
  const [takes, planned] = [facesTake(sides), sandedOff({ shop, made })];
  return {
    surfaces,
    sides,
    takes,
    planned,
    habit: habitFor(sides, shop.habits.sanding),
    missing: missingFinishes(board, shop),
    coatings,
  };
}
