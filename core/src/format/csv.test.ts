import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import Papa from 'papaparse';
import { expect, it } from 'vitest';
import { unguarded, writeCsv } from './csv.ts';

it('no text leaves as a formula, figures stay figures, and all of it reads back as it was', () => {
  expect(writeCsv(['name', 'mm'], [['=A1', -2]])).toBe("name,mm\r\n'=A1,-2\r\n");
  for (const begin of ['=', '+', '-', '@', '\t', '\r', "'="]) {
    const [, [cell]] = Papa.parse<string[]>(writeCsv(['a'], [[`${begin}1+1`]]).trimEnd()).data as [string[], [string]];
    expect(cell).toBe(`'${begin}1+1`);
  }
  fc.assert(
    fc.property(fc.array(fc.string({ maxLength: 8 }), { minLength: 2, maxLength: 4 }), (row) => {
      const [, back] = Papa.parse<string[]>(writeCsv(row.map(String), [row]), { delimiter: ',', newline: '\r\n' }).data;
      expect(back?.map(unguarded)).toEqual(row);
    }),
  );
});

it('no other code writes tables', () => {
  const root = join(import.meta.dirname, '../../..');
  const writers = ['core/src', 'server/src', 'web/src', 'bin'].flatMap((folder) =>
    readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.tsx?$/.test(name) && !name.includes('.test.'))
      .filter((name) => readFileSync(join(root, folder, name), 'utf8').includes('Papa.unparse'))
      .map((name) => `${folder}/${name}`),
  );
  expect(writers).toEqual(['core/src/format/csv.ts']);
});
