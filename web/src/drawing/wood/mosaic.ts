import { nth } from '#core/lists/there.ts';
import type { Log } from './log.ts';
import { paintWood, type Cut } from './paintWood.ts';

/** One cell of a face that is glued of many: where its wood is cut, and the part of the face it fills, mm. */
export interface Tile {
  /** Which of the logs. */
  log: number;
  /** Of the smallest upright rectangle round it. */
  cut: Cut;
  at: readonly [number, number];
  polygon: readonly (readonly [number, number])[];
}

export interface Mosaic {
  logs: Log[];
  tiles: Tile[];
}

/**
 * A face glued of many cells as one picture: each cell is painted as the wood that it is, and laid where it lies.
 * @param size of the face, mm @param scale pixels per mm
 */
export function paintMosaic(
  { logs, tiles }: Mosaic,
  size: readonly [number, number],
  scale: number,
  oiled: boolean,
): { width: number; height: number; rgb: Uint8Array } {
  const width = Math.max(1, Math.round(size[0] * scale));
  const height = Math.max(1, Math.round(size[1] * scale));
  const rgb = new Uint8Array(width * height * 3).fill(120);
  for (const { log, cut, at, polygon } of tiles) {
    const tile = paintWood(nth(logs, log), cut, scale, oiled);
    const [left, top] = [Math.round(at[0] * scale), Math.round(at[1] * scale)];
    for (let j = 0; j < tile.height; j += 1) {
      const y = top + j;
      if (y < 0 || y >= height) continue;
      const span = across(polygon, (y + 0.5) / scale);
      if (!span) continue;
      const from = Math.max(0, left, Math.round(span[0] * scale));
      const to = Math.min(width, left + tile.width, Math.round(span[1] * scale));
      if (to <= from) continue;
      const start = (j * tile.width + from - left) * 3;
      rgb.set(tile.rgb.subarray(start, start + (to - from) * 3), (y * width + from) * 3);
    }
  }
  return { width, height, rgb };
}

/** From where to where a convex outline reaches along a line across it; null beside it. */
function across(polygon: Tile['polygon'], y: number): [number, number] | null {
  let [least, most] = [Infinity, -Infinity];
  for (let i = 0; i < polygon.length; i += 1) {
    const [ax, ay] = nth(polygon, i);
    const [bx, by] = nth(polygon, (i + 1) % polygon.length);
    if (ay === by || y < Math.min(ay, by) || y > Math.max(ay, by)) continue;
    const x = ax + ((bx - ax) * (y - ay)) / (by - ay);
    if (x < least) least = x;
    if (x > most) most = x;
  }
  return least <= most ? [least, most] : null;
}
