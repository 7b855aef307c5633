import { z } from 'zod';
import { LENGTH_TOLERANCE_MM } from './length.ts';

/** What the database keeps of a millimetre: six decimals, in which 1/64 in is exact. */
const STORED_DECIMALS = 6;

/** A length as it is stored. Every part of Cadenza sees the stored figure, so none of them finds another one than the others. */
export function storedLength(mm: number): number {
  return Number.isFinite(mm) ? Number(mm.toFixed(STORED_DECIMALS)) : mm;
}

/** A length in millimetres between two limits, for a record of the model, rounded to what is stored. The limits are named in the message in both units. */
export function lengthBetween(least: number, greatest: number) {
  return z
    .number({ error: 'must be a length in millimetres' })
    .min(least - LENGTH_TOLERANCE_MM, { error: `must be at least ${inBothUnits(least)}` })
    .max(greatest + LENGTH_TOLERANCE_MM, { error: `must be at most ${inBothUnits(greatest)}` })
    .overwrite(storedLength);
}

function inBothUnits(mm: number): string {
  return mm === 0 ? '0' : `${mm} mm (${Number((mm / 25.4).toPrecision(3))} in)`;
}
