import { Button, SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { missingOf } from '#core/board/back.ts';
import { backSchema } from '#core/board/recipe.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { useOpenBoard, useSettledBoard } from '../../../data/openBoard.tsx';
import { DimensionLine } from '../../../drawing/DimensionLine.tsx';
import { FaceWood } from '../../../drawing/FaceWood.tsx';
import { fitScale, scaleWords } from '../../../drawing/scale.ts';
import { useStripSpecies } from '../../../drawing/useStripSpecies.ts';
import { useDisplay } from '../../../quantities/display.tsx';
import { LengthInput } from '../../../quantities/LengthInput.tsx';
import { useShortcuts } from '../../../shortcuts/Shortcuts.tsx';
import { StripFields } from './StripFields.tsx';
import { useRoomUnder } from './useRoomUnder.ts';
import { useBack } from './useBack.ts';
import classes from './recut.module.css';

const ROOM = { left: 60, right: 30, top: 44, bottom: 44 };

interface BackDrawingProps {
  width: number;
  height: number;
  oiled: boolean;
}

/** The board from below with its back, to scale: strips are picked up where they lie. */
export function BackDrawing({ width, height, oiled }: BackDrawingProps) {
  const { board } = useOpenBoard();
  const { plan, input } = useSettledBoard();
  const { display } = useDisplay();
  const work = useBack();
  const { above, room } = useRoomUnder(height);
  const [chosen, setChosen] = useState(0);
  const species = useStripSpecies(board, input.species);
  const { back } = work;
  const at = Math.min(chosen, Math.max(0, (back?.strips.length ?? 1) - 1));
  useShortcuts('Back', [
    { keys: 'n', does: 'One more strip, like the one in hand', run: () => work.add(at) },
    { keys: 'Delete', does: 'Take the strip in hand out', run: () => work.removeStrip(at) },
    { keys: 'e', does: 'Cover the board with equal strips', run: work.fill },
  ]);
  const held = back?.strips[at];
  if (!back || !held) return null;
  const thing = plan.wood?.board;
  const [l, w] = thing?.size ?? [board.length, board.width];
  const scale = fitScale([l, w], [width - ROOM.left - ROOM.right, room - ROOM.top - ROOM.bottom], 2.5);
  const [x0, y0] = [ROOM.left, ROOM.top];
  const missing = missingOf(back);
  return (
    <div>
      <div ref={above}>
        <div className={classes.bar} role="toolbar" aria-label="Strips of the back">
          {back.strips.map(({ strip, number }, i) => (
            <button key={strip.id} type="button" aria-pressed={i === at} onClick={() => setChosen(i)}>
              Strip {number}
            </button>
          ))}
          <Button size="compact-xs" variant="default" title="Key n" onClick={() => work.add(at)}>
            One more
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            title="Key Delete"
            disabled={back.strips.length === 1}
            onClick={() => work.removeStrip(at)}
          >
            Take this one out
          </Button>
          <Button size="compact-xs" variant="default" title="Key e" onClick={work.fill}>
            Cover the board
          </Button>
          <Button size="compact-xs" variant="subtle" color="red" onClick={work.remove}>
            Take the back off
          </Button>
        </div>
        <div className={classes.fields}>
          <StripFields strip={held.strip} label="Wide" onChange={(change) => work.changeStrip(at, change)} />
          <div className={classes.wood}>
            <Button size="compact-xs" variant="default" onClick={() => work.allOf(held.strip.species)}>
              All of this wood
            </Button>
          </div>
          <LengthInput
            size="xs"
            w={104}
            field="Back"
            label="Back, thick"
            mm={back.thickness}
            schema={backSchema.shape.thickness}
            onCommit={work.setThickness}
          />
          <div className={classes.wood}>
            <SegmentedControl
              size="xs"
              aria-label="How the strips of the back lie"
              value={back.operation.runs}
              onChange={work.run}
              data={[
                { value: 'along', label: 'Along the board' },
                { value: 'across', label: 'Across it' },
              ]}
            />
          </div>
          <small className={classes.wood} role="status">
            {missing > 0
              ? `${formatLength(missing, display)} more are needed to cover the board.`
              : `Together ${formatLength(back.width, display)}; ${formatLength(back.wantedWidth, display)} cover the board.`}
          </small>
        </div>
      </div>
      <svg
        className={classes.drawing}
        width={width}
        height={room}
        role="img"
        aria-label="The board from below with its back, drawn to scale"
      >
        <g transform={`translate(${x0} ${y0})`}>
          {thing && <FaceWood thing={thing} side="under" scale={scale} species={species} oiled={oiled} />}
          <rect className={classes.outline} width={l * scale} height={w * scale} />
        </g>
        <DimensionLine from={[x0, 18]} to={[x0 + l * scale, 18]} mm={l} />
        <DimensionLine from={[16, y0]} to={[16, y0 + w * scale]} mm={w} />
        <text className={classes.caption} x={x0} y={room - 10}>
          {scaleWords(scale)}. From below, turned over about its length. Strips {formatLength(back.length, display)}{' '}
          long as crosscut, milled to {formatLength(back.height, display)};{' '}
          {formatLength(back.inside.thickness, display)} of the board are above it.
        </text>
      </svg>
    </div>
  );
}
