import {
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type RefObject,
} from 'react';
import { firstOf } from '#core/lists/there.ts';
import { dayAt, momentOf } from '#core/schedule/openings.ts';
import { momentWords } from '../../scheduling/momentWords.ts';
import type { ShopSchedule } from '../../scheduling/useShopSchedule.ts';
import type { Bar, Row } from './calendarRows.ts';
import classes from './CalendarPlace.module.css';

const LABEL = 168;
const HEAD = 34;
const ROW = 26;
const HELD_ROW = 34;
const DAY = 1440;
/** So much before the first and behind the last stretch is drawn, minutes. */
const MARGIN = 120;
/** Days before now of which done steps are drawn. */
const PAST_DAYS = 14;
/** What is dragged less than this was pressed, pixels. */
const PRESS_PX = 4;
/** Pins are to so many minutes when they are dragged. */
const PIN_STEP = 15;
/** So far beyond what is in sight is drawn, and so wide is the name of a day, pixels. */
const BEYOND = 400;
const DAY_NAME = 92;
/** A step that the keyboard goes to is at least so far from the edge, pixels. */
const FOCUS_MARGIN = 80;
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

interface CalendarDrawingProps {
  scroller: RefObject<HTMLDivElement | null>;
  data: ShopSchedule;
  rows: readonly Row[];
  pixelsAnHour: number;
  chosen: string | null;
  /** @param at where it was dragged to; null where it lies */
  onChoose(task: string | null, at: number | null): void;
  /** A step is in hand: what is drawn stays as it is until the pointer lets go. */
  onHold(): void;
  onZoom(way: number): void;
}

