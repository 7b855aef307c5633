import type { PlanInput } from './context.ts';
import { makePlan } from './plan.ts';

/** Finer than this nobody asks, mm. */
const STEP: Record<'thickness' | 'length', number> = { thickness: 0.5, length: 5 };
const MOST: Record<'thickness' | 'length', number> = { thickness: 150, length: 3000 };

/**
 * How thick or how long the board could be with the wood there is, its strips as they are: the largest size with no strip missing and no ladder short.
 * @returns mm, in steps of 0.5 and 5 mm; 0 when not even the smallest can be had
 */
export function furthest(input: PlanInput, dimension: 'thickness' | 'length'): number {
  const works = (size: number) => {
    const { cutting, ladders } = makePlan({ ...input, board: { ...input.board, [dimension]: size }, saw: undefined });
    return cutting.shortages.length === 0 && ladders[dimension].shortBy === 0;
  };
  const step = STEP[dimension];
  let [low, high] = [0, Math.floor(MOST[dimension] / step)];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (works(middle * step)) low = middle;
    else high = middle - 1;
  }
  return low * step;
}
