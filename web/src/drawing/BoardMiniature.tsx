import { useId } from 'react';
import { panelWidth, stripTops, type Board } from '#core/board/board.ts';
import type { Species } from '#core/wood/species.ts';
import classes from './drawing.module.css';
import { WoodFace } from './Wood.tsx';

interface BoardMiniatureProps {
  board: Board;
  species: readonly Species[];
  /** Pixels per mm. */
  scale: number;
}

/** A board small and to scale, as a picture: its strips, and the wanted outline where strips are still missing. */
export function BoardMiniature({ board, species, scale }: BoardMiniatureProps) {
  const trim = Math.max(0, (panelWidth(board) - board.width) / 2);
  const clip = useId();
  const face = board.construction === 'edge' ? 'edge' : 'broad';
  const tops = stripTops(board.strips);
  return (
    <svg className={classes.miniature} width={board.length * scale + 2} height={board.width * scale + 2} role="img"
      aria-label={`Drawing of ${board.name}: ${board.strips.length} strips`}>
      <g transform="translate(1 1)">
        <clipPath id={clip}><rect width={board.length * scale} height={board.width * scale} /></clipPath>
        <g clipPath={`url(#${clip})`}>
        {board.strips.map((strip, i) => (
          <WoodFace key={strip.id} x={0} y={(tops[i]! - trim) * scale} scale={scale} species={species.find((s) => s.code === strip.species)}
            rings="flat" seed={strip.id} length={board.length} width={strip.width} face={face} />
        ))}
        </g>
        <rect width={board.length * scale} height={board.width * scale} fill="none" stroke="var(--line-strong)" strokeDasharray="4 3" />
      </g>
    </svg>
  );
}
