import { useSettledBoard } from '../../../data/openBoard.tsx';
import { DimensionLine } from '../../../drawing/DimensionLine.tsx';
import { FaceWood } from '../../../drawing/FaceWood.tsx';
import { fitScale, scaleWords } from '../../../drawing/scale.ts';
import { useStripSpecies } from '../../../drawing/useStripSpecies.ts';
import classes from './recut.module.css';

const ROOM = { left: 60, right: 24, top: 40, bottom: 34 };

/** The board as it will be, each cell painted from the piece it is cut from. */
export function FinishedDrawing({
  width,
  height,
  oiled,
  under,
}: {
  width: number;
  height: number;
  oiled: boolean;
  under: boolean;
}) {
  const { board, plan, input } = useSettledBoard();
  const species = useStripSpecies(board, input.species);
  const thing = plan.wood?.board;
  if (!thing)
    return <p className={classes.caption}>Nothing of the strips is left for a board; the findings say why.</p>;
  const [l, w] = thing.size;
  const scale = fitScale([l, w], [width - ROOM.left - ROOM.right, height - ROOM.top - ROOM.bottom], 2.5);
  return (
    <svg
      className={classes.drawing}
      width={width}
      height={height}
      role="img"
      aria-label={`The finished board ${under ? 'from below' : 'from above'}, drawn to scale`}
    >
      <g transform={`translate(${ROOM.left} ${ROOM.top})`}>
        <FaceWood thing={thing} side={under ? 'under' : 'top'} scale={scale} species={species} oiled={oiled} />
        <rect className={classes.outline} width={l * scale} height={w * scale} />
      </g>
      <DimensionLine from={[ROOM.left, 14]} to={[ROOM.left + l * scale, 14]} mm={l} />
      <DimensionLine from={[20, ROOM.top]} to={[20, ROOM.top + w * scale]} mm={w} />
      <text className={classes.caption} x={ROOM.left} y={height - 10}>
        {scaleWords(scale)}. {under ? 'Underside, turned over about its length.' : 'Show side.'} Before edges and
        features.
      </text>
    </svg>
  );
}
