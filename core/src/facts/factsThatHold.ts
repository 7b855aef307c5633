import type { Fact } from './fact.ts';

/** A panel with more bad places than this is firewood. */
export const MOST_SPOTS = 40;

/** Two facts in the order they happened in; those of one moment by id, so that every device tells the same order. */
function inTime(a: Fact, b: Fact): number {
  return a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0;
}

/** A fact that says something, and does not take another back. */
export type HeldFact = Exclude<Fact, { kind: 'takenBack' }>;

/** The facts that hold, oldest first: those that no other one takes back, without what takes back. The same for every order of arrival. */
export function factsThatHold(facts: readonly Fact[]): HeldFact[] {
  const taken = new Set(facts.flatMap((f) => (f.kind === 'takenBack' ? [f.fact] : [])));
  return facts.filter((f): f is HeldFact => f.kind !== 'takenBack' && !taken.has(f.id)).sort(inTime);
}

/** What a fact is about; null for one that names no thing. */
export const thingOf = (fact: HeldFact): { thing: string; copy: number } | null => ('thing' in fact ? fact : null);
