import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { workOfPlan } from '../plan/boardWork.ts';
import { makePlan } from '../plan/plan.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { latestStarts } from './bound.ts';
import { firstSchedule } from './improve.ts';
import { meanwhileOf } from './meanwhile.ts';
import { timesOfBoard } from './oneBoard.ts';
import { shopProblem } from './shopProblem.ts';
import type { Placed, ScheduleProblem, Task } from './task.ts';
import { BARE_TASK } from './taskForTests.ts';

const BARE = { ...BARE_TASK, board: 'b' };

/** A network of activities with as many hands as there is work, and when all of it is wanted. */
const network = (
  list: readonly (readonly [id: string, minutes: number, after: string])[],
  due: number,
): ScheduleProblem => ({
  from: 0,
  people: list.map(([id]) => ({ id, open: [{ from: 0, to: 1000 }] })),
  capacities: new Map(),
  tasks: list.map(([id, minutes, after]): Task => ({ ...BARE, id, minutes, after: [...after] })),
  held: [],
  dues: new Map([['b', { at: due, cured: false }]]),
});

describe('with hands enough, networks of the textbooks', () => {
  // A task whose latest start is its earliest is critical.
  const slackOf = (given: ScheduleProblem) => {
    const { placed } = firstSchedule(given);
    const latest = latestStarts(given);
    return Object.fromEntries(given.tasks.map(({ id }) => [id, latest.get(id)! - placed.get(id)!.hands[0]!.from]));
  };

  it('the plant project takes 44 weeks, by its critical path (Hillier and Lieberman, Introduction to Operations Research, chapter on project management; from memory)', () => {
    const plant = network(
      [
        ['A', 2, ''],
        ['B', 4, 'A'],
        ['C', 10, 'B'],
        ['D', 6, 'C'],
        ['E', 4, 'C'],
        ['F', 5, 'E'],
        ['I', 7, 'C'],
        ['G', 7, 'D'],
        ['H', 9, 'EG'],
        ['J', 8, 'FI'],
        ['K', 4, 'J'],
        ['L', 5, 'J'],
        ['M', 2, 'H'],
        ['N', 6, 'KL'],
      ],
      44,
    );
    expect(firstSchedule(plant).score.length).toBe(44);
    expect(slackOf(plant)).toEqual({
      A: 0,
      B: 0,
      C: 0,
      D: 4,
      E: 0,
      F: 0,
      I: 2,
      G: 4,
      H: 4,
      J: 0,
      K: 1,
      L: 0,
      M: 4,
      N: 0,
    });
  });

  it('activities A to G are done at 24 (common practice of the textbooks)', () => {
    const seven = network(
      [
        ['A', 4, ''],
        ['B', 6, ''],
        ['C', 5, 'A'],
        ['D', 7, 'AB'],
        ['E', 8, 'CD'],
        ['F', 2, 'D'],
        ['G', 3, 'EF'],
      ],
      24,
    );
    expect(firstSchedule(seven).score.length).toBe(24);
    expect(slackOf(seven)).toEqual({ A: 2, B: 0, C: 4, D: 0, E: 0, F: 6, G: 0 });
  });
});

it('a board is told the same times alone as in the shop: those of one and the same schedule', () => {
  const FROM = 29_750_000;
  const works = fc
    .array(workshopArbitrary, { minLength: 2, maxLength: 3 })
    .map((inputs) =>
      inputs.map((input, i) => ({ work: workOfPlan(`b${i}`, input, makePlan(input)), due: input.board.due })),
    );
  let placedOnes = 0;
  fc.assert(
    fc.property(works, (all) => {
      const problem = shopProblem(all, DEFAULT_SHOP, 'Europe/Vienna', FROM);
      const whole = firstSchedule(problem);
      for (const own of all) {
        const inShop = timesOfBoard(own, { boards: all, order: [] }, DEFAULT_SHOP, 'Europe/Vienna', FROM);
        expect(inShop.schedule).toEqual(whole);
        expect(inShop.placed.every((p) => p.task.board === own.work.board)).toBe(true);
        placedOnes += inShop.placed.length;
        const alone = timesOfBoard(own, null, DEFAULT_SHOP, 'Europe/Vienna', FROM);
        expect(alone.schedule.placed.size).toBe(alone.placed.length);
        expect(alone.placed.length).toBe(inShop.placed.length);
      }
    }),
    { numRuns: 8 },
  );
  expect(placedOnes).toBeGreaterThan(50);
});

it('while glue sets: what hands are on, and the shop time that is left (worked by hand)', () => {
  const at = (id: string, from: number, to: number, until: number): Placed => ({
    task: { ...BARE, id, minutes: to - from, after: [] },
    people: ['one'],
    hands: [{ from, to }],
    until,
    shared: false,
  });
  // Glued 16:30 to 17:00, in clamps until 19:00; another step 17:30 to 18:00. The shop closes at 18:00.
  const people = [{ id: 'one', open: [{ from: 540, to: 1080 }] }];
  const [glue, other, later] = [at('a', 990, 1020, 1140), at('b', 1050, 1080, 1080), at('c', 1980, 2000, 2000)];
  expect(meanwhileOf([glue, other, later], glue, { people })).toEqual({ others: [other], freeMinutes: 30 });
  expect(meanwhileOf([glue, other, later], other, { people })).toBeNull();
});
