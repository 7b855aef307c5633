import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pieceFieldsSchema } from '../stock/piece.ts';
import { salvagedBits, salvagedPieces, salvageTrouble, withSize, withSkin, type SalvagedThing } from './salvage.ts';

const thing: SalvagedThing = {
  of: 'Counter',
  species: 'beech-european',
  length: 1203,
  width: 60,
  thickness: 30,
  skinUp: 2,
  skinDown: 1.5,
  seams: [300, 603, 903],
  metal: [{ at: 700, across: 2 }],
  count: 2,
};

it('cut at its glue seams a thing gives its solid bits, equal ones under one mark', () => {
  // By hand, kerf 3: 0 to 298.5, 301.5 to 601.5, 604.5 to 901.5, 904.5 to 1203.
  expect(salvagedBits(thing, 3).map((b) => [b.from, b.length])).toEqual([
    [0, 298.5],
    [301.5, 300],
    [604.5, 297],
    [904.5, 298.5],
  ]);
  let n = 0;
  const pieces = salvagedPieces(thing, 3, () => `S${(n += 1)}`);
  // The two outer bits are equally long, but each has its own raw end; the third has the screw in it.
  expect(pieces.map((p) => [p.mark, p.length, p.thickness, p.count, p.defects.length])).toEqual([
    ['S1', 298.5, 26.5, 2, 0],
    ['S2', 300, 26.5, 2, 0],
    ['S3', 297, 26.5, 2, 1],
    ['S4', 298.5, 26.5, 2, 0],
  ]);
  expect(pieces[2]!.defects[0]).toMatchObject({ from: 79.5, across: 0, length: 32, width: 32, treatment: 'cut' });
  expect(pieces.every((p) => p.surface === 'twoFaces' && p.origin.of === 'Counter')).toBe(true);
});

it('never makes more wood than there was, and only valid pieces', () => {
  const number = (max: number) => fc.integer({ min: 0, max });
  fc.assert(
    fc.property(
      fc.array(number(1300), { maxLength: 8 }),
      number(4),
      number(5),
      number(5),
      fc.array(fc.record({ at: number(1300), across: number(70) }), { maxLength: 4 }),
      (seams, kerf, skinUp, skinDown, metal) => {
        const pieces = salvagedPieces({ ...thing, seams, skinUp, skinDown, metal }, kerf, () => 'S1');
        expect(pieces.reduce((sum, p) => sum + p.length * p.count, 0)).toBeLessThanOrEqual(2 * 1203 + 1e-9);
        for (const piece of pieces) expect(pieceFieldsSchema.safeParse(piece).error).toBeUndefined();
      },
    ),
  );
  expect(salvagedPieces({ ...thing, skinUp: 20, skinDown: 9 }, 3, () => 'S1')).toEqual([]);
});

describe('a thing before it goes into the rack', () => {
  const asked = { skin: 'bare' as const, metalSought: true, solid: 4 };

  it.each<[string, Partial<SalvagedThing>, Partial<Parameters<typeof salvageTrouble>[1]>, string | null]>([
    ['all said', {}, {}, null],
    ['no species', { species: '' }, {}, 'Choose the species.'],
    ['not what it was', { of: ' ' }, {}, 'Say what it was.'],
    ['nothing of its faces', {}, { skin: null }, 'Say what is on its faces.'],
    ['treated wood, whatever else', {}, { skin: 'treated', metalSought: false }, 'Treated wood is never for food.'],
    ['metal not sought', {}, { metalSought: false }, 'Go over it with a metal detector first.'],
    ['nothing solid', {}, { solid: 0 }, 'Nothing solid is left of it.'],
  ])('%s: %j %j asks %s', (_, change, answers, trouble) => {
    expect(salvageTrouble({ ...thing, ...change }, { ...asked, ...answers })).toBe(trouble);
  });

  it('paint and veneer take some of each face to begin with, and what somebody said stays', () => {
    const clean = { ...thing, skinUp: 0, skinDown: 0 };
    expect([withSkin(clean, 'painted').skinUp, withSkin(clean, 'veneered').skinDown]).toEqual([2, 2]);
    expect(withSkin(clean, 'bare')).toBe(clean);
    expect(withSkin(thing, 'painted')).toBe(thing);
  });

  it('made shorter or narrower it keeps only the seams and the metal that still lie on it', () => {
    const smaller = withSize(thing, { length: 650 });
    expect([smaller.seams, smaller.metal]).toEqual([[300, 603], []]);
    expect(withSize(thing, { width: 1 }).metal).toEqual([]);
    expect(withSize(thing, { thickness: 10 })).toEqual({ ...thing, thickness: 10 });
  });
});
