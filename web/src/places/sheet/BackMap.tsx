import type { BackPlan } from '#core/plan/plan.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { FaceCells } from '../../drawing/FaceWood.tsx';
import { fitScale } from '../../drawing/scale.ts';
import { useStripSpecies } from '../../drawing/useStripSpecies.ts';
import { Length } from '../../quantities/Length.tsx';
import classes from './RowMap.module.css';

/** The drawing's own units; the page scales it to its width. */
const WIDTH = 720;
const ROOM = { left: 56, top: 40, bottom: 8, right: 8, height: 200 };

/** The back from below, and how it is laid. */
export function BackMap({ back }: { back: BackPlan }) {
  const { board, plan, input } = useSettledBoard();
  const species = useStripSpecies(board, input.species);
  const whole = plan.wood?.board;
  if (!whole) return null;
  const [l, w] = whole.size;
  const scale = fitScale([l, w], [WIDTH - ROOM.left - ROOM.right, ROOM.height], 2);
  const numbers = back.strips.map((s) => s.number);
  return (
    <section>
      <h3>Back</h3>
      <svg
        className={classes.map}
        viewBox={`0 0 ${WIDTH} ${ROOM.top + w * scale + ROOM.bottom}`}
        role="img"
        aria-label={`The back of ${numbers.length} strips from below, to scale`}
      >
        <g transform={`translate(${ROOM.left} ${ROOM.top})`}>
          <FaceCells thing={whole} side="under" scale={scale} species={species} />
        </g>
        <DimensionLine from={[ROOM.left, 14]} to={[ROOM.left + l * scale, 14]} mm={l} />
        <DimensionLine from={[16, ROOM.top]} to={[16, ROOM.top + w * scale]} mm={w} />
      </svg>
      <ul className={classes.turns}>
        <li>
          Strips {numbers[0]} to {numbers.at(-1)} side by side, lying {back.operation.runs} the board, made flat to{' '}
          <Length mm={back.thickness} />
        </li>
        <li>
          {back.operation.runs === 'along'
            ? `Strip ${numbers[0]} at the far edge`
            : `Strip ${numbers[0]} at the right end, seen from above`}
        </li>
      </ul>
    </section>
  );
}
