import { firstOf } from '#core/lists/there.ts';
import { useElementSize } from '@mantine/hooks';
import type { Ladder } from '#core/ladders/ladder.ts';
import { scaleWords } from '../../drawing/scale.ts';
import { Length, LengthTspans, Say } from '../../quantities/Length.tsx';
import classes from './Staircase.module.css';

/** Drawn at the width there is, up to this, so that its figures stay readable on a phone. */
const WIDEST = 560;
const NARROWEST = 260;
const HEIGHT = 150;
const ROOM = { top: 16, bottom: 18, left: 4, right: 4 };
/** A piece far larger than the board is drawn broken off, or the steps that matter would be a hair high. */
const BROKEN_FROM = 1.6;

/** A dimension from the rack to the finished board as stairs going down: each as high as what is left, hatched what goes; to one scale, which it says. */
export function Staircase({ ladder }: { ladder: Ladder }) {
  const { rungs, target, reached, shortBy } = ladder;
  const { ref, width } = useElementSize();
  if (rungs.length === 0) return null;
  const wide = width === 0 ? WIDEST : Math.max(NARROWEST, Math.min(WIDEST, Math.round(width)));
  const kept = rungs.filter((r) => r.before <= target * BROKEN_FROM).map((r) => r.before);
  const top = Math.max(target, reached, ...kept) * 1.02;
  // The stairs begin a little below what is left, so that a millimetre can be seen; the scale says how much is drawn.
  const bottom = Math.max(0, Math.min(reached, target) - Math.max(2 * (top - Math.min(reached, target)), top * 0.06));
  const scale = (HEIGHT - ROOM.top - ROOM.bottom) / Math.max(1e-6, top - bottom);
  const floor = HEIGHT - ROOM.bottom;
  const y = (mm: number) => floor - (Math.min(mm, top) - bottom) * scale;
  const step = (wide - ROOM.left - ROOM.right) / (rungs.length + 1);
  return (
    <figure ref={ref} className={classes.figure}>
      <svg
        viewBox={`0 0 ${wide} ${HEIGHT}`}
        role="img"
        aria-label={`Stairs of the ${ladder.dimension}, from stock to finished`}
        className={classes.stairs}
      >
        <defs>
          <pattern
            id={`gone-${ladder.dimension}`}
            width="5"
            height="5"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0V5" stroke="var(--blue)" strokeWidth="1.6" />
          </pattern>
        </defs>
        {[{ id: 'rack', before: firstOf(rungs).before, after: firstOf(rungs).before }, ...rungs].map((r, i) => {
          const x = ROOM.left + i * step;
          const broken = r.after > top;
          return (
            <g key={r.id}>
              <rect
                className={classes.left}
                x={x}
                y={y(r.after)}
                width={step}
                height={Math.max(0, floor - y(r.after))}
              />
              {r.before > r.after && (
                <rect
                  x={x}
                  y={y(r.before)}
                  width={step}
                  height={Math.max(1, y(r.after) - y(r.before))}
                  fill={`url(#gone-${ladder.dimension})`}
                  stroke="var(--blue)"
                  strokeWidth="0.8"
                />
              )}
              {broken && (
                <path
                  className={classes.broken}
                  d={`M${x} ${y(top) + 9}l${step / 4} -5l${step / 4} 10l${step / 4} -10l${step / 4} 5`}
                />
              )}
              <text className={classes.size} x={x + step / 2} y={floor - 6} textAnchor="middle">
                <LengthTspans mm={r.after} />
              </text>
              <text className={classes.number} x={x + step / 2} y={HEIGHT - 4} textAnchor="middle">
                {i === 0 ? 'rack' : i}
              </text>
            </g>
          );
        })}
        <path className={classes.target} data-short={shortBy > 0 || undefined} d={`M0 ${y(target)}H${wide}`} />
        <text
          className={classes.wanted}
          data-short={shortBy > 0 || undefined}
          x={wide - 6}
          y={y(target) - 4}
          textAnchor="end"
        >
          wanted <LengthTspans mm={target} bare={false} />
        </text>
      </svg>
      <figcaption>
        Heights {scaleWords(scale)}
        {bottom > 0 && (
          <>
            , drawn from <Length mm={bottom} /> up
          </>
        )}
        .{' '}
        {rungs.map((r, i) => (
          <span key={r.id}>
            {i + 1} <Say phrase={r.label} />
            {i < rungs.length - 1 ? ', ' : '.'}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
