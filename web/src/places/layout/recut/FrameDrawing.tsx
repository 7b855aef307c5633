import { useState, type PointerEvent } from 'react';
import type { FrameSide, FrameStrip } from '#core/board/frame.ts';
import { stripSchema } from '#core/board/recipe.ts';
import { spanOf } from '#core/recipe/frameOperation.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { HAND_STEP, toHandStep } from '#core/units/length.ts';
import { useOpenBoard, useSettledBoard } from '../../../data/openBoard.tsx';
import { DimensionLine } from '../../../drawing/DimensionLine.tsx';
import { FaceWood } from '../../../drawing/FaceWood.tsx';
import { fitScale, scaleWords } from '../../../drawing/scale.ts';
import { useStripSpecies } from '../../../drawing/useStripSpecies.ts';
import { useDisplay } from '../../../quantities/display.tsx';
import { useShortcuts } from '../../../shortcuts/Shortcuts.tsx';
import { FrameFields, SIDE_NAMES, stripsOfRing } from './FrameFields.tsx';
import { acrossDrawing, alongDrawing, byArrows, whileHeld } from './onGrip.ts';
import { useRoomUnder } from './useRoomUnder.ts';
import { useFrames } from './useFrames.ts';
import classes from './recut.module.css';

const ROOM = { left: 60, right: 30, top: 44, bottom: 44 };
const GRIP = 9;

interface FrameDrawingProps {
  width: number;
  height: number;
  oiled: boolean;
}

/** What the board is trimmed from with its frame on it, to scale: each strip is taken hold of where it meets what is inside, and made wider or narrower. */
export function FrameDrawing({ width, height, oiled }: FrameDrawingProps) {
  const { board } = useOpenBoard();
  const { plan, input } = useSettledBoard();
  const { display } = useDisplay();
  const work = useFrames();
  const { above, room } = useRoomUnder(height);
  const [chosenRing, setRing] = useState('');
  const [side, setSide] = useState<FrameSide>('far');
  const species = useStripSpecies(board, input.species);
  const { frame } = work;
  const ring = frame?.rings.find((r) => r.operation.id === chosenRing) ?? frame?.rings.at(-1);
  const held = ring && stripsOfRing(ring).find((s) => s.side === side);
  useShortcuts('Frame', [
    {
      keys: 'n',
      does: 'One more ring round the board',
      run: () => work.add(held && { species: held.strip.species, width: held.width }),
    },
    { keys: 'Delete', does: 'Take the ring in hand off', run: () => ring && work.remove(ring.operation.id) },
  ]);
  if (!frame || !ring || !held) return null;
  const { block } = frame;
  const scale = fitScale(
    [block.length, block.width],
    [width - ROOM.left - ROOM.right, room - ROOM.top - ROOM.bottom],
    2.5,
  );
  const [x0, y0] = [ROOM.left, ROOM.top];
  const [w, h] = [block.length * scale, block.width * scale];
  const thing = plan.frame?.framed;
  // Where the ring in hand lies in the whole: within the rings outside of it.
  const at = frame.rings.slice(frame.rings.indexOf(ring) + 1).reduce(
    (sum, outer) => {
      const wide = (of: FrameSide) => stripsOfRing(outer).find((s) => s.side === of)?.width ?? 0;
      return { x: sum.x + wide('left'), y: sum.y + wide('far') };
    },
    { x: 0, y: 0 },
  );
  const { id } = ring.operation;
  const widthAt = (event: PointerEvent, strip: FrameStrip): number => {
    const x = alongDrawing(event, x0, scale) - at.x;
    const y = acrossDrawing(event, y0, scale) - at.y;
    const wide = { far: y, near: ring.outer.width - y, left: x, right: ring.outer.length - x }[strip.side];
    return toHandStep(wide, display.system);
  };
  return (
    <div>
      <div ref={above}>
        <FrameFields work={work} ring={ring} held={held} onRing={setRing} onSide={setSide} />
      </div>
      <svg
        className={classes.drawing}
        width={width}
        height={room}
        role="group"
        aria-label="The board with its frame before the last trim, drawn to scale"
      >
        <g transform={`translate(${x0} ${y0})`}>
          {thing && <FaceWood thing={thing} scale={scale} species={species} oiled={oiled} />}
          <rect className={classes.outline} width={w} height={h} />
          <rect
            className={classes.cut}
            x={frame.end * scale}
            y={frame.side * scale}
            width={Math.max(0, w - 2 * frame.end * scale)}
            height={Math.max(0, h - 2 * frame.side * scale)}
          />
          {stripsOfRing(ring).map((strip) => {
            const [[left, top], [right, bottom]] = spanOf(strip, ring);
            const [x, y] = [(left + at.x) * scale, (top + at.y) * scale];
            const [wide, high] = [(right - left) * scale, (bottom - top) * scale];
            const grip = {
              far: [x + wide / 2, y + high],
              near: [x + wide / 2, y],
              left: [x + wide, y + high / 2],
              right: [x, y + high / 2],
            }[strip.side];
            const inHand = strip.side === held.side;
            return (
              <g key={strip.side}>
                <rect
                  className={classes.putInEdge}
                  data-held={inHand || undefined}
                  x={x}
                  y={y}
                  width={wide}
                  height={high}
                />
                <text
                  className={classes.number}
                  x={x + wide / (strip.side === 'far' || strip.side === 'near' ? 4 : 2)}
                  y={y + high / (strip.side === 'far' || strip.side === 'near' ? 2 : 4)}
                  textAnchor="middle"
                  dominantBaseline="central"
                >
                  {strip.number}
                </text>
                <g
                  className={classes.grip}
                  role="slider"
                  tabIndex={0}
                  aria-label={`${SIDE_NAMES[strip.side]}: width of strip ${strip.number}`}
                  aria-orientation={strip.side === 'far' || strip.side === 'near' ? 'vertical' : 'horizontal'}
                  aria-valuemin={stripSchema.shape.width.minValue ?? 0}
                  aria-valuemax={stripSchema.shape.width.maxValue ?? 1000}
                  aria-valuenow={Math.round(strip.width * 10) / 10}
                  aria-valuetext={formatLength(strip.width, display)}
                  onKeyDown={(event) =>
                    byArrows(event, HAND_STEP[display.system], (by) =>
                      work.change(id, [strip.side], { width: strip.width + by }, `frame-${id}-${strip.side}`),
                    )
                  }
                  {...whileHeld(
                    (event) =>
                      work.change(id, [strip.side], { width: widthAt(event, strip) }, `frame-${id}-${strip.side}`),
                    work.endMerge,
                  )}
                  onFocus={() => setSide(strip.side)}
                >
                  <circle cx={grip[0]} cy={grip[1]} r={GRIP} />
                </g>
              </g>
            );
          })}
        </g>
        <DimensionLine from={[x0, 18]} to={[x0 + w, 18]} mm={block.length} />
        <DimensionLine from={[16, y0]} to={[16, y0 + h]} mm={block.width} />
        <text className={classes.caption} x={x0} y={room - 10}>
          {scaleWords(scale)}. Grips: how wide each strip is. Dashed: the board, {formatLength(board.length, display)}{' '}
          by {formatLength(board.width, display)}; inside {formatLength(frame.field.length, display)} by{' '}
          {formatLength(frame.field.width, display)}.
        </text>
      </svg>
    </div>
  );
}
