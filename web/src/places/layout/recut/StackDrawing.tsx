import { Button } from '@mantine/core';
import { useState } from 'react';
import { missingDepth } from '#core/board/accents.ts';
import { stackSchema, stripSchema } from '#core/board/recipe.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { HAND_STEP, toHandStep } from '#core/units/length.ts';
import { useOpenBoard } from '../../../data/openBoard.tsx';
import { DimensionLine } from '../../../drawing/DimensionLine.tsx';
import { fitScale, scaleWords } from '../../../drawing/scale.ts';
import { StackBits } from '../../../drawing/StackBits.tsx';
import { useDisplay } from '../../../quantities/display.tsx';
import { LengthInput } from '../../../quantities/LengthInput.tsx';
import { useShortcuts } from '../../../shortcuts/Shortcuts.tsx';
import { SpeciesChoice } from '../StripRail.tsx';
import { acrossDrawing, alongDrawing, byArrows, whileHeld } from './onGrip.ts';
import { StackSection } from './StackSection.tsx';
import { useRoomUnder } from './useRoomUnder.ts';
import { useStacks } from './useStacks.ts';
import classes from './recut.module.css';

const ROOM = { left: 60, right: 70, top: 60, bottom: 44 };
const GRIP = 9;
/** A stack is thin: it is drawn no larger than this, pixels per mm. */
const LARGEST = 4;

interface StackDrawingProps {
  width: number;
  height: number;
}

