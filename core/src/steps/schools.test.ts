import fc from 'fast-check';
import { expect, it } from 'vitest';
import { busyWorkshopArbitrary, workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { makePlan } from '../plan/plan.ts';
import { ASKED_QUESTIONS, QUESTIONS } from '../shop/schools.ts';

/** Boards and shops of all kinds; among them are some on which each question decides something. */
const inputs = [workshopArbitrary, busyWorkshopArbitrary].flatMap((boards) =>
  fc.sample(boards, { seed: 14, numRuns: 60 }),
);
const steps = (input: (typeof inputs)[number], question: string, school: string) =>
  JSON.stringify(
    makePlan({ ...input, shop: { ...input.shop, schools: { ...input.shop.schools, [question]: school } } }).operations,
  );

it.each(ASKED_QUESTIONS.flatMap((q) => QUESTIONS[q].schools.map((s) => [q, s.id] as const)))(
  '%s: %s is done in a way of its own, by no other school of the question',
  (question, school) => {
    const others = QUESTIONS[question].schools.map((s) => s.id).filter((id) => id !== school);
    const unlike = new Set<string>();
    for (const input of inputs) {
      if (unlike.size === others.length) break;
      const own = steps(input, question, school);
      for (const other of others) if (!unlike.has(other) && steps(input, question, other) !== own) unlike.add(other);
    }
    expect([...unlike].sort()).toEqual([...others].sort());
  },
);
