import type { KeyboardEvent, PointerEvent } from 'react';

const ARROWS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 };

/** What arrow keys do to a grip: a step to either side, with shift ten. */
export function byArrows(event: KeyboardEvent, step: number, change: (by: number) => void): void {
  const by = ARROWS[event.key];
  if (by === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  change(by * step * (event.shiftKey ? 10 : 1));
}

/** What a grip of a drawing does while it is held, and when it is let go. */
export const whileHeld = (move: (event: PointerEvent) => void, letGo: () => void) => ({
  onPointerDown: (event: PointerEvent<SVGElement>) => {
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    event.currentTarget.focus();
  },
  onPointerMove: (event: PointerEvent<SVGElement>) => {
    if (event.currentTarget.hasPointerCapture(event.pointerId)) move(event);
  },
  onPointerUp: letGo,
  onPointerCancel: letGo,
});

/** Where the pointer is across the drawing that a grip belongs to, mm. @param y0 where the drawn thing begins, pixels @param scale pixels per mm */
export function acrossDrawing(event: PointerEvent, y0: number, scale: number): number {
  const box = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
  return (event.clientY - (box?.top ?? 0) - y0) / scale;
}

/** Where the pointer is along the drawing that a grip belongs to, mm. @param x0 where the drawn thing begins, pixels @param scale pixels per mm */
export function alongDrawing(event: PointerEvent, x0: number, scale: number): number {
  const box = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
  return (event.clientX - (box?.left ?? 0) - x0) / scale;
}
