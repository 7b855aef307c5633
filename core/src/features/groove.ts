import type { FeatureOf } from './feature.ts';
import { outlineLength, rectangle, type Outline, type Point } from './outline.ts';

type Groove = FeatureOf<'groove'>;

/** Finished size of a board, mm. */
export interface BoardSize {
  length: number;
  width: number;
  thickness: number;
}

/** Half of what a round-nose bit opens at the face when it is `depth` deep, mm. */
export function halfOpening(bit: number, depth: number): number {
  const r = bit / 2;
  return depth >= r ? r : Math.sqrt(Math.max(0, 2 * r * depth - depth ** 2));
}

/** What a round-nose bit takes out of the section, mm2: a segment of its circle, and below its middle its full width. */
export function sectionArea(bit: number, depth: number): number {
  const r = bit / 2;
  if (depth <= 0) return 0;
  if (depth > r) return (Math.PI * r ** 2) / 2 + (depth - r) * bit;
  return r ** 2 * Math.acos((r - depth) / r) - (r - depth) * Math.sqrt(2 * r * depth - depth ** 2);
}

/** Lines that the middle of the bit follows, one for each well; none where the board has no room for them. */
export function grooveLines({ offset, wells, corner }: Groove, { length, width }: BoardSize): Outline[] {
  const [long, across] = [length - 2 * offset, width - 2 * offset];
  // A bridge between two wells is as wide as the margin: the same offset between their middles.
  const each = wells === 1 ? long : (long - offset) / 2;
  if (each <= 0 || across <= 0) return [];
  return Array.from({ length: wells }, (_, i) => rectangle(offset + i * (each + offset), offset, each, across, corner));
}

/** How deep the groove is at a place along the board, mm. @param x from the left end, mm */
export function depthAt({ depth, spout, fall, offset }: Groove, { length }: BoardSize, x: number): number {
  if (!spout) return depth;
  const from = spout === 'left' ? x - offset : length - offset - x;
  return Math.max(0, depth - fall * Math.max(0, Math.min(1, from / (length - 2 * offset))));
}

/** What the bit takes out where it is deepest: between these lines; and the channel of the spout. */
export function grooveBands(groove: Groove, size: BoardSize): Outline[][] {
  const half = halfOpening(groove.bit, groove.depth);
  const bands = grooveLines(groove, size).map((middle) => {
    const xs = middle.vertices.map((v) => v.x);
    const ys = middle.vertices.map((v) => v.y);
    const [left, right, far, near] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const corner = Math.min(groove.corner, (right - left) / 2, (near - far) / 2);
    const outer = rectangle(left - half, far - half, right - left + 2 * half, near - far + 2 * half, corner + half);
    const [long, across] = [right - left - 2 * half, near - far - 2 * half];
    return long > 0 && across > 0
      ? [outer, rectangle(left + half, far + half, long, across, Math.max(0, corner - half))]
      : [outer];
  });
  if (!groove.spout || bands.length === 0) return bands;
  const end = groove.spout === 'left' ? 0 : size.length - groove.offset;
  return [...bands, [rectangle(end, size.width / 2 - half, groove.offset, 2 * half)]];
}

/** The line that the middle of the bit follows through the spout: from the groove's own line out over the edge, clear of it. Null without one. */
export function spoutLine(
  { spout, offset, bit }: Groove,
  { length, width }: BoardSize,
): { from: Point; to: Point } | null {
  if (!spout) return null;
  const y = width / 2;
  return spout === 'left'
    ? { from: { x: offset, y }, to: { x: -bit / 2, y } }
    : { from: { x: length - offset, y }, to: { x: length + bit / 2, y } };
}

/** How deep a round-nose bit of full depth cuts beside its middle, mm. */
function profileDepth(bit: number, depth: number, beside: number): number {
  const r = bit / 2;
  return Math.max(0, depth - r + Math.sqrt(Math.max(0, r ** 2 - beside ** 2)));
}

/** Squares on a side that the mouth of the spout is summed in. */
const MOUTH_STEPS = 60;

/** What the channel of the spout holds beyond the groove that it leaves, mm3: what both cut is counted once. */
function spoutVolume({ bit, depth, offset }: Groove): number {
  const half = halfOpening(bit, depth);
  const step = half / MOUTH_STEPS;
  let mouth = 0;
  for (let i = 0; i < MOUTH_STEPS; i += 1) {
    const groove = profileDepth(bit, depth, (i + 0.5) * step);
    for (let k = 0; k < MOUTH_STEPS; k += 1)
      mouth += 2 * Math.max(0, profileDepth(bit, depth, (k + 0.5) * step) - groove) * step ** 2;
  }
  return sectionArea(bit, depth) * Math.max(0, offset - half) + mouth;
}

/** Pieces that an inclined groove is summed in. */
const STEPS = 400;

/**
 * What the groove holds to the brim, mm3: its section times the way of its middle. That is exact on straights and, because the section is as wide on either side of its
 * middle, on arcs (Pappus); along an incline it is summed in short pieces.
 */
export function grooveVolume(groove: Groove, size: BoardSize): number {
  const lines = grooveLines(groove, size);
  const channel = groove.spout && lines.length > 0 ? spoutVolume(groove) : 0;
  if (!groove.spout || groove.fall === 0)
    return channel + lines.reduce((sum, l) => sum + outlineLength(l), 0) * sectionArea(groove.bit, groove.depth);
  return (
    channel +
    lines.reduce((sum, { vertices }) => {
      const xs = vertices.map((v) => v.x);
      const [left, right] = [Math.min(...xs), Math.max(...xs)];
      const ys = vertices.map((v) => v.y);
      const across = Math.max(...ys) - Math.min(...ys);
      const corner = Math.max(0, Math.min(groove.corner, (right - left) / 2, across / 2));
      const area = (x: number) => sectionArea(groove.bit, depthAt(groove, size, x));
      let volume = 0;
      for (let i = 0; i < STEPS; i += 1) {
        const t = (i + 0.5) / STEPS;
        // Both long ways, then the two straight ends, then the four corners, by angle.
        volume += (area(left + corner + t * (right - left - 2 * corner)) * 2 * (right - left - 2 * corner)) / STEPS;
        const bend = corner * Math.sin((t * Math.PI) / 2);
        volume += ((area(left + corner - bend) + area(right - corner + bend)) * 2 * corner * (Math.PI / 2)) / STEPS;
      }
      return sum + volume + (area(left) + area(right)) * (across - 2 * corner);
    }, 0)
  );
}

/**
 * A frame laid on the board that guides the router's round base: its opening is the line of the bit's middle, half a base further out on every side.
 * @param base diameter of the router's base, mm
 */
export function jigOpening(
  groove: Groove,
  size: BoardSize,
  base: number,
): { length: number; width: number; corner: number; beyond: number } | null {
  if (groove.wells !== 1 || grooveLines(groove, size).length === 0) return null;
  const [long, across] = [size.length - 2 * groove.offset, size.width - 2 * groove.offset];
  return {
    length: long + base,
    width: across + base,
    corner: Math.min(groove.corner, long / 2, across / 2) + base / 2,
    beyond: base / 2 - groove.offset,
  };
}
