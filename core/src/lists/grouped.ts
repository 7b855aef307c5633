/**
 * The entries of a list by a key, each group in the order of the list, groups in the order of their first entries.
 *
 * @example grouped(strips, (s) => s.species).get('walnut-black')
 */
export function grouped<T, K>(list: Iterable<T>, keyOf: (entry: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const entry of list) {
    const key = keyOf(entry);
    const group = groups.get(key);
    if (group) group.push(entry);
    else groups.set(key, [entry]);
  }
  return groups;
}
