import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MM_PER_INCH } from '../units/length.ts';
import { colourDifference } from './colour.ts';
import { HANDBOOK_SPECIES } from './handbookSpecies.ts';
import { CLIMATES, equilibriumMoisture } from './moisture.ts';
import { changeCoefficient, movementOf, strainAngles } from './movement.ts';
import { speciesSchema } from './species.ts';

type Lab = [number, number, number];

describe('moisture and movement', () => {
  // Wood Handbook, FPL-GTR-282 (2021), table 4-2, at 70 degrees F (from memory).
  it.each([
    [30, 6.2],
    [50, 9.2],
    [65, 12],
    [80, 16],
  ])('at 21.1 °C and %i %% humidity wood comes to %f %%', (humidity, moisture) => {
    expect(equilibriumMoisture({ temperature: 21.1, humidity })).toBeCloseTo(moisture, 1);
  });

  it('rises with humidity at every temperature', () => {
    fc.assert(
      fc.property(fc.integer({ min: -10, max: 50 }), fc.integer({ min: 5, max: 94 }), (temperature, humidity) => {
        expect(equilibriumMoisture({ temperature, humidity: humidity + 1 })).toBeGreaterThan(
          equilibriumMoisture({ temperature, humidity }),
        );
      }),
    );
    for (const { seasons } of CLIMATES)
      expect(equilibriumMoisture(seasons.damp)).toBeGreaterThan(equilibriumMoisture(seasons.dry));
  });

  it('a flat-sawn white fir board of 9.15 in grows by 0.067 in from 8 to 11 %', () => {
    // Wood Handbook, chapter 13, worked example (from memory).
    expect(movementOf(9.15 * MM_PER_INCH, 0.00245, 8, 11) / MM_PER_INCH).toBeCloseTo(0.067, 3);
  });

  it('a strip of flat-sawn stock moves radially across when it stands on edge, tangentially when it lies flat, and quartered stock the other way round', () => {
    const beech = HANDBOOK_SPECIES.find((s) => s.code === 'beech-american')!;
    const across = (rings: 'flat' | 'rift' | 'quarter', shows: 'edge' | 'face') =>
      changeCoefficient(beech, strainAngles(rings, shows).across);
    expect(
      [across('flat', 'edge'), across('flat', 'face'), across('quarter', 'edge'), across('quarter', 'face')].map((c) =>
        Number(c!.toFixed(8)),
      ),
    ).toEqual([0.0019, 0.00431, 0.00431, 0.0019]);
    expect(across('rift', 'edge')).toBeCloseTo((0.0019 + 0.00431) / 2, 9);
    expect(changeCoefficient({ radial: null, tangential: 0.003 }, 0)).toBeNull();
  });

  it('knows every species by valid figures; tangential movement is the greater', () => {
    for (const species of HANDBOOK_SPECIES) {
      expect(speciesSchema.safeParse(species).success).toBe(true);
      expect(species.tangential).toBeGreaterThan(species.radial!);
    }
  });
});

describe('colour difference', () => {
  // Sharma, Wu and Dalal, "The CIEDE2000 color-difference formula", Color Research and Application 30 (2005), table 1 (from memory).
  it.each<[Lab, Lab, number]>([
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
    [[50, 2.8361, -74.02], [50, 0, -82.7485], 3.4412],
    [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1],
    [[50, -1.1848, -84.8006], [50, 0, -82.7485], 1],
    [[50, -0.9009, -85.5211], [50, 0, -82.7485], 1],
    [[50, 0, 0], [50, -1, 2], 2.3669],
    [[50, -1, 2], [50, 0, 0], 2.3669],
    [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
    [[50, 2.49, -0.001], [50, -2.49, 0.001], 7.1792],
    [[50, 2.49, -0.001], [50, -2.49, 0.0011], 7.2195],
    [[50, 2.49, -0.001], [50, -2.49, 0.0012], 7.2195],
    [[50, -0.001, 2.49], [50, 0.0009, -2.49], 4.8045],
    [[50, -0.001, 2.49], [50, 0.001, -2.49], 4.8045],
    [[50, -0.001, 2.49], [50, 0.0011, -2.49], 4.7461],
    [[50, 2.5, 0], [50, 0, -2.5], 4.3065],
    [[50, 2.5, 0], [73, 25, -18], 27.1492],
    [[50, 2.5, 0], [61, -5, 29], 22.8977],
    [[50, 2.5, 0], [56, -27, -3], 31.903],
    [[50, 2.5, 0], [58, 24, 15], 19.4535],
    [[50, 2.5, 0], [50, 3.1736, 0.5854], 1],
    [[50, 2.5, 0], [50, 3.2972, 0], 1],
    [[50, 2.5, 0], [50, 1.8634, 0.5757], 1],
    [[50, 2.5, 0], [50, 3.2592, 0.335], 1],
    [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
    [[63.0109, -31.0961, -5.8663], [62.8187, -29.7946, -4.0864], 1.263],
    [[61.2901, 3.7196, -5.3901], [61.4292, 2.248, -4.962], 1.8731],
    [[35.0831, -44.1164, 3.7933], [35.0232, -40.0716, 1.5901], 1.8645],
    [[22.7233, 20.0904, -46.694], [23.0331, 14.973, -42.5619], 2.0373],
    [[36.4612, 47.858, 18.3852], [36.2715, 50.5065, 21.2231], 1.4146],
    [[90.8027, -2.0831, 1.441], [91.1528, -1.6435, 0.0447], 1.4441],
    [[90.9257, -0.5406, -0.9208], [88.6381, -0.8985, -0.7239], 1.5381],
    [[6.7747, -0.2908, -2.4247], [5.8714, -0.0985, -2.2286], 0.6377],
    [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
  ])('of %j and %j is %f', (one, two, difference) => {
    expect(colourDifference(one, two)).toBeCloseTo(difference, 4);
  });
});
