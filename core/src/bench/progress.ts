import type { Fact } from '../facts/fact.ts';
import { factsThatHold } from '../facts/factsThatHold.ts';
import type { Operation } from '../steps/operation.ts';

/** That a step was done, once: which facts say so, more than one where several devices did, when, and how long it took where a clock ran. */
export interface DoneOnce {
  facts: readonly string[];
  at: string;
  minutes: number | null;
}

/** How it stands with one step: of one that is done panel by panel, with each of them. */
export interface StepProgress {
  step: Operation;
  /** One for each time it is done; null where it is not done yet. */
  times: readonly (DoneOnce | null)[];
  state: 'done' | 'free' | 'held';
  /** What is not done yet and must be, before this one. */
  held: readonly Operation[];
  /** When the last wait is over that it has to wait for, milliseconds since 1970; null where it waits for none. */
  waitsUntil: number | null;
}

/** How it stands with a board: every step in order, and the one that is due. */
export interface Progress {
  steps: readonly StepProgress[];
  /** The first step that nothing holds, waits left aside; null once all are done. */
  due: StepProgress | null;
  /** Facts of steps that are no longer planned: they are kept, and decide nothing. */
  strays: number;
}

/**
 * How it stands with the steps of a plan. What was done counts by the lasting id of its step, in whatever order it arrived; a copy that was done twice, as by two
 * devices, was done when the first of them says so.
 */
export function progressOf(operations: readonly Operation[], facts: readonly Fact[]): Progress {
  const known = new Map(operations.map((o) => [o.id, o]));
  const done = new Map<string, Map<number, DoneOnce>>();
  let strays = 0;
  for (const fact of factsThatHold(facts)) {
    if (fact.kind !== 'done') continue;
    const step = known.get(fact.step);
    if (!step || fact.copy > step.repeats) {
      strays += 1;
      continue;
    }
    const copies = done.get(fact.step) ?? new Map<number, DoneOnce>();
    done.set(fact.step, copies);
    const first = copies.get(fact.copy) ?? { facts: [], at: fact.at, minutes: fact.minutes };
    copies.set(fact.copy, { ...first, facts: [...first.facts, fact.id] });
  }
  const isDone = (step: Operation) => (done.get(step.id)?.size ?? 0) >= step.repeats;
  const steps = operations.map((step): StepProgress => {
    const own = done.get(step.id);
    const times = Array.from({ length: step.repeats }, (_, k) => own?.get(k + 1) ?? null);
    const before = step.after.flatMap((id) => known.get(id) ?? []);
    const held = before.filter((b) => !isDone(b));
    const waits = before.flatMap((b) => {
      const last = Math.max(...[...(done.get(b.id)?.values() ?? [])].map((d) => Date.parse(d.at)));
      return b.waitMinutes === null || !Number.isFinite(last) ? [] : [last + b.waitMinutes * 60_000];
    });
    return {
      step,
      times,
      state: isDone(step) ? 'done' : held.length > 0 ? 'held' : 'free',
      held,
      waitsUntil: waits.length > 0 ? Math.max(...waits) : null,
    };
  });
  return { steps, due: steps.find((s) => s.state === 'free') ?? null, strays };
}
