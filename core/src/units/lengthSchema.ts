import { z } from 'zod';
import { LENGTH_TOLERANCE_MM } from './length.ts';

/** A length in millimetres between two limits, for a record of the model. The limits are named in the message in both units. */
export function lengthBetween(least: number, greatest: number) {
  return z
    .number({ error: 'must be a length in millimetres' })
    .min(least - LENGTH_TOLERANCE_MM, { error: `must be at least ${inBothUnits(least)}` })
    .max(greatest + LENGTH_TOLERANCE_MM, { error: `must be at most ${inBothUnits(greatest)}` });
}

function inBothUnits(mm: number): string {
  return mm === 0 ? '0' : `${mm} mm (${Number((mm / 25.4).toPrecision(3))} in)`;
}

/** One line of plain text with limits, trimmed; markup is text like any other and is never interpreted. */
export function lineOfText(least: number, greatest: number) {
  return z
    .string({ error: 'must be text' })
    .trim()
    .min(least, { error: 'must not be empty' })
    .max(greatest, { error: `must be at most ${greatest} characters` })
     
    .regex(/^[^\u0000-\u001f\u007f]*$/, { error: 'must not hold control characters' });
}
