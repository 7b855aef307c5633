import { edgeReach, type Corners, type EdgeCut, type Side } from './edge.ts';
import type { BoardSize } from './groove.ts';
import { mapOutline, rectangle, type Outline } from './outline.ts';
import type { Solid } from './solids.ts';

/** Wood that goes, seen from above, from one depth below the show side of the finished board to another, mm. */
export type Cut = Pick<Solid, 'outlines' | 'from' | 'to'>;

/** What an edge treatment takes: a bar along each side that gets it, as far in and down as it reaches. */
export function edgeCuts(
  cut: EdgeCut,
  places: readonly { side: Side; face: 'top' | 'bottom' }[],
  { length, width, thickness }: BoardSize,
): Cut[] {
  const { reach, drop } = edgeReach(cut, thickness);
  const bars: Record<Side, Outline> = {
    far: rectangle(0, 0, length, reach),
    near: rectangle(0, width - reach, length, reach),
    left: rectangle(0, 0, reach, width),
    right: rectangle(length - reach, 0, reach, width),
  };
  return places.map(({ side, face }) => ({
    outlines: [bars[side]],
    ...(face === 'top' ? { from: 0, to: drop } : { from: thickness - drop, to: thickness }),
  }));
}

/** What rounding or clipping takes off each of the four corners. */
export function cornerCuts({ kind, size }: Corners, { length, width, thickness }: BoardSize): Cut[] {
  // From the left end round to the far edge, as the board's own outline goes.
  const bulge = kind === 'round' ? Math.tan(Math.PI / 8) : 0;
  const first: Outline = {
    closed: true,
    vertices: [
      { x: 0, y: 0, bulge: 0 },
      { x: 0, y: size, bulge },
      { x: size, y: 0, bulge: 0 },
    ],
  };
  const second = mapOutline(first, ({ x, y }) => ({ x: length - x, y }), true);
  const across = (o: Outline) => mapOutline(o, ({ x, y }) => ({ x, y: width - y }), true);
  return [first, second, across(first), across(second)].map((o) => ({ outlines: [o], from: 0, to: thickness }));
}
