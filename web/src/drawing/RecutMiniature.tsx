import { useMemo } from 'react';
import { LOOK_WORDS, lookOf } from '#core/board/looks.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { makePlan } from '#core/plan/plan.ts';
import type { BoardMiniatureProps } from './miniature.ts';
import classes from './drawing.module.css';
import { FaceWood } from './FaceWood.tsx';
import { useStripSpecies } from './useStripSpecies.ts';
import { WishedOutline } from './WishedOutline.tsx';

/** One that is cut and glued again, from its cells. */
export function RecutMiniature({ board, input, scale, oiled = false }: BoardMiniatureProps) {
  const species = useStripSpecies(board, input.species);
  const wood = useMemo(() => makePlan({ ...input, board }).wood?.board, [board, input]);
  return (
    <svg
      className={classes.miniature}
      width={board.length * scale + 2}
      height={board.width * scale + 2}
      role="img"
      aria-label={`Drawing of ${board.name}: ${LOOK_WORDS[lookOf(board)]}, ${stripsOf(board).length} strips`}
    >
      <g transform="translate(1 1)">
        {wood && <FaceWood thing={wood} scale={scale} species={species} oiled={oiled} />}
        <WishedOutline board={board} scale={scale} />
      </g>
    </svg>
  );
}
