import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { UNDRAWN, type FeatureOf } from '../features/feature.ts';
import { isInside, linesApart } from '../features/apart.ts';
import { circle, rectangle } from '../features/outline.ts';
import { writeGcode } from '../format/gcode.ts';
import { jobsOf, type Job } from './job.ts';
import { clearing, grown, regionArea, regionOf, without } from './pocket.ts';
import { runGcode } from './simulate.ts';

describe('clearing a shape', () => {
  it('cuts nothing outside it, and leaves nothing inside that the bit could reach', () => {
    const shape = fc.record({
      length: fc.integer({ min: 8, max: 40 }),
      width: fc.integer({ min: 8, max: 40 }),
      hole: fc.integer({ min: 0, max: 6 }),
      bit: fc.constantFrom(1, 2, 3, 6),
    });
    fc.assert(
      fc.property(shape, ({ length, width, hole, bit }) => {
        const outlines = [rectangle(0, 0, length, width), ...(hole > 0 ? [circle(length / 2, width / 2, hole)] : [])];
        const ways = clearing(regionOf(outlines), bit);
        const borders = (x: number, y: number) =>
          linesApart(
            [
              {
                closed: true,
                vertices: [
                  { x, y, bulge: 0 },
                  { x: x + 1e-6, y, bulge: 0 },
                  { x, y: y + 1e-6, bulge: 0 },
                ],
              },
            ],
            outlines,
          );
        for (const p of ways.flat()) {
          expect(isInside(p, outlines)).toBe(true);
          expect(borders(p.x, p.y)).toBeGreaterThan(bit / 2 - 0.03);
        }
        const segments = ways.flatMap((way) => way.slice(1).map((p, i) => [way[i]!, p] as const));
        for (let x = 0.7; x < length; x += 1.3) {
          for (let y = 0.7; y < width; y += 1.3) {
            // Further from the border than the middle of the bit may come: some way must pass within half a bit.
            if (!isInside({ x, y }, outlines) || borders(x, y) < bit / 2 + 0.05) continue;
            const least = Math.min(
              ...segments.map(([a, b]) => {
                const [dx, dy] = [b.x - a.x, b.y - a.y];
                const t = Math.max(
                  0,
                  Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / Math.max(1e-12, dx * dx + dy * dy)),
                );
                return Math.hypot(x - a.x - t * dx, y - a.y - t * dy);
              }),
            );
            expect(least).toBeLessThanOrEqual(bit / 2 + 0.03);
          }
        }
      }),
      { numRuns: 25 },
    );
  });

  it('regions keep their area: a ring, a square grown by a round, what is taken away', () => {
    expect(regionArea(regionOf([rectangle(0, 0, 40, 30), rectangle(10, 10, 10, 10)]))).toBeCloseTo(1100, 3);
    // A square grown by r: its area, four sides and a circle.
    expect(regionArea(grown(regionOf([rectangle(0, 0, 20, 20)]), 3))).toBeCloseTo(400 + 4 * 60 + Math.PI * 9, 0);
    expect(regionArea(without(regionOf([rectangle(0, 0, 20, 20)]), regionOf([rectangle(5, 5, 50, 5)])))).toBeCloseTo(
      400 - 75,
      3,
    );
    expect(clearing(regionOf([rectangle(0, 0, 20, 2)]), 3)).toEqual([]);
  });
});

