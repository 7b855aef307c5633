import { describe, expect, it } from 'vitest';
import { CHEVRON, END_GRAIN, insetBoard, recutBoard } from '../board/recutForTests.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { NARROW_SIDES, showFace, sideUp, type NarrowSide } from './face.ts';
import { movedBy, type Triple } from './motion.ts';
import { volume } from './solid.ts';
import type { Workpiece } from './workpiece.ts';

const RACK = [plainPiece({ length: 2400, width: 220, thickness: 56, count: 8 })];
const size = { length: 260, width: 150, thickness: 25 };
const BOARDS = {
  'a flat board': plainBoard(size, [40, 40, 40, 40]),
  'end grain': recutBoard(plainBoard(size, [40, 40, 40, 40]), {}, END_GRAIN),
  'a chevron': recutBoard(plainBoard(size, Array<number>(9).fill(40)), {}, CHEVRON),
  'a split board': insetBoard(plainBoard({ ...size, width: 130 }, [40, 40, 40, 40]), [
    { species: 'maple-hard', width: 8, at: 130, angle: 25, jog: 4 },
  ]),
};
const woodOf = (board: (typeof BOARDS)[keyof typeof BOARDS]): Workpiece => makePlan(planInput(board, RACK)).wood!.board;
const area = (polygon: readonly (readonly [number, number])[]) =>
  Math.abs(
    polygon.reduce((sum, [x, y], i) => {
      const [nx, ny] = polygon[(i + 1) % polygon.length]!;
      return sum + x * ny - nx * y;
    }, 0) / 2,
  );
/** Where a point of a side, as it is seen, lies on the thing. */
const ON_THING: Record<NarrowSide, (x: number, y: number, size: Triple) => Triple> = {
  firstEdge: (x, y) => [x, 0, y],
  lastEdge: (x, y, [, w, t]) => [x, w, t - y],
  firstEnd: (x, y) => [0, y, x],
  farEnd: (x, y, [l, , t]) => [l, y, t - x],
};

describe.each(Object.entries(BOARDS))('the sides of %s', (_, board) => {
  const thing = woodOf(board);
  const [l, w, t] = thing.size;

  it.each(NARROW_SIDES)(
    '%s is covered by its cells, no wood is lost, and each shows the wood that lies there',
    (side) => {
      const tipped = sideUp(thing, side);
      const shown = showFace(tipped);
      const whole = side.endsWith('Edge') ? l * t : t * w;
      expect(shown.reduce((sum, c) => sum + area(c.polygon), 0)).toBeCloseTo(whole, 4);
      const all = (of: Workpiece) => of.cells.reduce((sum, c) => sum + volume(c.solid), 0);
      expect(all(tipped) / all(thing)).toBeCloseTo(1, 9);
      for (const { polygon, cell } of shown) {
        const [x, y] = [0, 1].map((axis) => polygon.reduce((sum, p) => sum + p[axis as 0 | 1], 0) / polygon.length) as [
          number,
          number,
        ];
        const original = thing.cells[tipped.cells.indexOf(cell)]!;
        const seen = movedBy(cell.inPiece, [x, y, tipped.size[2]]);
        const there = movedBy(original.inPiece, ON_THING[side](x, y, thing.size));
        seen.forEach((v, axis) => expect(v).toBeCloseTo(there[axis as 0 | 1 | 2], 6));
      }
    },
  );
});
