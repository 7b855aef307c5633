import { gunzipSync } from 'node:zlib';
import { Readable } from 'node:stream';
import { text } from 'node:stream/consumers';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { copiesSchema, insideSchema, type Copies, type Inside } from '#contract/backup.ts';
import { plainBoard, plainPiece } from '#core/plan/planArbitrary.ts';
import { serveApi, type TestApi } from '../apiForTests.ts';
import { newDatabase } from '../../../bin/mariadb/testDatabase.ts';
import { ChangeFeed } from '../live/changeFeed.ts';
import { LiveRoutes } from '../live/liveRoutes.ts';
import { Page } from '../live/pageForTests.ts';
import { openDatabase } from '../stores/database.ts';
import { addDevice, knownDevices } from '../stores/deviceStore.ts';
import { openStore } from '../stores/openStore.ts';
import { sha256 } from '../stores/sha256.ts';
import { sealed } from './backupFile.ts';
import { DailyCopies } from './copies.ts';
import { fillFrom } from './fillForTests.ts';
import type { Keeper } from './keeper.ts';
import { BACKUP_DESCRIBED } from './backupRoutes.ts';

const folder = mkdtempSync(join(tmpdir(), 'cadenza-keeping-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const { id: _id, ...piece } = plainPiece();

interface Shop extends TestApi {
  keeper: Keeper;
  /** Sends something that no operation describes. */
  ask(method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<Response>;
  copies(): Promise<Copies>;
  download(): Promise<string>;
  look(file: string): Promise<Inside>;
  board(name: string): Promise<{ id: string; revision: number }>;
}

/** A server with what looks after its database. */
async function shop(name: string): Promise<Shop> {
  const url = await newDatabase(process.env.TEST_DATABASE_URL!, name);
  const keeper = {
    url,
    program: (program: string) => program,
    folder: join(folder, name),
  };
  const db = openDatabase(url);
  await openStore(db);
  const live = new LiveRoutes(db, new ChangeFeed(db, 20));
  const api = await serveApi(url, { keeper, live });
  const ask: Shop['ask'] = (method, path, body, headers = {}) =>
    fetch(api.base + path, {
      method,
      ...(method === 'GET' ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body ?? {}) }),
      headers: { ...(method === 'GET' ? {} : { 'Content-Type': 'application/json' }), ...headers },
    });
  return {
    ...api,
    keeper,
    ask,
    copies: async () => copiesSchema.parse(await (await ask('GET', '/backups')).json()),
    download: async () => (await ask('GET', '/backups/all')).text(),
    look: async (file) => {
      const answer = await ask('POST', '/backups/look', file, { 'Content-Type': 'application/sql' });
      expect(answer.status).toBe(200);
      return insideSchema.parse(await answer.json());
    },
    board: async (board) => (await api.call('POST', '/boards', plainBoard({ name: board }))).body,
    close: async () => {
      live.stop();
      await api.close();
      await db.destroy();
    },
  };
}

const names = async (api: Shop): Promise<string[]> =>
  (await api.list<{ board: { name: string } }>('/boards')).map((b) => b.board.name).sort();
const sentence = async (answer: Response): Promise<[number, string]> => [
  answer.status,
  ((await answer.json()) as { detail: string }).detail,
];

describe('a backup over the network', () => {
  let api: Shop;
  beforeAll(async () => {
    api = await shop('kept_all');
  });
  afterAll(() => api.close());

  it('holds everything, is looked into before anything is done, and takes the place of what is stored', async () => {
    const [one] = [await api.board('One'), await api.board('Two')];
    await api.call('POST', '/rack', { ...piece, mark: 'K1' });
    const file = await api.download();
    await api.board('Later');
    await api.call('PUT', `/boards/${one.id}`, { basedOn: 1, board: plainBoard({ name: 'One, changed' }) });

    const inside = await api.look(file);
    expect(inside).toMatchObject({
      checksum: true,
      holds: { boards: 2, revisions: 2, pieces: 1 },
      here: { boards: 3, revisions: 4, pieces: 1 },
    });
    expect(Date.now() - new Date(inside.madeAt!).getTime()).toBeLessThan(600_000);
    expect(await names(api)).toEqual(['Later', 'One, changed', 'Two']);

    expect((await api.ask('POST', '/backups/restore', { token: inside.token })).status).toBe(200);
    expect(await names(api)).toEqual(['One', 'Two']);
    expect((await api.copies()).canGoBack).toBe(true);
    // What was brought does not stay.
    expect(readdirSync(api.keeper.folder)).toEqual([]);

    expect((await api.ask('POST', '/backups/back')).status).toBe(200);
    expect(await names(api)).toEqual(['Later', 'One, changed', 'Two']);
    expect((await api.ask('POST', '/backups/back')).status).toBe(200);
    expect(await names(api)).toEqual(['One', 'Two']);
  });

  it('is told to pages that are open, and nobody writes over what came back by a number from before', async () => {
    const board = await api.board('Counted');
    const file = await api.download();
    for (const basedOn of [1, 2, 3])
      await api.call('PUT', `/boards/${board.id}`, { basedOn, board: plainBoard({ name: `At ${basedOn + 1}` }) });
    const before = await api.call('GET', '/boards', undefined, {});
    const [oak] = (await api.call('GET', '/species')).body;
    expect((await api.call('POST', '/species', { ...oak, code: 'bog-oak', name: 'Bog oak' })).status).toBe(201);
    const page = await Page.at(api, 'tab=open');
    const { token } = await api.look(file);
    await api.ask('POST', '/backups/restore', { token });
    await page.until(() => page.changes.some((c) => c.topics.includes('shop') && c.topics.includes('boards')));
    page.close();
    const there = (await api.call('GET', `/boards/${board.id}`)).body;
    expect([there.board.name, there.revision]).toEqual(['Counted', 5]);
    // A device that was away knows revision 4: that is no more, and never will be again.
    for (const basedOn of [1, 4]) {
      const refused = await api.call('PUT', `/boards/${board.id}`, { basedOn, board: plainBoard({ name: 'Old' }) });
      expect([refused.status, refused.body.code]).toEqual([409, 'stale']);
    }
    // A device that was away may name a species that was added since.
    expect((await api.call('GET', '/species')).body.map((s: { code: string }) => s.code)).toContain('bog-oak');
    const list = await api.call('GET', '/boards', undefined, { 'If-None-Match': before.headers.get('etag')! });
    expect(list.status).toBe(200);
    // What is as it was keeps its number.
    const [two] = (await api.list<{ revision: number; board: { name: string } }>('/boards')).filter(
      (b) => b.board.name === 'Two',
    );
    expect(two!.revision).toBe(1);
  });

  it('lets nobody in: devices and the passphrase are not in it, and stay what they are here', async () => {
    await addDevice(api.db, { name: 'Tablet', person: null, may: 'work' });
    await api.db('doors').insert({ id: 1, passphrase_hash: 'hash-of-here', set_at: new Date() });
    const file = await api.download();
    expect(file).not.toContain('Tablet');
    expect(file).not.toContain('hash-of-here');
    await api.db('devices').delete();
    await addDevice(api.db, { name: 'Phone', person: null, may: 'look' });
    const { token } = await api.look(file);
    await api.ask('POST', '/backups/restore', { token });
    expect((await knownDevices(api.db)).map((d) => d.name)).toEqual(['Phone']);
    expect((await api.db('doors').select('passphrase_hash')).map((r) => r.passphrase_hash)).toEqual(['hash-of-here']);
  });

  it.each<[string, (file: string) => string, RegExp]>([
    ['cut in half', (file) => file.slice(0, file.length / 2), /^The file was cut off: its last line is missing/],
    ['with a byte changed', (file) => file.replace('"name', '"nane'), /^The file was changed since it was made/],
    ['of something else', () => 'id,species,length\n1,maple,900\n', /^The file is not a Cadenza backup/],
    ['that is empty', () => '', /^The file is not a Cadenza backup/],
    [
      'of a newer Cadenza',
      (file) =>
        `-- Cadenza backup\n${file
          .split('\n')
          .slice(2, -2)
          .join('\n')
          .replace(
            /('\d{3}-[a-z-]+',1,'[^']+'\));/,
            "$1,\n(999,'999-tomorrow',1,'2026-11-28 00:00:00');",
          )}\n-- Dump completed\n`,
      /newer Cadenza \(999-tomorrow\)/,
    ],
  ])('%s is refused with a sentence, and nothing is changed', async (_, spoil, said) => {
    const before = await names(api);
    const brought = readdirSync(api.keeper.folder);
    const answer = await api.ask('POST', '/backups/look', spoil(await api.download()), {
      'Content-Type': 'application/sql',
    });
    const [status, detail] = await sentence(answer);
    expect(status).toBe(409);
    expect(detail).toMatch(said);
    expect(await names(api)).toEqual(before);
    expect(readdirSync(api.keeper.folder)).toEqual(brought);
  });

  it.each([
    'delete from `cadenza_kept_all`.`boards`',
    'insert into `cadenza_kept_all`.`doors` values (2, "x", now())',
    'INSERT INTO `doors` VALUES (2, sleep(60), now())',
    'INSERT INTO `nowhere` VALUES (1)',
    'INSERT INTO `boards` VALUES (1)',
    'create table `stolen` select * from `cadenza_kept_all`.`devices`',
    'CREATE TABLE `slow` (`id` int(11) NOT NULL CHECK (sleep(60) = 0)) ENGINE=InnoDB',
    "CREATE TABLE `read` (`id` int(11) DEFAULT (load_file('/etc/passwd')))",
    'CREATE TABLE `there` (`id` int(11)) ENGINE=CONNECT',
    'create view `stolen` as select 1',
    'create trigger `later` before insert on `boards` for each row set new.facts = 7',
    'drop database `cadenza_kept_all`',
    'DO SLEEP(60)',
    "SET PASSWORD = PASSWORD('mine')",
    'set global max_connections = 1',
    'system touch /tmp/cadenza-was-here',
  ])('that does more than fill its own tables is read no further: %s', async (statement) => {
    const before = [await names(api), await api.db('doors').select(), await api.db('devices').select()];
    const plain = (await api.download()).split('\n').slice(2, -2).join('\n');
    const evil = Readable.from([Buffer.from(`${plain}\n${statement};\n`)]).pipe(sealed(new Date()));
    const answer = await api.ask('POST', '/backups/look', await text(evil), { 'Content-Type': 'application/sql' });
    expect(await sentence(answer)).toEqual([
      409,
      expect.stringMatching(/holds what none of Cadenza's holds: .+Nothing was changed/),
    ]);
    expect([await names(api), await api.db('doors').select(), await api.db('devices').select()]).toEqual(before);
    // Neither it, nor what a comment hides, stands in the way of the next one.
    const hidden = Readable.from([Buffer.from(`${plain}\n/*!40000 ${statement} */;\n`)]).pipe(sealed(new Date()));
    expect((await api.look(await text(hidden))).checksum).toBe(true);
  });

  it('that is cancelled is let go of, and the next one is read', async () => {
    const file = await api.download();
    const stop = new AbortController();
    const asked = fetch(`${api.base}/backups/look`, {
      method: 'POST',
      body: file,
      signal: stop.signal,
      headers: { 'Content-Type': 'application/sql' },
    });
    setTimeout(() => stop.abort(), 150);
    await asked.then(
      (answer) => expect(answer.status).toBe(200),
      (error: Error) => expect(error.name).toBe('AbortError'),
    );
    for (let tries = 0; tries < 40; tries += 1) {
      const answer = await api.ask('POST', '/backups/look', file, { 'Content-Type': 'application/sql' });
      if (answer.status === 200) return;
      expect(await sentence(answer)).toEqual([409, expect.stringMatching(/^Somebody looks into a backup/)]);
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error('A look that was cancelled stands in the way of the next one.');
  });

  it('carries nothing of the door: no answer that lets somebody in, no address of a calendar', async () => {
    const made = await api.call('POST', '/schedule/calendar', {}, { 'Idempotency-Key': 'calendar-once' });
    const again = await api.call('POST', '/schedule/calendar', {}, { 'Idempotency-Key': 'calendar-once' });
    expect([made.status, again.status, again.body.code]).toEqual([200, 409, 'told-once']);
    const secret = /calendar\/(.+)\.ics/.exec(made.body.path as string)![1]!;
    const file = await api.download();
    for (const hidden of [secret, 'calendar-once', sha256(secret)]) expect(file).not.toContain(hidden);
    // In the database only what cannot be turned back.
    const stored = JSON.stringify(await Promise.all(['writes', 'calendar_addresses'].map((t) => api.db(t).select())));
    expect([stored.includes(secret), stored.includes(sha256(secret))]).toEqual([false, true]);
    // Who knows the address knows it still after a restore.
    const { token } = await api.look(file);
    await api.ask('POST', '/backups/restore', { token });
    expect((await fetch(`${api.base}/calendar/${secret}.ics`)).status).toBe(200);
  });

  it('has every way that is described of it', async () => {
    for (const [path, method] of BACKUP_DESCRIBED) {
      const answer = await api.ask(method.toUpperCase(), path.replace('{name}', 'nope'));
      expect(await answer.text(), `${method} ${path}`).not.toContain('This address');
    }
  });

  it('what nobody looked at, or long ago, is not restored; a form of another site sends nothing', async () => {
    for (const way of ['restore', 'bring-in'])
      expect(await sentence(await api.ask('POST', `/backups/${way}`, { token: 'nobody-knows' }))).toEqual([
        409,
        expect.stringMatching(/Open it once more/),
      ]);
    expect((await api.ask('POST', '/backups/restore', {})).status).toBe(400);
    expect((await api.ask('POST', '/backups/look', 'x', { 'Content-Type': 'text/plain' })).status).toBe(415);
    expect((await api.ask('POST', '/backups/copies/..%2Fconnection.json/look')).status).toBe(404);
    expect((await api.ask('POST', '/backups/copies/cadenza-2026-01-01T000000Z.sql/look')).status).toBe(404);
  });
});

describe('copies every day', () => {
  let api: Shop;
  const told: string[] = [];
  beforeAll(async () => {
    api = await shop('kept_daily');
    await api.board('Daily');
  });
  afterAll(() => api.close());
  const day = (n: number, hour = 8) => new Date(Date.UTC(2026, 10, n, hour));

  it('are made once a day, so many are kept, and each can be looked into', async () => {
    const daily = new DailyCopies(api.db, api.keeper, (line) => told.push(line));
    expect(await api.copies()).toMatchObject({ daily: true, keep: 14, copies: [], lastGoodAt: null, old: false });
    expect((await api.ask('PUT', '/backups', { daily: true, keep: 2 })).status).toBe(200);
    for (const at of [day(1), day(1, 15), day(2), day(3), day(3, 9)]) await daily.look(at);
    const { copies, lastGoodAt, keep } = await api.copies();
    expect(copies.map((c) => c.name)).toEqual(['cadenza-2026-11-03T080000Z.sql', 'cadenza-2026-11-02T080000Z.sql']);
    expect([lastGoodAt, keep, copies[0]!.madeAt]).toEqual([day(3).toISOString(), 2, day(3).toISOString()]);
    const inside = insideSchema.parse(await (await api.ask('POST', `/backups/copies/${copies[1]!.name}/look`)).json());
    expect(inside).toMatchObject({ holds: { boards: 1 }, madeAt: day(2).toISOString() });
    await api.ask('POST', '/backups/restore', { token: inside.token });
    // A copy stays when it was restored.
    expect((await api.copies()).copies).toHaveLength(2);

    await api.ask('PUT', '/backups', { daily: false, keep: 2 });
    await daily.look(day(9));
    expect((await api.copies()).lastGoodAt).toBe(day(3).toISOString());
    expect(told).toEqual([]);
  });

  it('that cannot be made say why, keep what is there, and are made again when they can', async () => {
    await api.ask('PUT', '/backups', { daily: true, keep: 1 });
    // A server that was killed in the middle of one leaves half of it, which is no copy.
    writeFileSync(join(api.keeper.folder, 'cadenza-2026-11-09T080000Z.sql.part'), '-- Cadenza backup 2');
    expect((await api.copies()).copies).toHaveLength(2);
    const nowhere = join(folder, 'a-file');
    writeFileSync(nowhere, 'not a folder');
    const broken = new DailyCopies(api.db, { ...api.keeper, folder: nowhere }, (line) => told.push(line));
    await broken.look(day(10));
    expect(told.at(-1)).toMatch(/^No copy was made: .*a-file cannot be written/);
    const missing = () => {
      throw new Error('mariadb-client is missing.');
    };
    await new DailyCopies(api.db, { ...api.keeper, program: missing }, (line) => told.push(line)).look(day(10));
    expect((await api.copies()).trouble).toBe('mariadb-client is missing.');
    const failed = new DailyCopies(api.db, { ...api.keeper, program: () => 'false' }, (line) => told.push(line));
    await failed.look(day(10));
    expect(await api.copies()).toMatchObject({
      trouble: expect.stringMatching(/^The backup could not be made/) as string,
      copies: [{}, {}],
    });
    expect(readdirSync(api.keeper.folder).filter((name) => name.endsWith('.part'))).toEqual([]);
    // It is long since the last good one.
    await api.db('keeping').update({ last_good_at: new Date(Date.now() - 50 * 3_600_000) });
    expect((await api.copies()).old).toBe(true);
    expect((await api.ask('POST', '/backups/now')).status).toBe(200);
    expect(await api.copies()).toMatchObject({ trouble: null, old: false, copies: [{}] });
  });

  it.each([
    [{ daily: true, keep: 0 }, 'Keep must be at least 1 copy.'],
    [{ daily: true, keep: 1.5 }, 'Keep must be a whole number.'],
    [{ daily: 'yes', keep: 3 }, 'Daily must be true or false.'],
  ])('%j is refused', async (change, said) => {
    expect(await sentence(await api.ask('PUT', '/backups', change))).toEqual([400, said]);
  });
});

describe('a shop that is brought along', () => {
  it('comes in as the shop in use with everything, under ids of its own where they meet, and what was here is set aside', async () => {
    const [home, away] = [await shop('kept_home'), await shop('kept_away')];
    const board = await home.board('Along');
    await home.call('POST', `/boards/${board.id}/facts`, {
      facts: [{ kind: 'note', id: 'n1', at: '2026-11-28T08:00:00.000Z', text: 'Begun at home' }],
    });
    await home.call('POST', '/rack', { ...piece, mark: 'A1' });
    await home.call('PUT', '/schedule', {
      version: 0,
      schedule: { order: [`${board.id}/s/1/0`], taken: [board.id], waiting: [] },
    });
    const { shop: theirs, version } = (await home.call('GET', '/shop')).body;
    await home.call('PUT', '/shop', { version, shop: { ...theirs, name: 'The shed at home' } });
    const file = await home.download();

    await away.board('Stays away');
    // Twice: the second time every id meets itself.
    for (const round of [1, 2]) {
      const { token } = await away.look(file);
      expect((await away.ask('POST', '/backups/bring-in', { token })).status).toBe(200);
      expect(await names(away)).toEqual(['Along']);
      const [came] = await away.list<{ id: string }>('/boards');
      expect(came!.id === board.id).toBe(round === 1);
      expect((await away.call('GET', `/boards/${came!.id}/facts`)).body.facts[0].text).toBe('Begun at home');
      expect((await away.list<{ piece: { mark: string } }>('/rack')).map((r) => r.piece.mark)).toEqual(['A1']);
      expect((await away.call('GET', '/shop')).body.shop.name).toBe('The shed at home');
      expect((await away.db('schedules').select('document')).map((r) => JSON.parse(r.document))).toMatchObject([
        { taken: expect.arrayContaining([came!.id]), order: expect.arrayContaining([`${came!.id}/s/1/0`]) },
      ]);
      expect((await away.call('GET', '/shops/aside')).body).toHaveLength(round);
      // It is worked on as if it had been made here.
      const saved = await away.call('PUT', `/boards/${came!.id}`, { basedOn: 1, board: plainBoard({ name: 'Along' }) });
      expect(saved.status).toBe(200);
    }
    const aside = (await away.call('GET', '/shops/aside')).body;
    const first = aside.find((s: { name: string }) => s.name !== 'The shed at home');
    const now = (await away.call('GET', '/shop')).body.version;
    await away.call('POST', `/shops/aside/${first.id}/take-up`, { version: now });
    expect(await names(away)).toEqual(['Stays away']);
    await Promise.all([home.close(), away.close()]);
  });

  it('from a database of every earlier state comes in with its cuts, plans and clocks as they are there', async () => {
    const earlier = join(import.meta.dirname, '..', 'migrations', 'earlier');
    const last = readdirSync(earlier).sort().at(-1)!;
    const [there, here] = [await newDatabase(process.env.TEST_DATABASE_URL!, 'kept_earlier'), await shop('kept_here')];
    await fillFrom(there, gunzipSync(readFileSync(join(earlier, last))));
    const old = { ...here.keeper, url: there, folder: join(folder, 'old') };
    mkdirSync(old.folder);
    const { dumpToFile } = await import('./dump.ts');
    await dumpToFile(old, join(old.folder, 'old.sql'), new Date());
    const counts = async (url: string) => {
      const db = openDatabase(url, 1);
      const count = async (table: string) => Number((await db(table).count<{ n: number }[]>({ n: '*' }))[0]!.n);
      const all = await Promise.all(
        [
          'boards',
          'revisions',
          'facts',
          'pieces',
          'cut_plans',
          'promises',
          'cuttings',
          'cutting_boards',
          'glue_runs',
          'log_entries',
        ].map(async (table) => [table, await count(table)]),
      );
      await db.destroy();
      return Object.fromEntries(all) as Record<string, number>;
    };
    const { token } = await here.look(readFileSync(join(old.folder, 'old.sql'), 'utf8'));
    expect((await here.ask('POST', '/backups/bring-in', { token })).status).toBe(200);
    expect(await counts(here.keeper.url)).toEqual(await counts(there));
    await here.close();
  });
});
