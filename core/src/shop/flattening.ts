import type { Habits } from './shop.ts';

/** What is lost between a piece as it lies in the rack and a flat blank of even thickness. */
export interface FlatteningLoss {
  /** Bow, cup and twist, mm. */
  form: number;
  /** Both faces skimmed clean, mm. */
  skim: number;
  total: number;
}

/**
 * Thickness lost to make stock flat and parallel, by the shop's habit for its surface.
 * Check: 4/4 rough planes to about 7/8 in (common practice), which is the default habit's 3.2 mm.
 */
export function flatteningLoss(surface: 'rough' | 'surfaced', habits: Habits): FlatteningLoss {
  const form = surface === 'rough' ? habits.flattenRough : habits.flattenSurfaced;
  const skim = 2 * (surface === 'rough' ? habits.skimRough : habits.skimSurfaced);
  return { form, skim, total: form + skim };
}
