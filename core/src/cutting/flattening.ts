import type { Habits } from '../shop/shop.ts';
import type { Form, Piece } from '../stock/piece.ts';

/** What is lost between a piece as it lies in the rack and a flat blank of even thickness. */
export interface FlatteningLoss {
  /** Bow, cup and twist, mm. */
  form: number;
  /** Both faces skimmed clean, mm. */
  skim: number;
  total: number;
}

/** Twist is shared between two corners by shims, so only half of the lift costs thickness. */
const TWIST_SHARE = 0.5;

/** A planer without a jointer flattens the first face on a shimmed sled; shims never sit perfectly, mm (common practice). */
export const SHIMMED_SLED_MM = 0.4;

type Whole = Pick<Piece, 'length' | 'width' | 'farEnd'>;

/**
 * Form of a part cut out of a piece before anything is flattened: bow and crook fall with the square of the length, cup with the square of
 * the width, twist with both (geometry of shallow arcs: a sagitta goes with the square of its chord).
 * @param part length and width of the part, mm
 */
export function formOfPart(form: Form, whole: Whole, part: { length: number; width: number }): Form {
  const along = part.length / whole.length;
  const across = Math.min(1, part.width / Math.max(whole.width, whole.farEnd?.width ?? 0));
  return {
    bow: form.bow * along ** 2,
    cup: form.cup * across ** 2,
    crook: form.crook * along ** 2,
    twist: form.twist * along * across,
  };
}

/** Thickness that a form costs, mm. */
export function thicknessLost(form: Form): number {
  return form.bow + form.cup + form.twist * TWIST_SHARE;
}

/**
 * Thickness lost to make a part flat and parallel: measured form at the part's own size, or the shop's habit until it is measured.
 * @param onSled the first face is planed on a shimmed sled: shims give
 * Check: 4/4 rough planes to about 7/8 in (common practice), which is the default habit's 3.2 mm.
 */
export function flatteningLoss(
  piece: Piece,
  part: { length: number; width: number },
  habits: Habits,
  onSled = false,
): FlatteningLoss {
  // What its owner calls ready is used as it is.
  if (piece.surface === 'ready') return { form: 0, skim: 0, total: 0 };
  const out = piece.form
    ? thicknessLost(formOfPart(piece.form, piece, part))
    : piece.surface === 'rough'
      ? habits.flattenRough
      : habits.flattenSurfaced;
  // What does not rock needs no shims.
  const form = out + (onSled && out > 0 ? SHIMMED_SLED_MM : 0);
  const roughFaces = piece.surface === 'rough' ? 2 : piece.surface === 'oneFace' ? 1 : 0;
  const skim = roughFaces * habits.skimRough + (2 - roughFaces) * habits.skimSurfaced;
  return { form, skim, total: form + skim };
}
