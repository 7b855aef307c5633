import { z } from 'zod';

/** What an issue is told about the schema that raised it; the library tells it to whoever words issues. */
type RawIssue = Parameters<NonNullable<z.core.$ZodConfig['localeError']>>[0];

const TYPES: Readonly<Record<string, string>> = {
  number: 'must be a number',
  nan: 'must be a number',
  int: 'must be a whole number',
  string: 'must be text',
  boolean: 'must be true or false',
};

/** Whether a schema takes whole numbers alone: it says so, whatever came instead. */
const isWhole = ({ inst }: RawIssue): boolean =>
  (inst as { _zod?: { def?: { check?: string } } } | undefined)?._zod?.def?.check === 'number_format';

/** The end of a sentence that begins with the field: "must be at most 50". Undefined for what has no words of ours. */
function wordsOf(issue: RawIssue): string | undefined {
  if (issue.code === 'invalid_type') return TYPES[isWhole(issue) ? 'int' : issue.expected];
  if (issue.code === 'too_small') {
    if (issue.origin === 'string')
      return issue.minimum === 1 ? 'must not be empty' : `must be at least ${issue.minimum} characters`;
    return issue.minimum === 0 && issue.inclusive ? 'must not be negative' : `must be at least ${issue.minimum}`;
  }
  if (issue.code === 'too_big')
    return `must be at most ${issue.maximum}${issue.origin === 'string' ? ' characters' : ''}`;
  if (issue.code === 'invalid_value' && issue.values.length > 1) return `must be one of ${issue.values.join(', ')}`;
  return undefined;
}

const { localeError: otherwise } = z.locales.en();

/** One map of words for every schema: only what says more than its kind and its limit has a sentence of its own. */
z.config({ localeError: (issue) => wordsOf(issue) ?? otherwise?.(issue) });
