import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makePlan, type Plan } from '../plan/plan.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { followPlan } from './followPlan.ts';
import { unwarned } from './unwarnedForTests.ts';
import { busyWorkshopArbitrary, workshopArbitrary } from './workshopArbitrary.ts';

/** The same board with some of what its plan takes cut already, as the saw's book would tell it. */
function partlyCut(input: PlanInput, plan: Plan, share: number): PlanInput {
  const blanks = plan.cutting.blanks.filter((_, i) => i < share * plan.cutting.blanks.length);
  const pieces = new Map(input.rack.map((p) => [p.id, p]));
  const cut = new Set(blanks.map((b) => b.pieceId));
  // A piece that was cut is no longer in the rack.
  const done = plan.cutting.blanks
    .filter((b) => cut.has(b.pieceId))
    .map((blank) => ({ piece: pieces.get(blank.pieceId)!, blank: { ...blank, done: true } }));
  return {
    ...input,
    rack: input.rack.filter((p) => !cut.has(p.id)),
    saw: { key: '', promised: [], chosen: null, done },
  };
}

describe('the blind maker, further', () => {
  it('boards with much worked into them: no cut spoils a mark unsaid, whichever of the two comes first', () => {
    let spoilt = 0;
    fc.assert(
      fc.property(busyWorkshopArbitrary, (input) => {
        const plan = makePlan(input);
        const followed = followPlan(plan, input);
        expect(unwarned(plan, input, followed)).toEqual([]);
        if (followed.failures.some((f) => f.code === 'markLost' && f.instruction !== 'sand')) spoilt += 1;
      }),
      { numRuns: 140 },
    );
    expect(spoilt).toBeGreaterThan(5);
  }, 60_000);

  it('goes on from any state of the cutting', () => {
    fc.assert(
      fc.property(workshopArbitrary, fc.constantFrom(0.3, 0.6, 1), (input, share) => {
        const plan = makePlan(input);
        if (plan.cutting.shortages.length > 0) return;
        const later = partlyCut(input, plan, share);
        expect(unwarned(makePlan(later), later)).toEqual([]);
      }),
      { numRuns: 160 },
    );
  }, 60_000);
});
