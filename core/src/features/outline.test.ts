import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  boundsOf,
  circle,
  line,
  mapOutline,
  outlineArea,
  outlineLength,
  outlinePoints,
  rectangle,
  svgPath,
  type Outline,
  type Point,
} from './outline.ts';

const side = fc.double({ min: 2, max: 600, noNaN: true });
const boxes = fc.record({ length: side, width: side, corner: fc.double({ min: 0, max: 80, noNaN: true }) });

/** Area of a polygon by the shoelace formula, mm2. */
const shoelace = (points: readonly Point[]) =>
  Math.abs(
    points.reduce(
      (sum, p, i) => sum + p.x * points[(i + 1) % points.length]!.y - points[(i + 1) % points.length]!.x * p.y,
      0,
    ),
  ) / 2;

describe('outlines of lines and arcs', () => {
  it('a rounded rectangle is its box less what four quarter circles leave of their squares; its line is shorter by as much as corners are', () => {
    fc.assert(
      fc.property(boxes, ({ length, width, corner }) => {
        const r = Math.min(corner, length / 2, width / 2);
        const outline = rectangle(3, 7, length, width, corner);
        expect(outlineArea(outline)).toBeCloseTo(length * width - (4 - Math.PI) * r * r, 5);
        expect(outlineLength(outline)).toBeCloseTo(2 * (length + width) - 8 * r + 2 * Math.PI * r, 6);
      }),
    );
  });

  it('a clipped one loses four triangles, and each corner becomes a slant', () => {
    fc.assert(
      fc.property(boxes, ({ length, width, corner }) => {
        const c = Math.min(corner, length / 2, width / 2);
        const outline = rectangle(0, 0, length, width, corner, 'clip');
        expect(outlineArea(outline)).toBeCloseTo(length * width - 2 * c * c, 5);
        expect(outlineLength(outline)).toBeCloseTo(2 * (length + width) - 8 * c + 4 * c * Math.SQRT2, 6);
      }),
    );
  });

  it('a circle is what everybody knows it is', () => {
    expect(outlineArea(circle(10, 20, 50))).toBeCloseTo(Math.PI * 25 * 25, 9);
    expect(outlineLength(circle(10, 20, 50))).toBeCloseTo(Math.PI * 50, 9);
    const { left, right, far, near } = boundsOf([circle(10, 20, 50)]);
    for (const [found, is] of [
      [left, -15],
      [right, 35],
      [far, -5],
      [near, 45],
    ] as const)
      expect(Math.abs(found - is)).toBeLessThanOrEqual(0.02);
  });

  it('the points along it lie on it: within two hundredths of a millimetre of its area’s edge, and never further apart than asked', () => {
    fc.assert(
      fc.property(boxes, fc.double({ min: 1, max: 20, noNaN: true }), ({ length, width, corner }, spacing) => {
        const outline = rectangle(0, 0, length, width, corner);
        const points = outlinePoints(outline, spacing);
        points.forEach((p, i) => {
          const next = points[(i + 1) % points.length]!;
          expect(Math.hypot(next.x - p.x, next.y - p.y)).toBeLessThanOrEqual(spacing + 1e-9);
        });
        // What chords cut off an arc is at most its length times the greatest distance between both.
        expect(outlineArea(outline) - shoelace(points)).toBeLessThanOrEqual(0.021 * outlineLength(outline));
        expect(outlineArea(outline) - shoelace(points)).toBeGreaterThanOrEqual(-1e-6);
      }),
      { numRuns: 60 },
    );
  });

  it('shifted, turned and mirrored it holds as much, and mirrored twice it is what it was', () => {
    fc.assert(
      fc.property(boxes, fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }), ({ length, width, corner }, angle) => {
        const outline = rectangle(0, 0, length, width, corner);
        const turn = ({ x, y }: Point) => ({
          x: x * Math.cos(angle) - y * Math.sin(angle) + 5,
          y: x * Math.sin(angle) + y * Math.cos(angle) - 8,
        });
        const mirror = ({ x, y }: Point) => ({ x, y: -y });
        expect(outlineArea(mapOutline(outline, turn, false))).toBeCloseTo(outlineArea(outline), 4);
        expect(outlineLength(mapOutline(outline, mirror, true))).toBeCloseTo(outlineLength(outline), 6);
        expect(outlineArea(mapOutline(outline, mirror, true))).toBeCloseTo(outlineArea(outline), 5);
        const back = mapOutline(mapOutline(outline, mirror, true), mirror, true);
        back.vertices.forEach((v, i) => {
          const was = outline.vertices[i]!;
          expect([v.x, v.bulge]).toEqual([was.x, was.bulge]);
          expect(v.y).toBeCloseTo(was.y, 12);
        });
      }),
    );
  });

  it('a line has a length and two ends; corners larger than the rectangle are as large as fit', () => {
    const way = line({ x: 0, y: 0 }, { x: 30, y: 40 });
    expect(outlineLength(way)).toBe(50);
    expect(outlinePoints(way)).toEqual([
      { x: 0, y: 0 },
      { x: 30, y: 40 },
    ]);
    expect(outlinePoints(way, 10)).toHaveLength(6);
    // A rectangle of 100 by 40 with corners of 90 is a stadium: 60 by 40 and a circle of 40.
    expect(outlineArea(rectangle(0, 0, 100, 40, 90))).toBeCloseTo(60 * 40 + Math.PI * 20 * 20, 6);
  });

  it('the path of a drawing ends where it began, and its arcs are arcs', () => {
    /** Numbers of a path, its last point first. */
    const ends = (d: string) =>
      [...d.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)|A[\d.]+ [\d.]+ 0 [01] [01] (-?[\d.]+) (-?[\d.]+)/g)].map((m) => [
        Number(m[1] ?? m[3]),
        Number(m[2] ?? m[4]),
      ]);
    const d = svgPath(rectangle(0, 0, 100, 60, 10));
    expect(d.match(/A/g)).toHaveLength(4);
    expect(d.endsWith('Z')).toBe(true);
    expect(ends(d).at(-1)).toEqual(ends(d)[0]);
    expect(svgPath(rectangle(0, 0, 100, 60))).toBe('M0 0L100 0L100 60L0 60L0 0Z');
    const open: Outline = line({ x: 1 / 3, y: 0 }, { x: 2, y: 0 });
    expect(svgPath(open, 2)).toBe('M0.33 0L2 0');
  });
});
