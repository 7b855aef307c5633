import { firstOf, nth } from '#core/lists/there.ts';
import { startTransition, useEffect, useRef, useState, type PointerEvent, type RefObject } from 'react';
import { LEAST_STRIP_WIDTH, moveJoint, moveStrips, swapPlaces } from '#core/board/arrange.ts';
import { snapJoint, type Snap } from '#core/board/snapJoint.ts';
import type { Plan } from '#core/plan/plan.ts';
import type { StripBody } from '#core/bodies/stripBody.ts';
import type { LengthDisplay } from '#core/units/formatLength.ts';
import { drawnLength } from '../../quantities/Length.tsx';
import type { PickUp } from './hand.ts';
import { RowMover } from './moveRows.ts';
import { offeredWidths } from './offers.ts';
import type { Strip } from '#core/board/recipe.ts';

/** How near a width must be for a joint to rest on it, pixels. */
const SNAP_PX = 7;
const DRAG_START_PX = 4;
/** A finger that stays this long picks the strip up with the others. */
const LONG_PRESS_MS = 450;
/** While a joint is dragged, what stands around the rows in the drawing follows this often, ms. */
const DRAWN_EVERY_MS = 100;
/** The board itself, and with it the plan and all that is told beside the drawing, follows once the hand has rested so long, ms. */
const REST_MS = 160;

interface Held {
  dy: number;
  y: number;
  free: boolean;
  trade: boolean;
}

interface Gesture {
  pointer: number;
  kind: 'joint' | 'strip';
  index: number;
  /** Strips that move along, by id. */
  ids: string[];
  startY: number;
  /** Where the panel begins on the screen. */
  panelY: number;
  startWidth: number;
  scale: number;
  key: string;
  moving: boolean;
  /** Lets go where another strip lies: the two change places. */
  swaps: boolean;
  /** Moves the rows of the drawing while a joint is dragged; null when React does it. */
  mover: RowMover | null;
  /** When the drawing around the rows followed last, ms. */
  drawn: number;
  /** Where the joint was taken to, and what changes the board to it when the hand rests. */
  taken: { width: number; trade: boolean } | null;
  rest: ReturnType<typeof setTimeout> | undefined;
  /** Where the pointer was last, waiting for the next frame. */
  at: Held | null;
  was: Held | null;
  /** The strip it would change places with. */
  over: number | null;
}

interface GestureInput {
  svgRef: RefObject<SVGSVGElement | null>;
  strips: readonly Strip[];
  plan: Plan;
  bodies: ReadonlyMap<string, StripBody>;
  display: LengthDisplay;
  /** Pixels per mm, and where the panel begins in the drawing. */
  scale: number;
  top: number;
  /** The board is seen from below: the order of the strips runs upward. */
  flipped: boolean;
  held: readonly number[];
  onPick(index: number, how: PickUp): void;
  onStrips(edit: (strips: readonly Strip[]) => Strip[], mergeKey: string): void;
  onGestureEnd(): void;
}

/** What stays as it was while something is dragged: the scale, or the board would shrink away under the finger, and the wood, or it would change in the hand. */
export interface Frozen {
  scale: number;
  bodies: ReadonlyMap<string, StripBody>;
  /** A joint is dragged: the rows are moved in the page, and React leaves them alone. */
  joint: boolean;
}

