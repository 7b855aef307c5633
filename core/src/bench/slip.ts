/** What a figure that cannot be right was likely meant as. */
export interface Slip {
  why: 'inches' | 'millimetres' | 'point' | 'swapped' | 'far';
  /** What was likely meant, in what is measured; null where nothing is. */
  meant: number | null;
}

const MM_PER_INCH = 25.4;
/** So near, as a share, what was meant must come to what was expected, for somebody to be asked. */
const NEAR = 0.15;
/** Within so much, as a share of what was expected or in mm, a figure is taken as it is: wood moves, and saws wander. */
const USUAL = { share: 0.12, mm: 4 };

/** Figures with two neighbouring digits swapped. */
function swapped(value: number): number[] {
  const digits = String(value);
  return Array.from({ length: digits.length - 1 }, (_, i) =>
    Number(digits.slice(0, i) + (digits[i + 1] ?? '') + (digits[i] ?? '') + digits.slice(i + 2)),
  ).filter((v) => Number.isFinite(v) && v > 0 && v !== value);
}

/**
 * Whether a measured figure should be asked back, with the likely slip.
 * @param value as it was read, mm or another unit @param expected what the plan expects there, in the same unit
 * @returns null for one that may well be so
 * @example slipOf(1.18, 30) // { why: 'inches', meant: 29.972 }
 */
export function slipOf(value: number, expected: number): Slip | null {
  if (!(expected > 0)) return null;
  const off = Math.abs(value - expected);
  if (off <= Math.max(USUAL.mm, expected * USUAL.share)) return null;
  const near = (meant: number) => Math.abs(meant - expected) <= expected * NEAR;
  if (near(value * MM_PER_INCH)) return { why: 'inches', meant: value * MM_PER_INCH };
  if (near(value / MM_PER_INCH)) return { why: 'millimetres', meant: value / MM_PER_INCH };
  for (const factor of [10, 0.1, 100, 0.01]) if (near(value * factor)) return { why: 'point', meant: value * factor };
  const best = swapped(value)
    .filter(near)
    .sort((a, b) => Math.abs(a - expected) - Math.abs(b - expected))[0];
  if (best !== undefined) return { why: 'swapped', meant: best };
  // Twice or half of it is no saw that wandered.
  return off > expected * 0.4 ? { why: 'far', meant: null } : null;
}
