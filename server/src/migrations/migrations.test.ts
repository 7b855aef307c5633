import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { fillFrom } from '../backup/fillForTests.ts';
import { withConnection } from '../backup/scratch.ts';
import { newDatabase } from '../../../bin/mariadb/testDatabase.ts';
import { BOARD_FILE_VERSION } from '#core/format/boardFile.ts';
import { asLook } from '#core/board/looks.ts';
import { backedBoard, framedBoard, insetBoard, stackedBoard } from '#core/board/recutForTests.ts';
import { plainBoard } from '#core/plan/planArbitrary.ts';
import { serveApi } from '../apiForTests.ts';
import { openDatabase } from '../stores/database.ts';
import { inspectStore } from '../backup/inspectStore.ts';
import { openStore } from '../stores/openStore.ts';
import { migrations } from './index.ts';

const here = import.meta.dirname;
const MANY = 10_000;
const fresh = (name: string) => newDatabase(process.env.TEST_DATABASE_URL!, name);

describe('databases of every earlier state of the code, made and used by it', () => {
  const dumps = readdirSync(join(here, 'earlier'));

  it('there is one for each commit that changed a migration', () => {
    expect(dumps.length).toBeGreaterThanOrEqual(10);
  });

  it.each(dumps)(
    '%s comes up whole, and every part of the API reads and writes it',
    async (file) => {
      const url = await fresh(`earlier_${file.slice(4, 11)}`);
      const sql = gunzipSync(readFileSync(join(here, 'earlier', file))).toString('utf8');
      await fillFrom(url, sql);
      const rows = (table: string) => (sql.match(new RegExp(`^INSERT INTO \`${table}\``, 'gm')) ?? []).length;
      const contents = await inspectStore(url);
      expect(contents.unreadable).toEqual([]);
      expect([contents.holds.boards, contents.holds.revisions, contents.holds.cuttings, contents.holds.plans]).toEqual(
        ['boards', 'revisions', 'cuttings', 'cut_plans'].map((t) =>
          Math.max(rows(t), sql.includes('INSERT') ? countValues(sql, t) : 0),
        ),
      );

      const api = await serveApi(url);
      const boards = await api.list<{ id: string; revision: number; board: object }>('/boards');
      for (const { id } of boards) expect((await api.call('GET', `/boards/${id}/file`)).status).toBe(200);
      for (const { id } of boards) {
        const { body } = await api.call('GET', `/boards/${id}`);
        expect(
          (
            await api.call('PUT', `/boards/${id}`, {
              basedOn: body.revision,
              board: { ...body.board, use: 'Still in use' },
            })
          ).status,
        ).toBe(200);
      }
      const book = (await api.call('GET', `/saw?boards=${boards.map((b) => b.id).join(',')}`)).body;
      expect(book.promises.every((p: { boards: string[] }) => p.boards.length > 0)).toBe(true);
      for (const { id, version, record } of book.cuttings) {
        const { board, stripId, copy, spare } = record.blanks[0].strips[0].demand;
        expect(
          (await api.call('POST', `/saw/cuttings/${id}/fail`, { version, failed: [{ board, stripId, copy, spare }] }))
            .status,
        ).toBe(200);
        expect((await api.call('POST', `/saw/cuttings/${id}/undo`)).status).toBe(200);
      }
      for (const { id } of boards) expect((await api.call('POST', '/saw/release', { boards: [id] })).status).toBe(200);
      await api.close();
    },
    60_000,
  );
});

/** Rows that a dump inserts into a table, many in one statement. */
function countValues(sql: string, table: string): number {
  const statement =
    new RegExp(`^INSERT INTO \`${table}\` VALUES$\\n([\\s\\S]*?);$`, 'm').exec(sql)?.[1] ??
    new RegExp(`^INSERT INTO \`${table}\` VALUES (.*);$`, 'm').exec(sql)?.[1] ??
    '';
  return statement === '' ? 0 : statement.split(/\),\n?\(/).length;
}

