import { grouped } from '../lists/grouped.ts';
import { firstOf } from '../lists/there.ts';
import { failureText } from '../follow/failureText.ts';
import { followPlan } from '../follow/followPlan.ts';
import type { Failure } from '../follow/bench.ts';
import { WARNED_BY } from '../follow/warnedBy.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { Plan } from '../plan/plan.ts';
import { capitalised, say } from '../units/phrase.ts';
import type { Found, Severity } from './finding.ts';

/** Harm to hands and knives stops; the rest only spoils wood. */
const STOPS: ReadonlySet<Failure['code']> = new Set([
  'metalUnderBlade',
  'trapped',
  'noStraightEdge',
  'markLost',
  'finishOverFinish',
]);

/**
 * What the blind maker meets in the plan of which no other rule has spoken: he does the steps on solid wood with nothing but their instructions. Missing wood
 * stops him anyway, and is told where it is missing.
 */
export function notFollowed(plan: Plan, input: PlanInput, found: readonly Found[]): Found[] {
  if (plan.cutting.shortages.length > 0) return [];
  const rules = new Set(found.filter((f) => f.severity !== 'note').map((f) => f.rule));
  const silent = followPlan(plan, input).failures.filter((f) => !WARNED_BY[f.code].some((rule) => rules.has(rule)));
  const byCode = grouped(silent, (f) => `${f.code}/${f.step}`);
  return [...byCode.values()].map((failures): Found => {
    const first = firstOf(failures);
    const severity: Severity = STOPS.has(first.code) ? 'stop' : 'caution';
    const step = plan.operations.find((o) => o.number === first.step);
    return {
      rule: 'not-followed',
      severity,
      strips: [...new Set(failures.flatMap((f) => f.strips))].sort((a, b) => a - b),
      ...(step ? { at: step.kind, part: step.id } : {}),
      what: capitalised(
        failures.length === 1
          ? failureText(first)
          : [...failureText(first), `, and ${failures.length - 1} more like it`],
      ),
      why: say`Whoever follows step ${first.step} word for word comes to grief here.`,
      waysOut: [say`Change the board, the way this step is done, or the piece its strips come from.`],
    };
  });
}
