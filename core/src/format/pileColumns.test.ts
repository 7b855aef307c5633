import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { defectFaces, defectKinds, treatments } from '../stock/defect.ts';
import {
  grainDirections,
  originKinds,
  PLAIN_CONDITION,
  pieceFieldsSchema,
  priceUnits,
  straightEdges,
  surfaces,
  type PieceFields,
} from '../stock/piece.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import {
  PILE_WORDS,
  pileColumns,
  readPileRow,
  splitSize,
  writePileRow,
  type PileColumn,
  type PileRow,
} from './pileColumns.ts';

const metric = { species: HANDBOOK_SPECIES, system: 'metric' as const };
const GOOD: PileRow = { mark: 'A1', species: 'Pear', thickness: '30', width: '90', length: '900' };
const told = (row: PileRow, column: PileColumn, context = metric) =>
  readPileRow({ ...GOOD, ...row }, context)
    .problems.filter((p) => p.column === column)
    .map((p) => p.message);

const tenths = (least: number, greatest: number) =>
  fc.integer({ min: least * 10, max: greatest * 10 }).map((n) => n / 10);
const end = fc.record({ checked: tenths(0, 90), snipe: tenths(0, 90), sawn: fc.boolean() });
/** Pieces with everything that can be known of them. */
const pieces: fc.Arbitrary<PieceFields> = fc.record({
  mark: fc.stringMatching(/^[A-Z][0-9]{1,3}$/),
  species: fc.constantFrom(...HANDBOOK_SPECIES.map((s) => s.code)),
  length: tenths(500, 3000),
  width: tenths(120, 300),
  thickness: tenths(20, 80),
  surface: fc.constantFrom(...surfaces),
  straight: fc.constantFrom(...straightEdges),
  rings: fc.constantFrom('flat' as const, 'rift' as const, 'quarter' as const),
  grain: fc.constantFrom(...grainDirections),
  count: fc.integer({ min: 1, max: 40 }),
  moisture: fc.option(tenths(5, 25), { nil: null }),
  farEnd: fc.option(fc.record({ width: tenths(120, 300), thickness: tenths(20, 80) }), { nil: null }),
  form: fc.option(fc.record({ bow: tenths(0, 9), cup: tenths(0, 5), crook: tenths(0, 9), twist: tenths(0, 9) }), {
    nil: null,
  }),
  price: fc.option(fc.record({ amount: tenths(1, 900), per: fc.constantFrom(...priceUnits) }), { nil: null }),
  ends: fc.record({ mark: end, far: end }),
  origin: fc.record({ kind: fc.constantFrom(...originKinds), of: fc.constantFrom('', 'the old door', 'P7') }),
  shelf: fc.constantFrom('', 'left, above', 'B2'),
  note: fc.constantFrom('', 'smells of resin; "wet"', 'x, y; z'),
  defects: fc
    .array(
      fc.record({
        kind: fc.constantFrom(...defectKinds),
        face: fc.constantFrom(...defectFaces),
        from: tenths(0, 300),
        across: tenths(0, 60),
        length: tenths(1, 90),
        width: tenths(1, 40),
        treatment: fc.constantFrom(...treatments),
      }),
      { maxLength: 3 },
    )
    .map((all) => all.map((d, i) => ({ id: `d${i + 1}`, ...d }))),
});

/** A piece without the ids of its defects, which a row of text does not carry. */
const bare = ({ defects, ...piece }: PieceFields) => ({ ...piece, defects: defects.map(({ id: _, ...d }) => d) });

