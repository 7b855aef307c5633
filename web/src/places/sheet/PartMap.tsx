import { crossings } from '#core/board/inset.ts';
import { stripTops } from '#core/board/board.ts';
import { stripsOf } from '#core/board/recipe.ts';
import { nth } from '#core/lists/there.ts';
import type { InsetPlan } from '#core/plan/plan.ts';
import { useSettledBoard } from '../../data/openBoard.tsx';
import { DimensionLine } from '../../drawing/DimensionLine.tsx';
import { FaceCells } from '../../drawing/FaceWood.tsx';
import { fitScale } from '../../drawing/scale.ts';
import { useStripSpecies } from '../../drawing/useStripSpecies.ts';
import { Length } from '../../quantities/Length.tsx';
import classes from './FaceMap.module.css';

/** The drawing's own units; the page scales it to its width. */
const WIDTH = 720;
const ROOM = { left: 56, top: 40, bottom: 8, right: 8, height: 220, gap: 46 };

/** Where the flat panel is sawn through, and the block that it becomes: what is drawn on it with a pencil, and what is laid out. */
export function PartMap({ inset }: { inset: InsetPlan }) {
  const { board, plan, input } = useSettledBoard();
  const species = useStripSpecies(board, input.species);
  const block = plan.again?.glued;
  if (!block) return null;
  const { panelLength, trueWidth, panelWidth, inserts } = inset;
  const [l, w] = block.size;
  const scale = fitScale([Math.max(l, panelLength), panelWidth], [WIDTH - ROOM.left - ROOM.right, ROOM.height], 2);
  const strips = stripsOf(board);
  const tops = stripTops(strips);
  const edge = ((panelWidth - trueWidth) / 2) * scale;
  const second = ROOM.top + trueWidth * scale + ROOM.gap;
  const cuts = inserts.map((insert) => ({ insert, ...crossings(insert, inset) }));
  const ends = [0, ...cuts.map((c) => (c.far + c.near) / 2), panelLength];
  return (
    <section>
      <h3>Parts</h3>
      <svg
        className={classes.map}
        viewBox={`0 0 ${WIDTH} ${second + w * scale + ROOM.bottom}`}
        role="img"
        aria-label={`The panel with ${inserts.length === 1 ? 'its cut' : `its ${inserts.length} cuts`}, and below it the block, to scale`}
      >
        <g transform={`translate(${ROOM.left} ${ROOM.top})`}>
          <clipPath id="part-map-true">
            <rect width={panelLength * scale} height={trueWidth * scale} />
          </clipPath>
          <g clipPath="url(#part-map-true)">
            {strips.map((strip, i) => (
              <rect
                key={strip.id}
                x={0}
                y={nth(tops, i) * scale - edge}
                width={panelLength * scale}
                height={strip.width * scale}
                fill={species.get(strip.id)?.colour ?? 'none'}
                stroke="#444"
                strokeWidth={0.4}
              />
            ))}
          </g>
          {cuts.map(({ insert, far, near }) => (
            <path
              key={insert.operation.id}
              d={`M${far * scale} -4L${near * scale} ${trueWidth * scale + 4}`}
              stroke="#000"
              strokeWidth={1.4}
            />
          ))}
          {ends.slice(1).map((to, i) => (
            <text
              key={i}
              x={((to + nth(ends, i)) / 2) * scale}
              y={(trueWidth * scale) / 2}
              textAnchor="middle"
              dominantBaseline="central"
            >
              {i + 1}
            </text>
          ))}
        </g>
        <DimensionLine from={[ROOM.left, 14]} to={[ROOM.left + panelLength * scale, 14]} mm={panelLength} />
        <DimensionLine from={[16, ROOM.top]} to={[16, ROOM.top + trueWidth * scale]} mm={trueWidth} />
        <g transform={`translate(${ROOM.left} ${second})`}>
          <FaceCells thing={block} scale={scale} species={species} />
        </g>
        <DimensionLine from={[ROOM.left, second - 12]} to={[ROOM.left + l * scale, second - 12]} mm={l} />
        <DimensionLine from={[16, second]} to={[16, second + w * scale]} mm={w} />
      </svg>
      <ul className={classes.turns}>
        {cuts.map(({ insert, far, near }, i) => (
          <li key={insert.operation.id}>
            Line {i + 1}, then strip {insert.number}: from <Length mm={far} /> along the far edge
            {insert.angle === 0 ? (
              ', square'
            ) : (
              <>
                {' '}
                to <Length mm={near} /> along the near edge
              </>
            )}
            , both from the left end of the panel; the kerf behind it
          </li>
        ))}
      </ul>
    </section>
  );
}
