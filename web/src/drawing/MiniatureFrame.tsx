import type { ReactNode } from 'react';
import type { Board } from '#core/board/board.ts';
import classes from './drawing.module.css';

interface MiniatureFrameProps {
  board: Pick<Board, 'length' | 'width'>;
  /** Pixels per mm. */
  scale: number;
  /** What the picture is, to whoever does not see it; without it, it is left out for them. */
  label?: string;
  children: ReactNode;
}

/** Room for a board drawn small, with the outline that is wished for round what is drawn. */
export function MiniatureFrame({ board, scale, label, children }: MiniatureFrameProps) {
  const [length, width] = [board.length * scale, board.width * scale];
  return (
    <svg
      className={classes.miniature}
      width={length + 2}
      height={width + 2}
      {...(label === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label })}
    >
      <g transform="translate(1 1)">
        {children}
        <rect width={length} height={width} fill="none" stroke="var(--line-strong)" strokeDasharray="4 3" />
      </g>
    </svg>
  );
}
