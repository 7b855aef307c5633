import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterAll, expect, it } from 'vitest';
import type { Board } from '#core/board/board.ts';
import { bundled } from './bundled.mjs';

const data = mkdtempSync(join(tmpdir(), 'cadenza-life-'));
const passphraseFile = join(data, 'passphrase');
writeFileSync(passphraseFile, 'four planed mules asleep\n');
const running = new Set<ChildProcess>();
const environment = (extra: Record<string, string> = {}) => ({
  ...process.env,
  CADENZA_DATA: data,
  PORT: '0',
  DATABASE_URL: '',
  ...extra,
});
/** What runs them, made once: that takes longer than most of them do. */
const commands = { start: await bundled('start'), backup: await bundled('backup'), restore: await bundled('restore') };

interface Started {
  process: ChildProcess;
  address: string;
  told: string;
}

/** Runs the start command until it prints its address, or ends. */
function start(extra: Record<string, string> = {}, ...args: string[]): Promise<Started> {
  const child = spawn(process.execPath, [commands.start, ...args], {
    env: environment(extra),
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  running.add(child);
  return new Promise((resolve, reject) => {
    let told = '';
    child.stderr.on('data', (chunk: Buffer) => {
      told += chunk.toString();
      const address = /ready: {2}(\S+)/.exec(told)?.[1];
      if (address) resolve({ process: child, address, told });
    });
    child.on('exit', () => {
      running.delete(child);
      reject(new Error(told.trim()));
    });
  });
}

async function end(child: ChildProcess, signal: NodeJS.Signals): Promise<number | null> {
  const gone = new Promise<number | null>((resolve) => child.once('exit', resolve));
  child.kill(signal);
  running.delete(child);
  return gone;
}

const databasePid = () => Number(readFileSync(join(data, 'mariadb', 'mariadb.pid'), 'utf8'));
const isRunning = (pid: number) =>
  existsSync(`/proc/${pid}`) && !readFileSync(`/proc/${pid}/stat`, 'utf8').includes(') Z ');
const boards = async (address: string) =>
  (await (await fetch(`${address}api/boards`)).json()) as { id: string; revision: number; board: Board }[];

/** So many facts each of two devices notes while the server dies. */
const NOTED = 500;
const batch = (device: string, from: number) =>
  Array.from({ length: 5 }, (_, i) => ({
    kind: 'note',
    id: `${device}${from + i}`,
    at: new Date().toISOString(),
    device,
    text: `${device} ${from + i}`,
  }));

/** Sends facts until somebody answers that they are there. */
async function sendFacts(address: () => string, board: string, facts: unknown[]): Promise<void> {
  for (;;) {
    const answer = await fetch(`${address()}api/boards/${board}/facts`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ facts }),
    }).catch(() => null);
    if (answer?.ok) return;
    await sleep(30);
  }
}

afterAll(async () => {
  for (const child of running) await end(child, 'SIGTERM');
  rmSync(data, { recursive: true, force: true });
});

