import { newBoard, type Board } from '../board/board.ts';
import { AS_IT_LIES, flatRecipe } from '../board/recipe.ts';
import type { Fact } from '../facts/fact.ts';
import type { Operation } from '../steps/operation.ts';
import type { Measure } from './measures.ts';

/** What a board is used for that is only worked through at the desk. */
export const PRACTICE_USE = 'Practice run';

/** A small made-up board to work through with dry hands: five strips of beech, quickly read and never made. */
export function practiceBoard(): Board {
  const strips = [40, 30, 40, 30, 40].map((width, i) => ({
    ...AS_IT_LIES,
    id: `p${i + 1}`,
    species: i % 2 === 0 ? 'beech-european' : 'cherry-wild',
    width,
  }));
  return {
    ...newBoard('metric'),
    name: 'Practice board',
    use: PRACTICE_USE,
    length: 300,
    width: 170,
    thickness: 25,
    recipe: flatRecipe(strips),
  };
}

export const isPractice = ({ use }: Pick<Board, 'use'>): boolean => use === PRACTICE_USE;

type Without<F> = F extends unknown ? Omit<F, 'id' | 'at' | 'device'> : never;
/** What happens, as it would be noted. */
export type Happens = Without<Fact>;

/** So much goes wrong in a practice run, mm. */
const WRONG = { thin: 1.6, skew: 3 };

/**
 * What goes otherwise in a practice run when a step is done: one mishap of each kind on the way, to be answered.
 * @param measures what the step leaves to measure
 */
export function practiceMishaps(step: Operation, measures: readonly Measure[], board: Board): Happens[] {
  const size = (dimension: Measure['dimension'], by: number): Happens[] =>
    measures
      .filter((m) => m.dimension === dimension && m.expected !== null)
      .slice(0, 1)
      .map(({ thing, copy, stage, expected }) => ({
        kind: 'measured',
        thing,
        copy,
        stage,
        dimension,
        value: Math.round(((expected ?? 0) + by) * 10) / 10,
        step: step.id,
      }));
  const [, second] = board.recipe;
  switch (step.kind) {
    case 'rip':
      return second
        ? [{ kind: 'failed', what: 'strip', thing: second.id, copy: 1, why: 'torn out', step: step.id }]
        : [];
    case 'flattenPanel':
      return size('thickness', -WRONG.thin);
    case 'trimEnds':
      return [...size('diagonal', WRONG.skew), ...size('otherDiagonal', 0)];
    default:
      return [];
  }
}
