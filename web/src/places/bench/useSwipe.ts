import { useRef, type TouchEvent } from 'react';

/** A finger must travel so far sideways to mean it, pixels. */
const SWIPE_PX = 80;

/** A finger drawn sideways over the page. */
export function useSwipe(onSwipe: (by: number) => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  return {
    onTouchStart: (event: TouchEvent) => {
      const touch = event.touches[0];
      const inDrawing = event.target instanceof Element && event.target.closest('svg, input, dialog, [role=dialog]');
      from.current = touch && !inDrawing ? { x: touch.clientX, y: touch.clientY } : null;
    },
    onTouchEnd: (event: TouchEvent) => {
      const touch = event.changedTouches[0];
      const start = from.current;
      from.current = null;
      if (!start || !touch) return;
      const [dx, dy] = [touch.clientX - start.x, touch.clientY - start.y];
      if (Math.abs(dx) > SWIPE_PX && Math.abs(dx) > 2 * Math.abs(dy)) onSwipe(dx < 0 ? 1 : -1);
    },
  };
}
