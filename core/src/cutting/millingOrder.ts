import { flattenerLimits } from '../shop/flattener.ts';
import type { Shop } from '../shop/shop.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Piece } from '../stock/piece.ts';
import { flatteningLoss, type FlatteningLoss } from './flattening.ts';

/** Flatten the whole piece and cut after; crosscut, then flatten; or crosscut and rip, then flatten. */
export const millingOrders = ['crosscutFirst', 'ripFirst', 'fullLength'] as const;
export type MillingOrder = (typeof millingOrders)[number];

export interface OrderOutcome {
  order: MillingOrder;
  loss: FlatteningLoss;
  /** The machine figure that forbids this order, or null when it may be done. */
  forbidden: 'tooShort' | 'tooNarrow' | 'tooWide' | 'noBandSaw' | null;
}

/**
 * What each order of milling costs a part in thickness, and whether the machines allow it. A rough piece is ripped only on the band saw: no rough
 * edge runs against a saw fence (common practice).
 * @param part rough length and ripped width of the part, mm
 */
export function orderOutcomes(piece: Piece, part: { length: number; width: number }, shop: Shop): OrderOutcome[] {
  const { bandSaw, habits } = shop;
  const limits = flattenerLimits(shop);
  const wholeWidth = Math.max(piece.width, piece.farEnd?.width ?? 0);
  return millingOrders.map((order) => {
    const length = order === 'fullLength' ? piece.length : part.length;
    const width = order === 'ripFirst' ? Math.min(part.width, wholeWidth) : wholeWidth;
    const forbidden = length < limits.leastLength - LENGTH_TOLERANCE_MM ? 'tooShort'
      : width > limits.width + LENGTH_TOLERANCE_MM ? 'tooWide'
        : order !== 'ripFirst' ? null : !bandSaw ? 'noBandSaw' : width < limits.leastWidth - LENGTH_TOLERANCE_MM ? 'tooNarrow' : null;
    return { order, loss: flatteningLoss(piece, { length, width }, habits), forbidden };
  });
}

/** Flattening strips one by one, or a whole plank, is more work than this much thickness is worth, mm (common practice: a light pass). */
const WORTH_ANOTHER_ORDER = 1;

/**
 * Crosscut first, unless another order the machines allow leaves clearly more thickness. When none is allowed the first is taken, and a rule says
 * that the machine forbids it.
 */
export function bestOrder(piece: Piece, part: { length: number; width: number }, shop: Shop): OrderOutcome {
  const [first, ...others] = orderOutcomes(piece, part, shop);
  let best = first!;
  for (const other of others) {
    if (other.forbidden !== null) continue;
    if (best.forbidden !== null || other.loss.total < best.loss.total - WORTH_ANOTHER_ORDER) best = other;
  }
  return best;
}
