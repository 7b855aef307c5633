import { expect, it } from 'vitest';
import { plainPiece } from '../plan/planArbitrary.ts';
import { passDepth } from '../shop/machines.ts';
import { DEFAULT_SHOP, shopSchema } from '../shop/shop.ts';
import { flatteningLoss, formOfPart } from '../cutting/flattening.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import { speciesSchema } from '../wood/species.ts';
import { pieceSchema, PLAIN_CONDITION } from './piece.ts';
import { pricePerMm3, volumeBetween } from './shape.ts';

it('a volume costs what its piece costs, by cubic metre, board foot, kilogram or share of the piece', () => {
  // 500 x 150 x 50 mm: 3.75 dm3, a quarter of the piece, 1.5892 board feet of 2.359737 dm3 (NIST SP 811).
  const volume = 500 * 150 * 50;
  const costing = (
    amount: number,
    per: 'cubicMetre' | 'boardFoot' | 'kilogram' | 'piece',
    density: number | null = null,
  ) => pricePerMm3(plainPiece({ price: { amount, per } }), density)! * volume;
  expect(costing(1000, 'cubicMetre')).toBeCloseTo(3.75, 9);
  expect(costing(10, 'boardFoot')).toBeCloseTo((10 * 3.75) / 2.359737, 4);
  expect(costing(20, 'piece')).toBeCloseTo(5, 9);
  // 3.75 dm3 of hard maple at 705.6 kg/m3 weigh 2.646 kg.
  expect(costing(3, 'kilogram', 705.6)).toBeCloseTo(3 * 2.646, 9);
  expect(pricePerMm3(plainPiece({ price: { amount: 3, per: 'kilogram' } }), null)).toBeNull();
  expect(pricePerMm3(plainPiece(), 700)).toBeNull();
});

it('the defaults are valid, and so is every species, with a source and a colour of its own', () => {
  expect(shopSchema.parse(DEFAULT_SHOP)).toEqual(DEFAULT_SHOP);
  expect(pieceSchema.parse(plainPiece())).toEqual(plainPiece());
  for (const species of HANDBOOK_SPECIES) expect(speciesSchema.parse(species)).toEqual(species);
  for (const key of ['code', 'name', 'botanical', 'colour'] as const)
    expect(new Set(HANDBOOK_SPECIES.map((s) => s[key])).size).toBe(HANDBOOK_SPECIES.length);
});

it("a pass is full up to half the planer's width, half at its full width, and falls evenly between", () => {
  const planer = DEFAULT_SHOP.planer!;
  expect([20, 130, 195, 260, 400].map((width) => passDepth(planer, width))).toEqual([1.5, 1.5, 1.125, 0.75, 0.75]);
});

it('rough stock loses bow and two skims, surfaced stock only two light skims', () => {
  const part = { length: 400, width: 40 };
  const loss = (surface: 'rough' | 'oneFace' | 'twoFaces') =>
    flatteningLoss(plainPiece({ surface }), part, DEFAULT_SHOP.habits);
  expect(loss('rough')).toEqual({ form: 1.6, skim: 1.6, total: 3.2 });
  expect(loss('oneFace')).toEqual({ form: 0, skim: 1.1, total: 1.1 });
  expect(loss('twoFaces')).toEqual({ form: 0, skim: 0.6, total: 0.6 });
});

it('a measured form shrinks with the part: bow and crook with length squared, cup with width squared, twist with both', () => {
  // By hand, a quarter of 2000 and half of 150: bow 16 / 16, cup 2 / 4, crook 8 / 16, twist 4 / 8.
  const form = { bow: 16, cup: 2, crook: 8, twist: 4 };
  const piece = plainPiece({ form });
  expect(formOfPart(form, piece, { length: 500, width: 75 })).toEqual({ bow: 1, cup: 0.5, crook: 0.5, twist: 0.5 });
  // Lost: 1 + 0.5 + half of 0.5, and two skims of 0.8.
  expect(flatteningLoss(piece, { length: 500, width: 75 }, DEFAULT_SHOP.habits)).toEqual({
    form: 1.75,
    skim: 1.6,
    total: 3.35,
  });
});

it('what lies on a piece must lie inside it, in a sentence that names the field', () => {
  const knot = {
    id: 'd1',
    kind: 'knot' as const,
    face: 'up' as const,
    from: 1990,
    across: 10,
    length: 30,
    width: 20,
    treatment: 'cut' as const,
  };
  const read = (change: object) => pieceSchema.safeParse({ ...plainPiece(), ...change });
  expect(read({ defects: [{ ...knot, from: 1970 }] }).success).toBe(true);
  expect(read({ defects: [knot] }).error!.issues[0]).toMatchObject({
    path: ['defects', 0, 'from'],
    message: 'must leave the knot inside the piece; it reaches 20 mm past the far end',
  });
  expect(read({ defects: [{ ...knot, from: 0, across: 140 }] }).error!.issues[0]).toMatchObject({
    path: ['defects', 0, 'across'],
  });
  expect(
    read({ ends: { ...PLAIN_CONDITION.ends, mark: { checked: 2001, snipe: 0, sawn: false } } }).error!.issues[0]!.path,
  ).toEqual(['ends', 'mark', 'checked']);
});

it('a tapering piece has the volume of its slices', () => {
  const piece = plainPiece({ width: 200, thickness: 50, farEnd: { width: 100, thickness: 30 } });
  let slices = 0;
  for (let x = 0.5; x < 2000; x += 1) slices += (200 - x * 0.05) * (50 - x * 0.01);
  expect(volumeBetween(piece, 0, 2000) / slices).toBeCloseTo(1, 7);
  expect(volumeBetween(piece, 0, 700) + volumeBetween(piece, 700, 2000)).toBeCloseTo(volumeBetween(piece, 0, 2000), 3);
});
