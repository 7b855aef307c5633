import { nth } from '../lists/there.ts';
import Papa from 'papaparse';
import type { PieceFields } from '../stock/piece.ts';
import { unguarded, writeCsv } from './csv.ts';
import { PILE_WORDS, pileColumns, splitSize, writePileRow, type PileColumn, type PileRow } from './pileColumns.ts';

/** More rows than this are not read: no rack holds them. */
export const GREATEST_CSV_ROWS = 10_000;

export type ReadCsv =
  | {
      ok: true;
      rows: PileRow[];
      /** Columns of the file that mean nothing here. */ ignored: string[];
      /** Unit that the headings name, if any. */ system: 'metric' | 'inch' | null;
    }
  | { ok: false; message: string };

/** Other names that people give a column. */
const SYNONYMS: Readonly<Record<string, PileColumn | 'size'>> = {
  id: 'mark',
  number: 'mark',
  piece: 'mark',
  name: 'mark',
  wood: 'species',
  timber: 'species',
  thick: 'thickness',
  t: 'thickness',
  w: 'width',
  l: 'length',
  long: 'length',
  size: 'size',
  dimensions: 'size',
  qty: 'count',
  quantity: 'count',
  pieces: 'count',
  notes: 'note',
  comment: 'note',
  remarks: 'note',
  location: 'shelf',
  cost: 'price',
  grainrings: 'rings',
};

/**
 * Reads a pile from comma, semicolon or tab separated text, columns in any order, headings in any case, perhaps with a unit: `Length (in)`. Cells
 * stay text; `readPileRow` says what they mean. Never throws.
 */
export function readRackCsv(text: string): ReadCsv {
  const clean = text.replace(/^\uFEFF/, '');
  if (clean.trim() === '') return { ok: false, message: 'The file is empty.' };
  if (clean.includes('\u0000')) return { ok: false, message: 'The file is not text; save it as CSV first.' };
  const parsed = Papa.parse<string[]>(clean, { skipEmptyLines: 'greedy', delimitersToGuess: [',', ';', '\t', '|'] });
  const [head, ...body] = parsed.data;
  if (!head) return { ok: false, message: 'The file is empty.' };
  let system: 'metric' | 'inch' | null = null;
  const columns = head.map((cell) => {
    const unit = /\(?\b(mm|cm|in|inch|inches|")\)?\s*$/i.exec(cell.trim())?.[1]?.toLowerCase();
    if (unit) system = unit === 'mm' || unit === 'cm' ? 'metric' : 'inch';
    return { column: columnFor(cell), unit };
  });
  const ignored = head.filter((cell, i) => nth(columns, i).column === null && cell.trim() !== '');
  if (
    !columns.some((c) => c.column === 'species') ||
    !columns.some((c) => c.column === 'length' || c.column === 'size')
  ) {
    return {
      ok: false,
      message: `The first line must name the columns, at least Species and Length; it reads "${head.join(', ').slice(0, 80)}".`,
    };
  }
  if (body.length === 0) return { ok: false, message: 'The file has headings but no pieces.' };
  if (body.length > GREATEST_CSV_ROWS)
    return { ok: false, message: `The file has ${body.length} rows; at most ${GREATEST_CSV_ROWS} are read at once.` };
  // With semicolons or tabs between cells a comma is a decimal comma.
  const decimalComma = parsed.meta.delimiter !== ',';
  const rows = body.map((cells) => {
    const row: PileRow = {};
    columns.forEach(({ column, unit }, i) => {
      const cell = unguarded((cells[i] ?? '').trim());
      if (column === null || cell === '') return;
      const value = decimalComma && /^\d+,\d+$/.test(cell) ? cell.replace(',', '.') : cell;
      if (column === 'size') Object.assign(row, splitSize(value) ?? { length: value });
      else row[column] = unit && /^[\d.]+$/.test(value) ? `${value} ${unit}` : value;
    });
    return row;
  });
  return { ok: true, rows, ignored, system };
}

function columnFor(heading: string): PileColumn | 'size' | null {
  const name = heading
    .trim()
    .toLowerCase()
    .replace(/\(?\b(mm|cm|in|inch|inches|")\)?\s*$/i, '')
    .replace(/[^a-z]/g, '');
  return (
    pileColumns.find((c) => c === name || PILE_WORDS[c].toLowerCase().replace(/[^a-z]/g, '') === name) ??
    SYNONYMS[name] ??
    null
  );
}

/** Writes pieces as CSV (RFC 4180, comma, CRLF) that reads back as the same pieces. Lengths in millimetres. */
export function writeRackCsv(pieces: readonly PieceFields[]): string {
  const rows = pieces.map((piece) => {
    const row = writePileRow(piece);
    return pileColumns.map((c) => row[c]);
  });
  return writeCsv(
    pileColumns.map((c) => PILE_WORDS[c]),
    rows,
  );
}
