import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { longestThatFits, placeBoards, placeMixed, widestThatFits } from './placement.ts';

const panel = fc.record({ right: fc.integer({ min: 20, max: 60 }), near: fc.integer({ min: 6, max: 14 }) });
const spot = fc.record({
  x: fc.integer({ min: 0, max: 55 }),
  y: fc.integer({ min: 0, max: 12 }),
  length: fc.integer({ min: 1, max: 8 }),
  width: fc.integer({ min: 1, max: 5 }),
});
const board = fc.record({ length: fc.integer({ min: 5, max: 20 }), width: fc.integer({ min: 3, max: 10 }) });

/** The most boards by trying every whole millimetre for every board; all of them between the same two long edges. */
function mostByTrying(
  p: { right: number; near: number },
  spots: { x: number; y: number; length: number; width: number }[],
  b: { length: number; width: number },
  kerf: number,
): number {
  let most = 0;
  for (let y = 0; y + b.width <= p.near; y += 1) {
    const clear = (x: number) =>
      !spots.some((s) => s.x < x + b.length && s.x + s.length > x && s.y < y + b.width && s.y + s.width > y);
    const memo = new Map<number, number>();
    const best = (x: number): number => {
      if (x + b.length > p.right) return 0;
      if (!memo.has(x)) memo.set(x, Math.max(best(x + 1), clear(x) ? 1 + best(x + b.length + kerf) : 0));
      return memo.get(x)!;
    };
    most = Math.max(most, best(0));
  }
  return most;
}

describe('boards on a panel with bad places', () => {
  it('are as many as trying every place finds, clear of every bad place and of each other', () => {
    fc.assert(
      fc.property(
        panel,
        fc.array(spot, { maxLength: 5 }),
        board,
        fc.integer({ min: 0, max: 2 }),
        ({ right, near }, spots, size, kerf) => {
          const clear = { left: 0, right, far: 0, near };
          const { y, xs } = placeBoards(clear, spots, size, 99, kerf, Math.max(0, (near - size.width) / 2));
          expect(xs.length).toBe(mostByTrying({ right, near }, spots, size, kerf));
          xs.forEach((x, i) => {
            expect(x).toBeGreaterThanOrEqual(i === 0 ? 0 : xs[i - 1]! + size.length + kerf);
            expect(x + size.length).toBeLessThanOrEqual(right);
            expect(
              spots.some(
                (s) =>
                  s.x < x + size.length - 1e-6 &&
                  s.x + s.length > x + 1e-6 &&
                  s.y < y + size.width - 1e-6 &&
                  s.y + s.width > y + 1e-6,
              ),
            ).toBe(false);
          });
        },
      ),
    );
  });

  it('with others of any size are the best of all orders, and nothing touches anything', () => {
    fc.assert(
      fc.property(
        panel,
        fc.array(spot, { maxLength: 4 }),
        board,
        fc.integer({ min: 0, max: 2 }),
        fc.array(board, { maxLength: 3 }),
        fc.integer({ min: 0, max: 1 }),
        ({ right, near }, spots, size, count, others, kerf) => {
          fc.pre(size.width <= near);
          const clear = { left: 0, right, far: 0, near };
          const found = placeMixed(clear, spots, size, count, others, kerf, 0);
          const lain = [
            ...found.xs.map((x) => ({ x, y: found.y, ...size })),
            ...found.others.map((o) => ({ x: o.x, y: o.y, ...others[o.index]! })),
          ].sort((a, b) => a.x - b.x);
          lain.forEach((r, i) => {
            expect(r.x >= 0 && r.x + r.length <= right + 1e-6 && r.y >= -1e-6 && r.y + r.width <= near + 1e-6).toBe(
              true,
            );
            if (i > 0) expect(r.x).toBeGreaterThanOrEqual(lain[i - 1]!.x + lain[i - 1]!.length + kerf - 1e-6);
            expect(
              spots.some(
                (s) =>
                  s.x < r.x + r.length - 1e-6 &&
                  s.x + s.length > r.x + 1e-6 &&
                  s.y < r.y + r.width - 1e-6 &&
                  s.y + s.width > r.y + 1e-6,
              ),
            ).toBe(false);
          });
          // Every order of every choice, every long edge on whole millimetres, each thing as far left as it goes.
          let best = [0, 0];
          for (let y = 0; y + size.width <= near; y += 1) {
            const go = (at: number, n: number, used: number, area: number) => {
              if (n > best[0]! || (n === best[0] && area > best[1]!)) best = [n, area];
              const next = (o: { length: number; width: number }, ys: number[], then: (end: number) => void) => {
                let least = Infinity;
                for (const top of ys) {
                  for (let x = at; x + o.length <= right; x += 1) {
                    if (
                      spots.some(
                        (s) => s.x < x + o.length && s.x + s.length > x && s.y < top + o.width && s.y + s.width > top,
                      )
                    )
                      continue;
                    least = Math.min(least, x + o.length + kerf);
                    break;
                  }
                }
                if (least < Infinity) then(least);
              };
              if (n < count) next(size, [y], (end) => go(end, n + 1, used, area));
              others.forEach((o, i) => {
                if (((used >> i) & 1) === 0)
                  next(
                    o,
                    Array.from({ length: Math.max(0, near - o.width + 1) }, (_, top) => top),
                    (end) => go(end, n, used | (1 << i), area + o.length * o.width),
                  );
              });
            };
            go(0, 0, 0, 0);
          }
          expect([
            found.xs.length,
            found.others.reduce((sum, o) => sum + others[o.index]!.length * others[o.index]!.width, 0),
          ]).toEqual(best);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('what is offered instead fits, and a millimetre more does not', () => {
    fc.assert(
      fc.property(
        panel,
        fc.array(spot, { minLength: 1, maxLength: 4 }),
        board,
        fc.integer({ min: 1, max: 3 }),
        ({ right, near }, spots, size, count) => {
          fc.pre(size.width <= near);
          const clear = { left: 0, right, far: 0, near };
          const fits = (length: number, width: number) =>
            placeBoards(clear, spots, { length, width }, count, 1, 0).xs.length === count;
          const length = longestThatFits(clear, spots, size.width, count, 1, 0);
          if (length > 0) expect(fits(length, size.width)).toBe(true);
          expect(fits(length + 1, size.width)).toBe(false);
          const width = widestThatFits(clear, spots, size.length, count, 1, 0);
          if (width > 0) expect(fits(size.length, width)).toBe(true);
          expect(fits(size.length, width + 1)).toBe(false);
        },
      ),
    );
  });
});
