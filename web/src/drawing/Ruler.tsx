import { memo } from 'react';
import { MM_PER_INCH } from '#core/units/length.ts';
import { useDisplay } from '../quantities/display.tsx';
import classes from './drawing.module.css';
import { graduation } from './scale.ts';

interface RulerProps {
  /** Pixel position of the zero mark. */
  x: number;
  y: number;
  /** Measured length, mm. */
  length: number;
  scale: number;
  direction: 'across' | 'down';
}

const DEPTH = 16;

/** A rule laid along an edge of a drawing, its zero at the finished board's corner. Numbers in cm-like tens of mm, or inches. */
export const Ruler = memo(function Ruler({ x, y, length, scale, direction }: RulerProps) {
  const { display } = useDisplay();
  const { step, middle, major } = graduation(scale, display);
  const ticks: string[] = [];
  const numbers: { at: number; text: string }[] = [];
  for (let i = 0; i * step <= length + 1e-6; i += 1) {
    const at = i * step * scale;
    const depth = i % major === 0 ? DEPTH : i % middle === 0 ? 9 : 5;
    ticks.push(direction === 'across' ? `M${at.toFixed(1)} 0v${-depth}` : `M0 ${at.toFixed(1)}h${-depth}`);
    if (i % major === 0 && i > 0)
      numbers.push({ at, text: String(Math.round(display.system === 'metric' ? i * step : (i * step) / MM_PER_INCH)) });
  }
  const end = length * scale;
  return (
    <g transform={`translate(${x} ${y})`} className={classes.ruler} aria-hidden="true">
      <path d={direction === 'across' ? `M0 0h${end}` : `M0 0v${end}`} />
      <path d={ticks.join('')} />
      {numbers.map(({ at, text }) =>
        direction === 'across' ? (
          <text key={at} x={at - 3} y={-7} textAnchor="end">
            {text}
          </text>
        ) : (
          <text key={at} x={-4} y={at - 4} textAnchor="end">
            {text}
          </text>
        ),
      )}
    </g>
  );
});
