import { describe, expect, it } from 'vitest';
import { listNumbers } from '../steps/numberList.ts';
import type { LengthDisplay } from './formatLength.ts';
import { atLeast, atMost, length, phraseText, say } from './phrase.ts';

const METRIC: LengthDisplay = { system: 'metric', denominator: 32, metricStep: 0.1 };
const INCH: LengthDisplay = { ...METRIC, system: 'inch' };

describe('phrases', () => {
  it('keep lengths as lengths until somebody reads them', () => {
    const phrase = say`Trim ${length(9.525)} off ${'R4'}, ${3} times; ${say`then ${length(25.4)}`}`;
    expect(phrase.filter((part) => typeof part !== 'string')).toEqual([{ mm: 9.525 }, { mm: 25.4 }]);
    expect(phraseText(phrase, METRIC)).toBe('Trim 9.5 mm off R4, 3 times; then 25.4 mm');
    expect(phraseText(phrase, INCH)).toBe('Trim 3/8" off R4, 3 times; then 1"');
  });

  it('round a setting to its safe side', () => {
    expect(phraseText(say`Fence ${atLeast(30.01)}`, METRIC)).toBe('Fence 30.1 mm');
    expect(phraseText(say`At most ${atMost(30.09)}`, METRIC)).toBe('At most 30 mm');
    expect(phraseText(say`Fence ${atLeast(25.5)}`, INCH)).toBe('Fence 1 1/32" −');
  });
});

it('strip numbers are listed as people write them', () => {
  expect(listNumbers([3, 1, 2, 7])).toBe('1–3, 7');
  expect(listNumbers([2, 1])).toBe('1, 2');
  expect(listNumbers([5, 5, 9, 8, 7, 6])).toBe('5–9');
  expect(listNumbers([])).toBe('');
});
