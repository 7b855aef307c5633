import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { fromCorners, fromDiagonals, fromFiveCuts, type SquareReading } from './squareness.ts';

type Point = readonly [number, number];
const minus = ([ax, ay]: Point, [bx, by]: Point): Point => [ax - bx, ay - by];
const long = ([x, y]: Point) => Math.hypot(x, y);
const cross = ([ax, ay]: Point, [bx, by]: Point) => ax * by - ay * bx;
/** Interior angle of a corner between its neighbours, radians. */
const angle = (before: Point, corner: Point, after: Point) => {
  const [u, v] = [minus(before, corner), minus(after, corner)];
  return Math.atan2(Math.abs(cross(u, v)), u[0] * v[0] + u[1] * v[1]);
};
/** A board whose ends lean by an angle, as four points A B C D. */
const leaning = (length: number, width: number, lean: number): [Point, Point, Point, Point] => {
  const [dx, dy] = [width * Math.sin(lean), width * Math.cos(lean)];
  return [
    [0, 0],
    [length, 0],
    [length + dx, dy],
    [dx, dy],
  ];
};
const words = (reading: SquareReading) => phraseText(reading.ok ? reading.correction : reading.what, DEFAULT_DISPLAY);
const lean = fc.double({ min: -0.02, max: 0.02, noNaN: true });
const size = fc.record({
  length: fc.double({ min: 150, max: 1200, noNaN: true }),
  width: fc.double({ min: 100, max: 600, noNaN: true }),
});

describe('squareness against coordinates', () => {
  it('diagonals give back the lean of the board they were measured on', () => {
    fc.assert(
      fc.property(size, lean, (board, rad) => {
        const [a, b, c, d] = leaning(board.length, board.width, rad);
        const read = fromDiagonals(board, long(minus(c, a)), long(minus(d, b)));
        expect(read.ok && read.degrees).toBeCloseTo((rad * 180) / Math.PI, 6);
        expect(read.ok && read.overWidth).toBeCloseTo(board.width * Math.tan(rad), 6);
      }),
    );
  });

  it('a try square in each corner gives the same', () => {
    fc.assert(
      fc.property(size, lean, (board, rad) => {
        const points = leaning(board.length, board.width, rad);
        const gaps = points.map(
          (p, i) => 150 * Math.tan(angle(points[(i + 3) % 4]!, p, points[(i + 1) % 4]!) - Math.PI / 2),
        ) as [number, number, number, number];
        const read = fromCorners(board, gaps, 150);
        expect(read.ok && read.degrees).toBeCloseTo((rad * 180) / Math.PI, 6);
      }),
    );
  });

  it('five cuts: a board cut round on a fence that is out leaves a sliver that tells it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.01, max: 0.01, noNaN: true }),
        fc.double({ min: 200, max: 600, noNaN: true }),
        (error, side) => {
          // Walk round the board: each new edge makes 90 degrees and the error with the one before, which lay at the fence.
          const inside = Math.PI / 2 + error;
          const corners: Point[] = [[0, 0]];
          let heading = 0;
          for (let cut = 0; cut < 3; cut += 1) {
            const [x, y] = corners.at(-1)!;
            corners.push([x + side * Math.cos(heading), y + side * Math.sin(heading)]);
            heading += Math.PI - inside;
          }
          // The fourth edge begins at the fourth corner and ends where it meets the first edge's line; the fifth cut starts a little inside that corner.
          const fourth = corners.at(-1)!;
          const along: Point = [Math.cos(heading), Math.sin(heading)];
          const meets: Point = [fourth[0] - (fourth[1] / along[1]) * along[0], 0];
          const start: Point = [meets[0] - along[0] * 10, meets[1] - along[1] * 10];
          const fifth: Point = [Math.cos(heading + Math.PI - inside), Math.sin(heading + Math.PI - inside)];
          const far: Point = [start[0] + fifth[0] * 150, start[1] + fifth[1] * 150];
          // Widths of the sliver: across it, from the fifth cut to the old first edge, which is the line y = 0.
          const normal: Point = [-fifth[1], fifth[0]];
          const widthAt = ([, y]: Point) => Math.abs(y / (normal[1] || 1e-12));
          const read = fromFiveCuts(
            { length: 400, width: 250 },
            { length: 150, fence: widthAt(start), far: widthAt(far) },
            600,
          );
          expect(read.ok && read.degrees).toBeCloseTo((error * 180) / Math.PI, 2);
        },
      ),
    );
  });

  it('says which way to correct, or what cannot be (by hand: 471.9 and 471.5 on 400 by 250 lean 0.24 mm over the width)', () => {
    const read = fromDiagonals({ length: 400, width: 250 }, 471.9, 471.5);
    expect(read.ok && read.overWidth).toBeCloseTo((250 * (471.9 ** 2 - 471.5 ** 2)) / (4 * 400 * 250), 4);
    expect(words(read)).toBe(
      'Take 0.2 mm off at corner C, tapering to nothing at B; at the other end the same at A, to nothing at D.',
    );
    expect(words(fromDiagonals({ length: 400, width: 250 }, 471.7, 471.7))).toBe('Square: nothing to correct.');
    expect(words(fromDiagonals({ length: 400, width: 250 }, 471.7, 520))).toMatch(
      /^No board of 400 mm by 250 mm has diagonals of 471.7 mm and 520 mm/,
    );
    expect(words(fromCorners({ length: 400, width: 250 }, [1, 1, 1, 1], 150))).toMatch(
      /add up to 360°, these to 361\.5°/,
    );
    expect(words(fromCorners({ length: 400, width: 250 }, [0, 0.6, -0.6, 0], 150))).toBe(
      'At the left end nothing. At the right end take 1 mm off at C, tapering to nothing at B.',
    );
    expect(words(fromFiveCuts({ length: 400, width: 250 }, { length: 300, fence: 6, far: 5.4 }, 600))).toMatch(
      /stands open: 600 mm from its pivot move it 0\.3 mm towards the work/,
    );
    expect(words(fromFiveCuts({ length: 400, width: 250 }, { length: 20, fence: 9, far: 1 }, 600))).toMatch(
      /more than 2\.8°/,
    );
  });
});
