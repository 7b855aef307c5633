import { Chart, LinearScale, LineElement, PointElement, ScatterController, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import type { Lesson } from '#core/log/lessons.ts';
import { useDisplay } from '../../quantities/display.tsx';
import classes from './log.module.css';

Chart.register(ScatterController, LinearScale, PointElement, LineElement, Tooltip);

const MM_PER_INCH = 25.4;

/** Planned against happened: on the line both are the same, above it more happened than was planned. */
export function PairChart({ lesson }: { lesson: Lesson }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { display } = useDisplay();
  const inInches = lesson.id !== 'minutes' && display.system === 'inch';
  const unit = lesson.id === 'minutes' ? 'min' : inInches ? 'in' : 'mm';
  useEffect(() => {
    const drawn = canvas.current;
    if (!drawn) return undefined;
    const style = getComputedStyle(drawn);
    Chart.defaults.font.family = style.fontFamily;
    const colour = (name: string) => style.getPropertyValue(name).trim();
    const by = inInches ? 1 / MM_PER_INCH : 1;
    const points = lesson.pairs.map((p) => ({ x: p.planned * by, y: p.happened * by }));
    const most = Math.max(...points.flatMap((p) => [p.x, p.y])) * 1.1;
    const axis = (text: string) => ({
      min: 0,
      max: most,
      title: { display: true, text: `${text}, ${unit}`, color: colour('--ink') },
      ticks: { color: colour('--ink-soft') },
      grid: { color: colour('--line') },
    });
    const chart = new Chart(drawn, {
      type: 'scatter',
      data: {
        datasets: [
          { data: points, backgroundColor: colour('--blue'), pointRadius: 4 },
          {
            data: [
              { x: 0, y: 0 },
              { x: most, y: most },
            ],
            showLine: true,
            pointRadius: 0,
            borderColor: colour('--line-strong'),
            borderWidth: 1,
          },
        ],
      },
      options: {
        animation: false,
        maintainAspectRatio: false,
        plugins: { tooltip: { filter: ({ datasetIndex }) => datasetIndex === 0 } },
        scales: { x: axis('Planned'), y: axis('Happened') },
      },
    });
    return () => chart.destroy();
  }, [lesson, unit, inInches]);
  return (
    <div className={classes.chart}>
      <canvas
        ref={canvas}
        role="img"
        aria-label={`Planned against happened, ${lesson.pairs.length} of them, ${unit}: the middle is ${lesson.median.toFixed(2)}`}
      />
    </div>
  );
}
