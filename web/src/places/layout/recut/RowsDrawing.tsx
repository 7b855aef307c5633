import { useId, useMemo, useState, type KeyboardEvent, type ReactNode } from 'react';
import { nth } from '#core/lists/there.ts';
import { Button, Menu, SegmentedControl } from '@mantine/core';
import { cornersMissBy, SEEN_MM, withStrayStrips } from '#core/board/corners.ts';
import { rowsOf } from '#core/board/again.ts';
import { randomFrom } from '#core/propose/random.ts';
import { makePlan } from '#core/plan/plan.ts';
import { ROW_PATTERNS, rowLies, type RowLie, type RowPattern } from '#core/board/rowPatterns.ts';
import { formatLength } from '#core/units/formatLength.ts';
import { useOpenBoard, useSettledBoard } from '../../../data/openBoard.tsx';
import { DimensionLine } from '../../../drawing/DimensionLine.tsx';
import { FaceCells, FaceWood } from '../../../drawing/FaceWood.tsx';
import { fitScale, scaleWords } from '../../../drawing/scale.ts';
import { useStripSpecies } from '../../../drawing/useStripSpecies.ts';
import type { RecutPlan } from '#core/plan/plan.ts';
import { HAND_STEP } from '#core/units/length.ts';
import { useDisplay } from '../../../quantities/display.tsx';
import { useShortcuts } from '../../../shortcuts/Shortcuts.tsx';
import type { useRecut } from './useRecut.ts';
import { useRoomUnder } from './useRoomUnder.ts';
import classes from './recut.module.css';

const ROOM = { left: 60, right: 24, top: 40, bottom: 34 };
/** Rows are shifted in these steps, mm. */
const SHIFT = { metric: 1, inch: HAND_STEP.inch };

/** Keys of rows in hand, wherever the hands are, as the list of keys tells them. */
const ROW_KEYS = {
  a: 'Pick up all rows',
  t: 'Turn rows in hand end for end',
  o: 'Turn rows in hand over',
  '[': 'Shift rows in hand back',
  ']': 'Shift rows in hand along',
  '0': 'Lay rows in hand as sawn',
  x: 'Swap two rows in hand',
  f: 'Shuffle rows in hand',
} as const;

interface RowsDrawingProps {
  width: number;
  height: number;
  oiled: boolean;
  work: ReturnType<typeof useRecut>;
}

/** The rows of the board side by side, to scale: picked up by the handful, turned, and shifted along. */
export function RowsDrawing(props: RowsDrawingProps) {
  const { recut } = useSettledBoard().plan;
  return recut && <Rows {...props} recut={recut} />;
}

/** How far strips are off in the play, mm, and how many times as far they are drawn. */
const STRAYS = [0.1, 0.2, 0.5];
const DRAWN_TIMES = 10;

/** How exact strips must be: the same rows of strips that are all a little off. */
function useStray(recut: RecutPlan) {
  const { board, input } = useSettledBoard();
  const [on, setOn] = useState(false);
  const [by, setBy] = useState(0.2);
  const [seed, setSeed] = useState(1);
  const shown = useMemo(() => {
    if (!on) return { thing: undefined, misses: null };
    const off = (mm: number) => withStrayStrips(board, mm, randomFrom(seed).next);
    const made = rowsOf(off(by), input.shop);
    return {
      thing: makePlan({ ...input, board: off(by * DRAWN_TIMES) }).again?.glued ?? undefined,
      misses: cornersMissBy(recut) === null || !made ? null : cornersMissBy(made),
    };
  }, [on, by, seed, board, input, recut]);
  return {
    ...shown,
    on,
    by,
    setBy,
    toggle: () => setOn((o) => !o),
    again: () => setSeed((n) => n + 1),
  };
}