/** Bits end to end as they are glued, and the accents that they are resawn into, to scale: joints of the first round and the depth are taken hold of. */
export function StackDrawing({ width, height }: StackDrawingProps) {
  const { input } = useOpenBoard();
  const { display } = useDisplay();
  const work = useStacks();
  const { above, room } = useRoomUnder(height);
  const [chosen, setChosen] = useState('');
  const [bit, setBit] = useState(0);
  const stack = work.stacks.find((s) => s.operation.id === chosen) ?? work.stacks[0];
  const id = stack?.operation.id ?? '';
  const at = Math.min(bit, Math.max(0, (stack?.sticks.length ?? 1) - 1));
  useShortcuts('Accents', [
    { keys: 'n', does: 'One more wood in the pattern, like the one in hand', run: () => work.addBit(id, at) },
    { keys: 'Delete', does: 'Take the wood in hand out of the pattern', run: () => work.removeBit(id, at) },
    { keys: 'e', does: 'As deep as the accents ask', run: () => work.fit(id) },
  ]);
  const held = stack?.sticks[at];
  if (!stack || !held) return null;
  const { sticks, accents, depth, glued, spares, off } = stack;
  const thin = accents[0]?.strip.width ?? 0;
  const scale = fitScale([glued, depth], [width - ROOM.left - ROOM.right, room - ROOM.top - ROOM.bottom], LARGEST);
  const [x0, y0] = [ROOM.left, ROOM.top];
  const missing = missingDepth(stack);
  const ends = sticks.map((_, k) => sticks.slice(0, k + 1).reduce((sum, s) => sum + s.bit, 0));
  return (
    <div>
      <div ref={above}>
        <div className={classes.bar} role="toolbar" aria-label="Accents of bits">
          {work.stacks.length > 1 &&
            work.stacks.map((s, i) => (
              <button
                key={s.operation.id}
                type="button"
                aria-pressed={s === stack}
                onClick={() => setChosen(s.operation.id)}
              >
                Stack {i + 1}
              </button>
            ))}
          {sticks.map(({ strip, number }, i) => (
            <button key={strip.id} type="button" aria-pressed={i === at} onClick={() => setBit(i)}>
              Bits of {number}
            </button>
          ))}
          <Button size="compact-xs" variant="default" title="Key n" onClick={() => work.addBit(id, at)}>
            One more wood
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            title="Key Delete"
            disabled={sticks.length === 1}
            onClick={() => work.removeBit(id, at)}
          >
            Take this one out
          </Button>
          <Button size="compact-xs" variant="default" onClick={() => work.more(id)}>
            One more accent
          </Button>
          <Button size="compact-xs" variant="default" disabled={accents.length === 1} onClick={() => work.less(id)}>
            One accent less
          </Button>
          <Button size="compact-xs" variant="default" title="Key e" onClick={() => work.fit(id)}>
            As deep as they ask
          </Button>
          <Button size="compact-xs" variant="subtle" color="red" onClick={() => work.remove(id)}>
            Take the stack out
          </Button>
        </div>
        <div className={classes.fields}>
          <div className={classes.wood}>
            <SpeciesChoice
              value={held.strip.species}
              species={input.species}
              rack={input.rack}
              onChange={(species) => work.changeBit(id, at, { species })}
            />
          </div>
          <LengthInput
            key={held.strip.id}
            size="xs"
            w={104}
            field="Bit length"
            label="Bits, long"
            mm={held.bit}
            schema={stackSchema.shape.bits.element}
            onCommit={(length) => work.changeBit(id, at, { length })}
          />
          <LengthInput
            size="xs"
            w={104}
            field="Accent width"
            label="Accents, wide"
            mm={thin}
            schema={stripSchema.shape.width}
            onCommit={(mm) => work.setAccents(id, mm)}
          />
          <LengthInput
            size="xs"
            w={104}
            field="Depth"
            label="Stack, deep"
            mm={depth}
            schema={stripSchema.shape.width}
            onCommit={(mm) => work.setDepth(id, mm)}
          />
          <small className={classes.wood} role="status">
            {missing > 0
              ? `${formatLength(missing, display)} deeper, or an accent less: the saw takes ${formatLength(stack.gap, display)} between two.`
              : `${accents.length} ${accents.length === 1 ? 'accent' : 'accents'}${spares > 0 ? ` and ${spares} spare` : ', no spare'}; ${formatLength(stack.gap, display)} for the saw between two.`}
          </small>
        </div>
      </div>
      <svg
        className={classes.drawing}
        width={width}
        height={room}
        role="group"
        aria-label="The stack of bits with its saw cuts, drawn to scale"
      >
        <g transform={`translate(${x0} ${y0})`}>
          <StackBits stack={stack} species={input.species} scale={scale} cuts />
          {[off, glued - off].map((x) => (
            <path key={x} className={classes.cut} d={`M${x * scale} -4V${depth * scale + 4}`} />
          ))}
          {sticks.map(({ strip, number, bit: long }, k) => {
            const from = (ends[k] ?? 0) - long;
            return (
              <g
                key={strip.id}
                className={classes.grip}
                role="slider"
                tabIndex={0}
                aria-label={`Length of the bits of strip ${number}`}
                aria-orientation="horizontal"
                aria-valuemin={stackSchema.shape.bits.element.minValue ?? 0}
                aria-valuemax={stackSchema.shape.bits.element.maxValue ?? 500}
                aria-valuenow={Math.round(long * 10) / 10}
                aria-valuetext={formatLength(long, display)}
                onKeyDown={(event) =>
                  byArrows(event, HAND_STEP[display.system], (by) =>
                    work.changeBit(id, k, { length: long + by }, `bits-${strip.id}`),
                  )
                }
                {...whileHeld(
                  (event) =>
                    work.changeBit(
                      id,
                      k,
                      { length: toHandStep(alongDrawing(event, x0, scale) - from, display.system) },
                      `bits-${strip.id}`,
                    ),
                  work.endMerge,
                )}
                onFocus={() => setBit(k)}
              >
                <circle cx={(ends[k] ?? 0) * scale} cy={depth * scale + 14} r={GRIP} />
                <path d={`M${(ends[k] ?? 0) * scale} ${depth * scale + 5}V0`} />
              </g>
            );
          })}
          <g
            className={classes.grip}
            role="slider"
            tabIndex={0}
            aria-label="Depth of the stack"
            aria-orientation="vertical"
            aria-valuemin={stripSchema.shape.width.minValue ?? 0}
            aria-valuemax={stripSchema.shape.width.maxValue ?? 1000}
            aria-valuenow={Math.round(depth * 10) / 10}
            aria-valuetext={formatLength(depth, display)}
            onKeyDown={(event) =>
              byArrows(event, HAND_STEP[display.system], (by) => work.setDepth(id, depth + by, `deep-${id}`))
            }
            {...whileHeld(
              (event) => work.setDepth(id, toHandStep(acrossDrawing(event, y0, scale), display.system), `deep-${id}`),
              work.endMerge,
            )}
          >
            <circle cx={glued * scale + 34} cy={depth * scale} r={GRIP} />
            <path d={`M${glued * scale} ${depth * scale}h25`} />
          </g>
        </g>
        <DimensionLine from={[x0, 24]} to={[x0 + glued * scale, 24]} mm={glued} />
        <DimensionLine from={[20, y0]} to={[20, y0 + depth * scale]} mm={depth} />
        <text className={classes.caption} x={x0} y={y0 + depth * scale + 46}>
          {scaleWords(scale)}, from above. {stack.bits.length} bits in turn; dashed: cut off as long as the strips,{' '}
          {formatLength(stack.length, display)}. Outlined: the accents, by their numbers in the panel.
        </text>
        <StackSection
          stack={stack}
          x={x0}
          y={y0 + depth * scale + 76}
          width={width - ROOM.left - ROOM.right}
          height={room - (y0 + depth * scale + 76) - 30}
        />
      </svg>
    </div>
  );
}
