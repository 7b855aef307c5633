import { expect, it } from 'vitest';
import { firstOf } from '../lists/there.ts';
import { colourDifference, lightness } from './colour.ts';
import { HANDBOOK_SPECIES, isFromBooks } from './handbookSpecies.ts';
import { newSpecies } from './newSpecies.ts';
import { speciesSchema } from './species.ts';

/**
 * USDA Forest Products Laboratory, Wood Handbook, FPL-GTR-282 (2021), tables 5-3 and 13-5, written down a second time, from memory: radial and tangential change for a
 * percent of moisture, specific gravity at 12 %, side hardness in newtons; null where the tables were not remembered.
 */
const TABLE: [code: string, radial: number, tangential: number, gravity: number | null, hardness: number | null][] = [
  ['maple-hard', 0.00165, 0.00353, 0.63, 6400],
  ['maple-red', 0.00137, 0.00289, 0.54, 4200],
  ['cherry-black', 0.00126, 0.00248, 0.5, 4200],
  ['walnut-black', 0.0019, 0.00274, 0.55, 4500],
  ['beech-american', 0.0019, 0.00431, 0.64, 5800],
  ['birch-yellow', 0.00256, 0.00338, 0.62, 5600],
  ['ash-white', 0.00169, 0.00274, 0.6, 5900],
  ['oak-white', 0.0018, 0.00365, 0.68, 6000],
  ['oak-red', 0.00158, 0.00369, null, 5700],
  ['hickory', 0.00169, 0.00315, 0.66, 8100],
  ['poplar-yellow', 0.00158, 0.00289, 0.42, 2400],
  ['alder-red', 0.00151, 0.00256, 0.41, 2600],
  ['sycamore-american', 0.00172, 0.00296, 0.49, 3400],
  ['mahogany', 0.00172, 0.00238, null, null],
  ['teak', 0.00101, 0.00186, null, null],
];

it.each(TABLE)('%s has the figures of the Wood Handbook', (code, radial, tangential, gravity, hardness) => {
  const species = firstOf(HANDBOOK_SPECIES.filter((s) => s.code === code));
  expect([species.radial, species.tangential]).toEqual([radial, tangential]);
  // Mass at 12 % over volume at 12 % is 1.12 times the specific gravity (Wood Handbook, chapter 4, from memory).
  if (gravity !== null) expect(species.density).toBeCloseTo(1120 * gravity, 6);
  if (hardness !== null) expect(species.hardness).toBe(hardness);
});

it('every figure of every species says where it comes from, every caution too', () => {
  for (const s of HANDBOOK_SPECIES) {
    expect([s.code, s.source.length > 10, s.movementSource.length > 10]).toEqual([s.code, true, true]);
    if (s.dust !== 'usual') expect([s.code, s.cautionSource.length > 10]).toEqual([s.code, true]);
    expect(speciesSchema.safeParse(s).success).toBe(true);
    expect(isFromBooks(s)).toBe(true);
  }
  expect(new Set(HANDBOOK_SPECIES.map((s) => s.code)).size).toBe(HANDBOOK_SPECIES.length);
  expect(new Set(HANDBOOK_SPECIES.map((s) => s.name.toLowerCase())).size).toBe(HANDBOOK_SPECIES.length);
});

it('a new species has the figures of the one it is like, a code of its own, and says so', () => {
  const maple = firstOf(HANDBOOK_SPECIES);
  const known = [...HANDBOOK_SPECIES];
  for (const name of ['Plum', 'plum!', 'Pflaume, süß', '木', 'a'.repeat(60), '  Plum  ']) {
    const made = newSpecies(name, maple, known);
    expect(speciesSchema.safeParse(made).success).toBe(true);
    expect(known.some((s) => s.code === made.code)).toBe(false);
    expect([made.density, made.hardness, made.radial, made.tangential]).toEqual([
      maple.density,
      maple.hardness,
      maple.radial,
      maple.tangential,
    ]);
    expect(`${made.source} ${made.movementSource}`).toContain(maple.name);
    expect(isFromBooks(made)).toBe(false);
    known.push(made);
  }
});

it('lightness runs from black to white; two colours differ as much one way as the other, one from itself not at all', () => {
  expect(lightness('#000000')).toBeCloseTo(0, 6);
  expect(lightness('#ffffff')).toBeCloseTo(100, 3);
  // CIELAB of the middle grey #777777, L* 50.03 (by the definition of the colour space).
  expect(lightness('#777777')).toBeCloseTo(50.03, 1);
  for (const [a, b] of [
    ['#ecd9b4', '#6f5140'],
    ['#b1472a', '#4a372c'],
  ] as const) {
    expect(colourDifference(a, b)).toBeCloseTo(colourDifference(b, a), 9);
    expect(colourDifference(a, a)).toBe(0);
    expect(colourDifference(a, b)).toBeGreaterThan(10);
  }
});