function Rows({ width, height, oiled, work, recut }: RowsDrawingProps & { recut: RecutPlan }) {
  const { board, plan, input } = useSettledBoard();
  const { session } = useOpenBoard();
  const { display } = useDisplay();
  const { above, room } = useRoomUnder(height);
  const [held, setHeld] = useState<readonly number[]>([]);
  const [said, setSaid] = useState('');
  /** Each shuffle is another one. */
  const [shuffles, setShuffles] = useState(1);
  /** Rows that were just turned, and how: shown as they turn. */
  const [turning, setTurning] = useState<{ rows: readonly number[]; how: 'round' | 'over'; n: number } | null>(null);
  const clip = useId();
  const species = useStripSpecies(board, input.species);
  const glued = plan.again?.glued;
  const stray = useStray(recut);
  const { block } = recut;
  const across = recut.last.runs === 'across';
  const scale = fitScale(
    [block.length, block.width],
    [width - ROOM.left - ROOM.right, room - ROOM.top - ROOM.bottom],
    2.5,
  );
  const [x0, y0] = [ROOM.left, ROOM.top];
  const lies = rowLies(recut);
  const own = held.filter((i) => i < lies.length);
  const change = (how: (lie: RowLie) => Partial<RowLie>, words: string, mergeKey?: string, turn?: 'round' | 'over') => {
    if (own.length === 0) return setSaid('Pick up a row first.');
    work.layRows(own, how, mergeKey);
    setTurning((last) => (turn ? { rows: own, how: turn, n: (last?.n ?? 0) + 1 } : null));
    setSaid(`${own.length === 1 ? `Row ${nth(own, 0) + 1}` : `${own.length} rows`} ${words}`);
  };
  const step = SHIFT[display.system];
  const actions: Record<string, () => void> = {
    t: () => change((l) => ({ endForEnd: !l.endForEnd }), 'turned end for end', undefined, 'round'),
    o: () => change((l) => ({ over: !l.over }), 'turned over', undefined, 'over'),
    '[': () => change((l) => ({ shift: l.shift - step }), 'shifted back', 'rows-shift'),
    ']': () => change((l) => ({ shift: l.shift + step }), 'shifted along', 'rows-shift'),
    '0': () => change(() => ({ shift: 0, over: false, endForEnd: false }), 'as sawn'),
    a: () => setHeld(lies.map((_, i) => i)),
    x: () => {
      if (own.length !== 2) return setSaid('Pick up two rows to swap them.');
      work.reorder(own, [1, 0]);
      setSaid(`Rows ${own.map((i) => i + 1).join(' and ')} swapped`);
    },
    f: () => {
      if (own.length < 2) return setSaid('Pick up the rows to shuffle.');
      work.reorder(own, randomFrom(shuffles).shuffled(own.map((_, i) => i)));
      setShuffles((n) => n + 1);
      setSaid(`${own.length} rows shuffled`);
    },
  };
  useShortcuts(
    'Rows',
    Object.entries(ROW_KEYS).map(([keys, does]) => ({ keys, does, run: () => actions[keys]?.() })),
  );
  const rowBox = (i: number): Box => {
    const [from, size] = [i * recut.row * scale, recut.row * scale];
    return across
      ? { x: from, y: 0, width: size, height: block.width * scale }
      : { x: 0, y: from, width: block.length * scale, height: size };
  };
  const onKey = (event: KeyboardEvent, i: number) => {
    const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (by !== undefined) {
      const next = Math.max(0, Math.min(lies.length - 1, i + by));
      setHeld(event.shiftKey ? [...new Set([...own, next])] : [next]);
      (event.currentTarget.parentElement?.children[next] as SVGElement | undefined)?.focus();
    } else if (event.key === ' ' || event.key === 'Enter') setHeld(toggled(own, i));
    else if (actions[event.key]) actions[event.key]?.();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div>
      <div ref={above} className={classes.rowsBar} role="toolbar" aria-label="Rows in hand">
        <Menu withinPortal>
          <Menu.Target>
            <Button size="compact-xs" variant="default">
              Patterns
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            {(Object.keys(ROW_PATTERNS) as RowPattern[]).map((p) => (
              <Menu.Item key={p} onClick={() => work.lay(p)}>
                {ROW_PATTERNS[p].name}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
        {(
          [
            ['t', 'End for end'],
            ['o', 'Turn over'],
            ['[', 'Shift back'],
            [']', 'Shift along'],
            ['0', 'As sawn'],
            ['x', 'Swap'],
            ['f', 'Shuffle'],
          ] as const
        ).map(([key, name]) => (
          <Button
            key={key}
            size="compact-xs"
            variant="default"
            disabled={own.length === 0}
            title={`Key ${key}`}
            onClick={() => actions[key]?.()}
          >
            {name}
          </Button>
        ))}
        <Button
          size="compact-xs"
          variant={stray.on ? 'filled' : 'default'}
          aria-pressed={stray.on}
          onClick={stray.toggle}
        >
          How exact?
        </Button>
        {stray.on && (
          <>
            <SegmentedControl
              size="xs"
              aria-label="How far strips are off"
              value={String(stray.by)}
              onChange={(by) => stray.setBy(Number(by))}
              data={STRAYS.map((by) => ({ value: String(by), label: `±${formatLength(by, display)}` }))}
            />
            <Button size="compact-xs" variant="default" onClick={stray.again}>
              Again
            </Button>
          </>
        )}
        {stray.on ? (
          <span className={classes.stray} role="status">
            {stray.misses === null
              ? 'Rows lie so that no corner has to meet another: strips may be as they are.'
              : `Every strip off by up to ${formatLength(stray.by, display)}, drawn ${DRAWN_TIMES} times as far: corners miss by up to ${formatLength(stray.misses, display)}. An eye sees ${formatLength(SEEN_MM, display)}.`}
          </span>
        ) : (
          <span className={classes.held}>
            {own.length === 0
              ? 'Pick rows up on the drawing: click, Shift-click for more, A for all.'
              : `${own.length === 1 ? `Row ${nth(own, 0) + 1}` : `${own.length} rows`} in hand${shiftWords(own.map((i) => nth(lies, i).shift))}`}
          </span>
        )}
      </div>
      <svg
        className={classes.drawing}
        width={width}
        height={room}
        role="group"
        aria-label="The rows as they are glued, drawn to scale"
      >
        <g transform={`translate(${x0} ${y0})`}>
          {glued && !stray.thing && <FaceWood thing={glued} scale={scale} species={species} oiled={oiled} />}
          {stray.thing && <FaceCells thing={stray.thing} scale={scale} species={species} />}
          {glued &&
            turning?.rows.map((i) => (
              <Turning
                key={`${turning.n}/${i}`}
                clip={`${clip}-${i}`}
                how={turning.how}
                across={across}
                box={rowBox(i)}
              >
                <FaceCells thing={glued} scale={scale} species={species} />
              </Turning>
            ))}
          <g
            role="listbox"
            aria-label="Rows"
            aria-multiselectable="true"
            aria-orientation={across ? 'horizontal' : 'vertical'}
          >
            {lies.map((lie, i) => {
              return (
                <rect
                  key={i}
                  role="option"
                  tabIndex={i === (own[0] ?? 0) ? 0 : -1}
                  aria-selected={own.includes(i)}
                  aria-label={`Row ${i + 1}${lie.endForEnd ? ', end for end' : ''}${lie.over ? ', turned over' : ''}${lie.shift === 0 ? '' : `, shifted ${formatLength(lie.shift, display)}`}`}
                  className={classes.row}
                  {...rowBox(i)}
                  onClick={(event) => {
                    session.endMerge();
                    setHeld(event.shiftKey || event.ctrlKey || event.metaKey ? toggled(own, i) : [i]);
                  }}
                  onKeyDown={(event) => onKey(event, i)}
                />
              );
            })}
          </g>
          {lies.map((lie, i) => {
            const middle = (i + 0.5) * recut.row * scale;
            const sign = `${lie.endForEnd ? '⇄' : ''}${lie.over ? '⟲' : ''}`;
            const [x, y] = across ? [middle, -8] : [-12, middle];
            return recut.row * scale < 11 && i % 5 > 0 ? null : (
              <text
                key={i}
                className={classes.rowNumber}
                x={x}
                y={y}
                textAnchor="middle"
                dominantBaseline="central"
                aria-hidden="true"
              >
                {sign || i + 1}
              </text>
            );
          })}
        </g>
        <DimensionLine from={[x0, 14]} to={[x0 + block.length * scale, 14]} mm={block.length} />
        <DimensionLine from={[20, y0]} to={[20, y0 + block.width * scale]} mm={block.width} />
        <text className={classes.caption} x={x0} y={room - 10}>
          {scaleWords(scale)}. As far as all rows reach, before it is trimmed. ⇄ end for end, ⟲ turned over.
        </text>
      </svg>
      <div className={classes.live} aria-live="polite">
        {said}
      </div>
    </div>
  );

  function shiftWords(shifts: readonly number[]): string {
    const first = nth(shifts, 0);
    if (shifts.some((s) => s !== first)) return ', shifted in different ways';
    return first === 0 ? '' : `, shifted by ${formatLength(first, display)}`;
  }
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A row as it turns to where it lies now: round about its middle, or over about its length. Nothing of it where people want no motion. */
function Turning({
  clip,
  how,
  across,
  box,
  children,
}: {
  clip: string;
  how: 'round' | 'over';
  across: boolean;
  box: Box;
  children: ReactNode;
}) {
  return (
    <g
      className={classes.turning}
      data-how={how === 'round' ? 'round' : across ? 'overAcross' : 'over'}
      style={{ transformOrigin: `${box.x + box.width / 2}px ${box.y + box.height / 2}px` }}
      aria-hidden="true"
    >
      <clipPath id={clip}>
        <rect {...box} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>{children}</g>
    </g>
  );
}

const toggled = (held: readonly number[], i: number): number[] =>
  held.includes(i) ? held.filter((h) => h !== i) : [...held, i].sort((a, b) => a - b);
