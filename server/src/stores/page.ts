import { createHash } from 'node:crypto';
import { invalid } from '../problem.ts';

/** Part of a list: its rows as JSON texts, where the next part begins, and a tag that is another one as soon as anything in it is. */
export interface Page {
  rows: readonly string[];
  next: string | null;
  tag: string;
}

/** A tag over what a page is made of. */
export function tagOf(parts: readonly (string | number)[]): string {
  return `"${createHash('sha1').update(parts.join('\n')).digest('base64url')}"`;
}

/** Where a page begins, as it stands in an address: what the last row before it sorts by. */
export function cursorOf(values: readonly (string | number)[]): string {
  return Buffer.from(JSON.stringify(values)).toString('base64url');
}

/** @throws Problem 400 for what no answer gave out */
export function readCursor<T extends readonly ('string' | 'number')[]>(
  text: string,
  kinds: T,
): { [K in keyof T]: T[K] extends 'number' ? number : string } {
  try {
    const values = JSON.parse(Buffer.from(text, 'base64url').toString('utf8')) as unknown[];
    if (Array.isArray(values) && values.length === kinds.length && values.every((v, i) => typeof v === kinds[i]))
      return values as { [K in keyof T]: T[K] extends 'number' ? number : string };
  } catch {
    // Said below.
  }
  throw invalid([
    { path: 'after', message: 'After must be what the answer before gave as the address of the next page.' },
  ]);
}