describe('an inlay', () => {
  const mark: FeatureOf<'mark'> = {
    kind: 'mark',
    id: 'm',
    face: 'top',
    name: 'Hut',
    method: 'inlay',
    x: 100,
    y: 60,
    length: 40,
    width: 40,
    depth: 2,
    ...UNDRAWN,
    bit: 3,
    art: { name: 'a', length: 1000, width: 1000, d: 'M0 0L1000 0L1000 400L400 400L400 1000L0 1000Z' },
  };
  const jobs = jobsOf({ features: [mark], size: { length: 400, width: 250, thickness: 30 }, sanded: 0 });
  const box = (job: Job) => {
    const [xs, ys] = [job.lines.flat().map((p) => p.x), job.lines.flat().map((p) => p.y)];
    return {
      left: Math.min(...xs),
      right: Math.max(...xs),
      low: Math.min(...ys),
      high: Math.max(...ys),
      deep: -Math.min(...job.lines.flat().map((p) => p.z)),
    };
  };

  it('is four jobs; the tip of the V-bit runs where vectors say, inside the pocket and outside the plug', () => {
    expect(jobs.map((j) => j.id)).toEqual(['m-pocket-wall', 'm-pocket-floor', 'm-plug-wall', 'm-plug-floor']);
    const lean = Math.tan(Math.PI / 6);
    const [pocket, , plug] = jobs.map(box);
    // At 2 deep a wall that leans 30° stands in by 2 tan 30°.
    expect(pocket!.right - pocket!.left).toBeCloseTo(40 - 2 * 2 * lean, 2);
    expect(pocket!.deep).toBeCloseTo(2, 6);
    // The plug widens by as much as it is cut below where its outline is the mouth's.
    expect(plug!.right - plug!.left).toBeCloseTo(40 + 2 * UNDRAWN.plugDepth * lean, 1);
    expect(plug!.deep).toBeCloseTo(UNDRAWN.plugStart + UNDRAWN.plugDepth, 6);
  });

  it('has its plug mirrored, and every job runs on the simulated router', () => {
    // The drawing's arm points right from the upper left corner: on the board the lower right is empty, on the plug the lower left.
    const reaches = (job: Job, right: boolean) =>
      job.lines.flat().some((p) => {
        const { left, right: end, low, high } = box(job);
        return p.y < (low + high) / 2 - 2 && (right ? p.x > (left + end) / 2 + 2 : p.x < (left + end) / 2 - 2);
      });
    expect([reaches(jobs[0]!, true), reaches(jobs[0]!, false)]).toEqual([false, true]);
    expect([reaches(jobs[2]!, true), reaches(jobs[2]!, false)]).toEqual([true, false]);
    for (const job of jobs)
      expect(
        runGcode(writeGcode(job), { machine: 'router', size: job.size, beyond: 5, deepest: job.size.thickness })
          .refused,
      ).toEqual([]);
  });
});

it.each(['top', 'bottom', 'far', 'right', 'near', 'left'] as const)(
  'a drawing on the %s reads right as it lies under the tool, inside the board, and is mirrored when asked',
  (face) => {
    // Points up and to the right of the drawing: the last of its three corners is the upper right one.
    const art = { name: 'a', length: 1000, width: 500, d: 'M0 500L1000 500L1000 0Z' };
    const mark = (mirror: boolean): FeatureOf<'mark'> => ({
      kind: 'mark',
      id: 'm',
      face,
      name: 'Hut',
      method: 'laser',
      x: 90,
      y: 14,
      length: 40,
      width: 20,
      depth: 1,
      ...UNDRAWN,
      mirror,
      art,
    });
    const size = { length: 400, width: 250, thickness: 30 };
    const corner = (mirror: boolean) => {
      const [job] = jobsOf({ features: [mark(mirror)], size, sanded: 0 });
      const [line] = job!.lines;
      const [xs, ys] = [line!.map((p) => p.x), line!.map((p) => p.y)];
      expect(Math.min(...xs, ...ys)).toBeGreaterThanOrEqual(0);
      expect([Math.max(...xs) <= job!.size.length, Math.max(...ys) <= job!.size.width]).toEqual([true, true]);
      return [line![2]!.x === Math.max(...xs) ? 'right' : 'left', line![2]!.y === Math.max(...ys) ? 'up' : 'down'];
    };
    expect(corner(false)).toEqual(['right', 'up']);
    expect(corner(true)).toEqual(['left', 'up']);
  },
);