/** Dragging of strips and joints on the drawing, with mouse, pen or finger. A second finger is left alone. */
export function useStripGesture(input: GestureInput) {
  const gesture = useRef<Gesture | null>(null);
  const gestures = useRef(0);
  const pressed = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  /** Strip under a finger that may yet become a tap, a long press or a scroll. */
  const touched = useRef<number | null>(null);
  /** Has moved rows, and gives them back once React has drawn them where they are. */
  const moved = useRef<RowMover | null>(null);
  const [frozen, setFrozen] = useState<Frozen | null>(null);
  /** The strips as the hand has them while the board has not followed yet. */
  const [live, setLive] = useState<readonly Strip[] | null>(null);
  const [snap, setSnap] = useState<(Snap & { index: number }) | null>(null);
  const [swapWith, setSwapWith] = useState<number | null>(null);

  const change = (g: Gesture) => {
    if (!g.taken) return;
    const { width, trade } = g.taken;
    g.taken = null;
    input.onStrips((s) => moveJoint(s, g.index, width, trade), g.key);
  };

  const follow = (g: Gesture, last = false) => {
    if (last) g.at ??= g.was;
    if (!g.at) return;
    g.was = g.at;
    const { strips, plan, display, onStrips } = input;
    const { dy, y, free, trade } = g.at;
    g.at = null;
    if (g.kind === 'joint') {
      const strip = strips[g.index];
      if (!strip) return;
      const raw = g.startWidth + dy / g.scale;
      const found: Snap = free
        ? { width: Math.max(LEAST_STRIP_WIDTH, raw), reason: { kind: 'grid' } }
        : snapJoint({
            width: raw,
            index: g.index,
            strips,
            offered: strip.rolled ? [] : offeredWidths(plan.sections, strip.species, display),
            reach: SNAP_PX / g.scale,
            filling: strip.width + plan.allowances.wantedPanelWidth - sumOf(strips),
            system: display.system,
          });
      g.mover?.move(strips, found.width, trade);
      g.taken = { width: found.width, trade };
      clearTimeout(g.rest);
      const now = performance.now();
      if (!g.mover || last || now - g.drawn >= DRAWN_EVERY_MS) {
        g.drawn = now;
        setSnap((old) =>
          old && old.index === g.index && old.width === found.width ? old : { ...found, index: g.index },
        );
        setLive(moveJoint(strips, g.index, found.width, trade));
      }
      if (!g.mover || last) change(g);
      else g.rest = setTimeout(() => latest.current.change(g), REST_MS);
      return;
    }
    const held = strips.flatMap((s, i) => (g.ids.includes(s.id) ? [i] : []));
    if (g.swaps) {
      g.over = stripAt(strips, y / g.scale);
      setSwapWith(g.over);
      return;
    }
    const place = strips.slice(0, held[0]).filter((_, i) => !held.includes(i)).length;
    const to = placeAt(strips, held, y / g.scale, place);
    const together = held.every((h, n) => h === firstOf(held) + n);
    if (to !== place || !together) onStrips((s) => moveStrips(s, held, to), g.key);
  };

  const begin = (event: PointerEvent<SVGSVGElement>) => {
    if (gesture.current || event.button !== 0) return;
    const target = (event.target as Element).closest<SVGElement>('[data-joint],[data-strip]');
    if (!target) return;
    const { strips, held, scale, onPick } = input;
    const joint = target.dataset.joint !== undefined;
    const index = Number(joint ? target.dataset.joint : target.dataset.strip);
    const strip = strips[index];
    if (!strip) return;
    if (!joint && (event.shiftKey || event.ctrlKey || event.metaKey)) {
      onPick(index, event.shiftKey ? 'through' : 'also');
      return;
    }
    // A finger scrolls the page over strips that are not in hand; a second touch on the one in hand drags it, a long one picks it up with the others.
    const touch = event.pointerType === 'touch';
    clearTimeout(pressed.current);
    if (touch && !joint) {
      pressed.current = setTimeout(() => {
        touched.current = null;
        if (!gesture.current?.moving) onPick(index, 'also');
      }, LONG_PRESS_MS);
    }
    if (touch && !joint && !held.includes(index)) {
      touched.current = index;
      return;
    }
    if (!joint && !held.includes(index)) onPick(index, 'only');
    moved.current?.end();
    moved.current = null;
    event.currentTarget.setPointerCapture(event.pointerId);
    gestures.current += 1;
    gesture.current = {
      pointer: event.pointerId,
      kind: joint ? 'joint' : 'strip',
      index,
      ids: held.includes(index) && !joint ? held.map((i) => nth(strips, i).id) : [strip.id],
      startY: event.clientY,
      panelY: event.currentTarget.getBoundingClientRect().top + input.top,
      startWidth: strip.width,
      scale,
      key: `drag-${gestures.current}`,
      moving: false,
      swaps: event.altKey && !joint,
      mover:
        joint && !input.flipped
          ? new RowMover(event.currentTarget, index, input.top, scale, (mm) => drawnLength(mm, input.display))
          : null,
      drawn: -Infinity,
      taken: null,
      rest: undefined,
      at: null,
      was: null,
      over: null,
    };
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const g = gesture.current;
    if (!g || g.pointer !== event.pointerId) return;
    const sign = input.flipped ? -1 : 1;
    const dy = event.clientY - g.startY;
    if (!g.moving && Math.abs(dy) < DRAG_START_PX) return;
    if (!g.moving) {
      if (g.kind === 'joint') input.onPick(g.index, 'only');
      clearTimeout(pressed.current);
      setFrozen({ scale: g.scale, bodies: input.bodies, joint: g.mover !== null });
    }
    g.moving = true;
    // A pointer reports more often than the screen is drawn: only its last place before a frame counts.
    const pending = g.at !== null;
    const below = event.clientY - g.panelY;
    const y = input.flipped ? sumOf(input.strips) * g.scale - below : below;
    g.at = { dy: dy * sign, y, free: event.altKey, trade: event.shiftKey };
    if (!pending) requestAnimationFrame(() => latest.current.follow(g));
  };
  const end = (event: PointerEvent<SVGSVGElement>) => {
    clearTimeout(pressed.current);
    if (touched.current !== null && event.type === 'pointerup') input.onPick(touched.current, 'only');
    touched.current = null;
    const g = gesture.current;
    if (g?.pointer !== event.pointerId) return;
    follow(g, true);
    clearTimeout(g.rest);
    moved.current = g.mover;
    gesture.current = null;
    const other = g.swaps && g.moving && event.type === 'pointerup' ? g.over : null;
    if (other !== null && other !== g.index) input.onStrips((s) => swapPlaces(s, g.index, other), g.key);
    // A joint that was pressed and not moved: meant was the strip there, which may be thinner than the joint's grip.
    if (!g.moving && g.kind === 'joint' && event.type === 'pointerup') {
      const below = (event.clientY - g.panelY) / g.scale;
      input.onPick(
        stripAt(input.strips, input.flipped ? sumOf(input.strips) - below : below) ?? g.index,
        event.shiftKey ? 'through' : event.ctrlKey || event.metaKey ? 'also' : 'only',
      );
    }
    // A plain click on one of several held strips lays the others down.
    if (!g.moving && g.kind === 'strip' && g.ids.length > 1 && event.pointerType !== 'touch')
      input.onPick(g.index, 'only');
    // The hands are free again before everything is drawn anew.
    startTransition(() => {
      setFrozen(null);
      setLive(null);
      setSnap(null);
      setSwapWith(null);
    });
    input.onGestureEnd();
  };

  // The frame that comes must work on the board as it is then.
  const latest = useRef({ follow, change });
  useEffect(() => {
    if (frozen) return;
    moved.current?.end();
    moved.current = null;
  }, [frozen]);
  useEffect(() => {
    latest.current = { follow, change };
  });
  // While something is dragged the page must not scroll. The touch-action property does not reach the shapes inside a drawing everywhere;
  // a listener that may prevent does.
  const { svgRef } = input;
  useEffect(() => {
    const svg = svgRef.current;
    const hold = (event: TouchEvent) => {
      if (gesture.current) event.preventDefault();
    };
    svg?.addEventListener('touchmove', hold, { passive: false });
    return () => svg?.removeEventListener('touchmove', hold);
  }, [svgRef]);

  return {
    frozen,
    live,
    snap,
    swapWith,
    handlers: { onPointerDown: begin, onPointerMove: move, onPointerUp: end, onPointerCancel: end },
  };
}

function sumOf(strips: readonly Strip[]): number {
  return strips.reduce((sum, s) => sum + s.width, 0);
}

/** How many other strips lie before those in hand when they are held at `y` mm from the first edge. @param place where they are now */
function placeAt(strips: readonly Strip[], held: readonly number[], y: number, place: number): number {
  const width = held.reduce((sum, i) => sum + nth(strips, i).width, 0);
  const others = strips.filter((_, i) => !held.includes(i));
  let top = 0;
  for (let i = 0; i < others.length; i += 1) {
    const middle = top + nth(others, i).width / 2 + (i >= place ? width : 0);
    if (y < middle) return i;
    top += nth(others, i).width;
  }
  return others.length;
}

/** The strip that lies at `y` mm from the first edge. */
function stripAt(strips: readonly Strip[], y: number): number | null {
  let top = 0;
  for (let i = 0; i < strips.length; i += 1) {
    top += nth(strips, i).width;
    if (y >= 0 && y < top) return i;
  }
  return null;
}
