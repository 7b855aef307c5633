import { LENGTH_TOLERANCE_MM, MM_PER_INCH, type UnitSystem } from './length.ts';

/** How a person wants lengths shown. Changing it never changes a stored value. */
export interface LengthDisplay {
  system: UnitSystem;
  /** Smallest fraction of an inch shown. */
  denominator: 16 | 32 | 64;
  /** Smallest step of a millimetre shown. */
  metricStep: 0.5 | 0.1;
  /** Units of pressure, weight and warmth where they were chosen apart from those of length. */
  others?: 'metric' | 'us';
}

export const DEFAULT_DISPLAY: LengthDisplay = { system: 'metric', denominator: 32, metricStep: 0.1 };

/** A length taken apart for setting in type: `1 3/8 +` is whole 1, numerator 3, denominator 8, remainder `+`. */
export interface LengthParts {
  negative: boolean;
  /** Whole inches, or the metric number as text (`42.5`). */
  whole: string;
  numerator: number;
  denominator: number;
  /** Of a figure that is set or cut by: `+` when the true length is a little more than shown, `−` when a little less, empty when exact. What is only read has none. */
  remainder: '' | '+' | '−';
  unit: 'mm' | 'in';
}

/** Which way a value may be rounded without spoiling the work; `nearest` for reading, `up` or `down` for a saw setting. */
export type Rounding = 'nearest' | 'up' | 'down';

/** The display grid in millimetres. */
export function displayGrid(display: LengthDisplay): number {
  return display.system === 'metric' ? display.metricStep : MM_PER_INCH / display.denominator;
}

/**
 * The number of grid steps in a length, rounded the way asked.
 * @returns a whole number of steps of `displayGrid(display)`
 */
function stepsOf(mm: number, grid: number, rounding: Rounding): number {
  const exact = mm / grid;
  const slack = LENGTH_TOLERANCE_MM / grid;
  if (rounding === 'up') return Math.ceil(exact - slack);
  if (rounding === 'down') return Math.floor(exact + slack);
  return Math.round(exact);
}

/**
 * Rounds a length to what a person can set on a machine in their unit, towards the side that keeps the work safe.
 * @returns millimetres on the display grid
 */
export function roundLength(mm: number, display: LengthDisplay, rounding: Rounding): number {
  const grid = displayGrid(display);
  return stepsOf(mm, grid, rounding) * grid;
}

/** Decimals of an inch for what no fraction says, 0.025 mm. */
const TINY_DECIMALS = 3;

/**
 * Takes a length apart for display. What is set or cut by (rounded up or down) carries a remainder sign where it is off the grid of inches; for reading the nearest
 * fraction is enough, and millimetres to a tenth are finer than any reading at the bench.
 */
export function lengthParts(mm: number, display: LengthDisplay, rounding: Rounding = 'nearest'): LengthParts {
  const grid = displayGrid(display);
  const steps = stepsOf(mm, grid, rounding);
  const negative = steps < 0;
  const magnitude = Math.abs(steps);
  if (display.system === 'metric') {
    const shown = magnitude * grid;
    return {
      negative,
      whole: Number(shown.toFixed(1)).toString(),
      numerator: 0,
      denominator: 1,
      remainder: '',
      unit: 'mm',
    };
  }
  const rest = mm - steps * grid;
  const off = Math.abs(rest) > LENGTH_TOLERANCE_MM;
  const remainder = !off || rounding === 'nearest' ? '' : rest > 0 ? '+' : '−';
  // Less than the first line of the rule, or less than nothing: a fraction with a sign behind it would not be understood.
  if (off && (steps <= 0 || mm < 0)) {
    return {
      negative: mm < 0,
      whole: (Math.abs(mm) / MM_PER_INCH).toFixed(TINY_DECIMALS).replace(/0+$/, '').replace(/\.$/, '') || '0',
      numerator: 0,
      denominator: 1,
      remainder: '',
      unit: 'in',
    };
  }
  let numerator = magnitude % display.denominator;
  let denominator: number = display.denominator;
  while (numerator !== 0 && numerator % 2 === 0) {
    numerator /= 2;
    denominator /= 2;
  }
  const whole = Math.floor(magnitude / display.denominator);
  return { negative, whole: String(whole), numerator, denominator, remainder, unit: 'in' };
}

/**
 * A length as plain text, e.g. `42.5 mm` or `1 3/8" +`. What it prints, `parseLength` reads back (but for the remainder sign).
 * @param mm millimetres
 */
export function formatLength(mm: number, display: LengthDisplay, rounding: Rounding = 'nearest'): string {
  const parts = lengthParts(mm, display, rounding);
  const sign = parts.negative ? '−' : '';
  if (parts.unit === 'mm') return `${sign}${parts.whole} mm`;
  return `${sign}${inchNumber(parts)}"${parts.remainder ? ` ${parts.remainder}` : ''}`;
}

/** The same without unit or remainder, as it stands in an input: `42.5` or `1 3/8`. */
export function formatLengthForInput(mm: number, display: LengthDisplay): string {
  if (display.system === 'metric') return Number(mm.toFixed(3)).toString();
  const onGrid = Math.abs(roundLength(mm, display, 'nearest') - mm) <= LENGTH_TOLERANCE_MM;
  // A value off the grid is shown as the decimal it is: an input must not change what it holds.
  return onGrid ? inchNumber(lengthParts(mm, display)) : Number((mm / MM_PER_INCH).toFixed(6)).toString();
}

function inchNumber(parts: LengthParts): string {
  if (parts.numerator === 0) return parts.whole;
  const fraction = `${parts.numerator}/${parts.denominator}`;
  return parts.whole === '0' ? fraction : `${parts.whole} ${fraction}`;
}
