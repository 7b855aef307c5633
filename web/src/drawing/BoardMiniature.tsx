import { nth } from '#core/lists/there.ts';
import { useId, useMemo } from 'react';
import { panelWidth, stripTops, type Board } from '#core/board/board.ts';
import { bodiesOf } from '#core/bodies/bodiesOf.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import classes from './drawing.module.css';
import { Wood } from './Wood.tsx';
import { LOOK_WORDS, lookOf } from '#core/board/looks.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { recutRecipe } from '#core/board/recut.ts';
import { makePlan } from '#core/plan/plan.ts';
import { FaceWood } from './FaceWood.tsx';
import { useStripSpecies } from './useStripSpecies.ts';

interface BoardMiniatureProps {
  board: Board;
  /** What the board is planned with: its wood is drawn from there. */
  input: Omit<PlanInput, 'board'>;
  /** Pixels per mm. */
  scale: number;
  oiled?: boolean;
}

/** A board small and to scale, as a picture. */
export function BoardMiniature(props: BoardMiniatureProps) {
  return recutRecipe(props.board.recipe) && stripsOf(props.board).length > 0 ? (
    <RecutMiniature {...props} />
  ) : (
    <FlatMiniature {...props} />
  );
}

/** One that is cut and glued again, from its cells. */
function RecutMiniature({ board, input, scale, oiled = false }: BoardMiniatureProps) {
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
        <Wished board={board} scale={scale} />
      </g>
    </svg>
  );
}

/** One of strips from end to end: its strips, and the wanted outline where strips are still missing. */
function FlatMiniature({ board, input, scale, oiled = false }: BoardMiniatureProps) {
  const trim = Math.max(0, (panelWidth(board) - board.width) / 2);
  const clip = useId();
  const tops = stripTops(stripsOf(board));
  const bodies = useMemo(() => bodiesOf({ ...input, board }), [board, input]);
  const endTrim = ((bodies[0]?.size[0] ?? board.length) - board.length) / 2;
  return (
    <svg
      className={classes.miniature}
      width={board.length * scale + 2}
      height={board.width * scale + 2}
      role="img"
      aria-label={`Drawing of ${board.name}: ${stripsOf(board).length} strips`}
    >
      <g transform="translate(1 1)">
        <clipPath id={clip}>
          <rect width={board.length * scale} height={board.width * scale} />
        </clipPath>
        <g clipPath={`url(#${clip})`}>
          {stripsOf(board).map((strip, i) => (
            <Wood
              key={strip.id}
              x={-endTrim * scale}
              y={(nth(tops, i) - trim) * scale}
              scale={scale}
              species={input.species.find((s) => s.code === strip.species)}
              body={nth(bodies, i)}
              stripId={strip.id}
              side="top"
              oiled={oiled}
            />
          ))}
          {tops.slice(1).map((top) => (
            <path key={top} d={`M0 ${(top - trim) * scale}H${board.length * scale}`} className={classes.joint} />
          ))}
        </g>
        <Wished board={board} scale={scale} />
      </g>
    </svg>
  );
}

/** The outline that is wished for. */
function Wished({ board, scale }: Pick<BoardMiniatureProps, 'board' | 'scale'>) {
  return (
    <rect
      width={board.length * scale}
      height={board.width * scale}
      fill="none"
      stroke="var(--line-strong)"
      strokeDasharray="4 3"
    />
  );
}
