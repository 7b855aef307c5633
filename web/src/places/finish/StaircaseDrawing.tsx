import type { GritRun } from '#core/shop/grits.ts';
import { useDisplay } from '../../quantities/display.tsx';
import { fineDepth } from './fineDepth.ts';
import classes from './FinishPlace.module.css';

interface StaircaseDrawingProps {
  run: GritRun;
  /** The deepest place, mm, and what made it. */
  deepest: number;
  from: string;
}

const SIZE = { width: 620, height: 250 };
const ROOM = { left: 64, right: 16, top: 26, bottom: 44 };

/** What each paper has to take away, falling from the deepest place to the scratches of the last paper; what no paper reaches runs through to the end. */
export function StaircaseDrawing({ run, deepest, from }: StaircaseDrawingProps) {
  const { display } = useDisplay();
  const { steps, stays } = run;
  const inner = { width: SIZE.width - ROOM.left - ROOM.right, height: SIZE.height - ROOM.top - ROOM.bottom };
  const most = Math.max(deepest, ...steps.map((s) => s.from)) * 1.08;
  const y = (mm: number) => ROOM.top + inner.height * (1 - mm / most);
  const step = inner.width / (steps.length + 1);
  const x = (i: number) => ROOM.left + i * step;
  const said = (mm: number) => fineDepth(mm, display);
  const floor = y(0);
  const label = `Depths against grits: ${said(deepest)} from ${from}, then ${steps.map((s) => `${s.grit} takes ${said(s.from - s.stays)}`).join(', ')}${stays > 0.005 ? `; ${said(stays)} stays` : ''}`;
  return (
    <svg viewBox={`0 0 ${SIZE.width} ${SIZE.height}`} className={classes.stairs} role="img" aria-label={label}>
      <path className={classes.axis} d={`M${ROOM.left} ${ROOM.top}V${floor}H${SIZE.width - ROOM.right}`} />
      <text x={ROOM.left - 8} y={ROOM.top - 10} textAnchor="start" className={classes.small}>
        depth
      </text>
      <rect
        className={classes.pit}
        x={x(0) + 6}
        y={y(deepest)}
        width={step - 12}
        height={Math.max(1, floor - y(deepest))}
      />
      <text x={x(0) + step / 2} y={floor + 18} textAnchor="middle">
        {from}
      </text>
      <text x={x(0) + step / 2} y={y(deepest) - 6} textAnchor="middle" className={classes.figure}>
        {said(deepest)}
      </text>
      {steps.map((s, i) => (
        <g key={s.grit}>
          <rect
            className={classes.stair}
            data-stays={s.stays > 0.005 || undefined}
            x={x(i + 1)}
            y={y(s.from)}
            width={step}
            height={Math.max(1, floor - y(s.from))}
          />
          <text x={x(i + 1) + step / 2} y={floor + 18} textAnchor="middle" className={classes.grit}>
            {s.grit}
          </text>
          <text x={x(i + 1) + step / 2} y={floor + 34} textAnchor="middle" className={classes.small}>
            {s.rounds === 1 ? 'once' : `${s.rounds} times over`}
          </text>
          <text x={x(i + 1) + step / 2} y={y(s.from) - 6} textAnchor="middle" className={classes.small}>
            {said(s.from)}
          </text>
        </g>
      ))}
      {stays > 0.005 && (
        <g className={classes.stays}>
          <path d={`M${x(1)} ${y(stays)}H${SIZE.width - ROOM.right}`} />
          <text x={SIZE.width - ROOM.right} y={y(stays) - 5} textAnchor="end">
            {said(stays)} stays
          </text>
        </g>
      )}
    </svg>
  );
}
