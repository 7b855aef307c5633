import { useMeasuredSize } from '../../../drawing/useMeasuredSize.ts';

/** A drawing is no lower than this, pixels: the page scrolls before it is unreadable. */
export const LEAST = 220;

/**
 * Room for a drawing under its fields, which wrap to as many lines as the page is narrow.
 * @param height for fields and drawing together, pixels
 * @returns a ref for what stands above the drawing, and what is left for the drawing, pixels
 */
export function useRoomUnder(height: number): { above: ReturnType<typeof useMeasuredSize>['ref']; room: number } {
  const { ref, height: taken } = useMeasuredSize();
  return { above: ref, room: Math.max(LEAST, height - taken) };
}
