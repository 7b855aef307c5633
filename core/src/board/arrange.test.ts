import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainBoard } from '../plan/planArbitrary.ts';
import * as arrange from './arrange.ts';
import { panelWidth } from './board.ts';
import { snapJoint } from './snapJoint.ts';
import { flatRecipe, type Strip, stripsOf } from './recipe.ts';

const layout = fc
  .array(fc.tuple(fc.integer({ min: 2, max: 90 }), fc.boolean()), { minLength: 1, maxLength: 20 })
  .map((strips) =>
    stripsOf(
      plainBoard(
        {},
        strips.map(([width]) => width),
      ),
    ).map((s, i) => ({ ...s, locked: strips[i]![1] })),
  );
const withHand = layout.chain((strips) =>
  fc.tuple(
    fc.constant(strips),
    fc.nat(strips.length - 1),
    fc.nat(strips.length - 1),
    fc.uniqueArray(fc.nat(strips.length - 1), { minLength: 1 }),
  ),
);
const ids = (strips: readonly Strip[]) => strips.map((s) => s.id);
const widths = (strips: readonly Strip[]) => strips.map((s) => s.width);
const sorted = (strips: readonly Strip[]) => ids(strips).sort();

function counter() {
  let n = 0;
  return () => `new${(n += 1)}`;
}

describe('strips under the hands', () => {
  it('moving, swapping and reversing keep every strip, and can be taken back', () => {
    fc.assert(
      fc.property(withHand, ([strips, from, to, held]) => {
        const moved = arrange.moveStrips(strips, [from], to);
        expect(moved[to]).toBe(strips[from]);
        expect(arrange.moveStrips(moved, [to], from)).toEqual(strips);
        const swapped = arrange.swapPlaces(strips, from, to);
        expect([swapped[from], swapped[to]]).toEqual([strips[to], strips[from]]);
        expect(arrange.swapPlaces(swapped, from, to)).toEqual(strips);
        expect(arrange.reverseStrips(arrange.reverseStrips(strips, held), held)).toEqual(strips);
        const together = arrange.moveStrips(strips, held, to);
        expect(sorted(together)).toEqual(sorted(strips));
        const hand = held.toSorted((a, b) => a - b).map((i) => strips[i]!.id);
        expect(ids(together).join()).toContain(hand.join());
      }),
    );
  });

  it('mirroring about a strip or a half makes the board symmetrical; the whole mirrored is twice as wide', () => {
    fc.assert(
      fc.property(withHand, ([strips, index]) => {
        for (const mirrored of [
          arrange.mirrorAbout(strips, index, counter()),
          arrange.mirrorFirstHalf(strips),
          arrange.mirrorWhole(strips, counter()),
        ]) {
          expect(widths(mirrored)).toEqual(widths(mirrored).reverse());
          expect(new Set(ids(mirrored)).size).toBe(mirrored.length);
        }
        expect(arrange.mirrorAbout(strips, index, counter()).slice(0, index + 1)).toEqual(strips.slice(0, index + 1));
        expect(ids(arrange.mirrorFirstHalf(strips))).toEqual(ids(strips));
        expect(panelWidth({ recipe: flatRecipe(arrange.mirrorWhole(strips, counter())) })).toBeCloseTo(
          2 * panelWidth({ recipe: flatRecipe(strips) }),
          9,
        );
      }),
    );
  });

  it('repeat then remove, split then join: back where it was', () => {
    fc.assert(
      fc.property(withHand, ([strips, index, , held]) => {
        const repeated = arrange.repeatStrips(strips, held, counter());
        expect(repeated.filter((s) => !s.id.startsWith('new'))).toEqual(strips);
        expect(widths(repeated.filter((s) => s.id.startsWith('new')))).toEqual(
          held.toSorted((a, b) => a - b).map((i) => strips[i]!.width),
        );
        const split = arrange.splitStrip(strips, index, counter());
        expect(panelWidth({ recipe: flatRecipe(split) })).toBeCloseTo(panelWidth({ recipe: flatRecipe(strips) }), 9);
        expect(arrange.joinStrips(split, [index, index + 1])).toEqual(strips);
      }),
    );
  });

  it('joins only neighbours of one species', () => {
    const [a, b, c] = stripsOf(plainBoard({}, [10, 20, 30])) as unknown as [Strip, Strip, Strip];
    expect(arrange.canJoin([a, b, c], [0, 2])).toBe(false);
    expect(arrange.joinStrips([a, { ...b, species: 'pear' }, c], [0, 1])).toHaveLength(3);
    expect(widths(arrange.joinStrips([a, b, c], [2, 1]))).toEqual([10, 50]);
  });

  it('a motif is repeated until the board is full, and never beyond what a board holds', () => {
    const strips = stripsOf(plainBoard({}, [10, 30]));
    expect(widths(arrange.repeatUntil(strips, [0, 1], 95, 200, counter()))).toEqual([10, 30, 10, 30, 10, 30]);
    expect(arrange.repeatUntil(strips, [0], 1e6, 12, counter())).toHaveLength(12);
  });

  it('evening out reaches the wanted width within the limits, or says what is missing; locked strips and proportions stay', () => {
    fc.assert(
      fc.property(
        layout,
        fc.integer({ min: 10, max: 1500 }),
        fc.integer({ min: 20, max: 200 }),
        (strips, wanted, most) => {
          const { strips: evened, missing } = arrange.evenOut(strips, wanted, () => most);
          expect(panelWidth({ recipe: flatRecipe(evened) }) + missing).toBeCloseTo(wanted, 6);
          evened.forEach((s, i) => {
            if (strips[i]!.locked) expect(s.width).toBe(strips[i]!.width);
            else expect(s.width).toBeLessThanOrEqual(most + 1e-9);
            expect(s.width).toBeGreaterThanOrEqual(1);
          });
          const alone = (s: Strip) => strips.every((o) => o.id === s.id || o.locked || Math.abs(o.width - s.width) > 1);
          const free = evened.flatMap((s, i) =>
            !s.locked && s.width > 1 && s.width < most && alone(strips[i]!) ? [s.width / strips[i]!.width] : [],
          );
          free.forEach((factor) => expect(factor).toBeCloseTo(free[0]!, 6));
          // Something is missing only when nothing is left that could give way.
          if (missing > 1e-6) expect(evened.every((s) => s.locked || s.width >= most - 1e-6)).toBe(true);
          if (missing < -1e-6) expect(evened.every((s) => s.locked || s.width <= 1 + 1e-6)).toBe(true);
        },
      ),
    );
  });

  it('nearly equal widths become one setting of the fence, unless the rack holds one of them back', () => {
    const strips = stripsOf(plainBoard({}, [28.2, 28.7, 28.2, 28.7]));
    expect(widths(arrange.evenOut(strips, 115.2, () => 40).strips)).toEqual([28.8, 28.8, 28.8, 28.8]);
    expect(widths(arrange.evenOut(strips, 115.2, (s) => (s.id === 's1' ? 28.2 : 40)).strips)).toEqual([
      28.2, 29, 29, 29,
    ]);
  });

  it('a board a millimetre short is full: another strip would be far too much', () => {
    const strips = stripsOf(
      plainBoard(
        {},
        Array.from({ length: 13 }, () => 19),
      ),
    );
    expect(arrange.repeatUntil(strips, [0], 266.7, 200, counter())).toHaveLength(14);
  });

  it('a joint dragged with the sum kept trades width between neighbours, never below the least', () => {
    fc.assert(
      fc.property(withHand, fc.integer({ min: -50, max: 200 }), ([strips, index], width) => {
        const moved = arrange.moveJoint(strips, index, width, true);
        if (index < strips.length - 1)
          expect(panelWidth({ recipe: flatRecipe(moved) })).toBeCloseTo(panelWidth({ recipe: flatRecipe(strips) }), 9);
        for (const strip of moved) expect(strip.width).toBeGreaterThanOrEqual(1);
      }),
    );
  });
});

