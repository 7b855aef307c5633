import { expect, it } from 'vitest';
import { clockWords, durationWords } from './duration.ts';

it('minutes read as people say them', () => {
  expect([0, 0.3, 59.6, 95, 120, 1439, 2880, 4000].map(durationWords)).toEqual([
    '0 min',
    'under 1 min',
    '1 h',
    '1 h 35 min',
    '2 h',
    '23 h 59 min',
    '2 days',
    '2.8 days',
  ]);
});

it('a clock counts minutes and seconds, hours from one on, and says when it is past', () => {
  expect([0, 6.5, 59.99, 75.25, -2.5].map(clockWords)).toEqual(['0:00', '6:30', '59:59', '1:15:15', '−2:30']);
});
