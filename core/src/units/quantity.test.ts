import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_DISPLAY } from './formatLength.ts';
import { phraseText, say } from './phrase.ts';
import { formatQuantity, inUnit, pressure, quantityKinds, temperature, unitFor } from './quantity.ts';

const INCH = { ...DEFAULT_DISPLAY, system: 'inch' as const };

describe('figures beside lengths', () => {
  // NIST SP 811, appendix B (from memory): 1 psi = 6.894757 kPa, 1 lbf = 4.448222 N, 1 lb = 0.45359237 kg, 1 oz = 28.34952 g; 20 °C = 68 °F.
  it.each([
    [pressure(1.2), '174 psi'],
    [pressure(6.894757 * 0.2), '200 psi'],
    [{ quantity: 'force' as const, value: 4.448222 }, '1000 lbf'],
    [{ quantity: 'weight' as const, value: 4.5359237 }, '10 lb'],
    [{ quantity: 'amount' as const, value: 56.69905 }, '2 oz'],
    [temperature(20), '68 °F'],
    [temperature(-40), '-40 °F'],
    [{ quantity: 'spread' as const, value: 305.1517 }, '1 oz/ft²'],
    [{ quantity: 'hardness' as const, value: 6450 }, '1450 lbf'],
    [{ quantity: 'density' as const, value: 16.01846 * 44 }, '44 lb/ft³'],
  ])('%j is %s to a reader in inches', (q, text) => {
    expect(formatQuantity(q, INCH)).toBe(text);
    expect(formatQuantity(q, { ...DEFAULT_DISPLAY, others: 'us' })).toBe(text);
  });

  it('what is typed in either unit comes back as it was typed', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...quantityKinds),
        fc.integer({ min: 1, max: 4000 }),
        fc.boolean(),
        (quantity, n, us) => {
          const display = us ? INCH : DEFAULT_DISPLAY;
          const { to, decimals } = unitFor(quantity, display);
          const typed = n / 10 ** decimals;
          expect(inUnit({ quantity, value: to(typed) }, display)).toBeCloseTo(typed, 9);
        },
      ),
    );
  });

  it("stand in sentences in the reader's units, apart from those of length where that was chosen", () => {
    const phrase = say`At ${temperature(4)} the glue is late; ${pressure(1.17)} of ${pressure(1.2)}.`;
    expect(phraseText(phrase, DEFAULT_DISPLAY)).toBe('At 4 °C the glue is late; 1.17 MPa of 1.2 MPa.');
    expect(phraseText(phrase, INCH)).toBe('At 39 °F the glue is late; 170 psi of 174 psi.');
    expect(phraseText(phrase, { ...INCH, others: 'metric' })).toBe(phraseText(phrase, DEFAULT_DISPLAY));
  });
});
