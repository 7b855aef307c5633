import { orderOutcomes, type MillingOrder, type OrderOutcome } from '../cutting/millingOrder.ts';
import type { Piece } from '../stock/piece.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { Plan } from './plan.ts';

/** The orders of milling of one piece, with what each leaves of its thickness. */
export interface OrderChoice {
  piece: Piece;
  taken: MillingOrder;
  outcomes: OrderOutcome[];
}

/** For every piece in use what each order of flattening and cutting costs, for its widest part. */
export function orderChoices(
  { cutting, shop }: Pick<Plan, 'cutting' | 'shop'>,
  { rack }: Pick<PlanInput, 'rack'>,
): OrderChoice[] {
  const pieces = new Map(rack.map((p) => [p.id, p]));
  const choices = new Map<string, OrderChoice & { rip: number }>();
  for (const blank of cutting.blanks) {
    const piece = pieces.get(blank.pieceId);
    if (!piece) continue;
    for (const { way, order } of blank.strips) {
      const known = choices.get(piece.id);
      if (known && known.rip >= way.rip) continue;
      choices.set(piece.id, {
        piece,
        rip: way.rip,
        taken: order,
        outcomes: orderOutcomes(piece, { length: blank.length, width: way.rip }, shop),
      });
    }
  }
  return [...choices.values()];
}
