import type { Measured } from '#core/facts/fact.ts';

/** What is measured, in words. */
export const MEASURED_WORDS: Readonly<Record<Measured, string>> = {
  thickness: 'thickness',
  width: 'width',
  length: 'length',
  diagonal: 'one diagonal',
  otherDiagonal: 'the other diagonal',
  creep: 'how far strips end out of line',
  snipe: 'how far from its end the planer dug in',
  endTrim: 'what came off one end until it was sound',
  moisture: 'moisture',
  weight: 'weight',
};
