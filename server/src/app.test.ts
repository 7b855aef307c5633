import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Board } from '#core/board/board.ts';
import { BOARD_FILE_VERSION, readBoardFile } from '#core/format/boardFile.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { newDatabase } from '../../bin/mariadb/testDatabase.ts';
import { apiForTests, serveApi, type TestApi } from './apiForTests.ts';
import { seedDemo } from './demo/seed.ts';
import { startServer } from './serve.ts';
import { openDatabase } from './stores/database.ts';

let api: TestApi;
let db: Knex;
let call: TestApi['call'];
let base: string;

const { id: _id, ...fields } = plainPiece();

beforeAll(async () => {
  api = await apiForTests('api');
  ({ db, call, base } = api);
});
afterAll(() => api.close());

describe('species', () => {
  it('added by hand are changed knowing how they were; those of the books, and unknown ones, are not', async () => {
    const own = { ...HANDBOOK_SPECIES[0]!, code: 'hut-larch', name: 'Hut larch', source: 'by hand' };
    await call('POST', '/species', own);
    const heavier = { ...own, density: 612, radial: null };
    const put = (before: object, species: typeof own, code = species.code) =>
      call('PUT', `/species/${code}`, { before, species });
    const { status, body } = await put(own, heavier);
    expect([status, (body as { code: string }[]).find((s) => s.code === 'hut-larch')]).toEqual([200, heavier]);
    // Somebody who still sees it as it was is shown how it is.
    expect(await put(own, { ...own, density: 500 })).toMatchObject({
      status: 409,
      body: { code: 'stale', current: heavier },
    });
    expect(await put(heavier, own, 'pear')).toMatchObject({
      status: 409,
      body: { code: 'another-species' },
    });
    expect(await put({ ...own, code: 'elf-wood' }, { ...own, code: 'elf-wood' })).toMatchObject({ status: 404 });
    // Two of one name could not be told apart, whatever their letters.
    const twin = { ...own, code: 'hut-larch-2', name: ' hut LARCH' };
    expect(await call('POST', '/species', twin)).toMatchObject({
      status: 409,
      body: { code: 'name-taken', fields: [{ path: 'species.name' }] },
    });
    await call('POST', '/species', { ...twin, name: 'Hut pine' });
    expect(await put({ ...twin, name: 'Hut pine' }, { ...twin, name: 'Hut Larch' })).toMatchObject({
      status: 409,
      body: { code: 'name-taken' },
    });
    expect((await call('POST', '/species', heavier)).status).toBe(201);
    const [book] = HANDBOOK_SPECIES;
    expect(await put(book!, { ...book!, density: 500 })).toMatchObject({ status: 409, body: { code: 'from-books' } });
  });
});

