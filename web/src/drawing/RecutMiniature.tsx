import { useMemo } from 'react';
import { LOOK_WORDS, lookOf } from '#core/board/looks.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { makePlan } from '#core/plan/plan.ts';
import type { BoardMiniatureProps } from './miniature.ts';
import { FaceWood } from './FaceWood.tsx';
import { useStripSpecies } from './useStripSpecies.ts';
import { MiniatureFrame } from './MiniatureFrame.tsx';

/** One that is cut and glued again, from its cells. */
export function RecutMiniature({ board, input, scale, oiled = false }: BoardMiniatureProps) {
  const species = useStripSpecies(board, input.species);
  const wood = useMemo(() => makePlan({ ...input, board }).wood?.board, [board, input]);
  return (
    <MiniatureFrame
      board={board}
      scale={scale}
      label={`Drawing of ${board.name}: ${LOOK_WORDS[lookOf(board)]}, ${stripsOf(board).length} strips`}
    >
      {wood && <FaceWood thing={wood} scale={scale} species={species} oiled={oiled} />}
    </MiniatureFrame>
  );
}
