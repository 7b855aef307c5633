import { firstOf, lastOf } from '../lists/there.ts';

/** A corner of an outline. `bulge` bends the way to the next one: the tangent of a quarter of the arc's angle, positive where it turns from +x to +y; 0 is straight. */
export interface Vertex {
  x: number;
  y: number;
  bulge: number;
}

/** Straight lines and arcs, mm. x runs along a board from its left end, y across it from its far edge. */
export interface Outline {
  vertices: readonly Vertex[];
  closed: boolean;
}

export interface Point {
  x: number;
  y: number;
}

/** Bulge of a quarter circle, and of half of one. */
const QUARTER = Math.tan(Math.PI / 8);
const HALF = 1;
/** An arc is drawn through points that leave it by no more than this, mm. */
const CHORD_ERROR = 0.02;

/**
 * A rectangle with rounded or clipped corners, its sides first.
 * @param corner radius of the round, or what is clipped off each side, mm; more than half of the shorter side is taken as that half
 */
export function rectangle(
  x: number,
  y: number,
  length: number,
  width: number,
  corner = 0,
  kind: 'round' | 'clip' = 'round',
): Outline {
  const c = Math.max(0, Math.min(corner, length / 2, width / 2));
  const [right, near] = [x + length, y + width];
  if (c === 0)
    return {
      closed: true,
      vertices: [
        { x, y, bulge: 0 },
        { x: right, y, bulge: 0 },
        { x: right, y: near, bulge: 0 },
        { x, y: near, bulge: 0 },
      ],
    };
  const bulge = kind === 'round' ? QUARTER : 0;
  return {
    closed: true,
    vertices: [
      { x: x + c, y, bulge: 0 },
      { x: right - c, y, bulge },
      { x: right, y: y + c, bulge: 0 },
      { x: right, y: near - c, bulge },
      { x: right - c, y: near, bulge: 0 },
      { x: x + c, y: near, bulge },
      { x, y: near - c, bulge: 0 },
      { x, y: y + c, bulge },
    ],
  };
}

export function circle(x: number, y: number, diameter: number): Outline {
  const r = diameter / 2;
  return {
    closed: true,
    vertices: [
      { x: x - r, y, bulge: HALF },
      { x: x + r, y, bulge: HALF },
    ],
  };
}

/** A straight way between two points. */
export function line(from: Point, to: Point): Outline {
  return {
    closed: false,
    vertices: [
      { ...from, bulge: 0 },
      { ...to, bulge: 0 },
    ],
  };
}

interface Segment {
  from: Point;
  to: Point;
  length: number;
  /** Null when straight; `sweep` in radians, positive from +x to +y. */
  arc: { center: Point; radius: number; start: number; sweep: number } | null;
}

function segmentsOf({ vertices, closed }: Outline): Segment[] {
  return vertices.flatMap((from, i): Segment[] => {
    const to = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
    if (!to) return [];
    const chord = Math.hypot(to.x - from.x, to.y - from.y);
    if (from.bulge === 0 || chord === 0) return [{ from, to, length: chord, arc: null }];
    const sweep = 4 * Math.atan(from.bulge);
    const radius = Math.abs(chord / (2 * Math.sin(sweep / 2)));
    // The centre lies on the chord's perpendicular, on the side the arc turns to.
    const away = chord / 2 / Math.tan(sweep / 2);
    const center = {
      x: (from.x + to.x) / 2 - ((to.y - from.y) / chord) * away,
      y: (from.y + to.y) / 2 + ((to.x - from.x) / chord) * away,
    };
    return [
      {
        from,
        to,
        length: radius * Math.abs(sweep),
        arc: { center, radius, start: Math.atan2(from.y - center.y, from.x - center.x), sweep },
      },
    ];
  });
}

/** Length of the line, mm. */
export function outlineLength(outline: Outline): number {
  return segmentsOf(outline).reduce((sum, s) => sum + s.length, 0);
}

/** What a closed outline holds, mm2; an arc counts with its segment. */
export function outlineArea({ vertices, closed }: Outline): number {
  const doubled = segmentsOf({ vertices, closed }).reduce(
    (sum, { from, to, arc }) =>
      sum + from.x * to.y - to.x * from.y + (arc ? arc.radius ** 2 * (arc.sweep - Math.sin(arc.sweep)) : 0),
    0,
  );
  return Math.abs(doubled) / 2;
}

/** Points of outlines that were asked before: whether one place lies in another is asked point by point. */
const POINTS = new WeakMap<Outline, readonly Point[]>();

/** Points along an outline, its corners among them, at most `spacing` mm apart on arcs and, where it is given, on straights. */
export function outlinePoints(outline: Outline, spacing = Infinity): readonly Point[] {
  if (Number.isFinite(spacing)) return pointsAlong(outline, spacing);
  const known = POINTS.get(outline) ?? pointsAlong(outline, spacing);
  POINTS.set(outline, known);
  return known;
}

function pointsAlong(outline: Outline, spacing: number): Point[] {
  const points = segmentsOf(outline).flatMap(({ from, to, length, arc }) => {
    const byError = arc
      ? Math.abs(arc.sweep) / (2 * Math.acos(Math.max(-1, 1 - CHORD_ERROR / Math.max(arc.radius, CHORD_ERROR))))
      : 1;
    const count = Math.max(1, Math.ceil(Math.max(byError, length / spacing)));
    return Array.from({ length: count }, (_, n): Point => {
      if (n === 0) return { x: from.x, y: from.y };
      if (!arc) return { x: from.x + ((to.x - from.x) * n) / count, y: from.y + ((to.y - from.y) * n) / count };
      const angle = arc.start + (arc.sweep * n) / count;
      return { x: arc.center.x + arc.radius * Math.cos(angle), y: arc.center.y + arc.radius * Math.sin(angle) };
    });
  });
  const last = lastOf(outline.vertices);
  return outline.closed ? points : [...points, { x: last.x, y: last.y }];
}

/** The outline with every point put through a mapping that keeps angles. @param mirrors the mapping turns left into right */
export function mapOutline({ vertices, closed }: Outline, to: (p: Point) => Point, mirrors: boolean): Outline {
  return {
    closed,
    vertices: vertices.map(({ x, y, bulge }) => ({ ...to({ x, y }), bulge: mirrors ? -bulge : bulge })),
  };
}

/** What the outline needs, mm. */
export function boundsOf(outlines: readonly Outline[]): { left: number; right: number; far: number; near: number } {
  const points = outlines.flatMap((o) => outlinePoints(o));
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  return { left: Math.min(...xs), right: Math.max(...xs), far: Math.min(...ys), near: Math.max(...ys) };
}

/** Path data of an SVG, arcs as arcs. @param digits behind the point */
export function svgPath(outline: Outline, digits = 4): string {
  const n = (value: number) => String(Number(value.toFixed(digits)));
  const start = firstOf(outline.vertices);
  const ways = segmentsOf(outline).map(({ to, arc }) =>
    arc
      ? `A${n(arc.radius)} ${n(arc.radius)} 0 ${Math.abs(arc.sweep) > Math.PI + 1e-9 ? 1 : 0} ${arc.sweep > 0 ? 1 : 0} ${n(to.x)} ${n(to.y)}`
      : `L${n(to.x)} ${n(to.y)}`,
  );
  return `M${n(start.x)} ${n(start.y)}${ways.join('')}${outline.closed ? 'Z' : ''}`;
}
