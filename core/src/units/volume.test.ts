import { expect, it } from 'vitest';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import { densityAt12 } from '../wood/species.ts';
import { boardFeet, M3_PER_BOARD_FOOT } from './volume.ts';

it('a board foot is 2.359737e-3 m3 (NIST SP 811, appendix B.8)', () => {
  expect(M3_PER_BOARD_FOOT).toBeCloseTo(2.359737e-3, 9);
  // 1 in x 12 in x 12 in, and a plank of 2 in x 6 in x 8 ft: 8 board feet (common practice).
  expect(boardFeet(25.4 * 304.8 ** 2)).toBeCloseTo(1, 12);
  expect(boardFeet(50.8 * 152.4 * 2438.4)).toBeCloseTo(8, 9);
});

it('density at 12 % is 1.12 times specific gravity (Wood Handbook chapter 4, from memory): hard maple about 44 lb/ft3', () => {
  const LB_PER_FT3 = 16.018463;
  expect(densityAt12(0.63)).toBeCloseTo(705.6, 6);
  const maple = HANDBOOK_SPECIES.find((s) => s.code === 'maple-hard')!;
  expect(maple.density / LB_PER_FT3).toBeGreaterThan(43.5);
  expect(maple.density / LB_PER_FT3).toBeLessThan(44.5);
});
