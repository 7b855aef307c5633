import { rowLies } from '#core/board/rowPatterns.ts';
import { turnLines } from '#core/steps/rowSteps.ts';
import type { RecutPlan } from '#core/plan/plan.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { FaceCells } from '../../drawing/FaceWood.tsx';
import { fitScale } from '../../drawing/scale.ts';
import { useStripSpecies } from '../../drawing/useStripSpecies.ts';
import { Say } from '../../quantities/Length.tsx';
import classes from './RowMap.module.css';

/** The drawing's own units; the page scales it to its width. */
const WIDTH = 720;
const ROOM = { left: 56, top: 40, bottom: 8, right: 8, height: 260 };
/** Rows narrower than this on paper carry only every fifth number. */
const LEAST = 13;

/** The rows as they are glued, numbered, with how each is turned: what is laid on the bench before the second glue-up. */
export function RowMap({ recut }: { recut: RecutPlan }) {
  const { board, plan, input } = useSettledBoard();
  const species = useStripSpecies(board, input.species);
  const block = plan.again?.glued;
  if (!block) return null;
  const [l, w] = block.size;
  const scale = fitScale([l, w], [WIDTH - ROOM.left - ROOM.right, ROOM.height], 2);
  const across = recut.last.runs === 'across';
  const size = recut.row * scale;
  return (
    <section>
      <h3>Rows</h3>
      <svg
        className={classes.map}
        viewBox={`0 0 ${WIDTH} ${ROOM.top + w * scale + ROOM.bottom}`}
        role="img"
        aria-label={`${recut.rows} rows in order, to scale, with how each is turned`}
      >
        <g transform={`translate(${ROOM.left} ${ROOM.top})`}>
          <FaceCells thing={block} scale={scale} species={species} />
          {rowLies(recut).map((lie, i) => {
            const middle = (i + 0.5) * size;
            const [x, y] = across ? [middle, -8] : [-14, middle];
            return size < LEAST && i % 5 > 0 ? null : (
              <text key={i} x={x} y={y} textAnchor="middle" dominantBaseline="central">
                {i + 1}
                {lie.endForEnd && '⇄'}
                {lie.over && '⟲'}
              </text>
            );
          })}
        </g>
        <DimensionLine from={[ROOM.left, 14]} to={[ROOM.left + l * scale, 14]} mm={l} />
        <DimensionLine from={[16, ROOM.top]} to={[16, ROOM.top + w * scale]} mm={w} />
      </svg>
      <ul className={classes.turns}>
        {turnLines(recut).map((line, i) => (
          <li key={i}>
            <Say phrase={line} />
          </li>
        ))}
      </ul>
    </section>
  );
}
