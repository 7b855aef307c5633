import { certain } from '../lists/there.ts';
import { gapOf, type CutPlan } from './cutPlan.ts';
import { addScores, NO_SCORE } from './settle.ts';

/** Plans of different species, which never share wood, as one. A bound holds only when every part has one. */
export function joinPlans(plans: readonly CutPlan[]): CutPlan {
  const score = plans.reduce((sum, p) => addScores(sum, p.score), NO_SCORE);
  const bound = plans.some((p) => p.bound === null) ? null : plans.reduce((sum, p) => sum + certain(p.bound), 0);
  return {
    method: plans.some((p) => p.method === 'improved') ? 'improved' : 'first-fit',
    blanks: plans.flatMap((p) => p.blanks),
    leftovers: plans.flatMap((p) => p.leftovers),
    shortages: plans.flatMap((p) => p.shortages),
    score,
    bound,
    gap: gapOf(score.total, bound),
    proofs: plans.flatMap((p) => p.proofs),
  };
}
