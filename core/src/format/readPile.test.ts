import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import { pileColumns, type PileRow } from './pileColumns.ts';
import { freeMark, readPile, splitCell, withMarks, withPasted } from './readPile.ts';

const NONE: ReadonlySet<string> = new Set();
const read = (rows: PileRow[], taken = NONE) => readPile(rows, { species: HANDBOOK_SPECIES, system: 'metric', taken });
const row = (mark: string, change: PileRow = {}): PileRow => ({
  mark,
  species: 'Hard maple',
  length: '900',
  width: '120',
  thickness: '30',
  ...change,
});
const marks = fc.constantFrom('A1', 'a1', 'B2', '', 'N1', 'N2', 'B');

describe('a pile as it is typed', () => {
  it('a line that says nothing but a mark or a species is no piece and no trouble', () => {
    expect(read([{}, { mark: 'A1' }, { mark: 'A1', species: 'Pear' }, { length: ' ' }])).toEqual([
      null,
      null,
      null,
      null,
    ]);
  });

  it('understands each line by itself, and names a mark that comes twice on the later one, whatever its letters', () => {
    const lines = read([row('A1'), row('a1'), row('B2'), row('b2', { width: 'wide' })], new Set(['b2']));
    expect(lines.map((l) => l?.piece?.mark ?? null)).toEqual(['A1', null, null, null]);
    expect(lines.map((l) => l?.problems.map((p) => p.column))).toEqual([[], ['mark'], ['mark'], ['width', 'mark']]);
    expect(lines[1]!.problems[0]!.message).toBe('Mark a1 is already on another piece.');
    expect(lines.map((l) => l?.index)).toEqual([0, 1, 2, 3]);
  });

  it('a whole size in one cell is taken apart, and only in columns of a size', () => {
    expect(splitCell('thickness', "4/4 x 7 1/2 x 8'")).toEqual({ thickness: '4/4', width: '7 1/2', length: "8'" });
    expect(splitCell('note', '4/4 x 7 1/2 x 8')).toBeNull();
    expect(splitCell('length', '900')).toBeNull();
  });

  it('marks go on from the last line, past those that are taken, and every line gets one of its own', () => {
    expect(freeMark([], NONE)).toBe('N1');
    expect(freeMark([row('B3')], new Set(['b4']))).toBe('B5');
    fc.assert(
      fc.property(fc.array(marks, { maxLength: 12 }), fc.array(marks, { maxLength: 4 }), (typed, inRack) => {
        const taken = new Set(inRack.filter(Boolean).map((m) => m.toLowerCase()));
        const marked = withMarks(
          typed.map((mark) => row(mark)),
          taken,
        );
        marked.forEach(({ mark }, i) => {
          if (typed[i]) expect(mark).toBe(typed[i]);
          else {
            expect(taken.has(mark!.toLowerCase())).toBe(false);
            expect(marked.filter((other) => other.mark!.toLowerCase() === mark!.toLowerCase())).toHaveLength(1);
          }
        });
      }),
    );
  });
});

describe('cells pasted without headings', () => {
  const columns = pileColumns.slice(0, 6);
  const at = (column: (typeof columns)[number]) => columns.indexOf(column);

  it('lie where the cursor is, lines below one another, and what stands beside them stays', () => {
    const start = [row('A1', { note: 'keep' }), row('A2')];
    const pasted = withPasted(
      start,
      '700\t80\r\n650\t75\r\n600\t70\n',
      columns,
      { row: 1, column: at('length') },
      NONE,
    );
    expect(pasted.map((r) => r.length)).toEqual(['900', '700', '650', '600']);
    expect(pasted[0]).toEqual(start[0]);
    expect(pasted.map((r) => r.mark)).toEqual(['A1', 'A2', 'A3', 'A4']);
    const next = columns[at('length') + 1]!;
    expect(pasted.slice(1).map((r) => r[next])).toEqual(['80', '75', '70']);
  });

  it('a whole size pasted into the thickness is taken apart; cells past the last column are left out', () => {
    const [line] = withPasted([{}], '30 x 120 x 900', columns, { row: 0, column: at('thickness') }, NONE);
    expect(line).toMatchObject({ thickness: '30', width: '120', length: '900', mark: 'N1' });
    const wide = Array(columns.length + 3)
      .fill('x')
      .join('\t');
    expect(Object.keys(withPasted([{}], wide, columns, { row: 0, column: 2 }, NONE)[0]!).length).toBeLessThanOrEqual(
      columns.length + 2,
    );
  });

  it('never change a line above the cursor, nor lose one', () => {
    fc.assert(
      fc.property(
        fc.array(marks, { minLength: 1, maxLength: 5 }),
        fc.array(fc.array(fc.constantFrom('1', 'x', ''), { minLength: 1, maxLength: 8 }), {
          minLength: 1,
          maxLength: 5,
        }),
        fc.nat(4),
        fc.nat(5),
        (typed, cells, row0, column) => {
          const rows = typed.map((mark) => row(mark));
          const at = { row: Math.min(row0, rows.length - 1), column };
          const after = withPasted(rows, cells.map((c) => c.join('\t')).join('\n'), columns, at, NONE);
          expect(after.slice(0, at.row)).toEqual(rows.slice(0, at.row));
          expect(after.length).toBeGreaterThanOrEqual(rows.length);
          expect(after.every((r) => typeof r === 'object')).toBe(true);
        },
      ),
    );
  });
});
