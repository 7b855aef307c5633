import type { PlanInput } from '../saw/planInput.ts';
import { makePlan, type Plan } from './plan.ts';

/** Finer than this nobody asks, mm. */
const STEP: Record<'thickness' | 'length', number> = { thickness: 0.5, length: 5 };
const MOST: Record<'thickness' | 'length', number> = { thickness: 150, length: 3000 };

/**
 * How thick or how long the board could be with the wood there is, its strips as they are: the largest size with no strip missing and no ladder short.
 * @returns mm, in steps of 0.5 and 5 mm; 0 when not even the smallest can be had
 */
export function furthest(input: PlanInput, dimension: 'thickness' | 'length'): number {
  const holds = ({ cutting, ladders }: Plan) => cutting.shortages.length === 0 && ladders[dimension].shortBy === 0;
  // What is promised to others is not there, and what is cut has its size; a plan that was chosen is for the size at hand alone.
  const saw = input.saw && { ...input.saw, chosen: null };
  const works = (size: number) => holds(makePlan({ ...input, board: { ...input.board, [dimension]: size }, saw }));
  const step = STEP[dimension];
  let [low, high] = [0, Math.floor(MOST[dimension] / step)];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (works(middle * step)) low = middle;
    else high = middle - 1;
  }
  // What is planned already can be had, whatever first fit finds.
  return holds(makePlan(input)) ? Math.max(low * step, input.board[dimension]) : low * step;
}
