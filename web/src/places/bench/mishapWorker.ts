import { firstMishaps, type Mishaps } from '#core/bench/mishaps.ts';
import { makePlan } from '#core/plan/plan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';

/** What the bench asks: its answer carries the same number, so that an older one is not taken for it. */
export interface MishapRequest {
  number: number;
  input: PlanInput;
}

export interface MishapAnswer {
  number: number;
  mishaps: Mishaps;
}

self.addEventListener('message', ({ data: { number, input } }: MessageEvent<MishapRequest>) => {
  self.postMessage({ number, mishaps: firstMishaps(input, makePlan(input)) } satisfies MishapAnswer);
});
