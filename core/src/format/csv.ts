import Papa from 'papaparse';

/** Signs that make a table program take a cell for a formula, and run it. */
const FORMULA = /^'*[=+\-@\t\r]/;

/** Text that a table program would take for a formula goes out with an apostrophe before it. */
function guarded(cell: string | number): string | number {
  return typeof cell === 'string' && FORMULA.test(cell) ? `'${cell}` : cell;
}

/** A cell as it was before `writeCsv` wrote it. */
export function unguarded(text: string): string {
  return text.startsWith("'") && FORMULA.test(text) ? text.slice(1) : text;
}

/**
 * Rows as CSV (RFC 4180, comma, CRLF), the one way in which any table leaves: no text in it runs as a formula where it is opened.
 *
 * @example writeCsv(['name', 'length_mm'], [['=A1', 600]]) // "name,length_mm\r\n'=A1,600\r\n"
 */
export function writeCsv(head: readonly string[], rows: readonly (readonly (string | number)[])[]): string {
  return `${Papa.unparse([[...head], ...rows.map((row) => row.map(guarded))])}\r\n`;
}
