import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plainBoard } from '#core/plan/planArbitrary.ts';
import { addBoard, boardsPage } from '../../server/src/stores/boardStore.ts';
import { addDevice } from '../../server/src/stores/deviceStore.ts';
import { openDatabase } from '../../server/src/stores/database.ts';
import { openStore } from '../../server/src/stores/openStore.ts';
import { inTransaction } from '../../server/src/stores/transaction.ts';
import { bundled } from '../bundled.mjs';
import { ROOT } from '../root.ts';
import { startProjectDatabase, type ProjectDatabase } from './database.ts';

const data = mkdtempSync(join(tmpdir(), 'cadenza-restore-'));
const folder = join(data, 'mariadb');
const backup = join(data, 'shop.sql');
const environment = { ...process.env, CADENZA_DATA: data, DATABASE_URL: '' };
/** What runs them, made once: that takes longer than most of them do. */
const commands = { backup: await bundled('backup'), restore: await bundled('restore') };
const run = (command: keyof typeof commands, ...args: string[]) =>
  spawnSync(process.execPath, [commands[command], ...args], { env: environment, encoding: 'utf8' });
afterAll(() => rmSync(data, { recursive: true, force: true }));

/** Works on the stored boards as a server would. */
async function onStore<T>(
  work: (db: ReturnType<typeof openDatabase>, database: ProjectDatabase) => Promise<T>,
): Promise<T> {
  const database = await startProjectDatabase(folder);
  const db = openDatabase(database.url);
  try {
    await openStore(db);
    return await work(db, database);
  } finally {
    await db.destroy();
    await database.stop();
  }
}

const names = () =>
  onStore(async (db) =>
    (await boardsPage(db, null)).rows.map((r) => (JSON.parse(r) as { board: { name: string } }).board.name).sort(),
  );
const add = (...added: string[]) =>
  onStore((db) =>
    inTransaction(db, async (tx) => {
      for (const name of added) await addBoard(tx, plainBoard({ name }));
    }),
  );

beforeAll(async () => {
  await add('One', 'Two', 'Three');
  await onStore((db) => addDevice(db, { name: 'A lost phone', person: null, may: 'work' }));
  expect(run('backup', backup)).toMatchObject({
    status: 0,
    stderr: expect.stringContaining(`Backed up to ${backup}`) as string,
  });
  await add('Later');
}, 60_000);

it.each([[['--help']], [[backup, 'more']], [[]]])('a backup to %j is refused with its usage', (args) => {
  const refused = run('backup', ...args);
  expect(refused.status).not.toBe(0);
  expect(refused.stderr).toMatch(/^Usage: npm run backup -- FILE\.sql/m);
});

describe('a backup that is not as it was made changes nothing', () => {
  /** As it stands in a statement. */
  const TWO = '\\"name\\":\\"Two\\"';
  const whole = () => readFileSync(backup, 'utf8');
  const statement = (text: string, n: number) => text.split(';\n').slice(0, n).join(';\n') + ';\n';
  it.each<[string, () => string, RegExp]>([
    ['cut behind a statement', () => statement(whole(), 30), /was cut off: its last line is missing/],
    [
      'cut in the middle of a statement',
      () => whole().slice(0, whole().indexOf('INSERT INTO `revisions`') + 300),
      /was cut off: its last line is missing/,
    ],
    [
      'with its last line lost',
      () => whole().replace(/-- Cadenza backup ends.*\n$/, ''),
      /was cut off: its last line is missing/,
    ],
    [
      'with one byte changed',
      () => whole().replace(TWO, TWO.replace('Two', 'Twp')),
      /was changed since it was made: its checksum does not fit/,
    ],
    ['with something put behind it', () => `${whole()}drop table boards;\n`, /was cut off|was changed/],
    ['from elsewhere', () => 'drop table boards;\n', /is not a Cadenza backup; nothing was changed/],
    [
      'of an earlier make, cut off',
      () => `-- Cadenza backup\n${statement(whole(), 12)}`,
      /was cut off: its last line is missing/,
    ],
    [
      'of an earlier make whose tables are not all there',
      () => '-- Cadenza backup\ncreate table boards (id int);\n-- Dump completed\n',
      /Nothing was changed/,
    ],
    [
      'of an earlier make with a document that cannot be read',
      () =>
        `-- Cadenza backup\n${whole()
          .split('\n')
          .slice(1)
          .join('\n')
          .replace(TWO, TWO.replace('\\"Two\\"', '2'))
          .replace(/-- Cadenza backup ends.*\n$/, '')}`,
      /holds what this Cadenza cannot read: revisions/,
    ],
  ])(
    '%s',
    async (_, text, sentence) => {
      const bad = join(data, 'bad.sql');
      writeFileSync(bad, text());
      const done = run('restore', bad);
      expect(done.status).toBe(1);
      expect(done.stderr).toMatch(sentence);
      expect(done.stderr).not.toMatch(/\bat .*\.(ts|js):\d/);
      expect(await names()).toEqual(['Later', 'One', 'Three', 'Two']);
    },
    60_000,
  );

  it('that does not exist', () => {
    expect(run('restore', join(data, 'none.sql'))).toMatchObject({
      status: 1,
      stderr: expect.stringMatching(/none\.sql cannot be read \(ENOENT\)/) as string,
    });
  });
});

it('devices that were let in stay out of it: a restore lets none in that was ended since', () => {
  const text = readFileSync(backup, 'utf8');
  expect(text).toContain('CREATE TABLE `devices`');
  expect(text).not.toContain('A lost phone');
});

