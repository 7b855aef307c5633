import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bodiesOf } from '#core/bodies/bodiesOf.ts';
import { plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { inPiece, stockBody, type StripBody } from '#core/bodies/stripBody.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { DEFAULT_DISPLAY } from '#core/units/formatLength.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { fitScale, graduation, scaleWords } from './scale.ts';
import { bitmapFile } from './wood/bitmap.ts';
import { logOf } from './wood/log.ts';
import { paintWood } from './wood/paintWood.ts';
import { cutOf, logSource, type Side } from './wood/woodSide.ts';
import { AS_IT_LIES, flatRecipe, type Strip } from '#core/board/recipe.ts';

const beech = HANDBOOK_SPECIES.find((s) => s.code === 'beech-european')!;
const shapes = fc.record({ turned: fc.boolean(), endForEnd: fc.boolean(), rolled: fc.boolean() });
const MM = 1;
const paint = (body: StripBody, side: Side, scale = MM, oiled = false) =>
  paintWood(logOf(logSource(body, 's1'), beech), cutOf(body, side), scale, oiled);
const pixel = ({ width, rgb }: ReturnType<typeof paint>, x: number, y: number) => [
  ...rgb.subarray(3 * (y * width + x), 3 * (y * width + x) + 3),
];
const mean = ({ rgb }: ReturnType<typeof paint>) => rgb.reduce((sum, v) => sum + v, 0) / rgb.length;

describe('wood', () => {
  const piece = plainPiece({
    species: 'beech-european',
    length: 600,
    width: 120,
    thickness: 30,
    defects: [
      { id: 'k', kind: 'knot', face: 'through', from: 200, across: 40, length: 60, width: 40, treatment: 'harmless' },
    ],
  });
  const bodyOf = (change: Partial<Strip>, construction: 'edge' | 'face' = 'face') => {
    const board = plainBoard({
      construction,
      length: 300,
      width: 60,
      recipe: flatRecipe([
        { id: 's1', species: 'beech-european', width: construction === 'face' ? 70 : 25, ...AS_IT_LIES, ...change },
      ]),
      thickness: 22,
    });
    return bodiesOf({ board, rack: [{ ...piece, defects: [] }], shop: DEFAULT_SHOP, species: HANDBOOK_SPECIES })[0]!;
  };

  it('is the same every time, differs between pieces, and oil makes it darker', () => {
    const body = stockBody(piece);
    expect(paint(body, 'top').rgb).toEqual(paint(body, 'top').rgb);
    expect(paint(stockBody({ ...piece, id: 'p2' }), 'top').rgb).not.toEqual(paint(body, 'top').rgb);
    expect(mean(paint(body, 'top', MM, true))).toBeLessThan(mean(paint(body, 'top')) - 5);
  });

  it('shows the same picture at another scale', () => {
    const body = stockBody(piece);
    const coarse = paint(body, 'top', 0.5);
    const fine = paint(body, 'top', 2);
    let difference = 0;
    for (let x = 5; x < coarse.width - 5; x += 7) {
      for (let y = 3; y < coarse.height - 3; y += 5) {
        const block = Array.from({ length: 16 }, (_, i) => pixel(fine, 4 * x + (i % 4), 4 * y + Math.floor(i / 4))[0]!);
        difference = Math.max(difference, Math.abs(pixel(coarse, x, y)[0]! - block.reduce((s, v) => s + v, 0) / 16));
      }
    }
    expect(difference).toBeLessThan(40);
  });

  it("goes on across strips of one piece: the face of a strip is the piece's own", () => {
    const body = stockBody(piece);
    const whole = cutOf(body, 'top');
    const part: typeof whole = {
      ...whole,
      corner: [whole.corner[0] + 100, whole.corner[1] + 20, whole.corner[2]],
      size: [200, 40],
    };
    const log = logOf(logSource(body, ''), beech);
    const [all, some] = [paintWood(log, whole, MM, false), paintWood(log, part, MM, false)];
    // Slow changes are worked out every few pixels, so a part may differ by a shade.
    for (const [x, y] of [
      [10, 10],
      [60, 30],
      [150, 5],
      [190, 38],
    ] as const) {
      pixel(some, x, y).forEach((v, k) => expect(Math.abs(v - pixel(all, x + 100, y + 20)[k]!)).toBeLessThan(14));
    }
  });

  it('a knot is dark where the piece has it, and nowhere else', () => {
    const clean = paint(stockBody({ ...piece, defects: [] }), 'top');
    const knotty = paint(stockBody(piece), 'top');
    expect(pixel(knotty, 230, 60)[0]).toBeLessThan(pixel(clean, 230, 60)[0]! - 25);
    expect(pixel(knotty, 500, 20)).toEqual(pixel(clean, 500, 20));
  });

  it('a strip has the same box of wood however it is turned, and half turns twice bring it back', () => {
    fc.assert(
      fc.property(shapes, fc.constantFrom<'edge' | 'face'>('edge', 'face'), (change, construction) => {
        const body = bodyOf(change, construction);
        const corners = (b: StripBody) =>
          [0, 1, 2, 3, 4, 5, 6, 7]
            .map((i) =>
              inPiece(b, [i & 1 ? b.size[0] : 0, i & 2 ? b.size[1] : 0, i & 4 ? b.size[2] : 0])
                .map((v) => Math.round(v * 1e6) / 1e6)
                .join(),
            )
            .sort();
        expect(corners(body)).toEqual(corners(bodyOf({ rolled: change.rolled }, construction)));
        const [a, c, u] = [body.along, body.across, body.up];
        const turn =
          a[0] * (c[1] * u[2] - c[2] * u[1]) - a[1] * (c[0] * u[2] - c[2] * u[0]) + a[2] * (c[0] * u[1] - c[1] * u[0]);
        expect(turn).toBe(1);
      }),
    );
    const [plain, over] = [bodyOf({}), bodyOf({ turned: true })];
    expect(cutOf(over, 'top').corner[2]).toBeCloseTo(cutOf(plain, 'under').corner[2], 9);
    expect(paint(over, 'top').rgb).toEqual(paint(plain, 'under').rgb);
  });

  it('is written as a bitmap that says its own size', () => {
    const file = bitmapFile({ width: 3, height: 2, rgb: Uint8Array.from({ length: 18 }, (_, i) => i) });
    const view = new DataView(file.buffer);
    expect([
      String.fromCharCode(file[0]!, file[1]!),
      view.getUint32(2, true),
      view.getInt32(18, true),
      view.getInt32(22, true),
    ]).toEqual(['BM', 54 + 2 * 12, 3, -2]);
    expect([...file.subarray(54, 60)]).toEqual([2, 1, 0, 5, 4, 3]);
  });
});

describe('scale', () => {
  it('fits both ways and never passes what is allowed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 50, max: 3000 }), fc.integer({ min: 30, max: 1500 }), (length, width) => {
        const scale = fitScale([length, width], [800, 400], 2);
        expect(length * scale).toBeLessThanOrEqual(800 + 1e-9);
        expect(width * scale).toBeLessThanOrEqual(400 + 1e-9);
        expect(scale).toBeLessThanOrEqual(2);
      }),
    );
  });

  it('is said in words: 96 pixels to the inch is full size', () => {
    expect(scaleWords(96 / 25.4)).toBe('1:1');
    expect(scaleWords(96 / 25.4 / 2.5)).toBe('1:2.5');
    expect(scaleWords((96 / 25.4) * 2)).toBe('2:1');
  });

  it('a rule never has ticks closer than the eye can part, in either unit', () => {
    for (const system of ['metric', 'inch'] as const) {
      for (const scale of [0.15, 0.4, 1, 2, 4]) {
        const { step, major } = graduation(scale, { ...DEFAULT_DISPLAY, system });
        expect(step * scale).toBeGreaterThan(3);
        expect(step * major * scale).toBeGreaterThan(25);
      }
    }
  });
});
