import type { PointerEvent } from 'react';
import { nth } from '#core/lists/there.ts';
import { stripTops } from '#core/board/board.ts';
import { GREATEST_ANGLE, sliceSchema, stripsIn } from '#core/board/recipe.ts';
import { rowsOf } from '#core/board/again.ts';
import { ofKind } from '#core/board/recut.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { HAND_STEP, toHandStep } from '#core/units/length.ts';
import { useOpenBoard } from '../../../data/openBoard.tsx';
import { DimensionLine } from '../../../drawing/DimensionLine.tsx';
import { fitScale, scaleWords } from '../../../drawing/scale.ts';
import { useStripSpecies } from '../../../drawing/useStripSpecies.ts';
import { useDisplay } from '../../../quantities/display.tsx';
import { alongDrawing, byArrows, whileHeld } from './onGrip.ts';
import { angleAt, cutLines, panelOutline, pitchAt } from './sliceGeometry.ts';
import type { useRecut } from './useRecut.ts';
import classes from './recut.module.css';

const ROOM = { left: 60, right: 30, top: 46, bottom: 46 };
const GRIP = 9;
const LEAST_PITCH = 3;

interface SlicesDrawingProps {
  width: number;
  height: number;
  /** Which of the panels that rows come from in turn, from 0. */
  panel: number;
  work: ReturnType<typeof useRecut>;
}

/** One of the panels with every cut through it, to scale; pitch and angle are taken hold of on it. */
export function SlicesDrawing({ width, height, panel, work }: SlicesDrawingProps) {
  // Slices follow the hands at once; the plan comes a moment later.
  const { board, input, session } = useOpenBoard();
  const { display } = useDisplay();
  const species = useStripSpecies(board, input.species);
  const rows = rowsOf(board, input.shop);
  if (!rows) return null;
  const kind = Math.min(panel, rows.kinds.length - 1);
  const recut = ofKind(rows, kind);
  const outline = panelOutline(recut);
  const scale = fitScale(
    [outline.length, outline.width],
    [width - ROOM.left - ROOM.right, height - ROOM.top - ROOM.bottom],
    2,
  );
  const [x0, y0] = [ROOM.left, ROOM.top];
  const strips = stripsIn(recut.panel, board);
  const tops = stripTops(strips);
  // Each by the row that it will be.
  const numbers = recut.all.filter((r) => r.panel === recut.before.panels + 1).map((r) => r.number);
  const lines = cutLines(recut);
  const [end, first] = [lines[0], lines[1]];
  const at = ([x, y]: readonly [number, number]): [number, number] => [x0 + x * scale, y0 + y * scale];
  const place = (event: PointerEvent) => alongDrawing(event, x0, scale);
  const dragged = (move: (event: PointerEvent) => void) => whileHeld(move, () => session.endMerge());
  return (
    <svg
      className={classes.drawing}
      width={width}
      height={height}
      role="group"
      aria-label="The panel and its slices, drawn to scale"
    >
      {strips.map((strip, i) => (
        <rect
          key={strip.id}
          x={x0 + (recut.offsets[i] ?? 0) * scale}
          y={y0 + nth(tops, i) * scale}
          width={recut.panelLength * scale}
          height={strip.width * scale}
          fill={species.get(strip.id)?.colour ?? 'var(--line)'}
          className={classes.strip}
        />
      ))}
      <path
        className={classes.cut}
        d={lines.map(({ from, to }) => `M${at(from).join(' ')}L${at(to).join(' ')}`).join('')}
      />
      {lines.slice(1).map((line, i) => {
        const before = nth(lines, i);
        const middle = [(before.from[0] + line.from[0] + before.to[0] + line.to[0]) / 4, outline.width / 2] as const;
        return recut.pitch * scale > 14 ? (
          <text
            key={i}
            className={classes.number}
            x={at(middle)[0]}
            y={at(middle)[1]}
            textAnchor="middle"
            dominantBaseline="central"
          >
            {numbers[i] ?? i + 1}
          </text>
        ) : null;
      })}
      {first && (
        <g
          className={classes.grip}
          role="slider"
          tabIndex={0}
          aria-label="Width of a slice"
          aria-valuemin={LEAST_PITCH}
          aria-valuemax={500}
          aria-valuenow={Math.round(recut.pitch * 10) / 10}
          aria-valuetext={formatLength(recut.pitch, display)}
          onKeyDown={(event) =>
            byArrows(event, HAND_STEP[display.system], (by) => work.setPitch(recut.pitch + by, 'pitch'))
          }
          {...dragged((event) => work.setPitch(toHandStep(pitchAt(recut, place(event)), display.system), 'pitch'))}
        >
          <circle cx={at(first.from)[0]} cy={y0 - 14} r={GRIP} />
          <path d={`M${at(first.from)[0] - 4} ${y0 - 14}h8M${at(first.from)[0]} ${y0 - 5}V${at(first.from)[1]}`} />
        </g>
      )}
      {end && (
        <g
          className={classes.grip}
          role="slider"
          tabIndex={0}
          aria-label="First cut, further in than the usual trim"
          aria-valuemin={0}
          aria-valuemax={sliceSchema.shape.first.maxValue ?? 500}
          aria-valuenow={Math.round(recut.slice.first * 10) / 10}
          aria-valuetext={formatLength(recut.slice.first, display)}
          onKeyDown={(event) =>
            byArrows(event, HAND_STEP[display.system], (by) => work.setFirst(recut.slice.first + by, 'first'))
          }
          {...dragged((event) =>
            work.setFirst(
              toHandStep(Math.max(0, place(event) - end.from[0] + recut.slice.first), display.system),
              'first',
            ),
          )}
        >
          <circle cx={at(end.from)[0]} cy={y0 - 14} r={GRIP} />
          <path d={`M${at(end.from)[0]} ${y0 - 5}V${at(end.from)[1]}`} />
        </g>
      )}
      {end && (
        <g
          className={classes.grip}
          role="slider"
          tabIndex={0}
          aria-label="Angle of the cuts"
          aria-valuemin={-GREATEST_ANGLE}
          aria-valuemax={GREATEST_ANGLE}
          aria-valuenow={recut.angle}
          aria-valuetext={`${recut.angle} degrees`}
          onKeyDown={(event) => byArrows(event, 0.5, (by) => work.setAngle(recut.angle + by, 'angle'))}
          {...dragged((event) => work.setAngle(angleAt(end.from[0], place(event), recut.trueWidth), 'angle'))}
        >
          <circle cx={at(end.to)[0]} cy={y0 + outline.width * scale + 14} r={GRIP} />
          <path d={`M${at(end.to)[0]} ${y0 + outline.width * scale + 5}V${at(end.to)[1]}`} />
        </g>
      )}
      <DimensionLine from={[x0, 14]} to={[x0 + outline.length * scale, 14]} mm={outline.length} />
      <DimensionLine from={[16, y0]} to={[16, y0 + outline.width * scale]} mm={outline.width} />
      <text className={classes.caption} x={x0} y={height - 10}>
        {scaleWords(scale)}. {recut.slices.length > 1 ? `The first of ${recut.slices.length} panels. ` : ''}
        {recut.kinds.length > 1 && `Rows come from ${recut.kinds.length} panels in turn; all are sliced alike. `}
        {`Grips above: first cut, and width of a slice, ${formatLength(recut.pitch, display)}; below: angle, ${recut.angle}°.`}
      </text>
    </svg>
  );
}
