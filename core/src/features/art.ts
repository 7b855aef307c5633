import { certain, firstOf, lastOf, nth } from '../lists/there.ts';
import { z } from 'zod';
import { lineOfText } from '../units/textSchema.ts';
import type { Point } from './outline.ts';

/** More characters of path than a mark needs: 5 000 nodes are about 150 000. */
export const MOST_ART_CHARACTERS = 400_000;

/**
 * A drawing for a mark: lines and cubic curves in a box of its own, `length` by `width` units, the longer of them 1000. Only M, L, C and Z, all absolute, so that nothing in it can be anything but a line.
 */
export const artSchema = z.strictObject({
  name: lineOfText(1, 80),
  length: z.number().min(0.001, { error: 'must be more than nothing' }).max(1000),
  width: z.number().min(0.001, { error: 'must be more than nothing' }).max(1000),
  d: z
    .string()
    .max(MOST_ART_CHARACTERS)
    .regex(/^(?:[MLCZ]|-?\d+(?:\.\d+)?|[ ,])*$/, { error: 'must be a path of M, L, C and Z' }),
});
export type Art = z.infer<typeof artSchema>;

/** Length of the longer side of a drawing's box, units. */
export const ART_BOX = 1000;
/** A curve is cut into straights that leave it by no more than this, units. */
const CURVE_ERROR = 0.5;

const FLAT = new WeakMap<Art, { points: Point[]; closed: boolean }[]>();

/** The lines of a drawing, curves as chains of straights, in its own units. */
export function artLines(art: Art): { points: Point[]; closed: boolean }[] {
  const known = FLAT.get(art);
  if (known) return known;
  const lines: { points: Point[]; closed: boolean }[] = [];
  let at: Point = { x: 0, y: 0 };
  for (const [, letter, figures] of art.d.matchAll(/([MLCZ])([^MLCZ]*)/g)) {
    const n = (certain(figures).match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number);
    if (letter === 'Z') {
      const line = lines.at(-1);
      if (line) {
        line.closed = true;
        at = firstOf(line.points);
      }
    } else if (letter === 'M') {
      at = { x: n[0] ?? 0, y: n[1] ?? 0 };
      lines.push({ points: [at], closed: false });
    } else if (lines.length > 0) {
      const line = lastOf(lines).closed ? { points: [at], closed: false } : lastOf(lines);
      if (line !== lines.at(-1)) lines.push(line);
      const size = letter === 'L' ? 2 : 6;
      for (let i = 0; i + size <= n.length; i += size) {
        const to = { x: nth(n, i + size - 2), y: nth(n, i + size - 1) };
        if (letter === 'L') line.points.push(to);
        else
          line.points.push(
            ...curve(at, { x: nth(n, i), y: nth(n, i + 1) }, { x: nth(n, i + 2), y: nth(n, i + 3) }, to),
          );
        at = to;
      }
    }
  }
  const made = lines.filter((l) => l.points.length > 1);
  FLAT.set(art, made);
  return made;
}

/** Points of a cubic curve after its first. */
function curve(a: Point, b: Point, c: Point, d: Point): Point[] {
  // The second differences bound how far the curve leaves its chords: error <= d2 / (8 n^2) * 6 / 2.
  const bend = Math.max(
    Math.hypot(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y),
    Math.hypot(b.x - 2 * c.x + d.x, b.y - 2 * c.y + d.y),
  );
  const count = Math.max(1, Math.min(200, Math.ceil(Math.sqrt((0.75 * bend) / CURVE_ERROR))));
  return Array.from({ length: count }, (_, i) => {
    const t = (i + 1) / count;
    const s = 1 - t;
    const mix = (p: number, q: number, r: number, w: number) =>
      s ** 3 * p + 3 * s * s * t * q + 3 * s * t * t * r + t ** 3 * w;
    return { x: mix(a.x, b.x, c.x, d.x), y: mix(a.y, b.y, c.y, d.y) };
  });
}
