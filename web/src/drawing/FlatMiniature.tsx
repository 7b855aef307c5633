import { useId, useMemo } from 'react';
import { panelWidth, stripTops } from '#core/board/board.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { bodiesOf } from '#core/bodies/bodiesOf.ts';
import { nth } from '#core/lists/there.ts';
import classes from './drawing.module.css';
import type { BoardMiniatureProps } from './miniature.ts';
import { MiniatureFrame } from './MiniatureFrame.tsx';
import { Wood } from './Wood.tsx';

/** One of strips from end to end: its strips, and the wanted outline where strips are still missing. */
export function FlatMiniature({ board, input, scale, oiled = false }: BoardMiniatureProps) {
  const trim = Math.max(0, (panelWidth(board) - board.width) / 2);
  const clip = useId();
  const tops = stripTops(stripsOf(board));
  const bodies = useMemo(() => bodiesOf({ ...input, board }), [board, input]);
  const endTrim = ((bodies[0]?.size[0] ?? board.length) - board.length) / 2;
  return (
    <MiniatureFrame board={board} scale={scale} label={`Drawing of ${board.name}: ${stripsOf(board).length} strips`}>
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
    </MiniatureFrame>
  );
}
