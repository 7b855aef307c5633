import { insideOf, type FrameRing, type FrameSide, type FrameStrip } from '../board/frame.ts';
import { shift, type Motion } from './motion.ts';
import { carried, cellsWithin, type Workpiece } from './workpiece.ts';

/** How a strip of a frame lies: along the board with its first side away, at an end with its first end at the far edge and its first side to the right. @param raised above the underside of what it goes round, mm */
function lieOf(strip: FrameStrip, ring: FrameRing, raised: number): Motion {
  const [[x, y], [right]] = spanOf(strip, ring);
  const over = (strip.length - strip.covers) / 2;
  return isLong(strip)
    ? shift([x - over, y, raised])
    : { origin: [right, y - over, raised], along: [0, 1, 0], across: [-1, 0, 0], up: [0, 0, 1] };
}

/** A thing with a ring of strips round it, their ends cut off flush and their faces made level with it. @param strips each as it was milled */
export function frameWorkpiece(
  inside: Workpiece,
  ring: FrameRing,
  strips: Readonly<Record<FrameSide, Workpiece>>,
): Workpiece {
  const { x, y } = insideOf(ring);
  const height = inside.size[2];
  const place = shift([x, y, 0]);
  const around = ring.pairs.flat().flatMap((strip) => {
    const wood = strips[strip.side];
    const lie = lieOf(strip, ring, (height - wood.size[2]) / 2);
    const [from, to] = spanOf(strip, ring);
    return cellsWithin(carried(wood.cells, lie), [from[0], from[1], 0], [to[0], to[1], height]);
  });
  return {
    size: [ring.outer.length, ring.outer.width, height],
    cells: [...carried(inside.cells, place), ...around],
  };
}

/** The rectangle that a strip of a ring covers, from corner to corner, mm from the ring's left end and far edge. */
export function spanOf(strip: FrameStrip, ring: FrameRing): [[number, number], [number, number]] {
  const { x, y } = insideOf(ring);
  const { inner, outer } = ring;
  const whole = strip.covers > (isLong(strip) ? inner.length : inner.width) + 1e-9;
  if (isLong(strip)) {
    const [from, to] = whole ? [0, outer.length] : [x, x + inner.length];
    const top = strip.side === 'far' ? 0 : outer.width - strip.width;
    return [
      [from, top],
      [to, top + strip.width],
    ];
  }
  const [from, to] = whole ? [0, outer.width] : [y, y + inner.width];
  const left = strip.side === 'left' ? 0 : outer.length - strip.width;
  return [
    [left, from],
    [left + strip.width, to],
  ];
}

const isLong = ({ side }: FrameStrip): boolean => side === 'far' || side === 'near';
