import { artPlace } from '#core/features/artPlace.ts';
import { edgeReach, isEnd, SIDE_NAMES, type Side } from '#core/features/edge.ts';
import { scaleWords } from '../../drawing/scale.ts';
import type { useWorked } from './useWorked.ts';
import classes from './SectionDrawing.module.css';

const WIDTH = 600;
const MOST_SCALE = 3;

/** One side of the board as it is seen from outside, show side up, with the marks on it. */
export function SideElevation({
  work: { size, edges, features },
  side,
}: {
  work: ReturnType<typeof useWorked>['now'];
  side: Side;
}) {
  const run = isEnd(side) ? size.width : size.length;
  const t = size.thickness;
  const scale = Math.min(WIDTH / run, MOST_SCALE);
  // From outside the far edge and the right end have what comes first on the right.
  const turned = side === 'far' || side === 'right';
  const drops = [edgeReach(edges[side].top, t).drop, t - edgeReach(edges[side].bottom, t).drop].filter(
    (d) => d > 0 && d < t,
  );
  return (
    <figure className={classes.figure}>
      <svg
        viewBox={`-2 -2 ${run + 4} ${t + 4}`}
        width={(run + 4) * scale}
        height={(t + 4) * scale}
        role="img"
        aria-label={`The ${SIDE_NAMES[side]} from outside`}
      >
        <rect width={run} height={t} className={classes.wood} vectorEffect="non-scaling-stroke" />
        {drops.map((d) => (
          <path key={d} d={`M0 ${d}H${run}`} className={classes.broken} vectorEffect="non-scaling-stroke" />
        ))}
        {features.map((f) => {
          if (f.kind !== 'mark' || f.face !== side) return null;
          const x = turned ? run - f.x : f.x;
          const place = f.art && artPlace(f, f.art);
          return (
            <g key={f.id}>
              <rect
                x={x - f.length / 2}
                y={f.y - f.width / 2}
                width={f.length}
                height={f.width}
                className={classes.frame}
                vectorEffect="non-scaling-stroke"
              />
              {f.art && place && (
                <path
                  d={f.art.d}
                  fillRule="evenodd"
                  className={classes.art}
                  vectorEffect="non-scaling-stroke"
                  transform={`translate(${x} ${f.y}) scale(${turned ? -place.along : place.along} ${place.across}) translate(${-f.art.length / 2} ${-f.art.width / 2})`}
                />
              )}
            </g>
          );
        })}
      </svg>
      <figcaption>
        The {SIDE_NAMES[side]} from outside, show side up, {scaleWords(scale)}
      </figcaption>
    </figure>
  );
}
