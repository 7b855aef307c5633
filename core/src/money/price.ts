import Big from 'big.js';
import { amountOf, type Amount } from './amount.ts';
import type { Cost } from './cost.ts';

export const PRICE_WAYS = ['markup', 'wage', 'area'] as const;
export type PriceWay = (typeof PRICE_WAYS)[number];

/** What one board would be asked, one way. */
export interface Price {
  way: PriceWay;
  /** For one board, without tax; null where the way has nothing to go by. */
  each: Amount | null;
  /** What an hour of work is paid with it; null without a price, or without work. */
  hour: Amount | null;
  /** Why there is none, or what it rests on. */
  why: string;
}

/** A board that was made before, with what was asked for it. */
export interface EarlierPrice {
  name: string;
  /** mm. */
  length: number;
  width: number;
  price: number;
}

/** What an hour is paid when so much is asked for one board: the price less all other costs, over the hours. */
export function hourOf({ withoutWork, hours, count, currency }: Cost, each: Amount): Amount | null {
  return hours <= 0 ? null : amountOf(each.times(count).minus(withoutWork).div(hours), currency);
}

/**
 * Three prices for one board: all costs with the shop's markup, what pays the wage it wants, and what it asked for the same area before.
 * @param size of one board, mm @param earlier boards that a price is known of
 */
export function pricesOf(
  cost: Cost,
  { length, width }: { length: number; width: number },
  earlier: readonly EarlierPrice[],
  { markup, wage }: { markup: number; wage: number | null },
): Price[] {
  const { currency, count, total, withoutWork, hours } = cost;
  const priced = (way: PriceWay, each: Amount | null, why: string): Price => ({
    way,
    each,
    hour: each && hourOf(cost, each),
    why,
  });
  const area = earlier.reduce((sum, e) => sum + e.length * e.width, 0);
  const asked = earlier.reduce((sum, e) => sum.plus(e.price), new Big(0));
  return [
    priced(
      'markup',
      amountOf(total.times(new Big(1).plus(markup)).div(count), currency),
      `All costs and ${Math.round(markup * 100)} % on them.`,
    ),
    priced(
      'wage',
      wage === null ? null : amountOf(withoutWork.plus(new Big(wage).times(hours)).div(count), currency),
      wage === null
        ? 'Say in the shop what an hour of work shall be paid.'
        : `Costs without work, and ${hours} h at ${wage} ${currency}.`,
    ),
    priced(
      'area',
      area > 0 ? amountOf(asked.times(new Big(length).times(width)).div(area), currency) : null,
      area > 0
        ? `As ${earlier.length === 1 ? 'one board' : `${earlier.length} boards`} of the log by their area.`
        : 'No board of the log has a price yet.',
    ),
  ];
}

/** A price with its tax, to the coin. */
export function withTax(net: Amount, tax: number, currency: string): { net: Amount; tax: Amount; gross: Amount } {
  const added = amountOf(net.times(tax), currency);
  return { net, tax: added, gross: net.plus(added) };
}
