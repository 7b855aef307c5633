import fc from 'fast-check';
import { expect, it } from 'vitest';
import { busyWorkshopArbitrary, workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { makePlan } from '../plan/plan.ts';
import { CHEVRON, recutBoard } from '../board/recutForTests.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { QUESTION_IDS, QUESTIONS } from '../shop/schools.ts';

/** Boards and shops of all kinds; among them are some on which each question decides something. */
const inputs = [
  ...[workshopArbitrary, busyWorkshopArbitrary].flatMap((boards) => fc.sample(boards, { seed: 14, numRuns: 60 })),
  endGrain(),
  chevron(),
];
/** A board of end grain in a shop with a planer that could take it. */
function endGrain() {
  const board = recutBoard(plainBoard({ length: 200, width: 150, thickness: 30 }, [45, 45, 45, 45]));
  const input = planInput(board, [plainPiece({ length: 3000, width: 220, thickness: 56, count: 4 })]);
  return { ...input, shop: { ...input.shop, planer: { ...input.shop.planer!, head: 'helical' as const } } };
}

/** A board whose rows are glued on sawn ends. */
function chevron() {
  const board = recutBoard(
    plainBoard({ length: 300, width: 150, thickness: 25 }, Array(7).fill(44) as number[]),
    {},
    CHEVRON,
  );
  return planInput(board, [plainPiece({ length: 3000, width: 220, thickness: 56, count: 4 })]);
}

const steps = (input: (typeof inputs)[number], question: string, school: string) =>
  JSON.stringify(
    makePlan({ ...input, shop: { ...input.shop, schools: { ...input.shop.schools, [question]: school } } }).operations,
  );

it.each(QUESTION_IDS.flatMap((q) => QUESTIONS[q].schools.map((s) => [q, s.id] as const)))(
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
