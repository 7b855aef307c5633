/**
 * Lengths as people type them. Inside Cadenza a length is always a `number` of millimetres; text is only read here.
 */

/** The two ways a person may want lengths shown; also the unit a bare decimal number is read in. */
export type UnitSystem = 'metric' | 'inch';

/** Millimetres in one inch, exact by definition (international inch, 1959). */
export const MM_PER_INCH = 25.4;

/** Hands and keys change lengths in these steps, mm: half a millimetre, or 1/32 in. */
export const HAND_STEP: Readonly<Record<UnitSystem, number>> = { metric: 0.5, inch: MM_PER_INCH / 32 };

/** The nearest length that is a whole number of such steps, mm. */
export const toHandStep = (mm: number, system: UnitSystem): number =>
  Math.round(mm / HAND_STEP[system]) * HAND_STEP[system];

/** Two lengths closer than this are the same length. */
export const LENGTH_TOLERANCE_MM = 1e-6;

/** Why a text is not a length. The sentence for the reader is made from the code in `lengthProblem`. */
export type LengthProblemCode = 'empty' | 'notation' | 'negative' | 'divisionByZero' | 'ambiguous';

export type ParsedLength = { ok: true; mm: number } | { ok: false; code: LengthProblemCode };

const MM_PER_UNIT: Record<string, number> = {
  mm: 1,
  millimetre: 1,
  millimetres: 1,
  millimeter: 1,
  millimeters: 1,
  cm: 10,
  centimetre: 10,
  centimetres: 10,
  centimeter: 10,
  centimeters: 10,
  m: 1000,
  metre: 1000,
  metres: 1000,
  meter: 1000,
  meters: 1000,
  '"': MM_PER_INCH,
  in: MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  "'": 12 * MM_PER_INCH,
  ft: 12 * MM_PER_INCH,
  foot: 12 * MM_PER_INCH,
  feet: 12 * MM_PER_INCH,
};

const VULGAR: Record<string, string> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
};

function normalise(text: string): string {
  return text
    .replace(/[½¼¾⅛⅜⅝⅞⅓⅔]/g, (c) => ` ${VULGAR[c]}`)
    .replace(/[⁄∕]/g, '/')
    .replace(/[′’‘]/g, "'")
    .replace(/[″”“]|''/g, '"')
    .replace(/[−–]/g, '-')
    .replace(/(\d),(\d)/g, '$1.$2')
    .trim()
    .toLowerCase();
}

/** Feet and what follows them: at most so many inches, or it was no foot. */
const INCHES_IN_FOOT = 12;
/** A comma before three digits groups thousands in one country and is the decimal comma of another; before any other number of digits, or behind a single nought, it is decimal. */
const EITHER_COMMA = /(?:^|[^\d.,])[1-9]\d{0,2}(?:,\d{3})+(?![\d,])/;

// One term: a number (1.5, 3/8, 1 3/8, 1-3/8) and, unless it is the only one, its unit.
const TERM = /^\s*(?:(\d+)(?:\s+|\s*-\s*)(\d+)\/(\d+)|(\d+)\/(\d+)|(\d*\.\d+|\d+\.?))\s*([a-z]+|["'])?\.?\s*/;

/**
 * Reads a length in any notation of the trade: `30`, `30 mm`, `3,5 cm`, `1.2 m`, `1.375`, `1 3/8`, `1-3/8"`, `7/8`, `8/4`, `2' 6 1/2"`.
 *
 * What could mean two lengths is not guessed: `1,200` and `1'200` are asked back.
 *
 * A bare decimal number is in the unit of `system`. A bare fraction is always inches, whatever the system: nobody writes 7/8 of a
 * millimetre, and quarter notation (`4/4`, `8/4`) is inches of nominal thickness everywhere.
 *
 * @param text what was typed
 * @param system the reader's unit for bare decimal numbers
 * @returns millimetres (zero and above), or the code of what is wrong
 * @example parseLength(`2' 6 1/2"`, 'metric') // { ok: true, mm: 774.7 }
 */
export function parseLength(text: string, system: UnitSystem): ParsedLength {
  if (EITHER_COMMA.test(text)) return { ok: false, code: 'ambiguous' };
  let rest = normalise(text);
  if (rest === '') return { ok: false, code: 'empty' };
  if (/^-\s*[\d.]/.test(rest)) return { ok: false, code: 'negative' };

  let total = 0;
  let previousUnit = Infinity;
  for (let terms = 0; rest !== ''; terms += 1) {
    const match = TERM.exec(rest);
    if (!match) return { ok: false, code: 'notation' };
    const [whole, mixedWhole, mixedTop, mixedBottom, top, bottom, decimal, unitWord] = match;
    const denominator = Number(mixedBottom ?? bottom ?? 1);
    if (denominator === 0) return { ok: false, code: 'divisionByZero' };
    const value =
      decimal !== undefined ? Number(decimal) : Number(mixedWhole ?? 0) + Number(mixedTop ?? top) / denominator;
    rest = rest.slice(whole.length);

    const isFraction = decimal === undefined;
    let unit = unitWord === undefined ? undefined : MM_PER_UNIT[unitWord];
    if (unitWord !== undefined && unit === undefined) return { ok: false, code: 'notation' };
    if (unit === undefined) {
      // After feet a number without a mark is inches: 2' 6 1/2.
      if (previousUnit === MM_PER_UNIT.ft) unit = MM_PER_INCH;
      else if (terms === 0 && rest === '') unit = isFraction || system === 'inch' ? MM_PER_INCH : 1;
      else return { ok: false, code: 'notation' };
    }
    if (unit >= previousUnit) return { ok: false, code: 'notation' };
    // Feet go with inches, fewer than a foot of them: 1'200 is how some write twelve hundred.
    if (previousUnit === MM_PER_UNIT.ft && (unit !== MM_PER_INCH || value >= INCHES_IN_FOOT))
      return { ok: false, code: 'ambiguous' };
    if (unit === MM_PER_UNIT.ft) rest = rest.replace(/^-\s*(?=[\d.])/, '');
    previousUnit = unit;
    total += value * unit;
  }
  return Number.isFinite(total) ? { ok: true, mm: total } : { ok: false, code: 'notation' };
}

/**
 * The sentence that tells a person what is wrong with a length they typed.
 * @param field the field's name as the person sees it, e.g. `Width`
 */
export function lengthProblem(code: LengthProblemCode, field: string, system: UnitSystem): string {
  const example = system === 'metric' ? '30, 3.5 cm or 1 3/8"' : '1 3/8, 1.375 or 35 mm';
  switch (code) {
    case 'empty':
      return `${field} is empty. Type a length such as ${example}.`;
    case 'negative':
      return `${field} cannot be negative.`;
    case 'divisionByZero':
      return `${field} has a fraction over zero.`;
    case 'ambiguous':
      return `${field} could be read in two ways. Type twelve hundred as 1200, one and a fifth as 1.2, feet and inches as 2' 6".`;
    case 'notation':
      return `${field} is not a length Cadenza can read. Type it like ${example}.`;
  }
}