describe('a piece as a row of text', () => {
  it('reads back as the same piece, whatever is known of it', () => {
    fc.assert(
      fc.property(
        pieces.filter((p) => pieceFieldsSchema.safeParse({ ...PLAIN_CONDITION, ...p }).success),
        (fields) => {
          const piece = pieceFieldsSchema.parse({ ...PLAIN_CONDITION, ...fields });
          const { piece: again, problems } = readPileRow(writePileRow(piece), metric);
          expect(problems).toEqual([]);
          // A form of noughts is written as such; a far end just like the marked one is none.
          expect(bare(again!)).toEqual(bare(piece));
        },
      ),
      { numRuns: 200 },
    );
  });

  it('a plain one is five cells; nothing is guessed beyond the plainest condition', () => {
    const { piece, problems } = readPileRow(GOOD, metric);
    expect(problems).toEqual([]);
    expect(piece).toMatchObject({
      mark: 'A1',
      species: 'pear',
      thickness: 30,
      width: 90,
      length: 900,
      count: 1,
      surface: 'rough',
      rings: 'flat',
      price: null,
      form: null,
      farEnd: null,
      defects: [],
    });
  });

  it('bare numbers are in the unit of the list, numbers with a unit in that one', () => {
    const inch = { ...metric, system: 'inch' as const };
    expect(readPileRow({ ...GOOD, thickness: '1 3/8', width: '90 mm', length: "3'" }, inch).piece).toMatchObject({
      thickness: 34.925,
      width: 90,
      length: 914.4,
    });
  });

  it.each([
    ['thickness', ['', 'thick', '-3', '0']],
    ['width', ['', 'wide', '1/0']],
    ['length', ['', 'long', '99999999']],
    ['count', ['many', '0', '1.5']],
    ['price', ['cheap', '-5']],
    ['moisture', ['wet', '-1', '900']],
    ['surface', ['polished']],
    ['rings', ['round']],
    ['straight', ['perhaps']],
    ['grain', ['sideways']],
    ['origin', ['stolen']],
    ['mark', ['', 'x'.repeat(300)]],
    ['bow', ['bent', '-1']],
    ['farwidth', ['narrow']],
    ['defects', ['a knot somewhere', 'knot up 1 2 3']],
  ] as [PileColumn, string[]][])(
    '%s says what is wrong with it, in its own cell and by its own name',
    (column, texts) => {
      for (const text of texts) {
        const messages = told({ [column]: text }, column);
        expect([column, text, messages.length > 0]).toEqual([column, text, true]);
        for (const message of messages)
          expect([
            column,
            text,
            message.toLowerCase().includes(PILE_WORDS[column].toLowerCase().split(' ')[0]!),
          ]).toEqual([column, text, true]);
      }
    },
  );

  it('a choice is known by its beginning, in any case', () => {
    for (const [column, text, is] of [
      ['surface', 'FOUR sides', 'fourSides'],
      ['surface', 'two', 'twoFaces'],
      ['rings', 'Q', 'quarter'],
      ['grain', 'to_far', 'toFar'],
    ] as const)
      expect([text, readPileRow({ ...GOOD, [column]: text }, metric).piece?.[column]]).toEqual([text, is]);
  });

  it('a species is known by its name or its code; one that nobody knows is told apart from a wrong one', () => {
    expect(readPileRow({ ...GOOD, species: 'walnut-black' }, metric).piece?.species).toBe('walnut-black');
    expect(readPileRow({ ...GOOD, species: 'black WALNUT' }, metric).piece?.species).toBe('walnut-black');
    expect(readPileRow({ ...GOOD, species: 'Plum' }, metric)).toMatchObject({ piece: null, unknownSpecies: 'Plum' });
  });

  it('a whole size is three lengths, thickness first', () => {
    expect(splitSize("4/4 x 7 1/2 x 8'")).toEqual({ thickness: '4/4', width: '7 1/2', length: "8'" });
    expect(splitSize('30×90*900')).toEqual({ thickness: '30', width: '90', length: '900' });
    for (const text of ['30 x 90', '30', 'x x', '', '1x2x3x4']) expect([text, splitSize(text)]).toEqual([text, null]);
  });

  it('every column has a name of its own', () => {
    expect(new Set(Object.values(PILE_WORDS)).size).toBe(pileColumns.length);
  });
});
