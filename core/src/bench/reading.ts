import type { Measured } from '../facts/fact.ts';
import { isMeasuredLength } from '../facts/fact.ts';

/** What measures by itself. */
export const INSTRUMENT_KINDS = ['caliper', 'moistureMeter', 'hygrometer', 'scale'] as const;
export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number];

export const READING_UNITS = ['mm', 'in', '%', 'g', 'kg'] as const;
export type ReadingUnit = (typeof READING_UNITS)[number];

/** What an instrument sent. */
export interface Reading {
  instrument: InstrumentKind;
  value: number;
  unit: ReadingUnit;
  /** Its battery is too low for the figure to be trusted. */
  flat: boolean;
}

/** A figure in mm, percent or g; or the sentence that says why it is not taken. */
export type Taken = { ok: true; value: number } | { ok: false; message: string };

const INTO: Readonly<Record<ReadingUnit, { of: 'length' | 'share' | 'weight'; factor: number }>> = {
  mm: { of: 'length', factor: 1 },
  in: { of: 'length', factor: 25.4 },
  '%': { of: 'share', factor: 1 },
  g: { of: 'weight', factor: 1 },
  kg: { of: 'weight', factor: 1000 },
};
const WORDS: Readonly<Record<InstrumentKind, string>> = {
  caliper: 'caliper',
  moistureMeter: 'moisture meter',
  hygrometer: 'hygrometer',
  scale: 'scale',
};
/** What each may measure. */
const MEASURES: Readonly<Record<InstrumentKind, 'length' | 'moisture' | 'humidity' | 'weight'>> = {
  caliper: 'length',
  moistureMeter: 'moisture',
  hygrometer: 'humidity',
  scale: 'weight',
};

/** What waits for a reading: something of a board, or the humidity of the room. */
export type Awaited = Measured | 'humidity';

/**
 * What an instrument sent, as a figure for the field that waits for it: inches become millimetres, kilograms grams.
 * @example takeReading({ instrument: 'caliper', value: 1.114, unit: 'in', flat: false }, 'thickness') // 28.2956 mm
 */
export function takeReading({ instrument, value, unit, flat }: Reading, awaited: Awaited): Taken {
  const name = WORDS[instrument];
  if (flat) return { ok: false, message: `The battery of the ${name} is flat: its figures cannot be trusted.` };
  const asked = awaited === 'humidity' || awaited === 'moisture' || awaited === 'weight' ? awaited : 'length';
  if (MEASURES[instrument] !== asked)
    return { ok: false, message: `The ${name} measures ${MEASURES[instrument]}; what is waited for is ${asked}.` };
  const { of, factor } = INTO[unit];
  const fits = isLength(awaited) ? of === 'length' : awaited === 'weight' ? of === 'weight' : of === 'share';
  if (!fits || !Number.isFinite(value))
    return { ok: false, message: `The ${name} sent ${value} ${unit}, which is no ${asked}.` };
  if (value <= 0)
    return { ok: false, message: `The ${name} sent ${value} ${unit}: close it, set it to zero and measure again.` };
  return { ok: true, value: value * factor };
}

const isLength = (awaited: Awaited): boolean => awaited !== 'humidity' && isMeasuredLength(awaited);

/** A line that an instrument typed or sent over a wire: the first figure in it, and its unit where it says one. @returns null for a line without a figure */
export function readLine(line: string, instrument: InstrumentKind): Reading | null {
  const found = /([-+]?\d+(?:[.,]\d+)?)\s*(mm|inch|in|"|%|kg|g)?/i.exec(line);
  if (!found?.[1]) return null;
  const said = (found[2] ?? '').toLowerCase();
  const unit: ReadingUnit =
    said === '"' || said === 'inch'
      ? 'in'
      : said !== ''
        ? (said as ReadingUnit)
        : instrument === 'caliper'
          ? 'mm'
          : instrument === 'scale'
            ? 'g'
            : '%';
  return { instrument, value: Number(found[1].replace(',', '.')), unit, flat: /\b(low|flat|batt)/i.test(line) };
}
