import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import mysql from 'mysql2/promise';
import { afterAll, describe, expect, it } from 'vitest';
import { randomFrom } from '#core/propose/random.ts';
import { startProjectDatabase } from './database.ts';
import { takeLock } from './folderLock.ts';

/** More rounds by hand: STARTS=50 npx vitest run bin/mariadb/database.test.ts */
const ROUNDS = Number(process.env.STARTS ?? 3);

const root = mkdtempSync(join(tmpdir(), 'cadenza folders '));
const holders = new Set<ChildProcess>();
afterAll(() => {
  for (const child of holders) child.kill('SIGKILL');
  rmSync(root, { recursive: true, force: true });
});
let made = 0;
const newFolder = (name = 'folder') => join(root, `${name} ${(made += 1)}`);

interface Holder {
  process: ChildProcess;
  /** The address, or what it was refused with. */
  said: Promise<string>;
  letGo(): Promise<number | null>;
}

/** Another process that starts the database of a folder. */
function hold(folder: string): Holder {
  const child = spawn(process.execPath, [join(import.meta.dirname, 'holdForTests.mjs'), folder], {
    stdio: ['pipe', 'pipe', 'ignore'],
  });
  holders.add(child);
  const gone = new Promise<number | null>((resolve) =>
    child.once('exit', (code) => {
      holders.delete(child);
      resolve(code);
    }),
  );
  let said = '';
  child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()));
  return {
    process: child,
    said: new Promise((resolve) => {
      child.stdout.on('data', () => said.includes('\n') && resolve(said.trim()));
      void gone.then(() => resolve(said.trim()));
    }),
    letGo: () => {
      child.stdin.end();
      return gone;
    },
  };
}

async function query(url: string, sql: string): Promise<unknown[]> {
  const connection = await mysql.createConnection(url);
  try {
    return (await connection.query(sql))[0] as unknown[];
  } finally {
    await connection.end();
  }
}

/** MariaDB processes that run on a folder's data. */
function runningOn(folder: string): string[] {
  return readdirSync('/proc').filter(
    (pid) =>
      /^\d+$/.test(pid) &&
      (() => {
        try {
          return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`--datadir=${folder}/data\0`);
        } catch {
          return false;
        }
      })(),
  );
}

/** A folder whose database holds one row, with nobody on it. */
async function filledFolder(): Promise<string> {
  const folder = newFolder('filled');
  const database = await startProjectDatabase(folder);
  await query(database.url, 'create table kept (n int primary key)');
  await query(database.url, 'insert into kept values (42)');
  await database.stop();
  return folder;
}

