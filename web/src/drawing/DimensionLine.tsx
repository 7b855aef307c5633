import { LengthTspans } from '../quantities/Length.tsx';
import classes from './drawing.module.css';

interface DimensionLineProps {
  /** Pixel ends; either x or y is shared. */
  from: [number, number];
  to: [number, number];
  /** The measure written on it. */
  mm: number;
  tone?: 'plain' | 'stop';
}

const TICK = 4;

/** A dimension line with slashed ends and its figure, the way it is pencilled on a drawing. */
export function DimensionLine({ from, to, mm, tone = 'plain' }: DimensionLineProps) {
  const [x1, y1] = from;
  const [x2, y2] = to;
  const across = y1 === y2;
  const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2];
  const slash = ([x, y]: [number, number]) => `M${x - TICK} ${y + TICK}L${x + TICK} ${y - TICK}`;
  return (
    <g className={classes.dimension} data-tone={tone}>
      <path d={`M${x1} ${y1}L${x2} ${y2}${slash(from)}${slash(to)}`} />
      <text
        x={mx}
        y={my}
        dy={across ? -4 : 0}
        dominantBaseline={across ? 'auto' : 'central'}
        textAnchor="middle"
        transform={across ? undefined : `rotate(-90 ${mx} ${my}) translate(0 -8)`}
      >
        <LengthTspans mm={mm} bare={false} />
      </text>
    </g>
  );
}
