import { useMemo } from 'react';
import type { Board } from '#core/board/board.ts';
import { cutStripsOf } from '#core/board/recipe.ts';
import type { Species } from '#core/wood/species.ts';

/** The species of each strip of a board, by the strip's id. */
export function useStripSpecies(
  board: Pick<Board, 'recipe'>,
  species: readonly Species[],
): ReadonlyMap<string, Species | undefined> {
  return useMemo(
    () => new Map(cutStripsOf(board).map((s) => [s.id, species.find((w) => w.code === s.species)])),
    [board, species],
  );
}
