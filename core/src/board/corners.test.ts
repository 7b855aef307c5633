import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainBoard } from '../plan/planArbitrary.ts';
import { randomFrom } from '../propose/random.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { cornersMissBy, withStrayStrips } from './corners.ts';
import { CHEVRON, END_GRAIN, recutBoard, type RecutChoices } from './recutForTests.ts';
import { stripsOf } from './recipe.ts';
import { recutOf } from './recut.ts';
import { reordered, type RowLie } from './rowPatterns.ts';

const board = (widths: readonly number[], change: Partial<RecutChoices> = {}, look = END_GRAIN) =>
  recutBoard(plainBoard({ length: 400, width: 250, thickness: 35 }, widths), change, look);
const misses = (of: ReturnType<typeof board>) => cornersMissBy(recutOf(of, DEFAULT_SHOP)!);

describe('corners of a chequer', () => {
  it('meet where strips are alike from both edges, whatever they measure', () => {
    expect(misses(board([45, 45, 45, 45]))).toBe(0);
    expect(misses(board([20, 45, 60, 45, 20]))).toBeCloseTo(0, 9);
  });

  it('strips that are all off by e toward one edge miss by e times their number at most (common practice)', () => {
    // Half of them wider, half narrower: the joint in the middle is off by half of them, its turned neighbour the other way.
    const e = 0.1;
    const widths = [45 + e, 45 + e, 45 + e, 45 - e, 45 - e, 45 - e];
    expect(misses(board(widths))).toBeCloseTo(6 * e, 9);
  });

  it('no row turned, rows shifted, a chevron, one strip alone, joints meant to lie apart: nothing has to meet', () => {
    expect(misses(board([45, 45, 45], { turns: [{ turn: 'up', pattern: [true] }] }))).toBeNull();
    expect(misses(board([45, 45, 45], { shifts: [0, 10] }))).toBeNull();
    expect(misses(board(Array<number>(8).fill(40), {}, CHEVRON))).toBeNull();
    expect(misses(board([45]))).toBeNull();
    expect(misses(board([60, 45, 45, 30]))).toBeNull();
  });

  it('strips that stray by e never miss by more than their number times e, and by less the less they stray', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 12 }),
        fc.integer({ min: 1, max: 20 }).map((n) => n / 100),
        fc.integer(),
        (count, e, seed) => {
          const straight = board(Array<number>(count).fill(40));
          const off = withStrayStrips(straight, e, randomFrom(seed).next);
          stripsOf(off).forEach((s, i) => {
            const own = stripsOf(straight)[i]!;
            expect([s.id, s.species]).toEqual([own.id, own.species]);
            expect(Math.abs(s.width - own.width)).toBeLessThanOrEqual(e + 1e-12);
          });
          const by = misses(off)!;
          expect(by).toBeLessThanOrEqual(count * e + 1e-9);
          // The same strays half as far miss half as much.
          expect(misses(withStrayStrips(straight, e / 2, randomFrom(seed).next))!).toBeCloseTo(by / 2, 9);
        },
      ),
    );
  });

  it('no strip strays to nothing', () => {
    const thin = withStrayStrips(board([1, 1, 1]), 5, () => 0);
    for (const { width } of stripsOf(thin)) expect(width).toBeCloseTo(1, 5);
  });
});

describe('rows that change places', () => {
  const lies = (n: number): RowLie[] =>
    Array.from({ length: n }, (_, i) => ({ over: i % 3 === 0, endForEnd: i % 2 === 1, shift: i }));

  it('two are swapped, and swapped again lie as before; all others stay', () => {
    const all = lies(6);
    const swapped = reordered(all, [1, 4], [1, 0]);
    expect(swapped.map((l) => l.shift)).toEqual([0, 4, 2, 3, 1, 5]);
    expect(reordered(swapped, [1, 4], [1, 0])).toEqual(all);
  });

  it('in any order none is lost or doubled', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 20 }), fc.integer(), (n, seed) => {
        const random = randomFrom(seed);
        const rows = Array.from({ length: n }, (_, i) => i).filter(() => random.next() < 0.6);
        const all = lies(n);
        const moved = reordered(all, rows, random.shuffled(rows.map((_, i) => i)));
        expect(moved.map((l) => l.shift).sort((a, b) => a - b)).toEqual(all.map((l) => l.shift));
        all.forEach((lie, i) => {
          if (!rows.includes(i)) expect(moved[i]).toBe(lie);
        });
      }),
    );
  });
});
