import fc from 'fast-check';
import { expect } from 'vitest';
import { recipeProblems } from '../board/recipe.ts';
import type { FailureCode } from '../follow/bench.ts';
import { followPlan } from '../follow/followPlan.ts';
import { unwarned } from '../follow/unwarnedForTests.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { figuresIn } from '../steps/instruction.ts';
import { makePlan, type Plan } from './plan.ts';

/**
 * The blind maker ends with the planned board, cell by cell, or the plan has told what he met.
 * @param goesOn failures of no weight: who meets only those came through
 * @param told where nothing is left to follow, what is looked at instead; true where that was so
 * @returns how many were followed to the end
 */
export function followsOrTells(
  inputs: fc.Arbitrary<PlanInput>,
  numRuns: number,
  goesOn: readonly FailureCode[] = [],
  told: (plan: Plan, input: PlanInput) => boolean = () => false,
): number {
  let whole = 0;
  fc.assert(
    fc.property(inputs, (input) => {
      expect(recipeProblems(input.board.recipe)).toEqual([]);
      const plan = makePlan(input);
      if (told(plan, input)) return;
      const followed = followPlan(plan, input);
      expect(unwarned(plan, input, followed)).toEqual([]);
      if (followed.failures.every((f) => goesOn.includes(f.code))) whole += 1;
    }),
    { numRuns },
  );
  return whole;
}

/** No figure stands in a step that is not in one of its instructions, and every rung of a ladder adds up. */
export function figuresAndRungsAgree(inputs: fc.Arbitrary<PlanInput>, numRuns: number): void {
  fc.assert(
    fc.property(inputs, (input) => {
      const { operations, ladders } = makePlan(input);
      // Of a board of which nothing is left no step makes sense; that is told by its stops.
      const left = Object.values(ladders).every((l) => l.reached > 60 || l.shortBy === 0);
      for (const step of left ? operations : []) {
        const told = figuresIn(step.instructions);
        const shown = [...step.lines, step.title]
          .flatMap((phrase) => phrase.flatMap((part) => (typeof part !== 'string' && 'mm' in part ? [part.mm] : [])))
          .concat(step.settings.map((s) => s.value.mm));
        const stray = shown.filter((mm) => !told.some((f) => Math.abs(Math.abs(f) - Math.abs(mm)) < 1e-6));
        expect([step.id, stray]).toEqual([step.id, []]);
      }
      for (const { rungs, reached } of Object.values(ladders)) {
        rungs.forEach((r, i) => {
          expect(r.before - r.taken).toBeCloseTo(r.after, 6);
          if (i > 0) expect(r.before).toBeCloseTo(rungs[i - 1]!.after, 6);
          expect(r.after).toBeGreaterThanOrEqual(0);
        });
        if (rungs.length > 0) expect(rungs.at(-1)!.after).toBeCloseTo(reached, 6);
      }
    }),
    { numRuns },
  );
}
