import { nth } from '#core/lists/there.ts';
import { lazy, Suspense, useId, useMemo } from 'react';
import { panelWidth, stripTops } from '#core/board/board.ts';
import { bodiesOf } from '#core/bodies/bodiesOf.ts';
import classes from './drawing.module.css';
import type { BoardMiniatureProps } from './miniature.ts';
import { WishedOutline } from './WishedOutline.tsx';
import { Wood } from './Wood.tsx';
import { isCutAgain, stripsOf } from '#core/board/recipe.ts';

/** Boards of cells are drawn from their whole plan, which the first page need not load for the others. */
const RecutMiniature = lazy(async () => ({ default: (await import('./RecutMiniature.tsx')).RecutMiniature }));

/** Room for a board until it is drawn. */
function Wished({ board, scale }: BoardMiniatureProps) {
  return (
    <svg
      className={classes.miniature}
      width={board.length * scale + 2}
      height={board.width * scale + 2}
      aria-hidden="true"
    >
      <g transform="translate(1 1)">
        <WishedOutline board={board} scale={scale} />
      </g>
    </svg>
  );
}

/** A board small and to scale, as a picture. */
export function BoardMiniature(props: BoardMiniatureProps) {
  return isCutAgain(props.board) && stripsOf(props.board).length > 0 ? (
    <Suspense fallback={<Wished {...props} />}>
      <RecutMiniature {...props} />
    </Suspense>
  ) : (
    <FlatMiniature {...props} />
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
        <WishedOutline board={board} scale={scale} />
      </g>
    </svg>
  );
}
