import '../units/issueWords.ts';
import type { z } from 'zod';

/** One bad field: where it is and what is wrong, as a sentence that names it. */
export interface FieldProblem {
  /** Path with indices, e.g. `board.recipe[3].width`; empty for the whole. */
  path: string;
  message: string;
}

/** What people call a field, when its name alone would not tell. */
const FIELD_WORDS: Record<string, string> = {
  mark: 'mark',
  basedOn: 'version it was based on',
  cutDepth: 'cut depth',
  passDepth: 'pass depth',
  leastLength: 'least length',
  assemblyMinutes: 'assembly time',
  clampMinutes: 'clamp time',
  endForEnd: 'end-for-end flag',
};

/** Unknown fields that are called by their names; the rest are counted. */
const MOST_KEYS_NAMED = 5;

/** Turns validation issues into sentences, unknown fields first: they often explain the rest. At most `most` are kept: a list of a thousand helps nobody. */
export function fieldProblems(error: z.ZodError, most = 20): FieldProblem[] {
  const unknown = error.issues.filter((i) => i.code === 'unrecognized_keys');
  const others = error.issues.filter((i) => i.code !== 'unrecognized_keys');
  return [...unknown, ...others].slice(0, most).map((issue) => {
    const path = pathText(issue.path);
    const field = fieldWords(issue.path);
    if (issue.code === 'unrecognized_keys') {
      const named = issue.keys
        .slice(0, MOST_KEYS_NAMED)
        .map((k) => `"${k.slice(0, 40).toWellFormed()}"`)
        .join(', ');
      const more = issue.keys.length - MOST_KEYS_NAMED;
      return { path, message: `${field} holds the unknown field ${named}${more > 0 ? ` and ${more} more` : ''}.` };
    }
    return { path, message: `${field} ${sentenceEnd(issue.message)}.` };
  });
}

function sentenceEnd(message: string): string {
  // Messages of our own schemas start in the middle of a sentence; the library's own stand alone.
  return message.startsWith('must') ? message : `is not valid: ${message.charAt(0).toLowerCase()}${message.slice(1)}`;
}

function pathText(path: readonly PropertyKey[]): string {
  return path.reduce<string>(
    (text, key) => (typeof key === 'number' ? `${text}[${key}]` : `${text}${text ? '.' : ''}${String(key)}`),
    '',
  );
}

/** Fields that only one kind of operation has, by what people call that. */
const OPERATION_OF: Readonly<Record<string, string>> = {
  angle: 'slices',
  pitch: 'slices',
  count: 'slices',
  panels: 'slices',
  turn: 'turn',
  pattern: 'turn',
  stagger: 'glue-up',
  shifts: 'glue-up',
  runs: 'glue-up',
  thickness: 'glue-up',
  species: 'strip',
  width: 'strip',
  endForEnd: 'strip',
  turned: 'strip',
  sideKept: 'strip',
  rolled: 'strip',
  locked: 'strip',
};

/** An operation of a recipe, by what it is where its field tells, and by its number. */
function operationWords(index: number, field: PropertyKey | undefined): string {
  return `${OPERATION_OF[String(field)] ?? 'operation'} ${index + 1}`;
}

function fieldWords(path: readonly PropertyKey[]): string {
  const words: string[] = [];
  for (const [i, key] of path.entries()) {
    if (typeof key === 'number') {
      const list = words.pop() ?? 'entry';
      words.push(list === 'recipe' ? operationWords(key, path[i + 1]) : `${list.replace(/s$/, '')} ${key + 1}`);
    } else {
      words.push(FIELD_WORDS[String(key)] ?? String(key).replace(/([A-Z])/g, (c) => ` ${c.toLowerCase()}`));
    }
  }
  if (words.length === 0) return 'The whole';
  const text = words.join(', ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}
