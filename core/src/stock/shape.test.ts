import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainPiece } from '../plan/planArbitrary.ts';
import { pricePerMm3, ripVolume, thicknessAt, volumeBetween, widthAt } from './shape.ts';

const pieces = fc
  .record({
    length: fc.double({ min: 200, max: 4000, noNaN: true }),
    width: fc.double({ min: 40, max: 300, noNaN: true }),
    thickness: fc.double({ min: 15, max: 80, noNaN: true }),
    far: fc.option(
      fc.record({
        width: fc.double({ min: 40, max: 300, noNaN: true }),
        thickness: fc.double({ min: 15, max: 80, noNaN: true }),
      }),
      { nil: null },
    ),
  })
  .map(({ far, ...size }) => plainPiece({ ...size, farEnd: far }));

describe('a piece that tapers', () => {
  it('is as wide and thick at its ends as was measured there, and halfway between in its middle', () => {
    fc.assert(
      fc.property(pieces, (p) => {
        const far = p.farEnd ?? p;
        expect([widthAt(p, 0), thicknessAt(p, 0)]).toEqual([p.width, p.thickness]);
        expect(widthAt(p, p.length)).toBeCloseTo(far.width, 9);
        expect(thicknessAt(p, p.length)).toBeCloseTo(far.thickness, 9);
        expect(widthAt(p, p.length / 2)).toBeCloseTo((p.width + far.width) / 2, 9);
      }),
    );
  });

  it('holds what thin slices of it hold together (numerical integration), and its parts add up', () => {
    fc.assert(
      fc.property(pieces, fc.double({ min: 0, max: 1, noNaN: true }), (p, share) => {
        const slices = 4000;
        let sum = 0;
        for (let i = 0; i < slices; i += 1) {
          const x = ((i + 0.5) / slices) * p.length;
          sum += widthAt(p, x) * thicknessAt(p, x) * (p.length / slices);
        }
        expect(volumeBetween(p, 0, p.length) / sum).toBeCloseTo(1, 6);
        const at = share * p.length;
        expect((volumeBetween(p, 0, at) + volumeBetween(p, at, p.length)) / volumeBetween(p, 0, p.length)).toBeCloseTo(
          1,
          9,
        );
      }),
      { numRuns: 40 },
    );
  });

  it('a rip of even width takes no more than the piece has there', () => {
    fc.assert(
      fc.property(pieces, (p) => {
        const narrow = Math.min(p.width, p.farEnd?.width ?? p.width);
        expect(ripVolume(p, 0, p.length, narrow)).toBeLessThanOrEqual(volumeBetween(p, 0, p.length) * (1 + 1e-9));
      }),
    );
  });
});

describe('what wood costs', () => {
  // 2000 x 150 x 50 mm are 0.015 m3, 6.3566 board feet (2.359737e-3 m3 each, NIST SP 811, appendix B, from memory), and at 700 kg/m3 10.5 kg.
  const volume = 2000 * 150 * 50;
  const cost = (
    amount: number,
    per: 'cubicMetre' | 'boardFoot' | 'kilogram' | 'piece',
    density: number | null = 700,
  ) => {
    const rate = pricePerMm3(plainPiece({ price: { amount, per } }), density);
    return rate === null ? null : rate * volume;
  };

  it('the same plank by the cubic metre, the board foot, the kilogram and the piece', () => {
    expect(cost(1000, 'cubicMetre')).toBeCloseTo(15, 9);
    expect(cost(10, 'boardFoot')).toBeCloseTo((10 * 0.015) / 2.359737e-3, 3);
    expect(cost(2, 'kilogram')).toBeCloseTo(21, 9);
    expect(cost(33, 'piece')).toBeCloseTo(33, 9);
  });

  it('by the kilogram nobody knows without the weight of its wood; without a price nobody knows at all', () => {
    expect(cost(2, 'kilogram', null)).toBeNull();
    expect(pricePerMm3(plainPiece({ price: null }), 700)).toBeNull();
  });
});
