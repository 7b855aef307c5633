import { failedStrips } from '../facts/made.ts';
import type { PlanInput } from './planInput.ts';

/** What is given to a plan, without the strips that lie on the bench and turned out to be no good: they are asked of the rack again. */
export function withoutFailed(given: PlanInput): PlanInput {
  const { saw, facts } = given;
  const failed = facts && saw && saw.done.length > 0 ? failedStrips(facts) : [];
  if (!saw || failed.length === 0) return given;
  const done = saw.done
    .map(({ piece, blank }) => ({
      piece,
      blank: {
        ...blank,
        strips: blank.strips.filter(
          ({ demand }) => !failed.some((f) => f.strip === demand.stripId && f.copy === demand.copy),
        ),
      },
    }))
    .filter(({ blank }) => blank.strips.length > 0);
  return { ...given, saw: { ...saw, done } };
}