describe('boards', () => {
  it('are saved as revisions, each based on the one before; a stale write is refused with what is stored', async () => {
    const made = await call('POST', '/boards', plainBoard());
    expect([made.status, made.body.revision]).toEqual([201, 1]);
    const path = `/boards/${made.body.id}`;
    const mine: Board = plainBoard({ name: 'Mine' });
    expect((await call('PUT', path, { basedOn: 1, board: mine })).body.revision).toBe(2);
    const stale = await call('PUT', path, { basedOn: 1, board: plainBoard({ name: 'Theirs' }) });
    expect(stale).toMatchObject({
      status: 409,
      type: expect.stringContaining('application/problem+json') as string,
      body: { code: 'stale', current: { revision: 2, board: { name: 'Mine' } } },
    });
    // The answer got lost and the same save comes again: no conflict, no new revision.
    expect((await call('PUT', path, { basedOn: 1, board: mine })).body.revision).toBe(2);
    const rows = await db<{ number: number; board_id: string }>('revisions')
      .where('board_id', made.body.id)
      .select('number');
    expect(rows.map((r) => r.number)).toEqual([1, 2]);
  });

  it('keep every step with where undo and redo lead, and revisions can be named, listed and read', async () => {
    const { body } = await call('POST', '/boards', plainBoard());
    const path = `/boards/${body.id}`;
    const step = (name: string, undo: number | null, redo: number | null) => ({
      board: plainBoard({ name }),
      undo,
      redo,
    });
    const saved = await call('PUT', path, {
      basedOn: 1,
      steps: [step('A', 1, null), step('B', 2, null), step('A', 1, 3)],
    });
    expect(saved.body).toMatchObject({ revision: 4, undo: 1, redo: 3, board: { name: 'A' } });
    expect((await call('GET', `${path}/revisions/3`)).body).toMatchObject({
      number: 3,
      undo: 2,
      redo: null,
      name: '',
      board: { name: 'B' },
    });
    expect((await call('PUT', `${path}/revisions/3/name`, { name: 'The one' })).body.name).toBe('The one');
    expect((await call('GET', `${path}/revisions?named=true`)).body.map((r: { number: number }) => r.number)).toEqual([
      3,
    ]);
    expect((await call('GET', `${path}/revisions?before=3`)).body.map((r: { number: number }) => r.number)).toEqual([
      2, 1,
    ]);
    for (const [bad, words] of [
      [{ basedOn: 4, steps: [step('C', 5, null)] }, 'undo must lead to a revision before it'],
      [{ basedOn: 4, steps: [] }, 'at least one step'],
      [
        { basedOn: 4, steps: [{ ...step('C', 4, null), board: { ...plainBoard(), length: 1 } }] },
        'length must be at least',
      ],
    ] as const) {
      const refused = await call('PUT', path, bad);
      expect([refused.status, refused.body.detail]).toEqual([400, expect.stringContaining(words) as string]);
    }
    expect((await call('GET', `${path}/revisions?before=x`)).status).toBe(400);
    expect((await call('GET', `${path}/revisions/99`)).status).toBe(404);
    expect((await call('PUT', `${path}/revisions/3/name`, { name: 'x'.repeat(81) })).status).toBe(400);
  });

  it('of twenty saves at once on one revision exactly one wins', async () => {
    const { body } = await call('POST', '/boards', plainBoard());
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        call('PUT', `/boards/${body.id}`, { basedOn: 1, board: plainBoard({ name: `Writer ${i}` }) }),
      ),
    );
    expect(answers.filter((a) => a.status === 200)).toHaveLength(1);
    expect(answers.filter((a) => a.status === 409)).toHaveLength(19);
    const kept = await call('GET', `/boards/${body.id}`);
    expect(kept.body).toMatchObject({
      revision: 2,
      board: { name: answers.find((a) => a.status === 200)!.body.board.name as string },
    });
  });

  it('keep markup, quotes and scripts in a name as the text they are', async () => {
    const name = `<script>alert(1)</script> '; drop table boards; -- "µ 木`;
    const { body } = await call('POST', '/boards', plainBoard({ name }));
    expect((await call('GET', `/boards/${body.id}`)).body.board.name).toBe(name);
  });

  it('go away and come back', async () => {
    const { body } = await call('POST', '/boards', plainBoard({ name: 'Gone' }));
    expect((await call('POST', `/boards/${body.id}/remove`, { basedOn: 7 })).status).toBe(409);
    expect((await call('POST', `/boards/${body.id}/remove`, { basedOn: 1 })).status).toBe(204);
    expect((await call('GET', `/boards/${body.id}`)).status).toBe(404);
    expect((await call('POST', `/boards/${body.id}/restore`, {})).body.board.name).toBe('Gone');
  });

  it('go out to a file and come back identical, with the pieces when asked', async () => {
    await call('POST', '/rack', {
      ...fields,
      mark: 'F1',
      length: 1234.567891,
      price: { amount: 12.5, per: 'boardFoot' },
    });
    const { body } = await call(
      'POST',
      '/boards',
      plainBoard({ width: 260.35, recipe: plainBoard({}, [19.05, 1 / 3 + 20]).recipe }),
    );
    const text = await (await fetch(`${base}/boards/${body.id}/file`)).text();
    const read = readBoardFile(text);
    if (!read.ok) throw new Error(read.problems[0]?.message);

    const elsewhere = await apiForTests('elsewhere');
    const there = await elsewhere.call('POST', '/boards/import', { file: read.file, addPieces: true });
    expect(there.status).toBe(201);
    await elsewhere.call('PUT', '/shop', { version: 0, shop: read.file.shop });
    const back = await (await fetch(`${elsewhere.base}/boards/${there.body.id}/file`)).text();
    expect(back).toBe(text);
    await elsewhere.close();
  });
});

