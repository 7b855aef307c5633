import classes from './drawing.module.css';

interface GrainArrowProps {
  x: number;
  y: number;
  /** Length of the arrow, pixels. */
  size: number;
  /** Points left when the strip was turned end for end. */
  reversed: boolean;
}

/** The arrow that people pencil on a strip: plane this way. A light halo keeps it readable on dark wood. */
export function GrainArrow({ x, y, size, reversed }: GrainArrowProps) {
  const sign = reversed ? -1 : 1;
  const d = `M${(-sign * size) / 2} 0H${(sign * size) / 2}M${sign * (size / 2 - 5)} -3.5L${(sign * size) / 2} 0`;
  return (
    <g transform={`translate(${x} ${y})`} aria-hidden="true">
      <path className={classes.grainArrowHalo} d={d} />
      <path className={classes.grainArrow} d={d} />
    </g>
  );
}
