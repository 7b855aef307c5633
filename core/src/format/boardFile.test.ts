import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NOTHING_WORKED, UNDRAWN, type Feature } from '../features/feature.ts';
import { panelFacts, planInputArbitrary } from '../plan/planArbitrary.ts';
import { readBoardFile, writeBoardFile, BOARD_FILE_VERSION } from './boardFile.ts';
import { stripsOf } from '../board/recipe.ts';

const GROOVE: Feature = {
  kind: 'groove',
  id: 'g',
  face: 'top',
  offset: 25,
  bit: 12.7,
  depth: 8,
  corner: 20,
  wells: 1,
  spout: null,
  fall: 0,
};

describe('board files', () => {
  it('come back identical', () => {
    fc.assert(
      fc.property(planInputArbitrary, fc.string({ maxLength: 100 }), ({ board, rack, shop, species }, noise) => {
        const name = `Board ${noise.replace(/[\u0000-\u001f\u007f]/g, '')} <b>&"'`.trim().slice(0, 120).trim();
        const text = writeBoardFile({
          board: { ...board, name },
          facts: panelFacts(512.5),
          rack: [...rack],
          shop,
          species: [...species],
        });
        const read = readBoardFile(text);
        expect(read).toMatchObject({ ok: true });
        if (read.ok) expect(writeBoardFile(read.file)).toBe(text);
      }),
      { numRuns: 60 },
    );
  });

  const sample = fc.sample(
    planInputArbitrary.filter((i) => stripsOf(i.board).length > 3 && i.rack.length > 1),
    { numRuns: 1, seed: 7 },
  )[0]!;
  const good = writeBoardFile({
    board: sample.board,
    facts: [],
    rack: [...sample.rack],
    shop: sample.shop,
    species: [...sample.species],
  });
  const operations = sample.board.recipe.length;
  const changed = (
    change: (
      file: Record<string, never> & {
        board: { recipe: Record<string, unknown>[] } & Record<string, unknown>;
        rack: Record<string, unknown>[];
      },
    ) => void,
  ) => {
    const file = JSON.parse(good) as Parameters<typeof change>[0];
    change(file);
    return JSON.stringify(file);
  };

  /** The strips of a file as versions before the recipe had them. */
  const oldStrips = (f: { board: { recipe: Record<string, unknown>[] } }) =>
    f.board.recipe.slice(0, -1).map(({ kind: _, ...s }) => s);

  it('of version 5 comes up with nothing worked into it, and the habits that go with that', () => {
    const old = changed((f) => {
      const { worked: _, recipe: _r, ...board }: Record<string, unknown> = { ...f.board, strips: oldStrips(f) };
      const shop = f.shop as unknown as { habits: Record<string, unknown>; schools: Record<string, unknown> };
      const { leaveBeneath: _b, leaveBeside: _s, ...habits } = shop.habits;
      const { grooveOrder: _g, engraving: _e, endGrain: _n, ...schools } = shop.schools;
      Object.assign(f, { version: 5, board, shop: { ...shop, habits, schools } });
    });
    const read = readBoardFile(old);
    expect(read).toMatchObject({
      ok: true,
      file: {
        version: BOARD_FILE_VERSION,
        board: { worked: NOTHING_WORKED },
        shop: {
          habits: { leaveBeneath: 10, leaveBeside: 6 },
          schools: { engraving: 'beforeGrain', endGrain: 'never' },
        },
      },
    });
  });

  it('of version 6 comes up: who turned a strip chose its side, a stop that was gone on with was so everywhere, grits are chosen', () => {
    const old = changed((f) => {
      const { recipe: _r, ...board } = f.board;
      const strips = oldStrips(f).map(({ sideKept: _, ...s }: Record<string, unknown>, i) => ({
        ...s,
        turned: i === 1,
      }));
      const { grits: _g, ...shop } = f.shop as unknown as Record<string, unknown>;
      Object.assign(f, {
        version: 6,
        shop,
        board: {
          ...board,
          strips,
          versions: [{ id: 'v', name: 'Other', construction: 'edge', length: 300, width: 200, thickness: 30, strips }],
          accepted: [{ rule: 'no-clamps', note: 'Wedges' }],
        },
      });
    });
    const read = readBoardFile(old);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(
      stripsOf(read.file.board)
        .slice(0, 2)
        .map((s) => s.sideKept),
    ).toEqual([false, true]);
    expect(stripsOf(read.file.board.versions[0]!)[1]!.sideKept).toBe(true);
    expect([read.file.board.accepted, read.file.shop.grits]).toEqual([
      [{ rule: 'no-clamps', strips: null, part: null, note: 'Wedges' }],
      null,
    ]);
  });

  it('may begin with a byte-order mark', () => {
    expect(readBoardFile(`\uFEFF${good}`).ok).toBe(true);
  });

  it.each<[string, string, string, RegExp]>([
    ['cut in half', good.slice(0, good.length / 2), '', /not complete JSON/],
    ['empty', '  ', '', /empty/],
    ['something else', '{"format":"other"}', 'format', /not a Cadenza board file/],
    ['an array', '[1,2]', 'format', /not a Cadenza board file/],
    [
      'a newer version',
      changed((f) => Object.assign(f, { version: BOARD_FILE_VERSION + 1 })),
      'version',
      new RegExp(`Version ${BOARD_FILE_VERSION + 1} is newer`),
    ],
    ['no version', changed((f) => Object.assign(f, { version: 'one' })), 'version', /whole number/],
    [
      'a negative width',
      changed((f) => {
        f.board.recipe[2]!.width = -4;
      }),
      'board.recipe[2].width',
      /Board, strip 3, width must be at least/,
    ],
    [
      'an absurd length',
      changed((f) => {
        f.board.length = 9_999_000;
      }),
      'board.length',
      /length must be at most 3000 mm/,
    ],
    [
      'no number',
      changed((f) => {
        f.board.thickness = '30';
      }),
      'board.thickness',
      /thickness must be a length/,
    ],
    [
      'half a board',
      changed((f) => {
        f.board.count = 1.5;
      }),
      'board.count',
      /count must be a whole number/,
    ],
    [
      'a name too long',
      changed((f) => {
        f.board.name = 'x'.repeat(10_000);
      }),
      'board.name',
      /name must be at most 120 characters/,
    ],
    [
      'an empty name',
      changed((f) => {
        f.board.name = '   ';
      }),
      'board.name',
      /name must not be empty/,
    ],
    [
      '500 strips',
      changed((f) => {
        f.board.recipe = Array.from({ length: 500 }, (_, i) => ({ ...f.board.recipe[0], id: `x${i}` }));
      }),
      'board.recipe',
      /at most 200 strips/,
    ],
    [
      'twin ids',
      changed((f) => {
        f.board.recipe[1]!.id = f.board.recipe[0]!.id;
      }),
      'board.recipe[1].id',
      /Board, operation 2, id must be an id of its own/,
    ],
    [
      'a strip that is glued twice',
      changed((f) => {
        (f.board.recipe.at(-1)!.takes as unknown[])[1] = f.board.recipe[0]!.id;
      }),
      `board.recipe[${operations - 1}].takes[1]`,
      /operation \d+, take 2 must not take .* twice/,
    ],
    [
      'a strip that nobody glues',
      changed((f) => {
        (f.board.recipe.at(-1)!.takes as unknown[]).pop();
      }),
      `board.recipe[${operations - 1}].takes`,
      /operation \d+, takes must take everything; .* is left over/,
    ],
    [
      'a thing that is made later',
      changed((f) => {
        f.board.recipe.reverse();
      }),
      'board.recipe[0].takes[0]',
      /must name something made before/,
    ],
    [
      'strips without a glue-up',
      changed((f) => {
        f.board.recipe.pop();
      }),
      `board.recipe[${operations - 2}]`,
      /must be a glue-up/,
    ],
    [
      'an unknown species',
      changed((f) => {
        f.board.recipe[0]!.species = 'plywood';
      }),
      'board.recipe[0].species',
      /must be one of the file's species/,
    ],
    [
      'a groove of no depth',
      changed((f) => {
        f.board.worked = { ...NOTHING_WORKED, features: [{ ...GROOVE, depth: 0 }] };
      }),
      'board.worked.features[0].depth',
      /worked, feature 1, depth must be at least 0.5 mm/,
    ],
    [
      'a feature nobody knows',
      changed((f) => {
        f.board.worked = { ...NOTHING_WORKED, features: [{ kind: 'hinge', id: 'x' }] };
      }),
      'board.worked.features[0].kind',
      /must be one of groove, finger/,
    ],
    [
      'a drawing with more than lines',
      changed((f) => {
        f.board.worked = {
          ...NOTHING_WORKED,
          features: [
            {
              kind: 'mark',
              id: 'm',
              face: 'top',
              name: 'x',
              method: 'laser',
              x: 1,
              y: 1,
              length: 5,
              width: 5,
              depth: 1,
              ...UNDRAWN,
              art: { name: 'a', length: 10, width: 10, d: 'M0 0" onload="x' },
            },
          ],
        };
      }),
      'board.worked.features[0].art.d',
      /must be a path of M, L, C and Z/,
    ],
    [
      'an unknown field',
      changed((f) => {
        f.rack[1]!.colour = 'red';
      }),
      'rack[1]',
      /unknown field "colour"/,
    ],
  ])('%s is refused with the field and a sentence', (_, text, path, sentence) => {
    const read = readBoardFile(text);
    expect(read.ok).toBe(false);
    if (read.ok) return;
    expect(read.problems[0]!.path).toBe(path);
    expect(read.problems[0]!.message).toMatch(sentence);
  });
});
