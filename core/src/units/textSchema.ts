import './issueWords.ts';
import { z } from 'zod';

/** One line of plain text with limits, trimmed; markup is text like any other and is never interpreted. */
export function lineOfText(least: number, greatest: number) {
  return (
    z
      .string()
      .trim()
      .min(least, { error: 'must not be empty' })
      .max(greatest)
      // Half of a surrogate pair is no character: no file, page or database can hold it.
      .regex(/^[^\u0000-\u001f\u007f\p{Cs}]*$/u, { error: 'must not hold control characters or halves of characters' })
  );
}

/** Some lines of plain text with a limit, trimmed. */
export function textOfLines(greatest: number) {
  return z
    .string()
    .trim()
    .max(greatest)
    .regex(/^[^\u0000-\u0009\u000b-\u001f\u007f\p{Cs}]*$/u, {
      error: 'must not hold control characters or halves of characters',
    });
}

/** What a record, a mark on a drawing or a glue is known by. Compared letter for letter. */
export const idSchema = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, { error: 'must be 1 to 40 letters, digits, _ or -' });

/** The code of a species as a record names it. */
export const speciesCodeSchema = z
  .string({ error: 'must be chosen' })
  .regex(/^[a-z][a-z0-9-]{1,39}$/, { error: 'must be 2 to 40 small letters, digits or hyphens' });