describe('rack', () => {
  it('adds, changes, removes and restores pieces by version, and guards marks and species', async () => {
    const added = await call('POST', '/rack', { ...fields, mark: 'Q1' });
    expect(added).toMatchObject({ status: 201, body: { version: 1, piece: { mark: 'Q1', length: 2000 } } });
    const path = `/rack/${added.body.piece.id}`;
    expect(
      (await call('PUT', path, { version: 1, piece: { ...fields, mark: 'Q1', length: 1 / 3 + 100 } })).body,
    ).toMatchObject({ version: 2, piece: { length: 100.333333 } });
    expect(await call('PUT', path, { version: 1, piece: { ...fields, mark: 'Q1' } })).toMatchObject({
      status: 409,
      body: { code: 'stale', current: { version: 2 } },
    });
    expect(await call('POST', '/rack', { ...fields, mark: 'Q1' })).toMatchObject({
      status: 409,
      body: { code: 'mark-taken', fields: [{ path: 'mark' }] },
    });
    // Marks are compared letter for letter: another case is another mark.
    expect((await call('POST', '/rack', { ...fields, mark: 'q1' })).status).toBe(201);
    expect(await call('POST', '/rack', { ...fields, mark: 'Q2', species: 'plywood' })).toMatchObject({
      status: 400,
      body: { fields: [{ path: 'species', message: 'Species "plywood" is not known.' }] },
    });
    expect((await call('POST', `${path}/remove`, { version: 2 })).status).toBe(200);
    expect((await call('PUT', path, { version: 3, piece: { ...fields, mark: 'Q1' } })).status).toBe(404);
    const twin = await call('POST', '/rack', { ...fields, mark: 'Q1' });
    expect(twin.status).toBe(201);
    expect(await call('POST', `${path}/restore`, { version: 3 })).toMatchObject({
      status: 409,
      body: { code: 'mark-taken' },
    });
    await call('POST', `/rack/${twin.body.piece.id}/remove`, { version: 1 });
    expect((await call('POST', `${path}/restore`, { version: 3 })).body.version).toBe(4);
  });

  it('the database itself refuses sizes and prices that make no sense', async () => {
    const row = {
      id: 'bad',
      mark: 'X',
      species: 'maple-hard',
      length: 10,
      width: 10,
      thickness: 10,
      surface: 'rough',
      rings: 'flat',
      note: '',
      version: 1,
      updated_at: new Date(),
    };
    await expect(db('pieces').insert({ ...row, length: -1 })).rejects.toThrow(/pieces_sizes_positive/);
    await expect(db('pieces').insert({ ...row, price_amount: 3 })).rejects.toThrow(/pieces_price_whole/);
    await expect(db('pieces').insert({ ...row, species: 'plywood' })).rejects.toThrow(/foreign key/i);
  });
});

describe('bad requests', () => {
  it.each<[string, string, string, unknown, number, RegExp]>([
    ['an empty name', 'POST', '/boards', plainBoard({ name: '' }), 400, /Name must not be empty/],
    [
      '10,000 characters',
      'POST',
      '/boards',
      plainBoard({ name: 'x'.repeat(10_000) }),
      400,
      /Name must be at most 120 characters/,
    ],
    ['zero', 'POST', '/boards', plainBoard({ length: 0 }), 400, /Length must be at least 50 mm/],
    ['9999 m', 'POST', '/rack', { ...fields, length: 9_999_000 }, 400, /Length must be at most 8000 mm/],
    [
      '500 strips',
      'POST',
      '/boards',
      plainBoard({}, Array<number>(500).fill(5)),
      400,
      /Recipe must be at most 200 strips with their stacks, glue-ups, slices, turns, inserts, frames and a back/,
    ],
    ['no body', 'POST', '/boards', undefined, 400, /must|valid/],
    ['half a character', 'POST', '/boards', `{"name":"\\ud800"}`, 400, /The text in name holds half of a character/],
    ['bytes that are no text', 'POST', '/boards', '{"name":"\\udfff"', 400, /not complete JSON/],
    ['null', 'POST', '/boards', 'null', 400, /valid/],
    ['half JSON', 'POST', '/boards', '{"name":', 400, /not complete JSON/],
    ['50 MB', 'POST', '/boards', `{"name":"${'x'.repeat(50_000_000)}"}`, 413, /larger than 10 MB/],
    ['an unknown board', 'GET', '/boards/nope', undefined, 404, /does not exist/],
    ['an unknown piece', 'PUT', '/rack/nope', { version: 1, piece: fields }, 404, /does not exist/],
    ['an unknown address', 'GET', '/nothing', undefined, 404, /does not exist/],
    [
      'a newer file',
      'POST',
      '/boards/import',
      { file: { format: 'cadenza-board', version: BOARD_FILE_VERSION + 1 }, addPieces: false },
      400,
      new RegExp(`Version ${BOARD_FILE_VERSION + 1} is newer`),
    ],
    ['no version', 'PUT', '/shop', { shop: {} }, 400, /Version it was based on|Version must/],
    ['bad percent', 'GET', '/boards/%E0%A4%A', undefined, 400, /cannot be read/],
  ])('%s', async (_, method, path, body, status, sentence) => {
    const answer = await call(method, path, body);
    expect(answer.status).toBe(status);
    expect(answer.type).toContain('application/problem+json');
    expect(answer.body.detail).toMatch(sentence);
    expect(JSON.stringify(answer.body)).not.toMatch(/node_modules|at .*\.ts|select |insert /);
  });
});

