import fc from 'fast-check';
import { expect, it } from 'vitest';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { pieceFieldsSchema } from '../stock/piece.ts';
import { volumeBetween } from '../stock/shape.ts';
import { sawSettings } from '../steps/sawSettings.ts';
import { cutSheets } from './cutSheet.ts';
import { offcutMarks, offcutOf, remainsOf } from './offcut.ts';
import { purchaseFor } from './purchase.ts';

it('what is left of any piece is a valid piece, and all of it together is less than there was', () => {
  fc.assert(
    fc.property(planInputArbitrary, (input) => {
      const { cutting } = makePlan(input);
      for (const piece of input.rack) {
        const of = (x: { pieceId: string; unit: number }) => x.pieceId === piece.id && x.unit === 0;
        const blanks = cutting.blanks.filter(of);
        if (blanks.length === 0) continue;
        const left = remainsOf(piece, blanks, cutting.leftovers.filter(of), input.shop, []).map((r) =>
          offcutOf(piece, r, 'A1', piece.mark),
        );
        for (const fields of left) expect(pieceFieldsSchema.safeParse(fields).error).toBeUndefined();
        const strips = blanks.reduce(
          (sum, b) => sum + b.strips.reduce((s, x) => s + b.length * x.way.rip * x.way.thickness, 0),
          0,
        );
        expect(left.reduce((sum, p) => sum + volumeBetween(p, 0, p.length), strips)).toBeLessThan(
          volumeBetween(piece, 0, piece.length),
        );
      }
    }),
  );
});

it('an offcut keeps what was known: a shorter bow, clipped defects, a sawn end, its share of the price', () => {
  const piece = plainPiece({
    form: { bow: 16, cup: 2, crook: 8, twist: 4 },
    price: { amount: 40, per: 'piece' },
    ends: { mark: { checked: 30, snipe: 0, sawn: false }, far: { checked: 50, snipe: 0, sawn: false } },
    defects: [
      { id: 'd1', kind: 'check', face: 'up', from: 900, across: 140, length: 200, width: 10, treatment: 'cut' },
    ],
  });
  const offcut = offcutOf(piece, { from: 1000, length: 1000, across: 0, width: 150 }, 'P1a', 'P1');
  // By hand: half the length has a quarter of the bow and crook, half the twist; half the volume costs 20.
  expect(offcut.form).toEqual({ bow: 4, cup: 2, crook: 2, twist: 2 });
  expect(offcut.price).toEqual({ amount: 20, per: 'piece' });
  expect(offcut.defects).toMatchObject([{ from: 0, length: 100, across: 140, width: 10 }]);
  expect(offcut.ends).toEqual({
    mark: { checked: 0, snipe: 0, sawn: true },
    far: { checked: 50, snipe: 0, sawn: false },
  });
});

it('marks of offcuts go on in letters and skip what is in use', () => {
  expect(offcutMarks('B1', 3, new Set(['B1b']))).toEqual(['B1a', 'B1c', 'B1d']);
  expect(offcutMarks('B1', 28, new Set()).slice(-2)).toEqual(['B1aa', 'B1ab']);
  expect(offcutMarks('LONGMARK1234', 1, new Set())).toEqual(['LONGMARK123a']);
});

it('asks the yard for the next thickness that planes to it, and for the least wood', () => {
  // 46 + 3.2 rough is 49.2: 8/4 (50.8). Width 100 gives (98 + 3) / 35 = 2 rips, 150 gives 4, 200 gives 5; six strips: 3, 2 or 2 blanks of 429.
  expect(purchaseFor('pear', { length: 429, rip: 32, thickness: 46 }, 6, DEFAULT_SHOP)).toEqual({
    species: 'pear',
    thickness: 50.8,
    quarters: '8/4',
    width: 150,
    length: 900,
    pieces: 1,
  });
  // 4/4 planes to about 7/8 in (common practice), so 22.2 mm still comes from 4/4.
  expect(purchaseFor('pear', { length: 429, rip: 32, thickness: 22.2 }, 1, DEFAULT_SHOP).quarters).toBe('4/4');
  expect(purchaseFor('pear', { length: 429, rip: 32, thickness: 22.3 }, 1, DEFAULT_SHOP).quarters).toBe('5/4');
});

it('a cut sheet names each crosscut once, and equal settings together', () => {
  const piece = plainPiece();
  const { cutting, operations } = makePlan(planInput(plainBoard(), [piece]));
  const [sheet] = cutSheets(cutting, new Map([[piece.id, piece]]), DEFAULT_SHOP);
  // Blanks from 10 to 439 and 442 to 871, kerf 3: cuts at 7, 439 and 871.
  expect(sheet!.crosscuts.map((c) => c.at)).toEqual([7, 439, 871]);
  expect(sheet!.blanks.map((b) => b.rips.map((r) => [r.from, r.to]))).toEqual([
    [
      [2, 34],
      [37, 69],
      [72, 104],
      [107, 139],
    ],
    [
      [2, 34],
      [37, 69],
    ],
  ]);
  expect(
    sawSettings(operations).map((s) => [s.label, s.value.mm, s.parts.map((p) => `${p.label} x ${p.count}`)]),
  ).toEqual([
    ['Stop', 429, ['P1 x 2']],
    ['Fence', 32, ['P1.1 x 4', 'P1.2 x 2']],
  ]);
});
