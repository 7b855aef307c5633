import { NOTHING_WORKED } from '../features/feature.ts';
import type { Shop } from '../shop/shop.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Board } from './board.ts';
import { cutStripsOf, inWorkingOrder, type BackOperation, type Recipe, type StripOperation } from './recipe.ts';
import { remembered } from './remembered.ts';

/** What the back of a board asks, read backward. Lengths in mm. */
export interface Back {
  operation: BackOperation;
  /** Its strips side by side, with their numbers on the board. */
  strips: { strip: StripOperation; number: number }[];
  /** What it is glued under, as a board of its own. */
  inside: Board;
  /** Off each edge and each end of both together, at the end. */
  side: number;
  /** Thick as flat, and as its strips are milled. */
  thickness: number;
  height: number;
  /** As its strips are crosscut, and what they are together; both reach over what they are glued under. */
  length: number;
  width: number;
  /** What they should be together. */
  wantedWidth: number;
}

/** The operation that backs a board, with its strips; null for other boards. */
export function backOperationOf(recipe: Recipe): { operation: BackOperation; strips: StripOperation[] } | null {
  const operation = recipe.find((o) => o.kind === 'back');
  if (!operation) return null;
  const strips = new Map(recipe.flatMap((o) => (o.kind === 'strip' ? [[o.id, o] as const] : [])));
  return { operation, strips: operation.takes.slice(1).flatMap((id) => strips.get(id) ?? []) };
}

/** What is left of a board above its back is at least so thick: less is veneer, and a stop says so, mm. */
export const LEAST_ABOVE_BACK_MM = 5;

/**
 * What a back asks of what it is glued under: thinner by it, and larger by what is trimmed at the end.
 * Check: under a board of 24 a back of 6 leaves 18 above it.
 * @param own the shop; where the board differs from it is taken into account here
 * @returns null for a board without a back
 */
export function backOf(board: Board, own: Shop): Back | null {
  const made = backOperationOf(board.recipe);
  return made && BACK(board, made, own);
}

const BACK = remembered(readBack);

function readBack(
  board: Board,
  { operation, strips }: NonNullable<ReturnType<typeof backOperationOf>>,
  { habits }: Shop,
): Back {
  const side = habits.panelEdgeTrim;
  const inside = {
    length: board.length + 2 * side,
    width: board.width + 2 * side,
    thickness: Math.max(LEAST_ABOVE_BACK_MM, board.thickness - operation.thickness),
  };
  const along = operation.runs === 'along';
  const numbers = new Map(cutStripsOf(board).map((s, i) => [s.id, i + 1]));
  const own = new Set(strips.map((s) => s.id));
  const kept = board.recipe.filter((o) => o !== operation);
  return {
    operation,
    strips: strips.map((strip) => ({ strip, number: numbers.get(strip.id) ?? 0 })),
    inside: {
      ...board,
      ...inside,
      // Its strips are numbered last, there as here.
      recipe: inWorkingOrder([...kept.filter((o) => !own.has(o.id)), ...strips]),
      // What is worked into the board is worked into the whole of it.
      worked: NOTHING_WORKED,
    },
    side,
    thickness: operation.thickness,
    height: operation.thickness + habits.panelFlatten,
    length: (along ? inside.length : inside.width) + 2 * habits.creep,
    width: strips.reduce((sum, s) => sum + s.width, 0),
    wantedWidth: (along ? inside.width : inside.length) + 2 * habits.creep,
  };
}

/** How much wider a back should be than its strips are together, mm; 0 where they are enough. */
export const missingOf = ({ width, wantedWidth }: Back): number =>
  wantedWidth - width > LENGTH_TOLERANCE_MM ? wantedWidth - width : 0;

/** The board above its back; a board without one is its own. */
export function aboveBack(board: Board, own: Shop): Board {
  return backOf(board, own)?.inside ?? board;
}
