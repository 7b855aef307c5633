import type { Amount } from '#core/money/amount.ts';

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
