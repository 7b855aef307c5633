/**
 * Names that are told apart: those that stand more than once get a number, in their order, and never one that makes them another's name.
 * @example numberTwins(['Groove', 'Feet', 'Groove']) // ['Groove 1', 'Feet', 'Groove 2']
 */
export function numberTwins(names: readonly string[]): string[] {
  const taken = new Set(names);
  const last = new Map<string, number>();
  return names.map((name) => {
    if (names.indexOf(name) === names.lastIndexOf(name)) return name;
    let number = (last.get(name) ?? 0) + 1;
    while (taken.has(`${name} ${number}`)) number += 1;
    last.set(name, number);
    return `${name} ${number}`;
  });
}
