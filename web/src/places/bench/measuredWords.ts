import type { Measured } from '#core/facts/fact.ts';

/** What is measured, in words. */
export const MEASURED_WORDS: Readonly<Record<Measured, string>> = {
  thickness: 'thickness',
  width: 'width',
  length: 'length',
  diagonal: 'one diagonal',
  otherDiagonal: 'the other diagonal',
  moisture: 'moisture',
  weight: 'weight',
};
