import { Chart, Legend, LinearScale, LineElement, PointElement, ScatterController, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import type { Pair } from '#core/log/entry.ts';
import type { Lesson } from '#core/log/lessons.ts';
import { useDisplay } from '../../quantities/display.tsx';
import classes from './log.module.css';

Chart.register(ScatterController, LinearScale, PointElement, LineElement, Legend, Tooltip);

/** Told apart by shape first, colour second. */
const SHAPES = ['circle', 'triangle', 'rect', 'crossRot', 'star', 'rectRot'] as const;
const COLOURS = ['--blue', '--red', '--ink', '--yellow', '--ink-soft', '--line-strong'] as const;

/** By what pairs are told apart. */
export type PairsBy = 'machine' | 'species' | 'step';

/** What is no length. */
const UNIT_OF: Readonly<Partial<Record<Pair['what'], string>>> = { minutes: 'min', spoiled: 'strips', uptake: 'g' };

const MM_PER_INCH = 25.4;

/** Planned against happened: on the line both are the same, above it more happened than was planned. */
export function PairChart({ lesson, by: told }: { lesson: Lesson; by: PairsBy }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { display } = useDisplay();
  const what = lesson.pairs[0]?.what ?? 'minutes';
  const inInches = UNIT_OF[what] === undefined && display.system === 'inch';
  const unit = UNIT_OF[what] ?? (inInches ? 'in' : 'mm');
  useEffect(() => {
    const drawn = canvas.current;
    if (!drawn) return undefined;
    const style = getComputedStyle(drawn);
    Chart.defaults.font.family = style.fontFamily;
    const colour = (name: string) => style.getPropertyValue(name).trim();
    const by = inInches ? 1 / MM_PER_INCH : 1;
    const groups = new Map<string, { x: number; y: number }[]>();
    for (const pair of lesson.pairs) {
      const name = pair[told] ?? (told === 'machine' ? 'by hand' : 'several woods');
      groups.set(name, [...(groups.get(name) ?? []), { x: pair.planned * by, y: pair.happened * by }]);
    }
    const most = Math.max(...lesson.pairs.flatMap((p) => [p.planned, p.happened])) * by * 1.1;
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
          ...[...groups].map(([label, data], i) => {
            const shown = colour(COLOURS[i % COLOURS.length] ?? '--blue');
            return {
              label,
              data,
              backgroundColor: shown,
              borderColor: shown,
              pointStyle: SHAPES[(i + Math.floor(i / COLOURS.length)) % SHAPES.length] ?? 'circle',
              pointRadius: 5,
            };
          }),
          {
            label: 'as planned',
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
        plugins: {
          tooltip: { filter: ({ datasetIndex }) => datasetIndex < groups.size },
          legend: { position: 'right', labels: { usePointStyle: true, color: colour('--ink') } },
        },
        scales: { x: axis('Planned'), y: axis('Happened') },
      },
    });
    return () => chart.destroy();
  }, [lesson, unit, inInches, told]);
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
