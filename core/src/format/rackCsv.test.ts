import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainPiece, planInputArbitrary } from '../plan/planArbitrary.ts';
import { pieceFieldsSchema, type PieceFields } from '../stock/piece.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import { readPileRow, splitSize } from './pileColumns.ts';
import { readRackCsv, writeRackCsv } from './rackCsv.ts';

const context = { species: HANDBOOK_SPECIES, system: 'metric' as const };
const read = (text: string, system: 'metric' | 'inch' = 'metric') => {
  const csv = readRackCsv(text);
  if (!csv.ok) throw new Error(csv.message);
  return csv.rows.map((row) => readPileRow(row, { ...context, system: csv.system ?? system }));
};
const fieldsOf = ({ id: _id, ...fields }: ReturnType<typeof plainPiece>): PieceFields =>
  pieceFieldsSchema.parse(fields);

describe('a rack as CSV', () => {
  it('comes back identical, whatever is in the notes', () => {
    fc.assert(
      fc.property(planInputArbitrary, fc.string({ maxLength: 40 }), ({ rack }, noise) => {
        const note = noise.replace(/[\u0000-\u001f\u007f]/g, '').trim();
        const pieces = rack.map((p, i) =>
          fieldsOf({ ...p, note: [note, '=1+1', `a,"b";c`, `'=x`][i % 4]!, moisture: 8.5, shelf: '-3' }),
        );
        if (pieces.length === 0) return;
        expect(read(writeRackCsv(pieces)).map((r) => r.piece)).toEqual(pieces);
      }),
      { numRuns: 60 },
    );
  });

  it('lets no formula out alive', () => {
    const text = writeRackCsv(['=1+1', '+A1', '-2', '@SUM(A1)'].map((note) => fieldsOf(plainPiece({ note }))));
    expect(
      text
        .split('\r\n')
        .slice(1, 5)
        .every((line) => /,'[=+\-@]/.test(line)),
    ).toBe(true);
  });

  it.each([
    [
      'columns in any order, semicolons and decimal commas',
      'Length;Note;SPECIES;thickness;Width;mark\n2000,5;x;pear;34;140;P9\n',
      { mark: 'P9', species: 'pear', length: 2000.5, width: 140, thickness: 34, note: 'x' },
    ],
    [
      'inches in the headings',
      '\uFEFFmark,species,length (in),width (in),thickness (in)\nA,Hard maple,20,7 1/2,8/4\n',
      { length: 508, width: 190.5, thickness: 50.8 },
    ],
    [
      'a size in one cell',
      'Mark\tWood\tSize\nA\tHard maple\t4/4 x 7 1/2" x 8\'\n',
      { thickness: 25.4, width: 190.5, length: expect.closeTo(2438.4, 6) as number, species: 'maple-hard' },
    ],
    [
      'a short name that can only mean one',
      'mark,species,length,width,thickness\nA,hornbeam,500,100,30\n',
      { species: 'hornbeam' },
    ],
  ])('reads %s', (_, text, piece) => {
    const [row] = read(text);
    expect(row!.problems).toEqual([]);
    expect(row!.piece).toMatchObject(piece);
  });

  it.each([
    ['walnut', 'species', 'Species "walnut" could be Black walnut or European walnut.'],
    ['plywood', 'species', 'Species "plywood" is not known.'],
  ])('says what is wrong with the species %s', (name, column, message) => {
    const [row] = read(`mark,species,length,width,thickness\nA,${name},500,100,30\n`);
    expect(row).toMatchObject({
      piece: null,
      problems: [{ column, message }],
      unknownSpecies: name === 'plywood' ? 'plywood' : null,
    });
  });

  it('names every bad cell of a row, not only the first', () => {
    const [row] = read('mark,species,length,width,thickness,surface,defects\n,pear,long,100,0,shiny,knot somewhere\n');
    expect(row!.problems.map((p) => p.column).sort()).toEqual(['defects', 'length', 'mark', 'surface', 'thickness']);
  });

  it.each([
    ['', 'The file is empty.'],
    ['a,b\n1,2', 'The first line must name the columns'],
    ['mark,species,length', 'no pieces'],
    ['PK\u0003\u0004\u0000\u0000', 'not text'],
    [`species,length\n${'pear,500\n'.repeat(10_001)}`, '10001 rows'],
  ])('refuses a file with a sentence (%#)', (text, sentence) => {
    const csv = readRackCsv(text);
    expect(csv.ok ? '' : csv.message).toContain(sentence);
  });
});

it('a size is thickness by width by length, as at the yard', () => {
  expect(splitSize("4/4 x 7 1/2 x 8'")).toEqual({ thickness: '4/4', width: '7 1/2', length: "8'" });
  expect(splitSize('30×60×1200')).toEqual({ thickness: '30', width: '60', length: '1200' });
  expect([splitSize('30 x 60'), splitSize('beech'), splitSize('1 x  x 3')]).toEqual([null, null, null]);
});
