import { describe, expect, it } from 'vitest';
import { plainPiece } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '#core/shop/shop.ts';
import { speciesSchema } from '#core/wood/species.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { newSpecies } from '#core/wood/newSpecies.ts';
import { readTextFile } from '../pile/readTextFile.ts';
import { copyLetter, gapWords } from '../cuts/words.ts';
import { FIND_ALL, findPieces, givesStrip, type Search } from '#core/cutting/findPieces.ts';
import { shelfRows } from './shelfRows.ts';

const stored = (change: Parameters<typeof plainPiece>[0]) => ({ piece: plainPiece(change), version: 1 });
const rack = [
  stored({ id: 'a', mark: 'P10', length: 900, note: 'from the stairs' }),
  stored({ id: 'b', mark: 'P2', species: 'pear', origin: { kind: 'salvage', of: 'Counter' } }),
  stored({
    id: 'c',
    mark: 'P1',
    defects: [{ id: 'd', kind: 'worm', face: 'up', from: 0, across: 0, length: 20, width: 20, treatment: 'cut' }],
  }),
];
const found = (change: Partial<Search>, promised: Parameters<typeof findPieces>[4] = []) =>
  findPieces(rack, { ...FIND_ALL, ...change }, HANDBOOK_SPECIES, DEFAULT_SHOP, promised).map((p) => p.piece.mark);

describe('finding pieces', () => {
  it.each<[Partial<Search>, string[]]>([
    [{}, ['P1', 'P2', 'P10']],
    [{ sort: 'length' }, ['P1', 'P2', 'P10']],
    [{ text: 'STAIRS from' }, ['P10']],
    [{ text: 'salvage counter' }, ['P2']],
    [{ text: 'worm' }, ['P1']],
    [{ species: 'pear' }, ['P2']],
    [{ text: 'hard maple' }, ['P1', 'P10']],
    [{ text: 'nothing like it' }, []],
    // 50 rough planes to 46.8: 46 thick lying flat or standing, 48 not.
    [{ strip: { length: 1000, width: 46, thickness: 30 } }, ['P1', 'P2']],
    [{ strip: { length: 400, width: 48, thickness: 48 } }, []],
  ])('%j gives %j', (search, marks) => {
    expect(found(search)).toEqual(marks);
  });

  it('a piece that is promised for most of its length gives only what is left', () => {
    const promised = [{ pieceId: 'p1', unit: 0, from: 10, to: 1600 }];
    const gives = (length: number, count = 1) =>
      givesStrip(plainPiece({ count }), { length, width: 40, thickness: 30 }, DEFAULT_SHOP, promised);
    expect([gives(380), gives(400), gives(400, 2)]).toEqual([true, false, true]);
  });
});

it('every piece stands on its shelf once, in lines no wider than the page', () => {
  const many = Array.from({ length: 200 }, (_, i) =>
    stored({
      id: `m${i}`,
      mark: `M${i}`,
      length: 300 + ((i * 97) % 2000),
      species: i % 3 === 0 ? 'pear' : 'maple-hard',
    }),
  );
  const rows = shelfRows(many, HANDBOOK_SPECIES, 0.3, 1000);
  const shown = rows.flatMap((r) => (r.kind === 'pieces' ? r.pieces.map((p) => p.piece.id) : []));
  expect([...shown].sort()).toEqual(many.map((p) => p.piece.id).sort());
  expect(rows.filter((r) => r.kind === 'name').map((r) => r.kind === 'name' && r.count)).toEqual([133, 67]);
  for (const row of rows) {
    if (row.kind !== 'pieces') continue;
    expect(row.pieces.every((p) => p.piece.species === row.species.code)).toBe(true);
    if (row.pieces.length > 1)
      expect(row.pieces.reduce((sum, { piece }) => sum + (piece.length + piece.thickness) * 0.3, 0)).toBeLessThan(1000);
  }
});

it('a species nobody knew is valid, says where its figures come from, and never takes a code that is in use', () => {
  const like = HANDBOOK_SPECIES[0]!;
  for (const name of ['Snakewood', '楓', '3-ply', 'Hard maple']) {
    const made = newSpecies(name, like, [...HANDBOOK_SPECIES, { ...like, code: 'snakewood' }]);
    expect(speciesSchema.parse(made)).toMatchObject({
      name,
      density: like.density,
      source: `Taken over from ${like.name}; entered by hand`,
    });
    expect(made.code).not.toBe('snakewood');
  }
});

it.each<[string, number[], string, string | null]>([
  ['UTF-8', [0x42, 0xc3, 0xbc], 'Bü', null],
  ['UTF-8 with a byte-order mark', [0xef, 0xbb, 0xbf, 0x42], 'B', null],
  ['UTF-16, little end first', [0xff, 0xfe, 0x42, 0, 0xfc, 0], 'Bü', 'UTF-16'],
  ['UTF-16, big end first', [0xfe, 0xff, 0, 0x42, 0, 0xfc], 'Bü', 'UTF-16'],
  ['Windows-1252', [0x42, 0xfc], 'Bü', 'Windows-1252'],
])('a file in %s is read', async (_, bytes, text, encoding) => {
  expect(await readTextFile(new File([new Uint8Array(bytes)], 'pile.csv'))).toEqual({ text, encoding });
});

it('gaps and copies in words', () => {
  expect([gapWords({ gap: null }), gapWords({ gap: 0 }), gapWords({ gap: 0.0312 })]).toEqual([
    '',
    'Proven: nothing better is possible.',
    'Nothing better than 3.1 % is possible.',
  ]);
  expect([1, 26, 27, 50].map(copyLetter)).toEqual(['A', 'Z', 'AA', 'AX']);
});
