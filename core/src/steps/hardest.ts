import { stripsOf, type Strip } from '../board/recipe.ts';
import { woodsOf } from '../board/accents.ts';
import type { PlanContext } from '../ladders/context.ts';

/** Side hardness of the hardest wood that is pressed, N; null where one species has no figure. @param strips others than those of the panel */
export function hardestOf(
  { board, species }: Pick<PlanContext, 'board' | 'species'>,
  strips: readonly Pick<Strip, 'species' | 'stack'>[] = stripsOf(board),
): number | null {
  const hardness = strips
    .flatMap((strip) => woodsOf(board, strip))
    .map((code) => species.find((s) => s.code === code)?.hardness ?? null);
  const known = hardness.filter((h) => h !== null);
  return known.length < hardness.length || known.length === 0 ? null : Math.max(...known);
}
