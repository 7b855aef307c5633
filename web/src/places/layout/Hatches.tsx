import { HATCH_COUNT } from './overlay.ts';
import classes from './BoardDrawing.module.css';

/** Each tells itself from the others by its lines alone. */
const LINES = [
  'M0 8L8 0',
  'M0 4H8',
  'M4 0V8',
  'M0 4H8M4 0V8',
  'M0 0L8 8M0 8L8 0',
  'M3.4 4h1.2M-0.6 0h1.2M7.4 8h1.2M-0.6 8h1.2M7.4 0h1.2',
];

/** Id of a hatch to fill with. @param hatch 1 to `HATCH_COUNT` */
export function hatchFill(hatch: number): string {
  return `url(#strip-hatch-${hatch})`;
}

/** The hatches of the overlays, to be put into a drawing once. */
export function Hatches() {
  return (
    <defs>
      {LINES.slice(0, HATCH_COUNT).map((d, i) => (
        <pattern
          key={i}
          id={`strip-hatch-${i + 1}`}
          width="8"
          height="8"
          patternUnits="userSpaceOnUse"
          patternTransform="scale(1.5)"
        >
          <path d={d} className={classes.hatchHalo} />
          <path d={d} className={classes.hatch} />
        </pattern>
      ))}
    </defs>
  );
}
