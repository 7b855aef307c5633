import { marksOf, nextMark } from '../stock/marks.ts';
import type { UnitSystem } from '../units/length.ts';
import type { Species } from '../wood/species.ts';
import { readPileRow, splitSize, type PileColumn, type PileRow, type ReadRow } from './pileColumns.ts';

/** A line of a pile that says something, with what was understood of it. */
export interface ReadLine extends ReadRow {
  /** Which line it is, from 0. */
  index: number;
}

/** Columns that alone say nothing of a piece yet. */
const NO_PIECE_ALONE: ReadonlySet<string> = new Set<PileColumn>(['mark', 'species']);

/** Reads every line that says something; empty lines are null. Marks that come twice are named on the later line. @param taken marks in the rack, in small letters */
export function readPile(
  rows: readonly PileRow[],
  { species, system, taken }: { species: readonly Species[]; system: UnitSystem; taken: ReadonlySet<string> },
): (ReadLine | null)[] {
  const seen = new Set(taken);
  return rows.map((row, index) => {
    if (Object.entries(row).every(([column, text]) => NO_PIECE_ALONE.has(column) || !text?.trim())) return null;
    const read = readPileRow(row, { species, system });
    const mark = (row.mark ?? '').trim().toLowerCase();
    if (mark !== '' && seen.has(mark)) {
      const twice = { column: 'mark' as const, message: `Mark ${row.mark} is already on another piece.` };
      return { ...read, index, piece: null, problems: [...read.problems, twice] };
    }
    seen.add(mark);
    return { ...read, index };
  });
}

/** A mark that neither the rack nor a line has, going on from the last line's. */
export function freeMark(rows: readonly PileRow[], taken: ReadonlySet<string>): string {
  const used = new Set([...taken, ...marksOfRows(rows)]);
  return nextMark(rows.findLast((r) => r.mark)?.mark ?? 'N1', used);
}

/** The lines, each with a mark: those without get the next ones that are free. */
export function withMarks(rows: readonly PileRow[], taken: ReadonlySet<string>): PileRow[] {
  const used = new Set([...taken, ...marksOfRows(rows)]);
  return rows.map((row) => {
    if (row.mark) return row;
    const mark = nextMark('N1', used);
    used.add(mark.toLowerCase());
    return { ...row, mark };
  });
}

function marksOfRows(rows: readonly PileRow[]): Set<string> {
  return marksOf(rows.flatMap(({ mark }) => (mark ? [{ piece: { mark } }] : [])));
}

/** A whole size typed into one cell, taken apart over its columns; null when the cell holds no such thing. */
export function splitCell(column: PileColumn, text: string): PileRow | null {
  return column === 'thickness' || column === 'length' || column === 'width' ? splitSize(text) : null;
}

/**
 * Cells of a spreadsheet without headings, laid where the cursor is: a line a row, cells to the right.
 * @param columns those of the grid, in its order @param at the row and the column of the cursor
 */
export function withPasted(
  rows: readonly PileRow[],
  text: string,
  columns: readonly PileColumn[],
  at: { row: number; column: number },
  taken: ReadonlySet<string>,
): PileRow[] {
  const lines = text
    .replace(/\r/g, '')
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => line.split('\t'));
  const next = [...rows];
  lines.forEach((cells, i) => {
    const row: PileRow = { ...next[at.row + i] };
    cells.forEach((cell, k) => {
      const column = columns[at.column + k];
      if (column) Object.assign(row, (column === 'thickness' && splitSize(cell)) || { [column]: cell.trim() });
    });
    next[at.row + i] = row.mark ? row : { ...row, mark: freeMark(next, taken) };
  });
  return next;
}
