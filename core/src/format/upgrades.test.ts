import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { describe, expect, it } from 'vitest';
import { BOARD_FILE_VERSION, readBoardFile, readBoardJson, writeBoardFile } from './boardFile.ts';
import { upgradeToNewest, VERSION_STEPS } from './upgrades.ts';
import { upgradeFile, type Json } from './upgrades/step.ts';
import { madeFor } from '../board/madeFor.ts';
import type { Fact } from '../facts/fact.ts';
import { cutStripsOf, type Recipe } from '../board/recipe.ts';

const earlier = join(import.meta.dirname, 'earlier');
const schemas = join(import.meta.dirname, '../../../docs/format');
const ajv = new Ajv2020({ strict: false, validateFormats: false });
const validators = Array.from({ length: BOARD_FILE_VERSION }, (_, i) =>
  ajv.compile(JSON.parse(readFileSync(join(schemas, `board.v${i + 1}.schema.json`), 'utf8')) as object),
);
const problems = (file: Json, version: number) => {
  const valid = validators[version - 1]!;
  return valid(file) ? [] : (valid.errors ?? []).map((e) => `${e.instancePath} ${e.message}`);
};

/** Files that the last code of each version wrote, run from the history. */
const written = readdirSync(earlier)
  .filter((name) => /^v\d+$/.test(name))
  .flatMap((folder) =>
    readdirSync(join(earlier, folder)).map((name) => ({
      version: Number(folder.slice(1)),
      name: `${folder}/${name}`,
      file: JSON.parse(readFileSync(join(earlier, folder, name), 'utf8')) as Json,
    })),
  );

describe('files of every earlier version, written by its own code', () => {
  it('are there for each version', () => {
    expect([...new Set(written.map((w) => w.version))].sort((a, b) => a - b)).toEqual(
      Array.from({ length: BOARD_FILE_VERSION - 1 }, (_, i) => i + 1),
    );
  });

  it.each(written)(
    '$name is what its version called valid, and after each step what the next one did',
    ({ file, version }) => {
      expect(problems(file, version)).toEqual([]);
      let stepped = file;
      for (const step of VERSION_STEPS.filter((s) => s.version > version)) {
        stepped = upgradeFile(stepped, step);
        expect([step.version, problems(stepped, step.version)]).toEqual([step.version, []]);
      }
      const read = readBoardFile(JSON.stringify(file));
      if (!read.ok) throw new Error(JSON.stringify(read.problems));
      // Nothing of what the maker had is lost on the way: every strip and piece is there as it was.
      const old = file as unknown as {
        board: {
          strips?: object[];
          recipe?: Recipe;
          worked?: { gluedLength?: number | null; spots?: { id: string }[] };
        };
        rack: { id: string }[];
        facts?: Fact[];
      };
      // A recipe of an older version is no recipe to read for today's code: its leaves are.
      expect(cutStripsOf(read.file.board)).toMatchObject(
        old.board.strips ?? old.board.recipe!.filter((o) => o.kind === 'strip'),
      );
      const made = madeFor(read.file.board, read.file.facts);
      const held = version >= 9 ? madeFor(old.board as { recipe: Recipe }, old.facts) : null;
      expect(made).toMatchObject(
        held ?? { panelLength: old.board.worked?.gluedLength ?? null, spots: old.board.worked?.spots ?? [] },
      );
      expect(read.file.rack.map((p) => p.id)).toEqual(old.rack.map((p) => p.id));
      expect(readBoardFile(writeBoardFile(read.file))).toEqual(read);
    },
  );

  it('steps are frozen: each gives to the byte what it gave when it was used first', () => {
    const sums = Object.fromEntries(
      written.flatMap(({ file, version, name }) =>
        VERSION_STEPS.filter((s) => s.version > version).map((step) => {
          const upTo = VERSION_STEPS.filter((s) => s.version > version && s.version <= step.version).reduce(
            upgradeFile,
            file,
          );
          return [
            `${name} to ${step.version}`,
            createHash('sha256').update(JSON.stringify(upTo)).digest('hex').slice(0, 16),
          ] as const;
        }),
      ),
    );
    expect(sums).toEqual(JSON.parse(readFileSync(join(earlier, 'checksums.json'), 'utf8')));
  });

  it('what is no file of its version is refused by name, not brought up half', () => {
    for (const { file } of written) {
      expect(readBoardJson({ ...file, board: null })).toMatchObject({ ok: false });
      expect(readBoardJson({ ...file, rack: 'none' })).toMatchObject({ ok: false, problems: [{ path: 'rack' }] });
      expect(() =>
        upgradeToNewest(
          {
            version: file.version,
            board: { strips: [null, 3], versions: 'x', accepted: [7] },
            shop: { saw: null, planer: 4 },
            rack: [null],
            species: [{}, 1],
          },
          file.version as number,
        ),
      ).not.toThrow();
    }
  });
});
