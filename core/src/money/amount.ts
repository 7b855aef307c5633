import Big from 'big.js';

/** An amount of money, exact. */
export type Amount = Big;

/** Decimals of a currency: 2 for most, 0 for a few. @param currency ISO 4217 code; one that nobody knows has 2 */
export function decimalsOf(currency: string): number {
  try {
    const { maximumFractionDigits } = new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions();
    return maximumFractionDigits ?? 2;
  } catch {
    return 2;
  }
}

/** A figure as an amount, to the smallest coin of its currency, halves away from nothing. */
export function amountOf(value: number | Big, currency: string): Amount {
  return new Big(value).round(decimalsOf(currency), Big.roundHalfUp);
}

/** A price times a quantity, to the smallest coin: multiplied as decimals, rounded once. */
export function times(price: number, quantity: number, currency: string): Amount {
  return new Big(price).times(new Big(quantity)).round(decimalsOf(currency), Big.roundHalfUp);
}

export function sumOf(amounts: readonly Amount[]): Amount {
  return amounts.reduce((sum, a) => sum.plus(a), new Big(0));
}
