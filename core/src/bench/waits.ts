import type { Fact } from '../facts/fact.ts';
import { factsThatHold } from '../facts/factsThatHold.ts';

/** Something that takes its time: since when, and until when, milliseconds since 1970. */
export interface Wait {
  /** The fact that began it. */
  fact: string;
  step: string;
  copy: number;
  for: string;
  from: number;
  until: number;
}

/** The waits that steps began when they were done, without those after which work went on, the one that is over first before the others. @param since those that were over before it are left out */
export function waitsOf(facts: readonly Fact[], since: number): Wait[] {
  const held = factsThatHold(facts);
  const ended = new Set(
    held.flatMap((f) => (f.kind === 'done' ? (f.ends ?? []).map((e) => `${e.copy} ${e.step}`) : [])),
  );
  return held
    .flatMap((fact): Wait[] => {
      if (fact.kind !== 'done' || !fact.wait) return [];
      if (ended.has(`null ${fact.step}`) || ended.has(`${fact.copy} ${fact.step}`)) return [];
      const from = Date.parse(fact.at);
      const until = from + fact.wait.minutes * 60_000;
      return until < since
        ? []
        : [{ fact: fact.id, step: fact.step, copy: fact.copy, for: fact.wait.for, from, until }];
    })
    .sort((a, b) => a.until - b.until || (a.fact < b.fact ? -1 : 1));
}
