import { formatLength, type LengthDisplay, type Rounding } from './formatLength.ts';
import { formatQuantity, type Quantity } from './quantity.ts';

/**
 * A sentence with lengths and other figures left as they are, so that each reader sees them in their own unit and with true fractions. The core
 * never prints a number of millimetres into text.
 */
export type Phrase = readonly PhrasePart[];
export type PhrasePart = string | Measure | Quantity;

/** A length inside a phrase; `rounding` says which way is safe when it is a setting. */
export interface Measure {
  mm: number;
  rounding?: Rounding;
}

/** A length to be read. */
export function length(mm: number): Measure {
  return { mm };
}

/** A length to be set on a machine or marked, rounded so that the part is never too small. */
export function atLeast(mm: number): Measure {
  return { mm, rounding: 'up' };
}

/** A length that must not be exceeded, rounded down. */
export function atMost(mm: number): Measure {
  return { mm, rounding: 'down' };
}

/**
 * Builds a phrase from a template.
 * @example say`Trim ${length(10)} off each end of ${'R4'}`
 */
export function say(texts: TemplateStringsArray, ...values: (string | number | Measure | Quantity | Phrase)[]): Phrase {
  const parts: PhrasePart[] = [];
  texts.forEach((text, i) => {
    if (text !== '') parts.push(text);
    const value = values[i];
    if (value === undefined) return;
    if (typeof value === 'number') parts.push(String(value));
    else if (typeof value === 'string' || !isPhrase(value)) parts.push(value);
    else parts.push(...value);
  });
  return parts;
}

function isPhrase(value: Measure | Quantity | Phrase): value is Phrase {
  return Array.isArray(value);
}

/** The phrase as it begins a sentence. */
export function capitalised([first, ...rest]: Phrase): Phrase {
  if (first === undefined) return [];
  return [typeof first === 'string' ? first.charAt(0).toUpperCase() + first.slice(1) : first, ...rest];
}

/** The phrase as plain text in a reader's unit. */
export function phraseText(phrase: Phrase, display: LengthDisplay): string {
  return phrase
    .map((part) =>
      typeof part === 'string'
        ? part
        : 'mm' in part
          ? formatLength(part.mm, display, part.rounding)
          : formatQuantity(part, display),
    )
    .join('');
}
