import type { Fact } from './fact.ts';
import { factsThatHold } from './factsThatHold.ts';

/**
 * Which of some steps are done: each as often as it has to be.
 * @param repeats how often each is done, by its lasting id
 */
export function doneSteps(facts: readonly Fact[], repeats: ReadonlyMap<string, number>): ReadonlySet<string> {
  if (!facts.some((f) => f.kind === 'done')) return new Set();
  const copies = new Map<string, Set<number>>();
  for (const fact of factsThatHold(facts)) {
    if (fact.kind !== 'done' || fact.copy > (repeats.get(fact.step) ?? 0)) continue;
    const own = copies.get(fact.step) ?? new Set<number>();
    copies.set(fact.step, own.add(fact.copy));
  }
  return new Set([...copies].filter(([id, own]) => own.size >= (repeats.get(id) ?? Infinity)).map(([id]) => id));
}
