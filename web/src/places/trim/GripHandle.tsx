import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import classes from './GripHandle.module.css';

/** A place on a drawing at which something is taken hold of. Positions in mm. */
export interface Grip {
  x: number;
  y: number;
  axis: 'x' | 'y' | 'both';
  label: string;
  /** The figure that is moved, mm; of both directions the one along the board. */
  value: number;
}

/** Lengths are dragged in these steps, mm. */
export const GRIP_STEP = 0.5;
/** A length on the grid of dragging, from nothing to a most, mm. */
export const within = (mm: number, most: number): number =>
  Math.max(0, Math.min(most, Math.round(mm / GRIP_STEP) * GRIP_STEP));
const FAST = 10;

interface GripHandleProps {
  grip: Grip;
  /** Where it stands on the drawing, pixels. */
  at: [number, number];
  most: number;
  valueText: string;
  chosen: boolean;
  /** The drawing shows the board turned over: across runs the other way. */
  flipped?: boolean;
  /** Where on the board a pointer is, mm. */
  place(event: { clientX: number; clientY: number }): { x: number; y: number };
  onChoose(): void;
  /** The grip is to go there; moves with the same key are one step of undo. */
  onMove(x: number, y: number, mergeKey?: string): void;
  onEnd(): void;
}

let drags = 0;

/** Moved by mouse, pen or finger, or with the arrow keys: half a millimetre a step, ten times that with Shift. */
export function GripHandle({
  grip,
  at,
  most,
  valueText,
  chosen,
  flipped = false,
  place,
  onChoose,
  onMove,
  onEnd,
}: GripHandleProps) {
  const drag = useRef<{
    pointer: number;
    key: string;
    dx: number;
    dy: number;
    at: { x: number; y: number } | null;
  } | null>(null);
  const [held, setHeld] = useState(false);
  const group = useRef<SVGGElement>(null);
  // The touch-action property does not reach the shapes inside a drawing everywhere; a listener that may prevent does.
  useEffect(() => {
    const element = group.current;
    const hold = (event: TouchEvent) => event.preventDefault();
    element?.addEventListener('touchmove', hold, { passive: false });
    return () => element?.removeEventListener('touchmove', hold);
  }, []);

  const begin = (event: PointerEvent<SVGGElement>) => {
    if (event.button !== 0 || drag.current) return;
    onChoose();
    drags += 1;
    const here = place(event);
    drag.current = {
      pointer: event.pointerId,
      key: `grip-${drags}`,
      dx: grip.x - here.x,
      dy: grip.y - here.y,
      at: null,
    };
    event.currentTarget.setPointerCapture(event.pointerId);
    setHeld(true);
  };
  const move = (event: PointerEvent<SVGGElement>) => {
    const d = drag.current;
    if (d?.pointer !== event.pointerId) return;
    const pending = d.at !== null;
    d.at = place(event);
    // A pointer reports more often than the screen is drawn: only its last place before a frame counts.
    if (!pending) requestAnimationFrame(() => follow(d));
  };
  const follow = (d: NonNullable<typeof drag.current>) => {
    if (!d.at) return;
    const [x, y] = [d.at.x + d.dx, d.at.y + d.dy];
    d.at = null;
    onMove(x, y, d.key);
  };
  const end = (event: PointerEvent<SVGGElement>) => {
    const d = drag.current;
    if (d?.pointer !== event.pointerId) return;
    follow(d);
    drag.current = null;
    setHeld(false);
    onEnd();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = GRIP_STEP * (event.shiftKey ? FAST : 1);
    const [dx, down] = (
      { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] } as Record<
        string,
        [number, number]
      >
    )[event.key] ?? [0, 0];
    if (dx === 0 && down === 0) return;
    event.preventDefault();
    event.stopPropagation();
    const dy = flipped ? -down : down;
    // Either pair of keys moves a grip that has only one way to go.
    const [mx, my] =
      grip.axis === 'both' ? [dx, dy] : grip.axis === 'x' ? [dx === 0 ? down : dx, 0] : [0, down === 0 ? dx : dy];
    onMove(grip.x + mx, grip.y + my);
  };

  return (
    <g
      ref={group}
      transform={`translate(${at[0]} ${at[1]})`}
      className={classes.grip}
      data-held={held || undefined}
      data-chosen={chosen || undefined}
      data-axis={grip.axis}
      role="slider"
      tabIndex={0}
      aria-label={grip.label}
      aria-valuenow={grip.value}
      aria-valuemin={0}
      aria-valuemax={most}
      aria-valuetext={valueText}
      aria-orientation={grip.axis === 'y' ? 'vertical' : 'horizontal'}
      onFocus={onChoose}
      onKeyDown={onKeyDown}
      onPointerDown={begin}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={end}
    >
      <circle r="18" className={classes.reach} />
      <circle r="7" className={classes.knob} />
      <path
        className={classes.arrows}
        d={grip.axis === 'x' ? X_ARROWS : grip.axis === 'y' ? Y_ARROWS : X_ARROWS + Y_ARROWS}
      />
    </g>
  );
}

const X_ARROWS = 'M-10 -3.5L-14 0L-10 3.5M10 -3.5L14 0L10 3.5';
const Y_ARROWS = 'M-3.5 -10L0 -14L3.5 -10M-3.5 10L0 14L3.5 10';
