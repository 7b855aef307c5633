import { certain } from '../lists/there.ts';
import { firstFaceOnSled, flattenerLimits } from '../shop/flattener.ts';
import type { Shop } from '../shop/shop.ts';
import { SAFE_WIDTH_MM } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Piece } from '../stock/piece.ts';
import { flatteningLoss, formOfPart, type FlatteningLoss } from './flattening.ts';

/** Flatten the whole piece and cut after; crosscut, then flatten; or crosscut and rip, then flatten. */
export const millingOrders = ['crosscutFirst', 'ripFirst', 'fullLength'] as const;
export type MillingOrder = (typeof millingOrders)[number];

/** Strips ripped before they are flat are this much fat together on both edges, mm: what the band saw's kerf leaves of the gap that the other saw would take (common practice: a little). */
const FAT_MM = 1;

export interface OrderOutcome {
  order: MillingOrder;
  loss: FlatteningLoss;
  /** The machine figure that forbids this order, or null when it may be done. */
  forbidden: 'tooShort' | 'tooNarrow' | 'tooWide' | 'noBandSaw' | 'tapers' | null;
}

/**
 * What each order of milling costs a part in thickness, and whether the machines allow it. A rough piece is ripped only on the band saw: no rough
 * edge runs against a saw fence (common practice).
 * @param part rough length and ripped width of the part, mm
 */
export function orderOutcomes(piece: Piece, part: { length: number; width: number }, shop: Shop): OrderOutcome[] {
  const { bandSaw, habits, saw } = shop;
  const limits = flattenerLimits(shop);
  const wholeWidth = Math.max(piece.width, piece.farEnd?.width ?? 0);
  return millingOrders.map((order) => {
    const length = order === 'fullLength' ? piece.length : part.length;
    const width = order === 'ripFirst' ? Math.min(ripFirstWidth(piece, part, shop), wholeWidth) : wholeWidth;
    const forbidden =
      length < limits.leastLength - LENGTH_TOLERANCE_MM
        ? 'tooShort'
        : // A wide blank is sawn apart along its length while it is rough; what counts is the strip.
          (order === 'crosscutFirst' ? Math.min(width, ripFirstWidth(piece, part, shop)) : width) >
            limits.width + LENGTH_TOLERANCE_MM
          ? 'tooWide'
          : // Flat at full length, a tapering plank is as thick as its thin end.
            order === 'fullLength' && piece.farEnd !== null && piece.farEnd.thickness !== piece.thickness
            ? 'tapers'
            : order !== 'ripFirst'
              ? null
              : !bandSaw || bandSaw.kerf > saw.kerf - FAT_MM
                ? 'noBandSaw'
                : width < Math.max(limits.leastWidth, SAFE_WIDTH_MM) - LENGTH_TOLERANCE_MM
                  ? 'tooNarrow'
                  : null;
    return {
      order,
      loss: flatteningLoss(piece, { length, width }, habits, firstFaceOnSled(shop, { length, width })),
      forbidden,
    };
  });
}

/** How wide a strip is that is ripped before it is flat, mm: with what its straight edge will take and what is left on for the second rip. */
export function ripFirstWidth(
  piece: Piece,
  part: { length: number; width: number },
  { habits, saw, bandSaw }: Shop,
): number {
  const crook = piece.form ? formOfPart(piece.form, piece, part).crook : 0;
  return part.width + habits.stockEdgeJoint + crook + Math.max(0, saw.kerf - (bandSaw?.kerf ?? 0));
}

/** Flattening strips one by one, or a whole plank, is more work than this much thickness is worth, mm (common practice: a light pass). */
const WORTH_ANOTHER_ORDER = 1;

/**
 * Crosscut first, unless another order the machines allow leaves clearly more thickness. When none is allowed the first is taken, and a rule says
 * that the machine forbids it.
 */
export function bestOrder(piece: Piece, part: { length: number; width: number }, shop: Shop): OrderOutcome {
  const [first, ...others] = orderOutcomes(piece, part, shop);
  let best = certain(first);
  for (const other of others) {
    if (other.forbidden !== null) continue;
    if (best.forbidden !== null || other.loss.total < best.loss.total - WORTH_ANOTHER_ORDER) best = other;
  }
  return best;
}