/** The timeline: dragged sideways to pan, a step dragged to be pinned; only what is in sight is drawn. */
export function CalendarDrawing({
  scroller,
  data,
  rows,
  pixelsAnHour,
  chosen,
  onChoose,
  onHold,
  onZoom,
}: CalendarDrawingProps) {
  const { work, problem } = data;
  const { zone } = work;
  const words = momentWords(zone, problem.from);
  const bars = rows.flatMap((r) => (r.kind === 'held' ? [] : r.bars));
  const begins = Math.max(problem.from - PAST_DAYS * DAY, Math.min(problem.from, ...bars.map((b) => b.from))) - MARGIN;
  const ends =
    Math.max(problem.from + DAY, ...bars.map((b) => b.to), ...[...problem.dues.values()].map((d) => d.at)) + MARGIN;
  const scale = pixelsAnHour / 60;
  const width = (ends - begins) * scale;
  const x = (minute: number) => (minute - begins) * scale;
  const tops: number[] = [];
  let height = HEAD;
  for (const row of rows) {
    tops.push(height);
    height += row.kind === 'held' ? HELD_ROW : ROW;
  }
  const [seen, setSeen] = useState<[number, number]>([0, 2000]);
  const look = () => {
    const box = scroller.current;
    if (box) setSeen([box.scrollLeft - BEYOND, box.scrollLeft + box.clientWidth + BEYOND]);
  };
  useEffect(() => {
    const box = scroller.current;
    if (!box) return undefined;
    // Now lies near the left edge when the scale is another.
    box.scrollTo({ left: Math.max(0, x(problem.from) - 60) });
    look();
    const resized = new ResizeObserver(look);
    resized.observe(box);
    return () => resized.disconnect();
    // A schedule that is told anew must not take the place in sight away.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [pixelsAnHour]);
  // React listens to wheels without being able to keep the page from zooming too.
  const zoomed = useRef(onZoom);
  useEffect(() => {
    zoomed.current = onZoom;
  });
  useEffect(() => {
    const box = scroller.current;
    const turned = (event: WheelEvent) => {
      if (!event.ctrlKey) return;
      event.preventDefault();
      zoomed.current(-event.deltaY);
    };
    box?.addEventListener('wheel', turned, { passive: false });
    return () => box?.removeEventListener('wheel', turned);
  }, [scroller]);
  const inSight = (from: number, to: number) => x(to) >= seen[0] && x(from) <= seen[1];
  const days = useMemo(() => {
    const list: { day: number; from: number; to: number }[] = [];
    for (let day = dayAt(zone, begins); ; day += 1) {
      const from = momentOf(zone, day, 0);
      if (from > ends) return list;
      list.push({ day, from, to: momentOf(zone, day + 1, 0) });
    }
  }, [zone, begins, ends]);
  const letters = new Map(work.boards.map((b, i) => [b.id, LETTERS[i % LETTERS.length] ?? '?']));
  const tints = new Map(work.boards.map((b, i) => [b.id, i % 6]));
  const pan = usePan(scroller, look);
  const order = useMemo(
    () =>
      rows
        .flatMap((r) => (r.kind === 'board' ? r.bars : []))
        .filter((b) => b.kind === 'hands')
        .sort((a, b) => a.from - b.from || (a.key < b.key ? -1 : 1)),
    [rows],
  );
  // What is out of sight is not drawn, but for the one that has the keyboard: it keeps it wherever a new order or a scroll puts it.
  const [keyboard, setKeyboard] = useState<string | null>(null);
  const isDrawn = (bar: Bar) => bar.key === keyboard || inSight(bar.from, bar.to);
  const barOf = (key: string) =>
    [...(scroller.current?.querySelectorAll<SVGElement>('[data-key][role]') ?? [])].find((b) => b.dataset.key === key);
  useLayoutEffect(() => {
    // Rows that change places in the document let go of it.
    if (keyboard !== null && document.activeElement === document.body) barOf(keyboard)?.focus({ preventScroll: true });
  });
  const drawn = order.filter(isDrawn);
  const focusable = (drawn.find((b) => b.placed?.task.id === chosen) ?? drawn[0])?.key;
  const bringIntoSight = ({ from }: Bar) => {
    const box = scroller.current;
    if (box && (x(from) < box.scrollLeft + FOCUS_MARGIN || x(from) > box.scrollLeft + box.clientWidth - FOCUS_MARGIN))
      box.scrollTo({ left: Math.max(0, x(from) - FOCUS_MARGIN) });
  };
  /** Once it is drawn: what comes into sight is so one frame later. */
  const focusSoon = (key: string, tries = 5) => {
    requestAnimationFrame(() => {
      const shown = barOf(key);
      if (shown) shown.focus({ preventScroll: true });
      else if (tries > 0) focusSoon(key, tries - 1);
    });
  };
  const keyed = (event: KeyboardEvent, bar: Bar) => {
    const at = order.findIndex((b) => b.key === bar.key);
    const way = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      onChoose(bar.placed?.task.id ?? null, null);
    } else if (way !== undefined && event.altKey && bar.placed) {
      event.preventDefault();
      onChoose(bar.placed.task.id, Math.max(problem.from, firstOf(bar.placed.hands).from + way * 60));
    } else if (way !== undefined) {
      event.preventDefault();
      const next = order[Math.max(0, Math.min(order.length - 1, at + way))];
      if (next?.placed) {
        onChoose(next.placed.task.id, null);
        bringIntoSight(next);
        focusSoon(next.key);
      }
    }
  };
  return (
    <div className={classes.frame}>
      <div className={classes.labels} aria-hidden="true" style={{ width: LABEL, paddingTop: HEAD }}>
        {rows.map((row) => (
          <div key={row.id} style={{ height: row.kind === 'held' ? HELD_ROW : ROW }} data-kind={row.kind}>
            {row.kind === 'board' && <i data-tint={tints.get(row.id)}>{letters.get(row.id)}</i>}
            <span>{row.name}</span>
            {row.kind === 'held' && <small>of {Math.round(row.capacity * 10) / 10}</small>}
          </div>
        ))}
      </div>
      <div ref={scroller} className={classes.scroller} onScroll={look} {...pan}>
        <svg width={width} height={height + 4} role="group" aria-label="Steps of all boards in time">
          {days
            .filter((d) => inSight(d.from, d.to))
            .map(({ day, from, to }) => (
              <g key={day}>
                <line x1={x(from)} x2={x(from)} y1={0} y2={height} className={classes.day} />
                {pixelsAnHour >= 3 && (
                  <text
                    // The name of the day that is cut off stays in sight.
                    x={Math.max(x(from) + 4, Math.min(seen[0] + BEYOND + 4, x(to) - DAY_NAME))}
                    y={13}
                    className={classes.dayName}
                  >
                    {words.day(from + 720)}
                  </text>
                )}
              </g>
            ))}
          {pixelsAnHour >= 24 && <Hours days={days} inSight={inSight} x={x} step={pixelsAnHour >= 48 ? 1 : 3} />}
          {problem.people.flatMap((p) =>
            p.open
              .filter((o) => inSight(o.from, o.to))
              .map((o) => (
                <rect
                  key={`${p.id} ${o.from}`}
                  x={x(o.from)}
                  y={HEAD}
                  width={(o.to - o.from) * scale}
                  height={height - HEAD}
                  className={classes.open}
                />
              )),
          )}
          {rows.map((row, i) => (
            <g key={row.id} transform={`translate(0 ${tops[i]})`}>
              <line x1={0} x2={width} y1={0} y2={0} className={classes.rowLine} />
              {row.kind === 'held' ? (
                <Levels row={row} x={x} ends={ends} inSight={inSight} />
              ) : (
                row.bars
                  .filter(isDrawn)
                  .map((bar) => (
                    <BarShape
                      key={bar.key}
                      bar={bar}
                      x={x}
                      scale={scale}
                      tint={tints.get(bar.board) ?? 0}
                      letter={row.kind === 'board' ? '' : (letters.get(bar.board) ?? '')}
                      chosen={bar.placed !== null && bar.placed.task.id === chosen}
                      label={
                        row.kind === 'board' && bar.kind === 'hands'
                          ? `${row.name}: ${bar.title}, ${words.moment(bar.from)} to ${words.clock(bar.to)}${bar.pinned ? ', pinned' : ''}`
                          : null
                      }
                      tabIndex={bar.key === focusable ? 0 : -1}
                      onKeyDown={(event) => keyed(event, bar)}
                      onKeyboard={(has) => setKeyboard((now) => (has ? bar.key : now === bar.key ? null : now))}
                      onHold={onHold}
                      onDrop={(minutes) =>
                        bar.placed &&
                        onChoose(
                          bar.placed.task.id,
                          minutes === 0
                            ? null
                            : Math.max(
                                problem.from,
                                Math.round((firstOf(bar.placed.hands).from + minutes) / PIN_STEP) * PIN_STEP,
                              ),
                        )
                      }
                    />
                  ))
              )}
              {row.kind !== 'held' && row.due !== null && (
                <g className={classes.due} transform={`translate(${x(row.due)} 0)`}>
                  <line y1={1} y2={ROW - 1} />
                  <path d="M0 2h9l-3 4 3 4h-9z" />
                  <title>Due {words.due(row.due)}</title>
                </g>
              )}
            </g>
          ))}
          <line x1={x(problem.from)} x2={x(problem.from)} y1={16} y2={height} className={classes.now} />
          <text x={x(problem.from) + 3} y={29} className={classes.nowName}>
            now
          </text>
        </svg>
      </div>
    </div>
  );
}

function Hours({
  days,
  inSight,
  x,
  step,
}: {
  days: readonly { from: number; to: number }[];
  inSight: (from: number, to: number) => boolean;
  x: (minute: number) => number;
  step: number;
}) {
  return days
    .filter((d) => inSight(d.from, d.to))
    .flatMap(({ from }) =>
      Array.from({ length: Math.ceil(24 / step) - 1 }, (_, k) => {
        const hour = (k + 1) * step;
        return (
          <text key={`${from} ${hour}`} x={x(from + hour * 60)} y={29} className={classes.hour}>
            {hour}
          </text>
        );
      }),
    );
}

interface BarShapeProps {
  bar: Bar;
  x: (minute: number) => number;
  scale: number;
  tint: number;
  letter: string;
  chosen: boolean;
  /** What it is, where it can be chosen. */
  label: string | null;
  tabIndex: number;
  onKeyDown(event: KeyboardEvent): void;
  /** @param has whether it got the keyboard, or let go of it */
  onKeyboard(has: boolean): void;
  /** A pointer took it. */
  onHold(): void;
  /** @param minutes it was dragged; 0 for a press */
  onDrop(minutes: number): void;
}

function BarShape({
  bar,
  x,
  scale,
  tint,
  letter,
  chosen,
  label,
  tabIndex,
  onKeyDown,
  onKeyboard,
  onHold,
  onDrop,
}: BarShapeProps) {
  const dragged = useRef<{ at: number; id: number } | null>(null);
  const [by, setBy] = useState(0);
  const wide = Math.max(2.5, (bar.to - bar.from) * scale);
  const isWait = bar.kind === 'wait' || bar.kind === 'pastWait';
  const down = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    dragged.current = { at: event.clientX, id: event.pointerId };
    onHold();
  };
  const move = (event: PointerEvent) => {
    if (dragged.current?.id === event.pointerId) setBy(event.clientX - dragged.current.at);
  };
  const letGo = () => {
    dragged.current = null;
    setBy(0);
  };
  const up = (event: PointerEvent) => {
    if (dragged.current?.id !== event.pointerId) return;
    // Not from what is drawn: the last moves may not be yet.
    const far = event.clientX - dragged.current.at;
    letGo();
    onDrop(Math.abs(far) < PRESS_PX ? 0 : far / scale);
  };
  return (
    <g
      className={classes.bar}
      data-kind={bar.kind}
      data-tint={tint}
      data-key={bar.key}
      data-chosen={chosen || undefined}
      transform={`translate(${x(bar.from) + by} 0)`}
      {...(label === null
        ? { 'aria-hidden': true }
        : {
            role: 'button',
            tabIndex,
            'aria-label': label,
            'aria-pressed': chosen,
            onKeyDown,
            onFocus: () => onKeyboard(true),
            onBlur: () => onKeyboard(false),
            onPointerDown: down,
            onPointerMove: move,
            onPointerUp: up,
            onPointerCancel: letGo,
          })}
    >
      <rect y={isWait ? 10 : 4} width={wide} height={isWait ? 6 : ROW - 8} rx={2} />
      {bar.pinned && bar.kind === 'hands' && <circle cx={4} cy={5} r={3.2} className={classes.pin} />}
      {wide > 14 && letter !== '' && !isWait && (
        <text x={4} y={ROW / 2 + 4}>
          {letter}
        </text>
      )}
      {wide > 60 && label !== null && !isWait && (
        <text x={6} y={ROW / 2 + 4} data-inside>
          {bar.title.slice(0, Math.floor((wide - 10) / 6.5))}
        </text>
      )}
      <title>{bar.title}</title>
    </g>
  );
}

