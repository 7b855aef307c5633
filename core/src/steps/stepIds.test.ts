import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stripsOf, withStrips } from '../board/recipe.ts';
import { checkPlan } from '../checks/checkPlan.ts';
import { busyWorkshopArbitrary, workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { shopHas } from '../shop/tools.ts';

describe('steps', () => {
  it('each has an id of its own, and comes after steps that stand before it; all of them hang together', () => {
    fc.assert(
      fc.property(busyWorkshopArbitrary, (input) => {
        const { operations } = makePlan(input);
        const known = new Set<string>();
        operations.forEach((o, i) => {
          expect(known.has(o.id)).toBe(false);
          expect(o.after.every((id) => known.has(id))).toBe(true);
          if (i > 0) expect(o.after.length).toBeGreaterThan(0);
          known.add(o.id);
        });
        const waited = new Set(operations.flatMap((o) => o.after));
        expect(operations.filter((o) => !waited.has(o.id)).map((o) => o.number)).toEqual(
          operations.slice(-1).map((o) => o.number),
        );
      }),
      { numRuns: 200 },
    );
  });

  it('hold only tools and clamps that the shop has, or a check says what is missing', () => {
    fc.assert(
      fc.property(workshopArbitrary, (input) => {
        const plan = makePlan(input);
        const { operations, shop } = plan;
        for (const { resources } of operations) {
          for (const { kind, count } of resources.clamps)
            expect(count).toBeLessThanOrEqual(
              shop.clamps.filter((c) => c.kind === kind).reduce((sum, c) => sum + c.count, 0),
            );
          const missing = resources.tools.filter((tool) => !shopHas(shop, tool));
          if (missing.length > 0)
            expect(
              checkPlan(plan, input).some((f) => f.rule === 'tool-missing' || f.rule === 'nothing-to-flatten-with'),
            ).toBe(true);
        }
      }),
      { numRuns: 200 },
    );
  });

  it('keep their ids when something else changes: another thickness, a step more before them, strips that change places', () => {
    const rack = [plainPiece({ length: 4000 })];
    const ids = (board = plainBoard(), shop = DEFAULT_SHOP) =>
      makePlan(planInput(board, rack, shop)).operations.map((o) => o.id);
    const plain = ids();
    expect(ids(plainBoard({ thickness: 28 }))).toEqual(plain);
    const fat = ids(plainBoard(), { ...DEFAULT_SHOP, schools: { ...DEFAULT_SHOP.schools, rip: 'fat' } });
    expect(fat.filter((id) => id !== 'remill')).toEqual(plain);
    const board = plainBoard();
    const [first, second, ...rest] = stripsOf(board);
    const swapped = ids(withStrips(board, [second!, first!, ...rest]));
    // The glue-ups are others; everything else is the same step.
    expect(swapped.filter((id) => !/^(glue|join):/.test(id))).toEqual(plain.filter((id) => !/^(glue|join):/.test(id)));
    expect(swapped).not.toEqual(plain);
  });
});