describe('the data of a folder', () => {
  it(
    `are made once and shared by starts at once, on new folders and old, ${ROUNDS} rounds`,
    async () => {
      for (let round = 0; round < ROUNDS; round += 1) {
        const folder = newFolder('at once');
        for (const state of ['new', 'old']) {
          const starts = Array.from({ length: 3 }, () => hold(folder));
          const said = await Promise.all(starts.map((s) => s.said));
          expect(new Set(said).size, `${state}: ${said.join(' | ')}`).toBe(1);
          if (state === 'new') await query(said[0]!, 'create table kept (n int primary key)');
          expect(await query(said[0]!, 'select count(*) as n from kept')).toEqual([{ n: 0 }]);
          expect(runningOn(folder)).toHaveLength(1);
          // Whoever leaves first leaves the database to the others; the last one ends it.
          await starts[0]!.letGo();
          expect(await query(said[0]!, 'select 1 as one')).toEqual([{ one: 1 }]);
          await Promise.all([starts[1]!.letGo(), starts[2]!.letGo()]);
          expect(runningOn(folder)).toEqual([]);
        }
      }
    },
    60_000 + ROUNDS * 30_000,
  );

  it('come up after a first start that was killed anywhere, and nobody is left running', async () => {
    const { below } = randomFrom(7);
    for (let round = 0; round < ROUNDS + 2; round += 1) {
      const folder = newFolder('killed');
      const first = hold(folder);
      await new Promise((resolve) => setTimeout(resolve, 300 + below(1500)));
      first.process.kill('SIGKILL');
      const database = await startProjectDatabase(folder);
      expect(await query(database.url, 'select 1 as one')).toEqual([{ one: 1 }]);
      await database.stop();
      expect(runningOn(folder)).toEqual([]);
    }
  }, 120_000);

  it("are never touched when MariaDB's own tables are missing beside Cadenza's", async () => {
    const folder = await filledFolder();
    renameSync(join(folder, 'data', 'mysql'), join(folder, 'mysql-elsewhere'));
    await expect(startProjectDatabase(folder)).rejects.toThrow(
      /holds Cadenza's tables, but MariaDB's own \(mysql\) are missing\. Nothing was touched/,
    );
    renameSync(join(folder, 'mysql-elsewhere'), join(folder, 'data', 'mysql'));
    const database = await startProjectDatabase(folder);
    expect(await query(database.url, 'select n from kept')).toEqual([{ n: 42 }]);
    await database.stop();
  }, 60_000);

  it('that an older Cadenza never finished are set aside, and new ones made', async () => {
    const folder = newFolder('unfinished');
    mkdirSync(join(folder, 'data', 'mysql'), { recursive: true });
    writeFileSync(join(folder, 'made-by-cadenza'), '');
    writeFileSync(join(folder, 'data', 'ibdata1'), 'half');
    const database = await startProjectDatabase(folder);
    expect(await query(database.url, 'select 1 as one')).toEqual([{ one: 1 }]);
    await database.stop();
    expect(readFileSync(join(folder, 'data-unfinished', 'ibdata1'), 'utf8')).toBe('half');
  }, 60_000);

  it('outlive a start that fails while it makes or starts them, and the first error is told', async () => {
    const folder = await filledFolder();
    const log = join(folder, 'data', 'aria_log_control');
    const whole = readFileSync(log);
    writeFileSync(log, 'not a control file');
    await expect(startProjectDatabase(folder)).rejects.toThrow(
      /^The database did not start \((?!Aborting).*[Aa]ria.*\)\. Its log is .*; set DATABASE_URL/,
    );
    expect(runningOn(folder)).toEqual([]);
    writeFileSync(log, whole);
    const database = await startProjectDatabase(folder);
    expect(await query(database.url, 'select n from kept')).toEqual([{ n: 42 }]);
    await database.stop();
  }, 60_000);

  it('go on under those who use them when another start is not let in', async () => {
    const folder = newFolder('joined');
    const user = hold(folder);
    const url = await user.said;
    const connection = join(folder, 'connection.json');
    const kept = readFileSync(connection, 'utf8');
    // As if the file was lost: this start makes up a password that the running database does not know.
    writeFileSync(connection, JSON.stringify({ port: (JSON.parse(kept) as { port: number }).port }));
    await expect(startProjectDatabase(folder, { patienceSeconds: 1 })).rejects.toThrow(
      /already running, and does not let this start in.*Stop Cadenza/,
    );
    expect(await query(url, 'select 1 as one')).toEqual([{ one: 1 }]);
    writeFileSync(connection, kept);
    await user.letGo();
    expect(runningOn(folder)).toEqual([]);
  }, 60_000);

  it('are not had alone while somebody uses them', async () => {
    const folder = newFolder('alone');
    const user = hold(folder);
    await user.said;
    await expect(startProjectDatabase(folder, { alone: true })).rejects.toThrow(
      /Cadenza is running on .*Stop it first/,
    );
    await user.letGo();
    const alone = await startProjectDatabase(folder, { alone: true });
    expect(await hold(folder).said).toMatch(/^refused Somebody restores a backup into/);
    await alone.stop();
  }, 60_000);

  it.runIf(process.getuid?.() === 0)(
    'are made by an ordinary user too, in a path with blanks',
    () => {
      const folder = newFolder('ordinary');
      const uid = 65534;
      mkdirSync(folder);
      chownSync(folder, uid, uid);
      chmodSync(root, 0o755);
      const script = join(import.meta.dirname, 'holdForTests.mjs');
      const asUser = ['--reuid=65534', '--regid=65534', '--clear-groups'];
      const env = { ...process.env, HOME: folder, TMPDIR: folder };
      // A clone that only root can read: then the user's own copy of what needs no packages, which is the installer.
      const program =
        spawnSync('setpriv', [...asUser, 'test', '-r', script]).status === 0
          ? [process.execPath, script, folder]
          : [
              'mariadb-install-db',
              '--no-defaults',
              '--datadir=./data',
              '--auth-root-authentication-method=normal',
              '--skip-test-db',
              '--force',
            ];
      const done = spawnSync('setpriv', [...asUser, ...program], { cwd: folder, encoding: 'utf8', env, input: '' });
      expect([done.status, existsSync(join(folder, 'data', 'mysql'))], done.stdout + done.stderr).toEqual([0, true]);
      expect(statSync(join(folder, 'data', 'ibdata1')).uid).toBe(uid);
    },
    60_000,
  );
});

