import type { ReactNode } from 'react';
import type { Workpiece } from '#core/recipe/workpiece.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { FaceCells } from '../../drawing/FaceWood.tsx';
import { fitScale } from '../../drawing/scale.ts';
import { useStripSpecies } from '../../drawing/useStripSpecies.ts';
import classes from './FaceMap.module.css';

/** The drawing's own units; the page scales it to its width. */
const WIDTH = 720;
const ROOM = { left: 56, top: 40, bottom: 8, right: 8 };

interface FaceMapProps {
  title: string;
  /** What the drawing is, for who does not see it. */
  label: string;
  thing: Workpiece;
  side?: 'top' | 'under';
  /** The highest that it is drawn. */
  height: number;
  /** What is written on it, at its own scale. */
  on?: (scale: number) => ReactNode;
  /** The lines below it, as list items. */
  children: ReactNode;
}

/** One stage of a board on the sheet: its face to scale with its sizes, and what is told of it. */
export function FaceMap({ title, label, thing, side = 'top', height, on, children }: FaceMapProps) {
  const { board, input } = useSettledBoard();
  const species = useStripSpecies(board, input.species);
  const [l, w] = thing.size;
  const scale = fitScale([l, w], [WIDTH - ROOM.left - ROOM.right, height], 2);
  return (
    <section>
      <h3>{title}</h3>
      <svg
        className={classes.map}
        viewBox={`0 0 ${WIDTH} ${ROOM.top + w * scale + ROOM.bottom}`}
        role="img"
        aria-label={label}
      >
        <g transform={`translate(${ROOM.left} ${ROOM.top})`}>
          <FaceCells thing={thing} side={side} scale={scale} species={species} />
          {on?.(scale)}
        </g>
        <DimensionLine from={[ROOM.left, 14]} to={[ROOM.left + l * scale, 14]} mm={l} />
        <DimensionLine from={[16, ROOM.top]} to={[16, ROOM.top + w * scale]} mm={w} />
      </svg>
      <ul className={classes.turns}>{children}</ul>
    </section>
  );
}
