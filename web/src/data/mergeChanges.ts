type Fields = Record<string, unknown>;

function isFields(value: unknown): value is Fields {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Whether two values of records are the same, whatever the order of their fields. */
export function same(a: unknown, b: unknown): boolean {
  if (isFields(a) && isFields(b)) return Object.keys({ ...a, ...b }).every((key) => same(a[key], b[key]));
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((entry, i) => same(entry, b[i]));
  return Object.is(a, b);
}

/**
 * Puts what was changed here on top of what was changed elsewhere: fields that differ from where both began are mine, all others theirs. A list is one
 * field.
 * @param base what both began with
 */
export function mergeChanges<T>(base: T, mine: T, theirs: T): T {
  if (same(base, mine)) return theirs;
  if (!isFields(base) || !isFields(mine) || !isFields(theirs)) return mine;
  const keys = Object.keys({ ...theirs, ...mine });
  return Object.fromEntries(
    keys
      .filter((key) => key in mine || !(key in base))
      .map((key) => [key, key in mine ? mergeChanges(base[key], mine[key], theirs[key]) : theirs[key]]),
  ) as T;
}
