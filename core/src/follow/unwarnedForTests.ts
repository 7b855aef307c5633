import { checkPlan } from '../checks/checkPlan.ts';
import type { Plan } from '../plan/plan.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { Instruction } from '../steps/instruction.ts';
import type { FailureCode } from './bench.ts';
import { followPlan } from './followPlan.ts';
import { WARNED_BY } from './warnedBy.ts';

const MILLING: ReadonlySet<string> = new Set<Instruction['do']>([
  'crosscut',
  'split',
  'flatten',
  'straighten',
  'rip',
  'remill',
  'resaw',
  'thickness',
  'joint',
]);

/** What he met of which the plan says nothing. */
export function unwarned(
  plan: Plan,
  input: PlanInput,
  { failures } = followPlan(plan, input),
): { code: FailureCode; thing: string }[] {
  if (failures.length === 0) return [];
  const rules = new Set(
    checkPlan(plan, input)
      .filter((f) => f.severity !== 'note' && f.rule !== 'not-followed')
      .map((f) => f.rule),
  );
  // With strips missing nothing comes of the board; what is milled of it is safe all the same.
  const met =
    plan.cutting.shortages.length > 0
      ? failures.filter((f) => MILLING.has(f.instruction) && f.code !== 'missingPart' && !f.thing.includes('block'))
      : failures;
  return met.filter((f) => !WARNED_BY[f.code].some((rule) => rules.has(rule)));
}