it('says what is in a backup without touching anything, even while Cadenza runs; a restore waits until it does not', async () => {
  const database = await startProjectDatabase(folder);
  const look = run('restore', backup, '--look');
  expect([look.status, look.stderr]).toEqual([
    0,
    expect.stringMatching(
      /shop\.sql holds 3 boards, 3 revisions, 0 pieces in the rack, 0 kept cut plans, 0 cuts, 0 clocks of glue-ups, 0 facts from the bench; last changed 20.*; made 20.*Z, tables of \d{3}-[\w-]+\./,
    ) as string,
  ]);
  const refused = run('restore', backup);
  expect([refused.status, refused.stderr]).toEqual([
    1,
    expect.stringMatching(/Cadenza is running on .*Stop it first/) as string,
  ]);
  await database.stop();
  expect(await names()).toEqual(['Later', 'One', 'Three', 'Two']);
}, 60_000);

it('is put back whole, and what was there before can be put back in turn', async () => {
  expect(run('restore', backup)).toMatchObject({
    status: 0,
    stderr: expect.stringContaining('npm run restore -- --back') as string,
  });
  expect(await names()).toEqual(['One', 'Three', 'Two']);
  // What came back is a database like any other: it can be written, with its rules.
  await add('After');
  await onStore(async (db) => {
    await expect(
      db('revisions').insert({ board_id: 'nobody', number: 1, format_version: 7, document: '{}', made_at: new Date() }),
    ).rejects.toThrow(/foreign key/i);
  });
  expect(run('restore', '--back').status).toBe(0);
  expect(await names()).toEqual(['Later', 'One', 'Three', 'Two']);
  expect(run('restore', '--back').status).toBe(0);
  expect(await names()).toEqual(['After', 'One', 'Three', 'Two']);
}, 120_000);

it.each([[[]], [['a.sql', 'b.sql']], [['--back', 'a.sql']], [['a.sql', '--force']]])(
  'restore %j says how it is used',
  (args) => {
    expect(run('restore', ...args)).toMatchObject({
      status: 1,
      stderr: expect.stringContaining('Usage: npm run restore -- FILE.sql [--look]') as string,
    });
  },
);

/** A disk of its own, as large as is said; null where none may be mounted. */
function smallDisk(megabytes: number): { path: string; remove(): void } | null {
  const path = mkdtempSync(join(tmpdir(), 'cadenza-disk-'));
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', path]).status !== 0) return null;
  return { path, remove: () => void spawnSync('umount', ['-l', path]) };
}

const disk = smallDisk(800);
describe.runIf(disk)('on a full disk', () => {
  afterAll(() => disk?.remove());

  it('Cadenza stays up, says how much is missing, loses nothing it acknowledged, and goes on by itself', async () => {
    const full = spawn('sh', ['-c', `exec node ${join(ROOT, 'bin/run.mjs')} start 2>> ${data}/told.txt`], {
      env: { ...environment, CADENZA_DATA: disk!.path, PORT: '0' },
    });
    const told = () => (existsSync(join(data, 'told.txt')) ? readFileSync(join(data, 'told.txt'), 'utf8') : '');
    const until = async (done: () => boolean | Promise<boolean>) => {
      for (const end = Date.now() + 60_000; Date.now() < end; await new Promise((r) => setTimeout(r, 200)))
        if (await done()) return;
      throw new Error(`It never came to that: ${told()}`);
    };
    await until(() => /ready: {2}(\S+)/.test(told()));
    const base = /ready: {2}(\S+)/.exec(told())![1]!;
    const post = (name: string) =>
      fetch(`${base}api/boards`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(plainBoard({ name }, Array<number>(150).fill(9))),
      });
    // All but a little is taken, by one who does not ask.
    const filler = join(disk!.path, 'filler');
    writeFileSync(filler, Buffer.alloc(freeBytes(disk!.path) - 8_000_000));
    const acknowledged: string[] = [];
    let refused: { status: number; detail: string } | null = null;
    for (let i = 0; i < 3000 && !refused; i += 1) {
      const answer = await post(`Board ${i}`);
      if (answer.status === 201) acknowledged.push(((await answer.json()) as { id: string }).id);
      else refused = { status: answer.status, detail: ((await answer.json()) as { detail: string }).detail };
    }
    expect(acknowledged.length).toBeGreaterThan(10);
    expect([503, 507]).toContain(refused?.status);
    await until(async () =>
      /[Tt]he disk (of the database )?is full/.test(
        ((await (await post('Never')).json()) as { detail: string }).detail,
      ),
    );
    expect(full.exitCode).toBeNull();
    expect(told()).toMatch(
      /The disk is full: .* has \d+ MB left and the database needs 60 MB\. Free some space; Cadenza goes on by itself\./,
    );

    // No copy is made, no half of one stays, and everything can still be taken out to where there is room.
    const copy = await fetch(`${base}api/backups/now`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: '{}',
    });
    expect([409, 503, 507]).toContain(copy.status);
    expect(((await copy.json()) as { detail: string }).detail).toMatch(/disk .*full/i);
    expect(await (await fetch(`${base}api/backups/all`)).text()).toMatch(/-- Cadenza backup ends: .*\n$/);

    rmSync(filler);
    await until(async () => (await post('Room again')).status === 201);
    for (const id of acknowledged) expect((await fetch(`${base}api/boards/${id}`)).status, id).toBe(200);
    const gone = new Promise((resolve) => full.once('exit', resolve));
    full.kill('SIGTERM');
    expect(await gone).toBe(0);
  }, 180_000);
});

function freeBytes(path: string): number {
  const { bavail, bsize } = statfsSync(path);
  return bavail * bsize;
}