describe('the server', () => {
  it('is healthy while the database answers, and says 503 in a sentence when it is gone', async () => {
    expect(await call('GET', '/health')).toMatchObject({
      status: 200,
      body: { status: 'ok', database: { reachable: true } },
    });
    const gone = await serveApi('mysql://nobody:x@127.0.0.1:9/none', { trouble: () => 'The disk is full.' });
    expect(await gone.call('GET', '/health')).toMatchObject({
      status: 503,
      body: { database: { reachable: false, trouble: 'The disk is full.' } },
    });
    const refused = await gone.call('PUT', '/boards/x', { basedOn: 1, board: plainBoard() });
    expect(refused).toMatchObject({
      status: 503,
      body: {
        code: 'database-gone',
        detail: expect.stringMatching(/^The disk is full\. .*Nothing was changed/) as string,
      },
    });
    await gone.close();
  });

  it('describes every route it has in OpenAPI', async () => {
    const { body } = await call('GET', '/openapi.json');
    expect(body.openapi).toBe('3.1.0');
    const paths = Object.entries(body.paths as Record<string, Record<string, unknown>>);
    // The stream is served where pages listen, backups where a keeper is, the passphrase said again where it is asked for: they have tests of their own.
    for (const [path, methods] of paths.filter(([name]) => !/^\/api\/(live|backups|devices\/confirm)/.test(name))) {
      for (const method of Object.keys(methods).filter((m) => m !== 'parameters')) {
        const answer = await call(
          method.toUpperCase(),
          path.replace('/api', '').replace('{id}', 'nope'),
          method === 'get' ? undefined : {},
        );
        if (answer.status === 404) expect(answer.body.detail, `${method} ${path}`).not.toContain('This address');
      }
    }
  });

  it('loads the demo once into an empty database, even when two start together, and never into one in use', async () => {
    const url = await newDatabase(process.env.TEST_DATABASE_URL!, 'demo');
    const options = {
      databaseUrl: url,
      host: '127.0.0.1',
      port: 0,
      webFolder: null,
      begin: 'demo' as const,
      tell: () => {},
    };
    const servers = await Promise.all([startServer(options), startServer(options)]);
    for (const s of servers)
      expect(((await (await fetch(`${s.address}api/rack`)).json()) as unknown[]).length).toBe(22);
    await Promise.all(servers.map((s) => s.stop()));
    expect(await seedDemo(db)).toBe(false);
  });

  it('refuses a database with tables of others, and a taken port, in one sentence each', async () => {
    const url = await newDatabase(process.env.TEST_DATABASE_URL!, 'foreign');
    const foreign = openDatabase(url);
    await foreign.schema.createTable('invoices', (t) => t.integer('id'));
    await foreign.destroy();
    const options = { databaseUrl: url, host: '127.0.0.1', port: 0, webFolder: null, begin: null, tell: () => {} };
    await expect(startServer(options)).rejects.toThrow(/tables that Cadenza did not make \(invoices\)/);
    const taken = Number(new URL(base).port);
    await expect(
      startServer({
        ...options,
        databaseUrl: process.env.TEST_DATABASE_URL!.replace(/[^/]*$/, 'cadenza_api'),
        port: taken,
      }),
    ).rejects.toThrow(/Port \d+ is taken.*PORT=/);
    await expect(startServer({ ...options, databaseUrl: 'mysql://a:b@127.0.0.1:9/x' })).rejects.toThrow(
      /Check DATABASE_URL/,
    );
  });
});

