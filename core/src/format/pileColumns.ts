import { firstOf, nth } from '../lists/there.ts';
import { defectFaces, defectKinds, treatments, type Defect } from '../stock/defect.ts';
import { ringOrientations } from '../wood/rings.ts';
import {
  grainDirections,
  originKinds,
  pieceFieldsSchema,
  pieceShape,
  priceUnits,
  straightEdges,
  surfaces,
  type PieceFields,
} from '../stock/piece.ts';
import { lengthProblem, parseLength } from '../units/length.ts';
import type { Species } from '../wood/species.ts';
import { fieldProblems } from './fieldProblems.ts';

/** A row of a pile as text, by column. A missing cell is an empty one. */
export type PileRow = Partial<Record<PileColumn, string>>;

/** Columns of a pile in the order they are written: what a person fills in first comes first. */
export const pileColumns = [
  'mark',
  'species',
  'thickness',
  'width',
  'length',
  'count',
  'surface',
  'rings',
  'price',
  'priceper',
  'shelf',
  'note',
  'origin',
  'originof',
  'straight',
  'grain',
  'moisture',
  'farwidth',
  'farthickness',
  'bow',
  'cup',
  'crook',
  'twist',
  'markchecked',
  'marksnipe',
  'marksawn',
  'farchecked',
  'farsnipe',
  'farsawn',
  'defects',
] as const;
export type PileColumn = (typeof pileColumns)[number];

/** What each column is called on the page and in a file's first line. */
export const PILE_WORDS: Readonly<Record<PileColumn, string>> = {
  mark: 'Mark',
  species: 'Species',
  thickness: 'Thickness',
  width: 'Width',
  length: 'Length',
  count: 'Count',
  surface: 'Surface',
  rings: 'Rings',
  price: 'Price',
  priceper: 'Price per',
  shelf: 'Shelf',
  note: 'Note',
  origin: 'Origin',
  originof: 'Origin of',
  straight: 'Straight edges',
  grain: 'Grain',
  moisture: 'Moisture',
  farwidth: 'Far width',
  farthickness: 'Far thickness',
  bow: 'Bow',
  cup: 'Cup',
  crook: 'Crook',
  twist: 'Twist',
  markchecked: 'Mark end checked',
  marksnipe: 'Mark end snipe',
  marksawn: 'Mark end sawn',
  farchecked: 'Far end checked',
  farsnipe: 'Far end snipe',
  farsawn: 'Far end sawn',
  defects: 'Defects',
};

const LENGTHS: ReadonlySet<PileColumn> = new Set([
  'thickness',
  'width',
  'length',
  'farwidth',
  'farthickness',
  'bow',
  'cup',
  'crook',
  'twist',
  'markchecked',
  'marksnipe',
  'farchecked',
  'farsnipe',
]);

export interface PileContext {
  species: readonly Species[];
  /** Unit of a number that names none. */
  system: 'metric' | 'inch';
}

/** What a row says: a piece, or what is wrong with which cell. */
export interface ReadRow {
  piece: PieceFields | null;
  problems: { column: PileColumn; message: string }[];
  /** A species nobody knows; it could be made. */
  unknownSpecies: string | null;
}

/**
 * A whole size in one cell, thickness first as at the yard: `4/4 x 7 1/2 x 8'`. Also with `×` or `*`, in any notation of lengths.
 * @returns the three texts, or null when it is not such a size
 */
export function splitSize(text: string): { thickness: string; width: string; length: string } | null {
  const parts = text.split(/\s*[x×*]\s*/i).map((p) => p.trim());
  return parts.length === 3 && parts.every((p) => p !== '')
    ? { thickness: firstOf(parts), width: nth(parts, 1), length: nth(parts, 2) }
    : null;
}

