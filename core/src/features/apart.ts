import { firstOf, nth } from '../lists/there.ts';
import { boundsOf, outlinePoints, type Outline, type Point } from './outline.ts';

/** Whether a point lies inside closed outlines, holes in them left out (even-odd). */
export function isInside(point: Point, outlines: readonly Outline[]): boolean {
  return inRings(
    point,
    outlines.filter((o) => o.closed).map((o) => outlinePoints(o)),
  );
}

function inRings({ x, y }: Point, rings: readonly (readonly Point[])[]): boolean {
  let inside = false;
  for (const ring of rings) {
    let before = ring.at(-1);
    for (const p of ring) {
      if (before && p.y > y !== before.y > y && x < ((before.x - p.x) * (y - p.y)) / (before.y - p.y) + p.x)
        inside = !inside;
      before = p;
    }
  }
  return inside;
}

type Segment = readonly [Point, Point];

/** Nothing nearer than this is told apart from touching, mm. */
const TOUCHING = 1e-9;

/**
 * Clear distance between two shapes seen from above, mm; 0 where they touch or one lies on the other.
 * @param enough stop looking for a smaller one once they are at least this far apart by their bounds, mm
 */
export function apart(one: readonly Outline[], other: readonly Outline[], enough = Infinity): number {
  const [a, b] = [boundsOf(one), boundsOf(other)];
  const byBounds = Math.hypot(
    Math.max(0, a.left - b.right, b.left - a.right),
    Math.max(0, a.far - b.near, b.far - a.near),
  );
  if (byBounds >= enough) return byBounds;
  const [ringsA, ringsB] = [one.map((o) => outlinePoints(o)), other.map((o) => outlinePoints(o))];
  return inRings(firstOf(firstOf(ringsA)), ringsB) || inRings(firstOf(firstOf(ringsB)), ringsA)
    ? 0
    : ringsApart(ringsA, ringsB);
}

/** Distance between the lines of closed outlines, whatever lies inside them, mm. */
export function linesApart(one: readonly Outline[], other: readonly Outline[]): number {
  return ringsApart(
    one.map((o) => outlinePoints(o)),
    other.map((o) => outlinePoints(o)),
  );
}

function ringsApart(ringsA: readonly (readonly Point[])[], ringsB: readonly (readonly Point[])[]): number {
  const segments = (rings: readonly (readonly Point[])[]): Segment[] =>
    rings.flatMap((ring) => ring.map((p, i): Segment => [p, nth(ring, (i + 1) % ring.length)]));
  const theirs = segments(ringsB);
  let least = Infinity;
  for (const mine of segments(ringsA)) {
    for (const their of theirs) least = Math.min(least, segmentsApart(mine, their));
    if (least <= TOUCHING) return 0;
  }
  return least;
}

function segmentsApart([a, b]: Segment, [c, d]: Segment): number {
  const side = (p: Point, q: Point, r: Point) => (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x);
  if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return 0;
  return Math.min(pointApart(a, c, d), pointApart(b, c, d), pointApart(c, a, b), pointApart(d, a, b));
}

function pointApart(p: Point, a: Point, b: Point): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const along = dx * dx + dy * dy;
  const t = along === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / along));
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}