it('no migration that has landed was edited since: databases made by its older form would not come up', () => {
  const landed = JSON.parse(readFileSync(join(here, 'checksums.json'), 'utf8')) as Record<string, string>;
  const now = Object.fromEntries(
    Object.keys(migrations).map((name) => [
      name,
      createHash('sha256')
        .update(readFileSync(join(here, `${name}.ts`)))
        .digest('hex'),
    ]),
  );
  expect(now).toEqual(landed);
});

describe('a database that is not as it should be is refused in one sentence, and left as it is', () => {
  const openAndFail = async (url: string) => {
    const db = openDatabase(url);
    const error = await openStore(db).then(
      () => null,
      (e: Error) => e,
    );
    await db.destroy();
    return error;
  };

  it('of a newer Cadenza', async () => {
    const url = await fresh('newer');
    const db = openDatabase(url);
    await openStore(db);
    await db('knex_migrations').insert({ name: '999-far-ahead', batch: 9, migration_time: new Date() });
    await db.destroy();
    expect(await openAndFail(url)).toMatchObject({
      name: 'StoreError',
      message: expect.stringMatching(
        /^The database was made by a newer Cadenza \(999-far-ahead\)\. Update this one/,
      ) as string,
    });
  });

  it('with a table missing', async () => {
    const url = await fresh('missing');
    const db = openDatabase(url);
    await openStore(db);
    await db.schema.dropTable('promises');
    await db.destroy();
    expect(await openAndFail(url)).toMatchObject({
      name: 'StoreError',
      message: "The database lacks Cadenza's table promises. Restore a backup; nothing was changed.",
    });
  });

  it('with tables of our names that nobody says we made: nothing of them is dropped', async () => {
    const url = await fresh('same_names');
    await withConnection(url, async (c) => {
      await c.query('create table boards (id int, what text)');
      await c.query("insert into boards values (1, 'a ski')");
    });
    expect(await openAndFail(url)).toMatchObject({
      name: 'StoreError',
      message: expect.stringMatching(/holds a table boards with rows in it/) as string,
    });
    const db = openDatabase(url);
    expect(await db('boards').select()).toEqual([{ id: 1, what: 'a ski' }]);
    await db.destroy();
  });

  it('with a table of another make', async () => {
    const url = await fresh('other_make');
    const db = openDatabase(url);
    await openStore(db);
    await db('knex_migrations').where({ name: '007-exact' }).delete();
    await db.schema
      .dropTable('cut_plans')
      .catch(() => db.raw('set foreign_key_checks = 0').then(() => db.schema.dropTable('cut_plans')));
    await db.destroy();
    expect(await openAndFail(url)).toMatchObject({
      name: 'StoreError',
      message: expect.stringMatching(
        /^The tables in the database are not as Cadenza made them \(.*cut_plans.*\)\. Restore a backup/,
      ) as string,
    });
  });
});