/** Reads a row. Nothing is guessed beyond the plainest condition; every bad cell is named. */
export function readPileRow(row: PileRow, context: PileContext): ReadRow {
  const problems: ReadRow['problems'] = [];
  const cell = (column: PileColumn) => (row[column] ?? '').trim();
  const wrong = (column: PileColumn, message: string) => {
    problems.push({ column, message });
    return undefined;
  };
  const mm = (column: PileColumn): number | null | undefined => {
    const text = cell(column);
    if (text === '') return null;
    const parsed = parseLength(text, context.system);
    return parsed.ok ? parsed.mm : wrong(column, lengthProblem(parsed.code, PILE_WORDS[column], context.system));
  };
  const number = (column: PileColumn): number | null | undefined => {
    const text = cell(column)
      .replace(/\s|%$/g, '')
      .replace(/^(\d+),(\d+)$/, '$1.$2');
    if (text === '') return null;
    const value = Number(text);
    return Number.isFinite(value) ? value : wrong(column, `${PILE_WORDS[column]} must be a number.`);
  };
  const choice = <T extends string>(column: PileColumn, options: readonly T[], usual: T): T => {
    const text = cell(column)
      .toLowerCase()
      .replace(/[\s_-]/g, '');
    if (text === '') return usual;
    const found =
      options.find((o) => o.toLowerCase() === text) ?? options.find((o) => o.toLowerCase().startsWith(text));
    if (!found) wrong(column, `${PILE_WORDS[column]} must be one of ${options.join(', ')}.`);
    return found ?? usual;
  };
  const yes = (column: PileColumn) => /^(1|y|yes|true|x|sawn)$/i.test(cell(column));

  const { code, unknown } = speciesOf(cell('species'), context.species, (message) => wrong('species', message));
  const sizes = Object.fromEntries([...LENGTHS].map((c) => [c, mm(c)])) as Record<
    PileColumn,
    number | null | undefined
  >;
  for (const c of ['thickness', 'width', 'length'] as const)
    if (sizes[c] === null) wrong(c, `${PILE_WORDS[c]} must not be empty.`);
  const price = number('price');
  const moisture = number('moisture');
  const count = number('count');
  const measured = (['bow', 'cup', 'crook', 'twist'] as const).some((c) => cell(c) !== '');
  const { defects, problem } = readDefects(cell('defects'));
  if (problem) wrong('defects', problem);
  const n = (c: PileColumn) => sizes[c] ?? 0;
  const fields = {
    mark: cell('mark'),
    species: code ?? 'unknown',
    length: n('length'),
    width: n('width'),
    thickness: n('thickness'),
    farEnd:
      cell('farwidth') === '' && cell('farthickness') === ''
        ? null
        : { width: sizes.farwidth ?? n('width'), thickness: sizes.farthickness ?? n('thickness') },
    surface: choice('surface', surfaces, 'rough'),
    straight: choice('straight', straightEdges, 'none'),
    rings: choice('rings', ringOrientations, 'flat'),
    grain: choice('grain', grainDirections, 'unknown'),
    moisture: moisture ?? null,
    form: measured ? { bow: n('bow'), cup: n('cup'), crook: n('crook'), twist: n('twist') } : null,
    ends: {
      mark: { checked: n('markchecked'), snipe: n('marksnipe'), sawn: yes('marksawn') },
      far: { checked: n('farchecked'), snipe: n('farsnipe'), sawn: yes('farsawn') },
    },
    defects,
    origin: { kind: choice('origin', originKinds, 'bought'), of: cell('originof') },
    price:
      price === null || price === undefined
        ? null
        : { amount: price, per: choice('priceper', priceUnits, 'cubicMetre') },
    shelf: cell('shelf'),
    note: cell('note'),
    count: count ?? 1,
  };
  const parsed = pieceFieldsSchema.safeParse(fields);
  if (!parsed.success) {
    for (const { path, message } of fieldProblems(parsed.error)) {
      const column = columnOf(path);
      if (!problems.some((p) => p.column === column)) wrong(column, message);
    }
  }
  return { piece: problems.length === 0 && parsed.success ? parsed.data : null, problems, unknownSpecies: unknown };
}

function columnOf(path: string): PileColumn {
  const flat: Record<string, PileColumn> = {
    'farEnd.width': 'farwidth',
    'farEnd.thickness': 'farthickness',
    'price.amount': 'price',
    'origin.of': 'originof',
  };
  const plain = path
    .replace(/^form\./, '')
    .replace(/^ends\.(mark|far)\./, '$1')
    .replace(/^defects.*/, 'defects');
  const known = flat[path] ?? (plain as PileColumn);
  return pileColumns.includes(known) ? known : 'mark';
}

