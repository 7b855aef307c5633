import type { Prices } from '#core/shop/prices.ts';
import type { ToolId } from '#core/shop/tools.ts';

type OptionalKey = { [K in keyof Prices]: null extends Prices[K] ? K : never }[keyof Prices];

/** Prices that nobody need know: where they stand, what they are called, and of what they are; empty suffix for counts. */
export const PRICE_FIGURES: readonly [OptionalKey, string, 'money' | 'count'][] = [
  ['wage', 'An hour of work is paid', 'money'],
  ['paperSheet', 'A sheet of paper costs', 'money'],
  ['paperShelf', 'Sheets in the drawer', 'count'],
  ['foot', 'A foot costs', 'money'],
  ['footShelf', 'Feet on the shelf', 'count'],
  ['fitting', 'A handle or loop costs', 'money'],
  ['fittingShelf', 'Handles and loops on the shelf', 'count'],
  ['fixedMonth', 'Rent and power, a month', 'money'],
];

/** Tools that have an hour, or that one could buy. */
export const RATED: readonly ToolId[] = [
  'tableSaw',
  'bandSaw',
  'mitreSaw',
  'trackSaw',
  'jointer',
  'planer',
  'drumSander',
  'routerSled',
  'router',
  'orbitalSander',
  'beltSander',
  'engraver',
];
