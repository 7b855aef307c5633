/**
 * Taking what must be there: where a type cannot say that a list reaches so far or a map knows a key, the code that relies on it stops here with a sentence
 * instead of reckoning on with nothing.
 */

/** The entry at a place, 0-based. @throws RangeError when the list does not reach so far */
export function nth<T>(list: ArrayLike<T>, index: number): T {
  if (!(index >= 0 && index < list.length))
    throw new RangeError(`There is no entry ${index} in a list of ${list.length}.`);
  return list[index] as T;
}

/** The first entry. @throws RangeError when the list is empty */
export function firstOf<T>(list: ArrayLike<T>): T {
  return nth(list, 0);
}

/** The last entry. @throws RangeError when the list is empty */
export function lastOf<T>(list: ArrayLike<T>): T {
  return nth(list, list.length - 1);
}

/** What a map holds under a key. @throws RangeError when it holds nothing there */
export function entryOf<K, V>(map: Pick<ReadonlyMap<K, V>, 'get'>, key: K): Exclude<V, undefined> {
  const value = map.get(key);
  if (value === undefined) throw new RangeError(`There is no entry ${String(key)}.`);
  return value as Exclude<V, undefined>;
}

/** A value that is there for a reason the types do not know. @param what it is, for the sentence @throws RangeError when it is not there */
export function certain<T>(value: T, what = 'What must be there'): NonNullable<T> {
  if (value === null || value === undefined) throw new RangeError(`${what} is missing.`);
  return value;
}
