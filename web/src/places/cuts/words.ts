import type { CutPlan } from '#core/cutting/cutPlan.ts';

/** An amount of money, in the shop's currency. */
export function money(amount: number, currency: string): string {
  return new Intl.NumberFormat(undefined, { style: 'currency', currency }).format(amount);
}

/** Which of several equal boards: A, B, C …, AA; a number beside the strip's would read as a fraction. */
export function copyLetter(copy: number): string {
  const letter = String.fromCharCode(65 + ((copy - 1) % 26));
  return copy > 26 ? `${copyLetter(Math.ceil(copy / 26) - 1)}${letter}` : letter;
}

/** Whether a strip is pointed at: itself, or all copies of it when the board's strip is. */
export function isLit(lit: string | null, key: string): boolean {
  return lit !== null && (lit === key || key.startsWith(`${lit}/`));
}

/** How good a plan is known to be. A gap of less than a hundredth of a percent is not told. */
export function gapWords({ gap }: Pick<CutPlan, 'gap'>): string {
  if (gap === null) return '';
  if (gap <= 0) return 'Proven: nothing better is possible.';
  return `Nothing better than ${(gap * 100).toPrecision(2)} % is possible.`;
}
