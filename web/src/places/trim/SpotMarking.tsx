import { useState, type PointerEvent } from 'react';
import { within } from './GripHandle.tsx';
import classes from './TrimDrawing.module.css';

interface Place {
  x: number;
  y: number;
  length: number;
  width: number;
}

interface SpotMarkingProps {
  panel: { length: number; width: number };
  /** Pixels per mm. */
  scale: number;
  /** Where on the panel a pointer is, mm. */
  place(event: { clientX: number; clientY: number }): { x: number; y: number };
  onMark(place: Place): void;
}

/** What is drawn smaller than this was a click, mm. */
const LEAST = 3;

/** Bad places are drawn right on the panel with mouse or pen. A finger scrolls; the button beside the list does the same for fingers and keys. */
export function SpotMarking({ panel, scale, place, onMark }: SpotMarkingProps) {
  const [drawn, setDrawn] = useState<{
    pointer: number;
    from: { x: number; y: number };
    to: { x: number; y: number };
  } | null>(null);
  const onPanel = (event: PointerEvent) => {
    const { x, y } = place(event);
    return { x: within(x, panel.length), y: within(y, panel.width) };
  };
  const marked = drawn && markedBetween(drawn.from, drawn.to);
  const begin = (event: PointerEvent<SVGRectElement>) => {
    if (event.button !== 0 || event.pointerType === 'touch' || drawn) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrawn({ pointer: event.pointerId, from: onPanel(event), to: onPanel(event) });
  };
  return (
    <>
      <rect
        className={classes.marking}
        width={panel.length * scale}
        height={panel.width * scale}
        onPointerDown={begin}
        onPointerMove={(event) => drawn?.pointer === event.pointerId && setDrawn({ ...drawn, to: onPanel(event) })}
        onPointerUp={(event) => {
          if (drawn?.pointer !== event.pointerId) return;
          // Up to where the pointer is: its last moves may not be drawn yet.
          const spot = markedBetween(drawn.from, onPanel(event));
          if (spot) onMark(spot);
          setDrawn(null);
        }}
        onPointerCancel={() => setDrawn(null)}
      />
      {marked && (
        <rect
          className={classes.marked}
          x={marked.x * scale}
          y={marked.y * scale}
          width={marked.length * scale}
          height={marked.width * scale}
        />
      )}
    </>
  );
}

/** @returns null where so little was drawn that it was a click */
function markedBetween(a: { x: number; y: number }, b: { x: number; y: number }): Place | null {
  const box = { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), length: Math.abs(a.x - b.x), width: Math.abs(a.y - b.y) };
  return box.length >= LEAST && box.width >= LEAST ? box : null;
}
