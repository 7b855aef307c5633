/**
 * Names that are told apart: those that stand more than once get a number, in their order.
 * @example numberTwins(['Groove', 'Feet', 'Groove']) // ['Groove 1', 'Feet', 'Groove 2']
 */
export function numberTwins(names: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((name) => {
    if (names.indexOf(name) === names.lastIndexOf(name)) return name;
    const count = (seen.get(name) ?? 0) + 1;
    seen.set(name, count);
    return `${name} ${count}`;
  });
}
