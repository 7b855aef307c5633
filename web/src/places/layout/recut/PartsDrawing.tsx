import { useState, type PointerEvent } from 'react';
import { fieldOf } from '#core/board/again.ts';
import { GREATEST_ANGLE } from '#core/board/recipe.ts';
import type { Insert } from '#core/board/inset.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { HAND_STEP, toHandStep } from '#core/units/length.ts';
import { useOpenBoard, useSettledBoard } from '../../../data/openBoard.tsx';
import { DimensionLine } from '../../../drawing/DimensionLine.tsx';
import { FaceWood } from '../../../drawing/FaceWood.tsx';
import { fitScale, scaleWords } from '../../../drawing/scale.ts';
import { useStripSpecies } from '../../../drawing/useStripSpecies.ts';
import { useDisplay } from '../../../quantities/display.tsx';
import { useShortcuts } from '../../../shortcuts/Shortcuts.tsx';
import { PartsFields } from './PartsFields.tsx';
import { alongDrawing, byArrows, whileHeld } from './onGrip.ts';
import { angleAt } from './sliceGeometry.ts';
import { useRoomUnder } from './useRoomUnder.ts';
import { useInserts } from './useInserts.ts';
import classes from './recut.module.css';

const ROOM = { left: 60, right: 30, top: 58, bottom: 58 };
const GRIP = 9;

interface PartsDrawingProps {
  width: number;
  height: number;
  oiled: boolean;
}

/** The board with what is put into it, to scale: each strip is taken hold of where it lies, moved along the board and turned. */
export function PartsDrawing({ width, height, oiled }: PartsDrawingProps) {
  const { board: whole } = useOpenBoard();
  const { plan, input } = useSettledBoard();
  // Where strips lie is told on the board, or on what its frame goes round.
  const board = fieldOf(whole, input.shop);
  const { display } = useDisplay();
  const work = useInserts();
  const { above, room } = useRoomUnder(height);
  const [chosen, setChosen] = useState('');
  const species = useStripSpecies(whole, input.species);
  const { inserts } = work;
  const held = inserts.find((i) => i.operation.id === chosen) ?? inserts[0];
  useShortcuts('Strips put in', [
    { keys: 'n', does: 'Put in another strip', run: () => work.add(held) },
    { keys: 'Delete', does: 'Take the strip in hand out', run: () => held && work.remove(held.operation.id) },
  ]);
  const wide = (plan.frame?.fields ?? plan.back?.tops ?? plan).ladders.width.reached;
  const scale = fitScale([board.length, wide], [width - ROOM.left - ROOM.right, room - ROOM.top - ROOM.bottom], 2.5);
  const [x0, y0] = [ROOM.left, ROOM.top];
  const thing = plan.frame ? plan.frame.inside : plan.wood?.board;
  const place = (event: PointerEvent) => alongDrawing(event, x0, scale);
  const dragged = (id: string, move: (event: PointerEvent) => void) => ({
    ...whileHeld(move, work.endMerge),
    onFocus: () => setChosen(id),
  });
  const half = (wide * scale) / 2;
  const lines = inserts.map((insert) => ({ insert, ...lineOf(insert, scale, half) }));
  return (
    <div>
      <div ref={above}>
        <PartsFields work={work} held={held} onHold={setChosen} />
      </div>
      <svg
        className={classes.drawing}
        width={width}
        height={room}
        role="group"
        aria-label="The board with the strips that are put in, drawn to scale"
      >
        <g transform={`translate(${x0} ${y0})`}>
          {thing && <FaceWood thing={thing} scale={scale} species={species} oiled={oiled} />}
          <rect className={classes.outline} width={board.length * scale} height={wide * scale} />
          {lines.map(({ insert, middle, lean, reach }) => {
            const { id } = insert.operation;
            const inHand = id === held?.operation.id;
            return (
              <g key={id}>
                <path
                  className={classes.putInEdge}
                  data-held={inHand || undefined}
                  d={[-reach, reach].map((by) => `M${middle + lean + by} 0L${middle - lean + by} ${2 * half}`).join('')}
                />
                <g
                  className={classes.grip}
                  role="slider"
                  tabIndex={0}
                  aria-label={`Place of strip ${insert.number}`}
                  aria-valuemin={0}
                  aria-valuemax={Math.round(board.length * 10) / 10}
                  aria-valuenow={Math.round(insert.operation.at * 10) / 10}
                  aria-valuetext={`${formatLength(insert.operation.at, display)} from the left end`}
                  onKeyDown={(event) =>
                    byArrows(event, HAND_STEP[display.system], (by) =>
                      work.change(id, { at: insert.operation.at + by }, `at-${id}`),
                    )
                  }
                  {...dragged(id, (event) =>
                    work.change(id, { at: toHandStep(place(event), display.system) }, `at-${id}`),
                  )}
                >
                  <circle cx={middle} cy={-14} r={GRIP} />
                  <path d={`M${middle - 4} -14h8M${middle} -5V${half}`} />
                </g>
                <g
                  className={classes.grip}
                  role="slider"
                  tabIndex={0}
                  aria-label={`Angle of strip ${insert.number}`}
                  aria-valuemin={-GREATEST_ANGLE}
                  aria-valuemax={GREATEST_ANGLE}
                  aria-valuenow={insert.angle}
                  aria-valuetext={`${insert.angle} degrees`}
                  onKeyDown={(event) =>
                    byArrows(event, 0.5, (by) => work.change(id, { angle: insert.angle + by }, `angle-${id}`))
                  }
                  {...dragged(id, (event) => {
                    const near = place(event) - insert.operation.at;
                    work.change(id, { angle: angleAt(-near, near, wide) }, `angle-${id}`);
                  })}
                >
                  <circle cx={middle - lean} cy={2 * half + 14} r={GRIP} />
                  <path d={`M${middle - lean} ${2 * half + 5}V${2 * half}`} />
                </g>
                <text className={classes.number} x={middle} y={half} textAnchor="middle" dominantBaseline="central">
                  {insert.number}
                </text>
              </g>
            );
          })}
        </g>
        <DimensionLine from={[x0, 18]} to={[x0 + board.length * scale, 18]} mm={board.length} />
        <DimensionLine from={[16, y0]} to={[16, y0 + wide * scale]} mm={wide} />
        <text className={classes.caption} x={x0} y={room - 10}>
          {scaleWords(scale)}. Grip above: where a strip lies; below: its angle.
          {held &&
            ` Strip ${held.number}: ${formatLength(held.operation.at, display)} from the left end, ${held.angle}°, ${formatLength(held.length, display)} long as crosscut.`}
        </text>
      </svg>
    </div>
  );
}

/** Where a strip crosses the middle of the board, how far its middle leans to either edge, and half of what it covers along the board, pixels. */
function lineOf({ operation, angle, width }: Insert, scale: number, half: number) {
  const a = (angle * Math.PI) / 180;
  return {
    middle: operation.at * scale,
    lean: half * Math.tan(a),
    reach: ((width / 2) * scale) / Math.cos(a),
  };
}
