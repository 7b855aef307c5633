import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatLength, formatLengthForInput, lengthParts, roundLength, type LengthDisplay } from './formatLength.ts';
import { MM_PER_INCH, parseLength } from './length.ts';

const INCH: LengthDisplay = { system: 'inch', denominator: 64, metricStep: 0.1 };
const METRIC: LengthDisplay = { system: 'metric', denominator: 32, metricStep: 0.1 };

describe('parseLength', () => {
  // Inches by definition 25.4 mm (international inch, 1959); feet are twelve of them.
  it.each([
    ['30', 'metric', 30],
    ['30 mm', 'inch', 30],
    ['3,5 cm', 'metric', 35],
    ['1.2m', 'inch', 1200],
    ['1 3/8', 'metric', 1.375 * 25.4],
    ['1-3/8"', 'metric', 34.925],
    ['7/8', 'metric', 22.225],
    ['4/4', 'metric', 25.4],
    ['8/4', 'inch', 50.8],
    [`2' 6 1/2"`, 'metric', 774.7],
    [`2' 6 1/2`, 'metric', 774.7],
    ['2 ft 6 in', 'metric', 762],
    ['1.375', 'inch', 34.925],
    ['1½"', 'metric', 38.1],
    ['1 m 20 cm', 'metric', 1200],
    ['5′ 3″', 'metric', 1600.2],
    ['.5"', 'metric', 12.7],
    ['  40  ', 'metric', 40],
    ['0', 'metric', 0],
    [`2'-6 1/2"`, 'metric', 774.7],
    [`2' - 6"`, 'inch', 762],
    ['0,375 in', 'metric', 9.525],
    ['12,5', 'metric', 12.5],
    ['3,5000 cm', 'metric', 35],
    [`1' 11 15/16"`, 'inch', 23.9375 * 25.4],
  ] as const)('reads %s (%s)', (text, system, mm) => {
    const parsed = parseLength(text, system);
    expect(parsed).toMatchObject({ ok: true });
    expect(parsed.ok && parsed.mm).toBeCloseTo(mm, 9);
  });

  it.each([
    ['', 'empty'],
    ['   ', 'empty'],
    ['-3', 'negative'],
    ['−3 mm', 'negative'],
    ['abc', 'notation'],
    ['3 parsecs', 'notation'],
    ['1 2 3', 'notation'],
    ['3 in 2 ft', 'notation'],
    ['1/0', 'divisionByZero'],
    ['3"4', 'notation'],
    ['1/2/3', 'notation'],
    ['3..5', 'notation'],
    ['1e999', 'notation'],
    ['∞', 'notation'],
    ['1,200 mm', 'ambiguous'],
    ['12,345', 'ambiguous'],
    ['1,234,567', 'ambiguous'],
    [`1'200 mm`, 'ambiguous'],
    [`1'200`, 'ambiguous'],
    [`2' 12"`, 'ambiguous'],
    [`2' 6 cm`, 'ambiguous'],
  ])('refuses %j as %s', (text, code) => {
    expect(parseLength(text, 'metric')).toEqual({ ok: false, code });
  });
});

describe('formatLength', () => {
  it('reads back every 1/64 inch up to 20 ft, exactly', () => {
    for (let n = 0; n <= 20 * 12 * 64; n += 1) {
      const mm = (n * MM_PER_INCH) / 64;
      expect(lengthParts(mm, INCH).remainder).toBe('');
      for (const text of [formatLength(mm, INCH), formatLengthForInput(mm, INCH)]) {
        const back = parseLength(text, 'inch');
        if (!back.ok || Math.abs(back.mm - mm) > 1e-9) expect.fail(`${n}/64 in became ${text}`);
      }
    }
  });

  it('says when a figure to set or cut by lies off the grid, on which side', () => {
    const sixteenths = { ...INCH, denominator: 16 } as const;
    expect(formatLength(1.375 * 25.4 + 0.1, sixteenths, 'down')).toBe('1 3/8" +');
    expect(formatLength(1.375 * 25.4 - 0.1, sixteenths, 'up')).toBe('1 3/8" −');
    // Nobody sets a machine by what is only read: the nearest fraction says it.
    expect([0.1, -0.1].map((off) => formatLength(1.375 * 25.4 + off, sixteenths))).toEqual(['1 3/8"', '1 3/8"']);
    expect(formatLength(42.25, { ...METRIC, metricStep: 0.5 })).toBe('42.5 mm');
    // Smaller than the grid, or below nothing: decimals say it.
    expect([0.2, -1.8, 0, -25.4].map((mm) => formatLength(mm, { ...INCH, denominator: 16 }))).toEqual([
      '0.008"',
      '−0.071"',
      '0"',
      '−1"',
    ]);
  });

  it('what stands in an input holds the value, whatever the unit', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9_000_000 }), fc.constantFrom(INCH, METRIC), (micrometres, display) => {
        const back = parseLength(formatLengthForInput(micrometres / 1000, display), display.system);
        expect(back.ok && Math.abs(back.mm - micrometres / 1000)).toBeLessThan(2e-5);
      }),
    );
  });

  it('rounds a setting only to its safe side', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 9000, noNaN: true }), fc.constantFrom(INCH, METRIC), (mm, display) => {
        const [up, down] = [roundLength(mm, display, 'up'), roundLength(mm, display, 'down')];
        expect(up).toBeGreaterThanOrEqual(mm - 1e-6);
        expect(down).toBeLessThanOrEqual(mm + 1e-6);
        expect(up - down).toBeLessThan(0.4 + 1e-6);
      }),
    );
  });
});
