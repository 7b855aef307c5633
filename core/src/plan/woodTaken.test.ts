import fc from 'fast-check';
import { expect, it } from 'vitest';
import { busyWorkshopArbitrary, workshopArbitrary } from '../follow/workshopArbitrary.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { workOfPlan } from './boardWork.ts';
import { makePlan } from './plan.ts';
import { plainBoard, plainPiece, planInput } from './planArbitrary.ts';
import { speciesLookedAt, woodTaken } from './woodTaken.ts';

const workOf = (input: PlanInput) => workOfPlan('board', input, makePlan(input));

/** A rack in which one piece is another, and one is new. */
const changedRack = fc
  .tuple(
    fc.oneof(workshopArbitrary, busyWorkshopArbitrary),
    fc.nat(),
    fc.constantFrom<Partial<PlanInput['rack'][number]>>(
      { note: 'seen by rain' },
      { length: 90 },
      { width: 400 },
      { thickness: 80 },
      { price: { amount: 1, per: 'piece' } },
      { species: 'walnut-black' },
      { count: 3 },
    ),
    fc.boolean(),
  )
  .map(([input, at, change, more]): [PlanInput, PlanInput] => {
    const rack = input.rack.map((p, i) => (i === at % input.rack.length ? { ...p, ...change } : p));
    const added = more ? [...rack, plainPiece({ id: 'new', mark: 'N1', length: 300, width: 40, thickness: 12 })] : rack;
    return [input, { ...input, rack: added }];
  });

it('where a board takes the same wood, its work is the same, whatever else of the rack changed', () => {
  const met = { same: 0, other: 0 };
  fc.assert(
    fc.property(changedRack, ([before, after]) => {
      const same = woodTaken(before) === woodTaken(after);
      met[same ? 'same' : 'other'] += 1;
      if (same) expect(workOf(after)).toEqual(workOf(before));
    }),
    { numRuns: 150 },
  );
  expect(met.same).toBeGreaterThan(15);
  expect(met.other).toBeGreaterThan(15);
});

it('pieces of species that a board has no strips of are not looked at', () => {
  fc.assert(
    fc.property(workshopArbitrary, (input) => {
      const looked = speciesLookedAt(input.board);
      const rack = input.rack.filter((p) => looked === null || looked.has(p.species));
      expect(woodTaken({ ...input, rack })).toBe(woodTaken(input));
    }),
    { numRuns: 60 },
  );
});

it('a note on a piece is no other wood, another thickness is', () => {
  const input = planInput(plainBoard(), [plainPiece({ length: 4000 })]);
  const withPiece = (change: object) => ({ ...input, rack: input.rack.map((p) => ({ ...p, ...change })) });
  expect(woodTaken(withPiece({ note: 'from the barn' }))).toBe(woodTaken(input));
  expect(woodTaken(withPiece({ thickness: input.rack[0]!.thickness + 1 }))).not.toBe(woodTaken(input));
});