function speciesOf(
  text: string,
  species: readonly Species[],
  wrong: (message: string) => void,
): { code: string | null; unknown: string | null } {
  if (text === '') {
    wrong('Species must not be empty.');
    return { code: null, unknown: null };
  }
  const wanted = text.toLowerCase();
  const exact = species.find(
    (s) => s.code === wanted || s.name.toLowerCase() === wanted || s.botanical.toLowerCase() === wanted,
  );
  if (exact) return { code: exact.code, unknown: null };
  const like = species.filter((s) => s.name.toLowerCase().split(/\s+/).includes(wanted));
  if (like.length === 1) return { code: firstOf(like).code, unknown: null };
  if (like.length > 1) {
    wrong(`Species "${text}" could be ${like.map((s) => s.name).join(' or ')}.`);
    return { code: null, unknown: null };
  }
  wrong(`Species "${text.slice(0, 40)}" is not known.`);
  return { code: null, unknown: text.slice(0, 60) };
}

/** Defects in one cell: `knot through 1180 60 55 45 cut d1`, several parted by `|`; lengths in millimetres. */
function writeDefects(defects: readonly Defect[]): string {
  return defects
    .map((d) => [d.kind, d.face, d.from, d.across, d.length, d.width, d.treatment, d.id].join(' '))
    .join(' | ');
}

function readDefects(text: string): { defects: Defect[]; problem: string | null } {
  const defects: Defect[] = [];
  for (const [i, part] of text
    .split('|')
    .map((p) => p.trim())
    .filter((p) => p !== '')
    .entries()) {
    const [kind, face, from, across, length, width, treatment, id] = part.split(/\s+/);
    const read = pieceShape.shape.defects.element.safeParse({
      kind,
      face,
      from: Number(from),
      across: Number(across),
      length: Number(length),
      width: Number(width),
      treatment,
      id: id ?? `d${i + 1}`,
    });
    if (!read.success)
      return {
        defects: [],
        problem: `Defects: "${part.slice(0, 60)}" must be a kind (${defectKinds.join(', ')}), a face (${defectFaces.join(', ')}), from, across, length and width in mm, and ${treatments.join(', ')}.`,
      };
    defects.push(read.data);
  }
  return { defects, problem: null };
}

/** A piece as a row of text that reads back as the same piece. Lengths in millimetres. */
export function writePileRow(piece: PieceFields): Required<PileRow> {
  const optional = (value: number | null | undefined) => (value === null || value === undefined ? '' : String(value));
  const nonZero = (value: number) => (value === 0 ? '' : String(value));
  const { form, farEnd, ends, price } = piece;
  return {
    mark: piece.mark,
    species: piece.species,
    thickness: String(piece.thickness),
    width: String(piece.width),
    length: String(piece.length),
    count: String(piece.count),
    surface: piece.surface,
    rings: piece.rings,
    price: optional(price?.amount),
    priceper: price?.per ?? '',
    shelf: piece.shelf,
    note: piece.note,
    origin: piece.origin.kind,
    originof: piece.origin.of,
    straight: piece.straight,
    grain: piece.grain,
    moisture: optional(piece.moisture),
    farwidth: optional(farEnd?.width),
    farthickness: optional(farEnd?.thickness),
    bow: optional(form?.bow),
    cup: optional(form?.cup),
    crook: optional(form?.crook),
    twist: optional(form?.twist),
    markchecked: nonZero(ends.mark.checked),
    marksnipe: nonZero(ends.mark.snipe),
    marksawn: ends.mark.sawn ? 'yes' : '',
    farchecked: nonZero(ends.far.checked),
    farsnipe: nonZero(ends.far.snipe),
    farsawn: ends.far.sawn ? 'yes' : '',
    defects: writeDefects(piece.defects),
  };
}

/** The columns a plain piece leaves empty; they need not be shown until something is in them. */
export const EXTRA_COLUMNS: readonly PileColumn[] = pileColumns.slice(pileColumns.indexOf('origin'));
