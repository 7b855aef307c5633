import type { Habits } from '../shop/shop.ts';
import { flatteningLoss } from '../shop/flattening.ts';
import type { Piece } from '../stock/piece.ts';

/** What a piece gives once its ends are trimmed, one edge is straight and both faces are flat, mm. Never negative. */
export interface UsableSize {
  length: number;
  width: number;
  /** Planed thickness. */
  thickness: number;
}

export function usableSize(piece: Piece, habits: Habits): UsableSize {
  return {
    length: Math.max(0, piece.length - 2 * habits.stockEndTrim),
    width: Math.max(0, piece.width - habits.stockEdgeJoint),
    thickness: Math.max(0, piece.thickness - flatteningLoss(piece.surface, habits).total),
  };
}