it('the step to version 7 goes back whole and forward again: what an older Cadenza does not know is gone in between', async () => {
  const url = await fresh('back_and_forth');
  await fillFrom(url, gunzipSync(readFileSync(join(here, 'earlier', '006-c1b4989.sql.gz'))));
  await inspectStore(url);
  const api = await serveApi(url);
  const [board] = await api.list<{ id: string; revision: number; board: object }>('/boards');
  const accepted = [{ rule: 'no-clamps', strips: [], part: '', note: 'Wedges' }];
  expect(
    (await api.call('PUT', `/boards/${board!.id}`, { basedOn: board!.revision, board: { ...board!.board, accepted } }))
      .status,
  ).toBe(200);
  await api.close();

  const db = openDatabase(url);
  const document = (row: { document: unknown } | undefined) =>
    JSON.parse(String(row!.document)) as { strips: object[]; accepted: object[] };
  const newest = async () =>
    document(
      await db('revisions').where({ board_id: board!.id }).orderBy('number', 'desc').first<{ document: unknown }>(),
    );
  const hasGrits = async () => 'grits' in document(await db('shops').first<{ document: unknown }>());
  await migrations['010-facts']!.down!(db);
  await migrations['009-recipe']!.down!(db);
  await migrations['008-followed']!.down!(db);
  const before = await newest();
  expect([before.strips.some((s) => 'sideKept' in s), before.accepted, await hasGrits()]).toEqual([
    false,
    [{ rule: 'no-clamps', note: 'Wedges' }],
    false,
  ]);
  await migrations['008-followed']!.up(db);
  const after = await newest();
  expect([after.strips.every((s) => 'sideKept' in s), after.accepted, await hasGrits()]).toEqual([
    true,
    [{ rule: 'no-clamps', strips: null, note: 'Wedges' }],
    true,
  ]);
  // The recipe of the step after it is made of the same strips again.
  await migrations['009-recipe']!.up(db);
  await migrations['010-facts']!.up(db);
  const { recipe } = (await newest()) as unknown as { recipe: { kind: string; id: string; takes: string[] }[] };
  expect(recipe.at(-1)).toMatchObject({ kind: 'glue', takes: after.strips.map((s) => (s as { id: string }).id) });
  expect(recipe.slice(0, -1)).toEqual(after.strips.map((s) => ({ kind: 'strip', ...s })));
  await db.destroy();
}, 60_000);

it('what happened leaves the wishes: the newest revision says it, once, however often the step is run, and it goes the whole way back', async () => {
  const url = await fresh('facts_step');
  await fillFrom(url, gunzipSync(readFileSync(join(here, 'earlier', '009-0304bab.sql.gz'))));
  const db = openDatabase(url);
  type Wished = { worked: { gluedLength?: number | null; spots?: object[] } };
  const worked = async () =>
    (
      await db('revisions')
        .orderBy(['board_id', 'number'])
        .select<{ board_id: string; document: string }[]>('board_id', 'document')
    ).map((row) => [row.board_id, (JSON.parse(String(row.document)) as Wished).worked] as const);
  const before = await worked();
  expect(before.some(([, w]) => w.gluedLength === 612.5 && w.spots!.length === 2)).toBe(true);
  await openStore(db);
  const after = await worked();
  for (const [, w] of after) expect('gluedLength' in w || 'spots' in w).toBe(false);
  const facts = async () =>
    (await db('facts').orderBy(['board_id', 'place']).select<{ board_id: string; document: string }[]>()).map(
      (row) =>
        [
          row.board_id,
          JSON.parse(String(row.document)) as { kind: string; value?: number; spot?: { id: string } },
        ] as const,
    );
  const told = await facts();
  // Of two bad places one was taken off the list before: only what the newest revision still had is a fact.
  expect(told.map(([, f]) => f.value ?? f.spot!.id).sort()).toEqual([612.5, 700, 'spot2'].sort());
  await migrations['010-facts']!.up(db);
  expect(await facts()).toEqual(told);
  const counted = await db('boards').orderBy('id').select<{ id: string; facts: number }[]>('id', 'facts');
  for (const { id, facts: n } of counted) expect([id, n]).toEqual([id, told.filter(([b]) => b === id).length]);
  await migrations['010-facts']!.down!(db);
  const newest = new Map(before);
  for (const [id, w] of new Map(await worked())) expect(w).toEqual(newest.get(id));
  await db.destroy();
}, 60_000);

