import { expect, it } from 'vitest';
import { plainPiece } from '../plan/planArbitrary.ts';
import { passDepth, DEFAULT_SHOP, shopSchema } from '../shop/shop.ts';
import { flatteningLoss } from '../shop/flattening.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import { speciesSchema } from '../wood/species.ts';
import { pieceSchema, priceOfVolume } from './piece.ts';

it('a volume costs what its piece costs, by cubic metre, board foot or share of the piece', () => {
  // 500 x 150 x 50 mm: 3.75 dm3, a quarter of the piece, 1.5892 board feet of 2.359737 dm3 (NIST SP 811).
  const volume = 500 * 150 * 50;
  const costing = (amount: number, per: 'cubicMetre' | 'boardFoot' | 'piece') => priceOfVolume(plainPiece({ price: { amount, per } }), volume);
  expect(costing(1000, 'cubicMetre')).toBeCloseTo(3.75, 9);
  expect(costing(10, 'boardFoot')).toBeCloseTo((10 * 3.75) / 2.359737, 4);
  expect(costing(20, 'piece')).toBeCloseTo(5, 9);
  expect(priceOfVolume(plainPiece(), volume)).toBeNull();
});

it('the defaults are valid, and so is every species, with a source and a colour of its own', () => {
  expect(shopSchema.parse(DEFAULT_SHOP)).toEqual(DEFAULT_SHOP);
  expect(pieceSchema.parse(plainPiece())).toEqual(plainPiece());
  for (const species of HANDBOOK_SPECIES) expect(speciesSchema.parse(species)).toEqual(species);
  for (const key of ['code', 'name', 'botanical', 'colour'] as const) expect(new Set(HANDBOOK_SPECIES.map((s) => s[key])).size).toBe(HANDBOOK_SPECIES.length);
});

it('a pass is full up to half the planer\'s width, half at its full width, and falls evenly between', () => {
  const { planer } = DEFAULT_SHOP;
  expect([20, 130, 195, 260, 400].map((width) => passDepth(planer, width))).toEqual([1.5, 1.5, 1.125, 0.75, 0.75]);
});

it('rough stock loses bow and two skims, surfaced stock only two light skims', () => {
  expect(flatteningLoss('rough', DEFAULT_SHOP.habits)).toEqual({ form: 1.6, skim: 1.6, total: 3.2 });
  expect(flatteningLoss('surfaced', DEFAULT_SHOP.habits)).toEqual({ form: 0, skim: 0.6, total: 0.6 });
});
