import type { Amount } from '#core/money/amount.ts';
import type { CostKind } from '#core/money/cost.ts';
import type { PriceWay } from '#core/money/price.ts';

/** An amount as the reader's language writes it; exact, because it is formatted from its digits. */
export function moneyWords(amount: Amount, currency: string): string {
  try {
    // A string of digits is formatted as it is: a number would be rounded to what a float holds.
    return new Intl.NumberFormat(undefined, { style: 'currency', currency }).format(
      amount.toString() as unknown as number,
    );
  } catch {
    return `${amount.toFixed(2)} ${currency}`;
  }
}

export const COST_WORDS: Readonly<Record<CostKind, string>> = {
  wood: 'Wood',
  glue: 'Glue',
  finish: 'Finish',
  paper: 'Paper',
  parts: 'Bought parts',
  work: 'Work',
  machines: 'Machines',
  fixed: 'Rent and power',
};

export const PRICE_WORDS: Readonly<Record<PriceWay, string>> = {
  markup: 'Costs and what is put on them',
  wage: 'What the work shall be paid',
  area: 'As before, by the area',
};