it('one place on is past all strips that look just like it, so that something is seen to move', () => {
  const strips = stripsOf(plainBoard({}, [20, 20, 20, 41, 20]));
  expect([
    arrange.placeBeyond(strips, 0, 1),
    arrange.placeBeyond(strips, 3, -1),
    arrange.placeBeyond(strips, 4, -1),
  ]).toEqual([3, 2, 3]);
  // Nothing but its like on that side: it stays, and that is said.
  expect([
    arrange.placeBeyond(strips, 2, -1),
    arrange.placeBeyond(strips, 0, -1),
    arrange.placeBeyond(strips, 4, 1),
  ]).toEqual([2, 0, 4]);
  const turned = strips.map((s, i) => (i === 1 ? { ...s, endForEnd: true } : s));
  expect(arrange.placeBeyond(turned, 0, 1)).toBe(1);
});

describe('a dragged joint', () => {
  const strips = stripsOf(plainBoard({}, [20, 30, 41, 33]));
  const snap = (width: number, change = {}) =>
    snapJoint({
      width,
      index: 1,
      strips,
      offered: [
        { width: 36.8, resawn: false },
        { width: 17.1, resawn: true },
      ],
      reach: 2,
      filling: 60,
      system: 'metric',
      ...change,
    });

  it.each([
    [36, 36.8, 'rack'],
    [17, 17.1, 'resawn'],
    [59, 60, 'fills'],
    [41.5, 41, 'symmetry'],
    [20.4, 20, 'rhythm'],
    [25.3, 25.5, 'grid'],
  ])('at %f mm rests on %f mm: %s', (at, width, kind) => {
    expect(snap(at)).toMatchObject({ width, reason: { kind } });
  });

  it('rests on 32nds of an inch where nothing is near', () => {
    expect(snap(25, { system: 'inch', offered: [], strips: strips.slice(0, 2) }).width).toBeCloseTo(
      31 * (25.4 / 32),
      9,
    );
  });
});