it('boards that are cut again go down to their first panel and come up as that; every shop, in use or aside, knows end grain or does not', async () => {
  const url = await fresh('recut_step');
  await fillFrom(url, gunzipSync(readFileSync(join(here, 'earlier', '011-dcb616d.sql.gz'))));
  const db = openDatabase(url);
  await openStore(db);
  const api = await serveApi(url);
  const { body } = await api.call('POST', '/boards', asLook(plainBoard({}, [40, 40, 40, 40]), 'endGrain'));
  await api.close();
  const read = <T>(value: unknown) => (typeof value === 'string' ? JSON.parse(value) : value) as T;
  type Stored = { recipe: { kind: string; runs?: string }[]; differs: { habits: object } };
  const board = async () =>
    read<Stored>((await db('revisions').where({ board_id: body.id }).first<{ document: unknown }>()).document);
  const shops = async () =>
    (await Promise.all(['shops', 'shops_aside'].map((table) => db(table).select<{ document: unknown }[]>('document'))))
      .flat()
      .map((row) => 'endGrainFlatten' in read<{ habits: object }>(row.document).habits);
  const kinds = async () => (await board()).recipe.map((o) => o.kind).filter((k) => k !== 'strip');
  expect([await kinds(), await shops()]).toEqual([
    ['glue', 'slice', 'turn', 'turn', 'glue'],
    [true, true],
  ]);
  await migrations['012-recut']!.down!(db);
  expect([await kinds(), await shops()]).toEqual([['glue'], [false, false]]);
  expect((await board()).recipe.every((o) => o.runs === undefined)).toBe(true);
  // A first run that was killed leaves nothing that a second one trips over.
  for (let run = 0; run < 2; run += 1) await migrations['012-recut']!.up(db);
  expect([await kinds(), await shops()]).toEqual([['glue'], [true, true]]);
  expect(await inspectStore(url)).toMatchObject({ unreadable: [] });
  await db.destroy();
}, 60_000);

it('boards with strips put in go down to the panel as it was before, and come up as that', async () => {
  const url = await fresh('insert_step');
  await fillFrom(url, gunzipSync(readFileSync(join(here, 'earlier', '012-dcc213c.sql.gz'))));
  const db = openDatabase(url);
  await openStore(db);
  const api = await serveApi(url);
  const put = insetBoard(plainBoard({}, [40, 40, 40]), [
    { species: 'maple-hard', width: 12, at: 150, angle: 20, jog: 5 },
    { species: 'maple-hard', width: 12, at: 250, angle: 20, jog: -5 },
  ]);
  const { body } = await api.call('POST', '/boards', put);
  const flat = (await api.call('POST', '/boards', plainBoard({}, [40, 40, 40]))).body;
  await api.close();
  const recipeOf = async (id: string) => {
    const row = await db('revisions').where({ board_id: id }).first<{ document: unknown }>();
    const document = typeof row.document === 'string' ? (JSON.parse(row.document) as unknown) : row.document;
    return (document as { recipe: { kind: string; id: string }[] }).recipe;
  };
  expect((await recipeOf(body.id as string)).filter((o) => o.kind === 'insert')).toHaveLength(2);
  await migrations['013-insert']!.down!(db);
  const left = await recipeOf(body.id as string);
  expect(left.map((o) => o.kind)).toEqual(['strip', 'strip', 'strip', 'glue']);
  expect(left.map((o) => o.id)).toEqual(['s1', 's2', 's3', 'panel']);
  expect(await recipeOf(flat.id as string)).toEqual(flat.board.recipe);
  // A first run that was killed leaves nothing that a second one trips over.
  await migrations['013-insert']!.up(db);
  await migrations['013-insert']!.up(db);
  expect(await recipeOf(body.id as string)).toEqual(left);
  expect(await inspectStore(url)).toMatchObject({ unreadable: [] });
  await db.destroy();
}, 60_000);

