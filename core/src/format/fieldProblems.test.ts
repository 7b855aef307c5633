import { expect, it } from 'vitest';
import { boardSchema } from '../board/board.ts';
import { plainBoard, plainPiece } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP, shopSchema } from '../shop/shop.ts';
import { pieceSchema } from '../stock/piece.ts';
import type { z } from 'zod';
import { fieldProblems } from './fieldProblems.ts';

function sentences(schema: z.ZodType, value: unknown) {
  const parsed = schema.safeParse(value);
  return parsed.success ? [] : fieldProblems(parsed.error).map((p) => `${p.path}: ${p.message}`);
}

it.each<[string, z.ZodType, unknown, string[]]>([
  ['a good board', boardSchema, plainBoard(), []],
  [
    'several bad fields',
    boardSchema,
    plainBoard({ length: 0, width: -5 }),
    ['length: Length must be at least 50 mm (1.97 in).', 'width: Width must be at least 30 mm (1.18 in).'],
  ],
  [
    'a bad strip',
    boardSchema,
    plainBoard({}, [10, 0.2]),
    ['recipe[1].width: Strip 2, width must be at least 1 mm (0.0394 in).'],
  ],
  ['a missing field', pieceSchema, { ...plainPiece(), species: undefined }, ['species: Species must be chosen.']],
  [
    'a price below zero',
    pieceSchema,
    plainPiece({ price: { amount: -1, per: 'piece' } }),
    ['price.amount: Price, amount must not be negative.'],
  ],
  [
    'not a number',
    pieceSchema,
    { ...plainPiece(), length: Number.NaN },
    ['length: Length must be a length in millimetres.'],
  ],
  [
    'a control character',
    pieceSchema,
    plainPiece({ note: 'a\u0000b' }),
    ['note: Note must not hold control characters or halves of characters.'],
  ],
  [
    'an impossible kerf',
    shopSchema,
    { ...DEFAULT_SHOP, saw: { ...DEFAULT_SHOP.saw, kerf: 40 } },
    ['saw.kerf: Saw, kerf must be at most 8 mm (0.315 in).'],
  ],
  [
    'a reserve of nothing',
    shopSchema,
    { ...DEFAULT_SHOP, pace: { ...DEFAULT_SHOP.pace, reserve: 0 } },
    ['pace.reserve: Pace, reserve must be at least 0.1.'],
  ],
  [
    'no currency',
    shopSchema,
    { ...DEFAULT_SHOP, currency: 'euros' },
    ['currency: Currency must be a three-letter currency code such as EUR.'],
  ],
])('%s', (_, schema, value, expected) => {
  expect(sentences(schema, value)).toEqual(expected);
});

it('a thousand problems are told as twenty', () => {
  expect(sentences(boardSchema, plainBoard({}, Array<number>(150).fill(-1)))).toHaveLength(20);
});
