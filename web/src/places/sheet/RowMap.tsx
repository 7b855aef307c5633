import { rowLies } from '#core/board/rowPatterns.ts';
import type { RecutPlan } from '#core/plan/plan.ts';
import { turnLines } from '#core/steps/rowSteps.ts';
import { Say } from '../../quantities/Length.tsx';
import { FaceMap } from './FaceMap.tsx';

/** Rows narrower than this on paper carry only every fifth number. */
const LEAST = 13;

/** The rows as they are glued, numbered, with how each is turned: what is laid on the bench before the second glue-up. */
export function RowMap({ recut }: { recut: RecutPlan }) {
  if (!recut.glued) return null;
  const across = recut.last.runs === 'across';
  return (
    <FaceMap
      title="Rows"
      label={`${recut.rows} rows in order, to scale, with how each is turned`}
      thing={recut.glued}
      height={260}
      on={(scale) => {
        const size = recut.row * scale;
        return rowLies(recut).map((lie, i) => {
          const middle = (i + 0.5) * size;
          const [x, y] = across ? [middle, -8] : [-14, middle];
          return size < LEAST && i % 5 > 0 ? null : (
            <text key={i} x={x} y={y} textAnchor="middle" dominantBaseline="central">
              {i + 1}
              {lie.endForEnd && '⇄'}
              {lie.over && '⟲'}
            </text>
          );
        });
      }}
    >
      {turnLines(recut).map((line, i) => (
        <li key={i}>
          <Say phrase={line} />
        </li>
      ))}
    </FaceMap>
  );
}
