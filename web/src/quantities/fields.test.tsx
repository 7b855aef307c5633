import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { lengthBetween } from '#core/units/lengthSchema.ts';
import { lineOfText } from '#core/units/textSchema.ts';
import { field, plain, said, show, type } from '../shownForTests.tsx';
import { useDisplay } from './display.tsx';
import { Length, LengthTspans, Say } from './Length.tsx';
import { LengthInput } from './LengthInput.tsx';
import { NumberField, TextField } from './plainFields.tsx';
import { QuantityField } from './QuantityField.tsx';
import { length, say } from '#core/units/phrase.ts';
import { temperature } from '#core/units/quantity.ts';

/** A length field with a home of its own, and what it was told. */
function Home({ start, told }: { start: number | undefined; told(mm: number): void }) {
  const [mm, setMm] = useState(start);
  const { display, setDisplay } = useDisplay();
  return (
    <>
      <LengthInput
        field="Width"
        mm={mm}
        schema={lengthBetween(1, 1000)}
        onCommit={(next) => {
          setMm(next);
          told(next);
        }}
      />
      <button onClick={() => setDisplay({ system: display.system === 'metric' ? 'inch' : 'metric' })}>
        Turn units
      </button>
    </>
  );
}

describe('a length field', () => {
  it.each([
    // Text, and what it is in mm: by the definition of the inch (25.4 mm).
    ['46', 46],
    ['46 mm', 46],
    ['4.6cm', 46],
    ['4,6 cm', 46],
    ['1 3/8"', 34.925],
    ['1-3/8 in', 34.925],
    ['7/8 in', 22.225],
    ['2\' 6 1/2"', 774.7],
    ['8/4', 50.8],
    ['  30.5  ', 30.5],
  ])('reads %s in a shop of millimetres', (text, mm) => {
    const told = vi.fn();
    show(<Home start={20} told={told} />);
    type('Width', text);
    expect(said('Width')).toBeNull();
    expect(told).toHaveBeenCalledTimes(1);
    expect(told.mock.calls[0]![0]).toBeCloseTo(mm, 6);
  });

  it.each([
    ['1', 25.4],
    ['1.5', 38.1],
    ['1 3/8', 34.925],
    ['3/4', 19.05],
    ['45 mm', 45],
    ['4.5 cm', 45],
  ])('reads %s in a shop of inches', (text, mm) => {
    const told = vi.fn();
    show(<Home start={20} told={told} />, { system: 'inch' });
    type('Width', text);
    expect(told.mock.calls[0]![0]).toBeCloseTo(mm, 6);
  });

  it.each(['', '   ', 'wide', '1/0', '12..5', '-3', '1 2 3', '5 miles', '1e9', '0', '1001', '40 in', '½½'])(
    'keeps %s as it was typed, says what is wrong and names itself, and changes nothing',
    (text) => {
      const told = vi.fn();
      show(<Home start={20} told={told} />);
      type('Width', text);
      expect(said('Width')).toMatch(/^Width .*\.$/);
      expect(field('Width').value).toBe(text);
      expect(told).not.toHaveBeenCalled();
      // Escape takes back what was typed, and the complaint with it.
      fireEvent.keyDown(field('Width'), { key: 'Escape' });
      expect(field('Width').value).toBe('20');
      expect(said('Width')).toBeNull();
    },
  );

  it('names its limits in both units', () => {
    show(<Home start={20} told={() => {}} />);
    type('Width', '1001');
    expect(said('Width')).toBe('Width must be at most 1000 mm (39.4 in).');
    type('Width', '0.5');
    expect(said('Width')).toBe('Width must be at least 1 mm (0.0394 in).');
  });

  it('is not read back when it was not touched: units turned to and fro change nothing', () => {
    const told = vi.fn();
    show(<Home start={33.3} told={told} />);
    for (let i = 0; i < 4; i += 1) {
      fireEvent.focus(field('Width'));
      fireEvent.blur(field('Width'));
      fireEvent.click(screen.getByText('Turn units'));
    }
    expect(told).not.toHaveBeenCalled();
    expect(field('Width').value).toBe('33.3');
  });

  it('tells a value once: Enter and leaving after it are one, and the same value again is none', () => {
    const told = vi.fn();
    show(<Home start={20} told={told} />);
    fireEvent.change(field('Width'), { target: { value: '46' } });
    fireEvent.keyDown(field('Width'), { key: 'Enter' });
    fireEvent.blur(field('Width'));
    type('Width', '46.0 mm');
    expect(told.mock.calls).toEqual([[46]]);
  });
});