it('framed boards go down without their frames, and come up as that', async () => {
  const url = await fresh('frame_step');
  await fillFrom(url, gunzipSync(readFileSync(join(here, 'earlier', '013-bd721e2.sql.gz'))));
  const db = openDatabase(url);
  await openStore(db);
  expect(await inspectStore(url)).toMatchObject({ unreadable: [] });
  const api = await serveApi(url);
  const ring = {
    species: 'maple-hard',
    widths: [12, 12, 12, 12] as [number, number, number, number],
    first: 'sides' as const,
  };
  const inner = insetBoard(plainBoard({}, [40, 40, 40]), [
    { species: 'maple-hard', width: 12, at: 150, angle: 20, jog: 5 },
  ]);
  const { body } = await api.call('POST', '/boards', {
    ...backedBoard(framedBoard(inner, [ring, ring]), {
      strips: [{ species: 'maple-hard', width: 60 }],
      runs: 'along',
      thickness: 6,
    }),
    versions: [
      {
        id: 'v',
        name: 'Other',
        construction: 'edge',
        length: 300,
        width: 100,
        thickness: 20,
        recipe: framedBoard(plainBoard({}, [40, 40]), [ring]).recipe,
      },
    ],
  });
  await api.close();
  const stored = async () => {
    const row = await db('revisions')
      .where({ board_id: body.id as string })
      .first<{ document: unknown }>();
    const document = typeof row.document === 'string' ? (JSON.parse(row.document) as unknown) : row.document;
    return document as { recipe: { kind: string; id: string }[]; versions: { recipe: { kind: string }[] }[] };
  };
  expect((await stored()).recipe.filter((o) => o.kind === 'frame')).toHaveLength(2);
  await migrations['014-frame']!.down!(db);
  const left = await stored();
  expect(left.recipe).toEqual(inner.recipe);
  expect(left.versions[0]!.recipe.map((o) => o.kind)).toEqual(['strip', 'strip', 'glue']);
  // A first run that was killed leaves nothing that a second one trips over.
  for (let run = 0; run < 2; run += 1) await migrations['014-frame']!.up(db);
  expect((await stored()).recipe).toEqual(inner.recipe);
  expect(await inspectStore(url)).toMatchObject({ unreadable: [] });
  await db.destroy();
}, 60_000);

it('accents of bits go down as plain strips of their first wood, and come up as that', async () => {
  const url = await fresh('stack_step');
  await fillFrom(url, gunzipSync(readFileSync(join(here, 'earlier', '014-9531214.sql.gz'))));
  const db = openDatabase(url);
  await openStore(db);
  expect(await inspectStore(url)).toMatchObject({ unreadable: [] });
  const strips = (id: string) =>
    db('revisions')
      .where({ board_id: id })
      .first<{ document: unknown }>()
      .then((row) => (typeof row.document === 'string' ? (JSON.parse(row.document) as unknown) : row.document))
      .then((document) => (document as { recipe: Record<string, unknown>[] }).recipe);
  // What was stored before has no accents, and says so.
  const [{ board_id: old }] = (await db('revisions').select('board_id').limit(1)) as [{ board_id: string }];
  expect((await strips(old)).filter((o) => o.kind === 'strip' && o.stack !== null)).toEqual([]);
  const api = await serveApi(url);
  const stacked = stackedBoard(plainBoard({}, [40, 40, 40]), [
    {
      bits: [
        { species: 'walnut-black', length: 30 },
        { species: 'maple-hard', length: 20 },
      ],
      depth: 20,
      accents: [{ at: 1, width: 3 }],
    },
  ]);
  const { body } = await api.call('POST', '/boards', stacked);
  await api.close();
  await migrations['015-stack']!.down!(db);
  const left = await strips(body.id as string);
  expect(left.map((o) => o.kind)).toEqual(['strip', 'strip', 'strip', 'strip', 'glue']);
  expect(left.filter((o) => 'stack' in o)).toEqual([]);
  expect(left.find((o) => o.id === 'accent-1-1')).toMatchObject({ species: 'walnut-black', width: 3 });
  // A first run that was killed leaves nothing that a second one trips over.
  for (let run = 0; run < 2; run += 1) await migrations['015-stack']!.up(db);
  expect((await strips(body.id as string)).filter((o) => o.kind === 'strip').map((o) => o.stack)).toEqual(
    Array(4).fill(null),
  );
  expect(await inspectStore(url)).toMatchObject({ unreadable: [] });
  await db.destroy();
}, 60_000);

