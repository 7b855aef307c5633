import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { after, AT_REST, back, cross, dot, movedBy, plus, type Motion, type Triple } from './motion.ts';
import { bounds, box, clip, moved, saw, volume, type HalfSpace, type Solid } from './solid.ts';

const size = fc.double({ min: 1, max: 400, noNaN: true });
const boxes = fc.tuple(size, size, size).map((s) => box(s as Triple));
const unit = fc
  .tuple(fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }), fc.double({ min: -1, max: 1, noNaN: true }))
  .map(([a, z]): Triple => [Math.sqrt(1 - z * z) * Math.cos(a), Math.sqrt(1 - z * z) * Math.sin(a), z]);
const planes = fc.record({ normal: unit, offset: fc.double({ min: -200, max: 500, noNaN: true }) });
/** A direction, another at right angles to it, and the third. */
const motions: fc.Arbitrary<Motion> = fc
  .tuple(
    unit,
    unit.filter(([x, y, z]) => Math.abs(x) + Math.abs(y) + Math.abs(z) > 0.1),
    fc.tuple(size, size, size),
  )
  .filter(([a, b]) => Math.hypot(...cross(a, b)) > 1e-3)
  .map(([along, b, origin]) => {
    const c = cross(along, b);
    const up = c.map((v) => v / Math.hypot(...c)) as unknown as Triple;
    return { origin: origin, along, across: cross(up, along), up };
  });
const other = ({ normal, offset }: HalfSpace): HalfSpace => ({
  normal: [-normal[0], -normal[1], -normal[2]],
  offset: -offset,
});
const some = (solid: Solid | null) => (solid ? volume(solid) : 0);

describe('convex solids', () => {
  it('a box is as much as its sides say, and half of it when it is cut through the middle at any angle', () => {
    expect(volume(box([200, 30, 40]))).toBeCloseTo(240_000, 6);
    fc.assert(
      fc.property(boxes, unit, (solid, normal) => {
        const { greatest } = bounds(solid);
        const middle = dot(normal, [greatest[0] / 2, greatest[1] / 2, greatest[2] / 2]);
        expect(some(clip(solid, { normal, offset: middle })) / volume(solid)).toBeCloseTo(0.5, 6);
      }),
    );
  });

  it('a corner cut off is a sixth of its three edges (geometry of the pyramid)', () => {
    // Through 30 along, 20 across and 10 up: x/30 + y/20 + z/10 = 1.
    const n: Triple = [1 / 30, 1 / 20, 1 / 10];
    const long = Math.hypot(...n);
    expect(
      some(clip(box([100, 100, 100]), { normal: [n[0] / long, n[1] / long, n[2] / long], offset: 1 / long })),
    ).toBeCloseTo((30 * 20 * 10) / 6, 6);
  });

  it('what a plane parts adds up to what there was, after however many cuts, and every face stays flat and turned outward', () => {
    fc.assert(
      fc.property(boxes, fc.array(planes, { minLength: 1, maxLength: 5 }), (solid, cuts) => {
        const parts = cuts.reduce<Solid[]>(
          (all, plane) => all.flatMap((one) => [clip(one, plane), clip(one, other(plane))].filter((p) => p !== null)),
          [solid],
        );
        expect(parts.reduce((sum, p) => sum + volume(p), 0) / volume(solid)).toBeCloseTo(1, 6);
        for (const part of parts) {
          expect(volume(part)).toBeGreaterThan(-1e-6);
          // A sliver thinner than rounding has no outside.
          if (volume(part) < 1e-3) continue;
          const middle = part.corners.reduce(
            (sum, c) =>
              [
                sum[0] + c[0] / part.corners.length,
                sum[1] + c[1] / part.corners.length,
                sum[2] + c[2] / part.corners.length,
              ] as Triple,
            [0, 0, 0] as Triple,
          );
          for (const face of part.faces) {
            const points = face.map((i) => part.corners[i]!);
            // The area of the face as a vector out of it (Newell); a face thinner than rounding has no direction.
            const area = points.reduce<Triple>(
              (sum, p, i) => plus(sum, cross(p, points[(i + 1) % points.length]!), 0.5),
              [0, 0, 0],
            );
            if (Math.hypot(...area) < 1e-3) continue;
            for (const p of points)
              expect(dot(area, plus(middle, p, -1)) / Math.hypot(...area)).toBeLessThanOrEqual(1e-5);
          }
        }
      }),
      { numRuns: 300 },
    );
  });

  it('a kerf takes a slab as thick as the blade', () => {
    const [left, right] = saw(box([300, 50, 20]), { normal: [1, 0, 0], offset: 100 }, 3);
    expect([some(left), some(right)]).toEqual([100 * 50 * 20, 197 * 50 * 20]);
    expect(saw(box([300, 50, 20]), { normal: [1, 0, 0], offset: 298 }, 3)[1]).toBeNull();
  });

  it('motions change no volume, go back whole, and one after the other is one', () => {
    fc.assert(
      fc.property(boxes, motions, motions, fc.tuple(size, size, size), (solid, one, two, point) => {
        expect(volume(moved(solid, one)) / volume(solid)).toBeCloseTo(1, 6);
        const there = movedBy(after(two, one), point);
        movedBy(two, movedBy(one, point)).forEach((v, i) => expect(v).toBeCloseTo(there[i]!, 6));
        movedBy(after(back(one), one), point).forEach((v, i) => expect(v).toBeCloseTo(point[i]!, 6));
      }),
    );
    expect(after(AT_REST, back(AT_REST))).toEqual(expect.objectContaining({ along: [1, 0, 0], up: [0, 0, 1] }));
  });
});
