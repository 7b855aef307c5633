import { z } from 'zod';

export function minutesBetween(least: number, greatest: number) {
  return z
    .number({ error: 'must be a number of minutes' })
    .min(least, { error: `must be at least ${least} min` })
    .max(greatest, { error: `must be at most ${greatest} min` });
}

export function amountUpTo(greatest: number) {
  return z.number().min(0).max(greatest);
}

export function wholeUpTo(greatest: number) {
  return z.int().min(0).max(greatest);
}
