import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { CAUL_MM, CLAMP_BAR_MM, clampsFor, opensFor, reachesMiddle, wantedPressure } from './clamping.ts';

const clamp = (change: Partial<Shop['clamps'][number]> = {}): Shop['clamps'][number] => ({
  id: 'c',
  kind: 'pipe',
  opening: 600,
  reach: 45,
  force: 4.5,
  count: 8,
  ...change,
});
const shopWith = (...clamps: Shop['clamps']): Shop => ({ ...DEFAULT_SHOP, clamps });
const panel = { length: 429, height: 32, width: 276, joints: 5, hardness: 6400 };

describe('clamps', () => {
  it('worked by hand: 429 mm of joint, 32 high, of maple', () => {
    // Every 100 mm: 429 / 100 is 5. 1.2 MPa on 429 x 32 mm are 16.5 kN: four clamps of 4.5 kN.
    const set = clampsFor(panel, shopWith(clamp()));
    expect([set.bySpacing, set.byPressure, set.wanted, set.placed.length]).toEqual([5, 4, 5, 5]);
    // Five clamps of 4.5 kN press 22.5 kN on 13 728 mm2.
    expect(set.pressure).toBeCloseTo(22_500 / 13_728, 6);
    // 40 mm in from both ends, the others evenly between: (429 - 80) / 4.
    expect(set.placed.map((c) => c.at)).toEqual([40, 127.25, 214.5, 301.75, 389]);
    expect(set.placed.map((c) => c.side)).toEqual(['below', 'above', 'below', 'above', 'below']);
  });

  it('soft wood asks for less, unknown wood for as much as dense wood (common practice)', () => {
    expect([wantedPressure(2400), wantedPressure(6400), wantedPressure(null)]).toEqual([0.7, 1.2, 1.2]);
    const soft = clampsFor({ ...panel, hardness: 2400 }, shopWith(clamp({ force: 2 })));
    const hard = clampsFor(panel, shopWith(clamp({ force: 2 })));
    // 0.7 and 1.2 MPa on the same joint: 9.6 and 16.5 kN, in clamps of 2 kN.
    expect([soft.byPressure, hard.byPressure]).toEqual([5, 9]);
  });

  it('one that does not open or reach is told and not counted; pads of 26 mm stand beside the panel', () => {
    expect([opensFor({ opening: 302 }, 276), opensFor({ opening: 301.9 }, 276)]).toEqual([true, false]);
    expect([reachesMiddle({ reach: 16 }, 32), reachesMiddle({ reach: 15.9 }, 32)]).toEqual([true, false]);
    const set = clampsFor(
      panel,
      shopWith(
        clamp({ opening: 200, count: 4 }),
        clamp({ id: 'd', reach: 10, count: 3 }),
        clamp({ id: 'e', count: 2 }),
      ),
    );
    expect([set.owned, set.tooShort, set.tooShallow]).toEqual([2, 4, 3]);
    expect(set.placed).toHaveLength(2);
  });

  it('a shop without any has none placed, and says how many are wanted', () => {
    const set = clampsFor(panel, shopWith());
    expect(set).toMatchObject({ owned: 0, placed: [], wanted: 5, pressure: 0 });
  });

  it('clamps stand inside the panel, in turn below and above, and no clamp meets a caul', () => {
    fc.assert(
      fc.property(
        fc.record({
          length: fc.double({ min: 120, max: 1500, noNaN: true }),
          height: fc.double({ min: 10, max: 60, noNaN: true }),
          count: fc.integer({ min: 0, max: 20 }),
          force: fc.double({ min: 0.5, max: 9, noNaN: true }),
        }),
        ({ length, height, count, force }) => {
          const { placed, cauls, wanted } = clampsFor(
            { ...panel, length, height },
            shopWith(clamp({ count, force, reach: 60 })),
          );
          expect(placed.length).toBe(Math.min(count, wanted));
          placed.forEach((c, i) => {
            expect(c.at).toBeGreaterThan(0);
            expect(c.at).toBeLessThan(length);
            expect(c.side).toBe(i % 2 === 0 ? 'below' : 'above');
          });
          for (const caul of cauls)
            for (const c of placed)
              expect(Math.abs(caul - c.at)).toBeGreaterThanOrEqual((CAUL_MM + CLAMP_BAR_MM) / 2 - 1e-9);
          expect([...cauls]).toEqual([...cauls].sort((a, b) => a - b));
        },
      ),
    );
  });

  it('more clamps never press less', () => {
    const press = (count: number) => clampsFor(panel, shopWith(clamp({ count }))).pressure;
    for (let count = 0; count < 8; count += 1) expect(press(count + 1)).toBeGreaterThanOrEqual(press(count));
  });
});