describe('clocks of glue-ups', () => {
  const due = { firstClamp: 3.5, lastClamp: 7, scrapeFrom: 30, scrapeTo: 45, outOfClamps: 127, fullStrength: 1440 };
  const start = { glueUp: 'G1.1', copy: 1, title: 'Strips 1 to 5', due };

  it("run once however often they are started, keep the server's time, and note what happened", async () => {
    const { body: board } = await call('POST', '/boards', plainBoard());
    const path = `/boards/${board.id}/runs`;
    const [one, two] = await Promise.all([call('POST', path, start), call('POST', path, start)]);
    expect([one.status, two.status].sort()).toEqual([201, 409]);
    const [made, refused] = one.status === 201 ? [one, two] : [two, one];
    expect(refused.body).toMatchObject({
      code: 'running',
      current: { id: made.body.id },
      detail: expect.stringContaining('runs already') as string,
    });
    const marked = await call('PUT', `/runs/${made.body.id}`, { version: 1, mark: 'firstClamp' });
    expect(marked.body).toMatchObject({
      version: 2,
      run: { marks: [{ event: 'firstClamp', minutes: expect.any(Number) as number }] },
    });
    // A second device that has not seen it is told, and nothing is lost.
    expect(await call('PUT', `/runs/${made.body.id}`, { version: 1, mark: 'lastClamp' })).toMatchObject({
      status: 409,
      body: { code: 'stale', current: { version: 2 } },
    });
    const undone = await call('PUT', `/runs/${made.body.id}`, {
      version: 2,
      unmark: 'firstClamp',
      note: 'One clamp slipped',
    });
    expect(undone.body.run).toMatchObject({ marks: [], note: 'One clamp slipped' });
    expect((await call('PUT', `/runs/${made.body.id}`, { version: 3, end: true })).body.endedAt).not.toBeNull();
    // Once it is over the same glue-up can be timed again: the next panel, or a second try.
    expect((await call('POST', path, start)).status).toBe(201);
    const { body } = await call('GET', path);
    expect([body.runs.length, Math.abs(new Date(body.now).getTime() - Date.now()) < 60_000]).toEqual([2, true]);
  });

  it('are refused with the field where they make no sense', async () => {
    const { body: board } = await call('POST', '/boards', plainBoard());
    expect((await call('POST', '/boards/nobody/runs', start)).status).toBe(404);
    const bad = await call('POST', `/boards/${board.id}/runs`, { ...start, copy: 0, due: { ...due, lastClamp: -1 } });
    expect(bad).toMatchObject({ status: 400, body: { fields: [{ path: 'copy' }, { path: 'due.lastClamp' }] } });
    expect((await call('PUT', '/runs/none', { version: 1, mark: 'lunch' })).status).toBe(400);
  });
});

it('a shop that could never glue, open or hold anything is refused with a sentence', async () => {
  const { body } = await call('GET', '/shop');
  const glue = body.shop.glues[0];
  const answers = await Promise.all(
    [
      { glues: [{ ...glue, openMinutes: 10, closedMinutes: 5 }] },
      { hours: Array(7).fill(null) },
      { hours: [{ from: '18:00', to: '09:00' }, ...Array(6).fill(null)] },
      { glue: 'none' },
    ].map((change) => call('PUT', '/shop', { version: body.version, shop: { ...body.shop, ...change } })),
  );
  expect(answers.map((a) => [a.status, a.body.fields[0].path])).toEqual([
    [400, 'shop.glues[0].closedMinutes'],
    [400, 'shop.hours'],
    [400, 'shop.hours[0].to'],
    [400, 'shop.glue'],
  ]);
  expect(answers[0]!.body.detail + answers[0]!.body.fields[0].message).toContain(
    'must not be shorter than its open time',
  );
});
