import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_DISPLAY } from '#core/units/formatLength.ts';
import { fitScale, graduation, scaleWords } from './scale.ts';
import { seeded } from './seed.ts';
import { endRings, faceFigure } from './woodFigure.ts';

const orientation = fc.constantFrom('flat' as const, 'rift' as const, 'quarter' as const);

describe('figure', () => {
  it('is the same for the same seed and differs between seeds', () => {
    const draw = (seed: string) => faceFigure(seed, 400, 60, 'broad', 'flat') + endRings(seed, 30, 60, 'flat', true);
    expect(draw('piece-1')).toBe(draw('piece-1'));
    expect(draw('piece-1')).not.toBe(draw('piece-2'));
    expect(Array.from({ length: 3 }, seeded('a'))).toEqual(Array.from({ length: 3 }, seeded('a')));
  });

  it('is drawable whatever the size, and lines of an edge stay on the strip', () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 3000 }), fc.integer({ min: 1, max: 400 }), orientation, fc.boolean(), (length, width, rings, turned) => {
      for (const path of [faceFigure('s', length, width, 'edge', rings), faceFigure('s', length, width, 'broad', rings), endRings('s', width, 30, rings, turned)]) {
        expect(path).not.toMatch(/NaN|Infinity|undefined/);
      }
      const edge = faceFigure('s', length, Math.min(width, 25), 'edge', rings);
      for (const [, y] of edge.matchAll(/M0 ([\d.-]+)C/g)) {
        expect(Number(y)).toBeGreaterThanOrEqual(0);
        expect(Number(y)).toBeLessThanOrEqual(Math.min(width, 25));
      }
    }), { numRuns: 60 });
  });

  it('flat-sawn stock shows arches on its face and straight lines on its edge; quartered stock the other way round', () => {
    const arched = (face: 'edge' | 'broad', rings: 'flat' | 'quarter') => faceFigure('s', 400, 60, face, rings).includes('Q');
    expect([arched('broad', 'flat'), arched('edge', 'flat'), arched('broad', 'quarter'), arched('edge', 'quarter')]).toEqual([true, false, false, true]);
  });
});

describe('scale', () => {
  it('fits both ways and never passes what is allowed', () => {
    fc.assert(fc.property(fc.integer({ min: 50, max: 3000 }), fc.integer({ min: 30, max: 1500 }), (length, width) => {
      const scale = fitScale([length, width], [800, 400], 2);
      expect(length * scale).toBeLessThanOrEqual(800 + 1e-9);
      expect(width * scale).toBeLessThanOrEqual(400 + 1e-9);
      expect(scale).toBeLessThanOrEqual(2);
    }));
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
