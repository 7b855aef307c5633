import type { StripDemand } from '../cutting/cutPlan.ts';

/** One strip of one copy, or one spare, wherever it is spoken of. */
export function demandKey(demand: Pick<StripDemand, 'board' | 'stripId' | 'copy' | 'spare'>): string {
  return `${demand.board}/${demand.stripId}/${demand.copy}/${demand.spare}`;
}