it('what an older Cadenza cannot say of the bench goes down as what it can, the log and pictures go; and all comes up again', async () => {
  const url = await fresh('bench_step');
  await fillFrom(url, gunzipSync(readFileSync(join(here, 'earlier', '015-119efb5.sql.gz'))));
  const db = openDatabase(url);
  await openStore(db);
  expect(await inspectStore(url)).toMatchObject({ unreadable: [] });
  const api = await serveApi(url);
  const { id } = (await api.call('POST', '/boards', plainBoard())).body as { id: string };
  const at = '2026-11-27T08:00:00.000Z';
  const about = { at, thing: 'panel', copy: 1 };
  const facts = [
    {
      kind: 'measured',
      id: 'long',
      ...about,
      step: 'glue',
      device: 'd',
      stage: 'glued',
      dimension: 'length',
      value: 612,
    },
    { kind: 'measured', id: 'thick', ...about, stage: 'flat', dimension: 'thickness', value: 28.3 },
    { kind: 'done', id: 'done', at, step: 'glue', copy: 1, minutes: 3 },
    { kind: 'note', id: 'note', at, text: 'x' },
  ];
  expect((await api.call('POST', `/boards/${id}/facts`, { facts })).status).toBe(200);
  await api.close();
  const left = () => db('facts').where({ board_id: id }).pluck<string[]>('document');
  await migrations['018-readings']!.down!(db);
  await migrations['017-log']!.down!(db);
  await migrations['016-bench']!.down!(db);
  expect((await left()).map((d) => JSON.parse(String(d)) as unknown)).toEqual([
    { kind: 'measured', id: 'long', ...about, dimension: 'length', value: 612 },
  ]);
  expect(await db('boards').where({ id }).first('facts')).toEqual({ facts: 1 });
  for (const table of ['pictures', 'log_entries', 'readings'])
    expect([table, await db.schema.hasTable(table)]).toEqual([table, false]);
  // A first run that was killed leaves nothing that a second one trips over.
  for (let run = 0; run < 2; run += 1) {
    await migrations['016-bench']!.up(db);
    await migrations['017-log']!.up(db);
    await migrations['018-readings']!.up(db);
  }
  expect(await inspectStore(url)).toMatchObject({ unreadable: [], holds: { facts: 1 } });
  await db.destroy();
}, 60_000);

// From before the recipe: the steps until there are sealed, and were gone through so when they landed.
it('ten thousand revisions come up some hundred at a time: no table is ever in memory whole', async () => {
  const url = await fresh('many');
  await fillFrom(url, gunzipSync(readFileSync(join(here, 'earlier', '008-2cd7ac5.sql.gz'))));
  await withConnection(url, async (c) => {
    await c.query('set session max_recursive_iterations = 20000');
    await c.query(
      `insert into revisions (board_id, number, format_version, document, made_at)
    with recursive more as (select 2 as n union all select n + 1 from more where n < ${MANY}) select board_id, n + 1000, format_version, document, made_at from (select * from revisions limit 1) one, more`,
    );
  });
  const db = openDatabase(url);
  const most = new Map<string, number>();
  db.on('query-response', (rows: unknown, { sql }: { sql: string }) => {
    const table = /from `(\w+)`/.exec(sql)?.[1];
    if (table && /^select/.test(sql) && /document/.test(sql) && Array.isArray(rows))
      most.set(table, Math.max(most.get(table) ?? 0, rows.length));
  });
  await openStore(db);
  expect(most.get('revisions')).toBeGreaterThan(100);
  for (const [table, rows] of most) expect([table, rows <= 200]).toEqual([table, true]);
  const [{ n }] = (await db('revisions')
    .where({ format_version: BOARD_FILE_VERSION })
    .whereRaw('document like \'%"takes":%\' and document like \'%"runs":"along"%\'')
    .count<{ n: number }[]>({ n: '*' })) as [{ n: number }];
  expect(n).toBeGreaterThanOrEqual(MANY);
  await db.destroy();
}, 120_000);