describe('a figure with a unit', () => {
  const schema = z.number().min(-20, { error: 'must be at least -20 °C' }).max(60, { error: 'must be at most 60 °C' });

  it('is typed in the unit of its reader and stored in that of the core', () => {
    const told = vi.fn();
    show(<QuantityField field="Warmth" quantity="temperature" value={20} schema={schema} onCommit={told} />, {
      system: 'inch',
    });
    // 20 °C are 68 °F; 77 °F are 25 °C.
    expect(field('Warmth').value).toContain('68');
    type('Warmth', '77');
    expect(told).toHaveBeenCalledWith(25);
  });

  it('tells a limit in the unit of its reader too', () => {
    const told = vi.fn();
    show(<QuantityField field="Warmth" quantity="temperature" value={20} schema={schema} onCommit={told} />, {
      system: 'inch',
    });
    type('Warmth', '200');
    // 60 °C are 140 °F.
    expect(said('Warmth')).toMatch(/Warmth must be at most 140\s?°F\./);
    expect(told).not.toHaveBeenCalled();
  });

  it('an empty one is wrong and not nothing', () => {
    const told = vi.fn();
    show(<QuantityField field="Warmth" quantity="temperature" value={20} schema={schema} onCommit={told} />);
    type('Warmth', '');
    expect(said('Warmth')).toMatch(/^Warmth /);
    expect(told).not.toHaveBeenCalled();
  });
});

describe('plain fields', () => {
  it('a text is trimmed, and wrong ones say why', () => {
    const told = vi.fn();
    show(<TextField field="Name" value="Old" schema={lineOfText(1, 10)} onCommit={told} />);
    type('Name', '   ');
    expect(said('Name')).toBe('Name must not be empty.');
    type('Name', 'far too long for it');
    expect(said('Name')).toBe('Name must be at most 10 characters.');
    type('Name', 'a\u0007b');
    expect(said('Name')).toMatch(/^Name must not hold control characters/);
    expect(told).not.toHaveBeenCalled();
    type('Name', '  New <b> ');
    expect(told.mock.calls).toEqual([['New <b>']]);
  });

  it('a number outside its limits keeps its text', () => {
    const told = vi.fn();
    const schema = z
      .number({ error: 'must be a number' })
      .int({ error: 'must be whole' })
      .min(1, { error: 'must be at least 1' });
    show(<NumberField field="Clamps" value={8} schema={schema} onCommit={told} />);
    for (const [text, why] of [
      ['0', 'Clamps must be at least 1.'],
      ['2.5', 'Clamps must be whole.'],
      ['', 'Clamps must be a number.'],
    ] as const) {
      type('Clamps', text);
      expect(said('Clamps')).toBe(why);
    }
    expect(told).not.toHaveBeenCalled();
    type('Clamps', '12');
    expect(told).toHaveBeenCalledWith(12);
  });
});

describe('lengths to be read', () => {
  it.each([
    ['metric', 46, '46 mm'],
    ['metric', 46.55, '46.5 mm'],
    ['metric', -3, '−3 mm'],
    ['inch', 25.4, '1"'],
    ['inch', 34.925, '1 3/8"'],
    ['inch', 9.525, '3/8"'],
  ] as const)('in %s, %d is %s', (system, mm, text) => {
    const { container } = show(<Length mm={mm} />, { system });
    expect(container.textContent?.replace(/[\u00a0\u202f]/g, ' ')).toMatch(
      new RegExp(text.replace('46.5 mm', '46.[56] mm').replace(/[.()+]/g, (c) => (c === '.' ? '.' : `\\${c}`))),
    );
  });

  it('the same length reads the same in a drawing as beside it', () => {
    for (const mm of [9.525, 46, 34.925, 100.01, 0.4]) {
      for (const system of ['metric', 'inch'] as const) {
        const beside = show(<Length mm={mm} />, { system });
        const text = beside.container.textContent;
        beside.unmount();
        const drawn = show(
          <svg>
            <text>
              <LengthTspans mm={mm} bare={false} />
            </text>
          </svg>,
          { system },
        );
        expect(drawn.container.textContent).toBe(text);
        drawn.unmount();
      }
    }
  });

  it('a phrase of the core has its lengths and figures in the units of its reader', () => {
    const phrase = say`Set the fence to ${length(25.4)} at ${temperature(20)}`;
    const metric = show(<Say phrase={phrase} />);
    expect(plain(metric.container.textContent).trim()).toBe('Set the fence to 25.4 mm at 20 °C');
    metric.unmount();
    const inch = show(<Say phrase={phrase} />, { system: 'inch' });
    expect(plain(inch.container.textContent).trim()).toBe('Set the fence to 1" at 68 °F');
  });
});
