import type { Finish } from '#core/shop/finishes.ts';

type NumberKey = {
  [K in keyof Finish]: Finish[K] extends number ? K : never;
}[keyof Finish];

/** The figures of a finish: where they stand, what they are called, and their unit. */
export const FINISH_FIGURES: readonly [NumberKey, string, string][] = [
  ['coats', 'Coats', ''],
  ['face', 'A face takes', ' g/m²'],
  ['edge', 'An edge takes', ' g/m²'],
  ['end', 'End grain takes', ' g/m²'],
  ['soakMinutes', 'Soaked or kept wet', ' min'],
  ['dryHours', 'Dry after', ' h'],
  ['cureDays', 'Hardens for', ' days'],
  ['density', 'A litre weighs', ' kg'],
  ['renewWeeks', 'Renewed every', ' weeks'],
];
