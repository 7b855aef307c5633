import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { afterAll, expect, it } from 'vitest';
import { plainBoard } from '#core/plan/planArbitrary.ts';
import { newDatabase } from '../../../bin/mariadb/testDatabase.ts';
import { ROOT } from '../../../bin/root.ts';
import { openDatabase } from '../stores/database.ts';
import { GONE_AFTER_MS, stay, whoIsHere } from '../stores/presenceStore.ts';
import { Page } from './pageForTests.ts';

const running = new Set<ChildProcess>();
afterAll(() => running.forEach((child) => child.kill('SIGKILL')));

interface Served {
  base: string;
  child: ChildProcess;
}

/** A server in a process of its own. */
function serve(databaseUrl: string): Promise<Served> {
  const child = spawn(
    process.execPath,
    [join(ROOT, 'node_modules/tsx/dist/cli.mjs'), join(ROOT, 'server/src/main.ts')],
    {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'pipe'],
      detached: true,
      env: { ...process.env, DATABASE_URL: databaseUrl, PORT: '0', HOST: '127.0.0.1', CADENZA_DEMO: '0' },
    },
  );
  running.add(child);
  return new Promise((resolve, reject) => {
    let told = '';
    child.stderr.on('data', (chunk: Buffer) => {
      told += chunk.toString();
      const address = /Serving (\S+)/.exec(told)?.[1];
      if (address) resolve({ base: `${address}api`, child });
    });
    child.once('exit', () => reject(new Error(told)));
  });
}

/** Nothing of it ends in order: tsx runs the server in a child of its own. */
const killed = ({ child }: Served) => {
  running.delete(child);
  process.kill(-child.pid!, 'SIGKILL');
};

it('two servers start at once on an empty database, write and tell together, and when one is killed its pages miss nothing at the other', async () => {
  const url = await newDatabase(process.env.TEST_DATABASE_URL!, 'two_servers');
  const [one, two] = await Promise.all([serve(url), serve(url)]);
  const pages = await Promise.all(
    [one, two, one, two].map((server, i) => Page.at(server, `tab=page${i}&name=Page${i}&board=b`)),
  );
  await Promise.all(pages.map((page) => page.until(() => page.here.length === 4)));

  const stored = new Set<string>();
  let refused = 0;
  /** A hand that makes boards one after the other, and goes to the other server when its own is gone. */
  const hand = async (servers: Served[], boards: number) => {
    for (let n = 0; n < boards; n += 1) {
      const name = { 'Content-Type': 'application/json', 'Idempotency-Key': `two-servers-${Math.random()}` };
      const body = JSON.stringify(plainBoard());
      for (const { base } of servers) {
        const answer = await fetch(`${base}/boards`, { method: 'POST', headers: name, body }).catch(() => null);
        if (!answer) continue;
        if (answer.status === 201) stored.add(((await answer.json()) as { id: string }).id);
        else refused += 1;
        break;
      }
      if (stored.size === 20) killed(one);
    }
  };
  await Promise.all([hand([one, two], 20), hand([two], 20), hand([one, two], 20)]);
  expect([stored.size, refused]).toEqual([60, 0]);

  // The pages of the killed one come back at the other, as a browser would.
  const lost = pages.filter((_, i) => i % 2 === 0);
  await Promise.all(lost.map((page) => page.over));
  const back = await Promise.all(
    lost.map((page, i) => {
      const last = page.said.findLast((s) => s.id !== null)!.id!;
      return Page.at(two, `tab=page${2 * i}&name=Page${2 * i}&board=b`, { 'Last-Event-ID': String(last) });
    }),
  );
  const heard = [
    ...lost.map((page, i) => () => [...page.changes, ...back[i]!.changes]),
    ...pages.filter((_, i) => i % 2 === 1).map((page) => () => page.changes),
  ];
  for (const [i, page] of [...back, ...pages.filter((_, k) => k % 2 === 1)].entries()) {
    await page.until(() => new Set(heard[i]!().map((c) => c.id)).size >= 60);
    expect(new Set(heard[i]!().map((c) => c.id)).size).toBe(60);
    // What is told again to one that comes back is at most what its old stream was not sure of; no stream tells anything twice.
    const ids = page.changes.map((c) => c.id);
    expect(new Set(ids).size).toBe(ids.length);
  }

  // One that was killed speaks for its pages no more: whoever looks after that is without them.
  const db = openDatabase(url);
  await db('presences').insert({
    tab: 'dead',
    name: 'Dead',
    board: 'b',
    seen_at: new Date(Date.now() - GONE_AFTER_MS - 1),
  });
  await stay(db, []);
  expect((await whoIsHere(db)).map((p) => p.name)).toEqual(['Page0', 'Page1', 'Page2', 'Page3']);
  await db.destroy();
  killed(two);
});