describe('a lock of a folder', () => {
  it('is shared or alone, and goes with whoever is killed', async () => {
    const file = join(root, 'a lock');
    const [one, two] = [await takeLock(file, 'shared', 0), await takeLock(file, 'shared', 0)];
    expect(await takeLock(file, 'exclusive', 0)).toBeNull();
    await one!.release();
    expect(await takeLock(file, 'exclusive', 0)).toBeNull();
    await two!.release();
    const alone = await takeLock(file, 'exclusive', 0);
    expect(await takeLock(file, 'shared', 1)).toBeNull();
    await alone!.release();
    const folder = newFolder('killed holder');
    const holder = hold(folder);
    await holder.said;
    holder.process.kill('SIGKILL');
    const again = await startProjectDatabase(folder, { alone: true });
    await again.stop();
  }, 60_000);
});

describe('the doors of the database', () => {
  it('nobody gets in without a password, the account that serves sees its own database alone, and files are closed to others; old folders too', async () => {
    const folder = await filledFolder();
    // As an older Cadenza left it: open accounts, files for everybody.
    const sql = join(root, 'open.sql');
    writeFileSync(
      sql,
      [
        "create user 'root'@'127.0.0.1'",
        "create user 'root'@'::1'",
        "create user ''@'localhost'",
        "create user ''@'%'",
        "grant all on *.* to 'root'@'127.0.0.1' with grant option",
      ]
        .map((s) => `${s};`)
        .join('\n'),
    );
    const open = await startProjectDatabase(folder, { extra: [`--init-file=${sql}`] }).catch(() => null);
    await open?.stop();
    chmodSync(join(folder, 'connection.json'), 0o644);
    chmodSync(join(folder, 'data'), 0o755);

    const database = await startProjectDatabase(folder);
    const port = Number(new URL(database.url).port);
    for (const user of ['root', '', 'mysql', 'mariadb.sys', 'cadenza', 'cadenza_keeper', 'anybody']) {
      await expect(mysql.createConnection({ host: '127.0.0.1', port, user }), user).rejects.toThrow(/Access denied/);
    }
    await expect(
      mysql.createConnection({ host: '127.0.0.1', port, user: 'root', password: new URL(database.keeperUrl).password }),
    ).rejects.toThrow(/Access denied/);
    const shown = async (url: string) =>
      (await query(url, 'show databases'))
        .map((r) => Object.values(r as object)[0] as string)
        .filter((name) => name !== 'information_schema');
    expect(await shown(database.url)).toEqual(['cadenza']);
    expect(await shown(database.keeperUrl)).toEqual(['cadenza']);
    for (const forbidden of [
      'select * from mysql.user',
      'create database cadenza_mine',
      "select 1 into outfile '/tmp/cadenza-out'",
      "load data local infile '/etc/passwd' into table kept",
      "create user 'x'@'%'",
    ]) {
      await expect(query(database.url, forbidden), forbidden).rejects.toThrow();
    }
    expect(
      await query(database.url, 'select @@local_infile as l, @@socket as s, @@secure_file_priv as f, @@tmpdir as t'),
    ).toEqual([{ l: 0, s: '', f: `${folder}/files/`, t: `${folder}/tmp` }]);
    expect(readdirSync(join(folder, 'files'))).toEqual([]);
    const openFiles = readdirSync(folder, { recursive: true, withFileTypes: true })
      .map((e) => join(e.parentPath, e.name))
      .filter((path) => (statSync(path).mode & 0o077) !== 0);
    expect(openFiles).toEqual([]);
    await database.stop();
  }, 60_000);
});
