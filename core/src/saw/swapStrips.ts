import type { CutPlan, RippedStrip, StripDemand } from '../cutting/cutPlan.ts';
import type { CutProblem } from '../cutting/cutProblem.ts';
import { demandKey } from './demandKey.ts';
import { bareCut, rebuildCut } from './rebuildCut.ts';

/**
 * The plan with two strips in each other's places, which may lie in different blanks or pieces. What stays missing stays missing; the bound still holds.
 * @param one, two keys of the strips (`demandKey`)
 * @returns null when one of them does not fit where the other lies
 */
export function swapStrips(
  plan: CutPlan,
  one: string,
  two: string,
  rest: Pick<CutProblem, 'rack' | 'shop' | 'species' | 'promised'>,
): CutPlan | null {
  const strips = new Map(
    plan.blanks
      .filter((b) => !b.done)
      .flatMap((b) => b.strips)
      .map((s) => [demandKey(s.demand), s.demand]),
  );
  const [a, b] = [strips.get(one), strips.get(two)];
  if (!a || !b || one === two) return null;
  const bare = bareCut(plan);
  const blanks = bare.blanks.map((blank) => ({
    ...blank,
    strips: blank.strips.map((s) =>
      demandKey(s) === one ? { ...s, ...nameOf(b) } : demandKey(s) === two ? { ...s, ...nameOf(a) } : s,
    ),
  }));
  const rebuilt = rebuildCut({ ...rest, demands: [...strips.values()], banned: new Set() }, { ...bare, blanks });
  return rebuilt.ok ? { ...rebuilt.plan, method: 'improved', shortages: plan.shortages } : null;
}

function nameOf({
  board,
  stripId,
  copy,
  spare,
}: StripDemand): Pick<StripDemand, 'board' | 'stripId' | 'copy' | 'spare'> {
  return { board, stripId, copy, spare };
}

/** The strip of a plan with a key. */
export function stripOf(plan: Pick<CutPlan, 'blanks'>, key: string): RippedStrip | undefined {
  return plan.blanks.flatMap((b) => b.strips).find((s) => demandKey(s.demand) === key);
}
