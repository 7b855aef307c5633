import { nth } from '../lists/there.ts';
import { say, type Phrase } from '../units/phrase.ts';

/**
 * Strip numbers as people write them: runs joined, sorted.
 * @example listNumbers([3, 1, 2, 7]) // '1–3, 7'
 */
export function listNumbers(numbers: readonly number[]): string {
  const sorted = [...new Set(numbers)].sort((a, b) => a - b);
  const runs: string[] = [];
  for (let i = 0; i < sorted.length;) {
    let end = i;
    while (sorted[end + 1] === nth(sorted, end) + 1) end += 1;
    runs.push(end - i >= 2 ? `${sorted[i]}–${sorted[end]}` : sorted.slice(i, end + 1).join(', '));
    i = end + 1;
  }
  return runs.join(', ');
}

/** Strips by their numbers, in words. */
export function stripList(numbers: readonly number[]): Phrase {
  const unique = [...new Set(numbers)];
  return say`${unique.length === 1 ? 'strip' : 'strips'} ${listNumbers(unique)}`;
}