it('starts with the demo, keeps all data over kill -9 of either process, shares, backs up, restores, and ends cleanly', async () => {
  const first = await start();
  expect(first.told).toContain('Loaded the demo shed.');
  const [stored] = await boards(first.address);
  const renamed = await fetch(`${first.address}api/boards/${stored!.id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ basedOn: 1, board: { ...stored!.board, name: 'Kept' } }),
  });
  expect(renamed.status).toBe(200);
  const names = async (address: string) => (await boards(address)).map((b) => b.board.name).sort();
  const kept = await names(first.address);

  // Two devices note a thousand facts all the while, and send each batch until it is answered.
  let address = first.address;
  const streams = Promise.all(
    ['a', 'b'].map(async (device) => {
      for (let from = 0; from < NOTED; from += 5) await sendFacts(() => address, stored!.id, batch(device, from));
    }),
  );

  // The server is killed: its database goes on, and the next start takes it over.
  const pid = databasePid();
  await sleep(200);
  await end(first.process, 'SIGKILL');
  expect(isRunning(pid)).toBe(true);
  const second = await start();
  address = second.address;
  expect(second.told).not.toContain('demo');
  expect(databasePid()).toBe(pid);
  expect(await names(second.address)).toEqual(kept);

  // A second one beside it shares the database and leaves it alone at the end; a taken port is said.
  const guest = await start();
  expect(await names(guest.address)).toEqual(kept);
  await expect(start({ PORT: new URL(second.address).port })).rejects.toThrow(
    /^.*Port \d+ is taken on 127\.0\.0\.1\..*PORT=\d+ npm start$/s,
  );
  expect(await end(guest.process, 'SIGINT')).toBe(0);
  expect((await fetch(`${second.address}api/health`)).status).toBe(200);

  // Both are killed: the next start comes back clean.
  process.kill(pid, 'SIGKILL');
  await end(second.process, 'SIGKILL');
  const third = await start();
  address = third.address;
  expect(await names(third.address)).toEqual(kept);

  // Whatever died under them: every fact is there, once, each device's in its order.
  await streams;
  const { facts } = (await (await fetch(`${address}api/boards/${stored!.id}/facts`)).json()) as {
    facts: { id: string }[];
  };
  for (const device of ['a', 'b'])
    expect(facts.map((f) => f.id).filter((id) => id.startsWith(device))).toEqual(
      Array.from({ length: NOTED }, (_, i) => `${device}${i}`),
    );

  // A backup is made while it runs; what changes later is gone after restoring it.
  const backup = join(data, 'backup.sql');
  expect(spawnSync(process.execPath, [commands.backup, backup], { env: environment() }).status).toBe(0);
  await fetch(`${third.address}api/boards/${stored!.id}/remove`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ basedOn: 2 }),
  });
  expect(await names(third.address)).not.toEqual(kept);
  const last = databasePid();
  expect(await end(third.process, 'SIGTERM')).toBe(0);
  expect(isRunning(last)).toBe(false);
  const foreign = join(data, 'other.sql');
  writeFileSync(foreign, 'drop table boards;');
  expect(
    spawnSync(process.execPath, [commands.restore, foreign], { env: environment(), encoding: 'utf8' }),
  ).toMatchObject({ status: 1, stderr: `${foreign} is not a Cadenza backup; nothing was changed.\n` });
  expect(spawnSync(process.execPath, [commands.restore, backup], { env: environment() }).status).toBe(0);
  const restored = await start();
  expect(await names(restored.address)).toEqual(kept);
  expect(await end(restored.process, 'SIGINT')).toBe(0);
}, 120_000);

it.each([
  [{ PORT: 'eighty' }, /PORT must be a number from 0 to 65535, not "eighty"/],
  [{ CADENZA_DEMO: 'no' }, /CADENZA_DEMO must be 0 or 1, not "no"/],
  [{ HOST: '0.0.0.0' }, /Others can reach 0\.0\.0\.0, so Cadenza does not start without a passphrase/],
  [
    { HOST: '0.0.0.0', CADENZA_PASSPHRASE_FILE: '/nowhere/at-all' },
    /CADENZA_PASSPHRASE_FILE cannot be read \(ENOENT\)/,
  ],
  [{ CADENZA_CERT: '/nowhere/at-all' }, /CADENZA_CERT cannot be read \(ENOENT\)/],
  [{ HOST: '203.0.113.7', CADENZA_PASSPHRASE_FILE: passphraseFile }, /Cannot listen on 203\.0\.113\.7:0/],
  [{ DATABASE_URL: 'mysql://a:b@127.0.0.1:9/none' }, /The database cannot be used .*Check DATABASE_URL/],
])(
  'says in one sentence what is wrong with %j',
  async (extra, sentence) => {
    await expect(start(extra)).rejects.toThrow(sentence);
  },
  60_000,
);

it('begins empty when asked, says what to do first, and loads no demo later', async () => {
  const own = mkdtempSync(join(tmpdir(), 'cadenza-own-'));
  const first = await start({ CADENZA_DATA: own }, '--empty');
  expect(first.told).toContain('An empty shop: describe it in Shop, and enter your pile in Rack.');
  expect(await boards(first.address)).toEqual([]);
  expect(await end(first.process, 'SIGTERM')).toBe(0);
  const later = await start({ CADENZA_DATA: own });
  expect(later.told).not.toContain('demo');
  expect(await boards(later.address)).toEqual([]);
  expect(await end(later.process, 'SIGTERM')).toBe(0);
  await expect(start({ CADENZA_DATA: own }, '--blank')).rejects.toThrow(
    /npm start does not know "--blank"; it takes --empty/,
  );
  rmSync(own, { recursive: true, force: true });
}, 120_000);
