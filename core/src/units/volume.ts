import { MM_PER_INCH } from './length.ts';

/** Cubic millimetres in a cubic metre. */
export const MM3_PER_M3 = 1e9;

/** One board foot in cubic metres: 144 cubic inches (NIST SP 811, appendix B.8: 2.359 737 E-03 m3). */
export const M3_PER_BOARD_FOOT = (144 * MM_PER_INCH ** 3) / MM3_PER_M3;

/** Board feet in a volume of cubic millimetres. */
export function boardFeet(mm3: number): number {
  return mm3 / MM3_PER_M3 / M3_PER_BOARD_FOOT;
}

/** Cubic metres in a volume of cubic millimetres. */
export function cubicMetres(mm3: number): number {
  return mm3 / MM3_PER_M3;
}