/** How much is held: steps up to what there is. */
function Levels({
  row: { levels, capacity },
  x,
  ends,
  inSight,
}: {
  row: Extract<Row, { kind: 'held' }>;
  x: (minute: number) => number;
  ends: number;
  inSight: (from: number, to: number) => boolean;
}) {
  const tall = HELD_ROW - 8;
  return (
    <g aria-hidden="true">
      {levels.map(({ at, amount }, i) => {
        const to = levels[i + 1]?.at ?? ends;
        if (amount <= 0 || !inSight(at, to)) return null;
        const high = Math.min(1, amount / capacity) * tall;
        return (
          <g key={at} className={classes.level} data-full={amount >= capacity - 1e-6 || undefined}>
            <rect x={x(at)} y={4 + tall - high} width={Math.max(1, x(to) - x(at))} height={high} />
            {x(to) - x(at) > 18 && (
              <text x={x(at) + 3} y={4 + tall - 4}>
                {Math.round(amount * 10) / 10}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Dragging the ground moves what is in sight. */
function usePan(scroller: RefObject<HTMLDivElement | null>, look: () => void) {
  const from = useRef<{ x: number; left: number } | null>(null);
  return {
    onPointerDown: (event: PointerEvent) => {
      // A finger pans by itself.
      if (event.pointerType === 'mouse' && event.button === 0 && scroller.current)
        from.current = { x: event.clientX, left: scroller.current.scrollLeft };
    },
    onPointerMove: (event: PointerEvent) => {
      if (!from.current || !scroller.current) return;
      scroller.current.scrollTo({ left: from.current.left - (event.clientX - from.current.x) });
      look();
    },
    onPointerUp: () => {
      from.current = null;
    },
    onPointerLeave: () => {
      from.current = null;
    },
  };
}
