import { get, type IncomingMessage } from 'node:http';
import { Agent } from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
import { chromium } from '@playwright/test';
import type { LiveChange } from '#contract/live.ts';
import type { StoredBoard } from '#contract/boards.ts';
import { nth } from '#core/lists/there.ts';
import type { Figure } from './figure.ts';
import { firstPageKilobytes } from './firstPage.ts';
import { filledShop, startAt, stop, type Serving } from './server.ts';
import { buildWeb } from '../buildWeb.ts';
import { ensureProgram } from '../debianPackages.ts';
import { ask } from './loadClient.ts';
import { newDatabase, startTestDatabase } from '../mariadb/testDatabase.ts';
import { ROOT } from '../root.ts';
import { join } from 'node:path';

const DEVICES = 50;
const BOARDS = 300;
const PIECES = 2000;
const WRITES_A_SECOND = 200;
const SECONDS = 6;
/** Two servers that have only just started are slower for a while, and nobody's shop is served by such: as many before, under the same load, are not counted. */
const WARM_SECONDS = 4;
/** What is stored last still reaches the pages, ms. */
const AFTERWARDS_MS = 1500;
const STARTS = 5;

/** Devices with open pages on two servers of one database, half on each, and writes at a steady rate; a first page; a start without a server. */
export async function sharedFigures(): Promise<Figure[]> {
  ensureProgram('mariadbd', 'mariadb-server');
  ensureProgram('chromium', 'chromium');
  buildWeb();
  const database = await startTestDatabase(true);
  try {
    const shop = await filledShop(await newDatabase(database.url, 'bench_shared'), PIECES, BOARDS);
    const webFolder = join(ROOT, 'web', 'dist');
    const servers = [await startAt(shop.url, { WEB_FOLDER: webFolder }), await startAt(shop.url)];
    const { late, p99, told } = await shared(servers, shop.boards);
    const offline = await offlineStart(nth(servers, 0));
    for (const server of servers) await stop(server.process);
    const kilobytes = firstPageKilobytes();
    return [
      {
        name: `changes that reach each of ${DEVICES} open pages on two servers within 1 s, of ${told}`,
        value: 100 * (1 - late),
        unit: '%',
        goal: '>= 99',
        ok: late <= 0.01,
      },
      {
        name: `writes acknowledged, ${WRITES_A_SECOND} a second, ${BOARDS} boards and ${PIECES} pieces, p99`,
        value: p99,
        unit: 'ms',
        goal: '< 250',
        ok: p99 < 250,
      },
      {
        name: 'JavaScript of the first page, gzipped',
        value: kilobytes,
        unit: 'kB',
        goal: '<= 230',
        ok: kilobytes <= 230,
      },
      {
        name: 'second start of the application without a server, until it can be used, median',
        value: offline,
        unit: 'ms',
        goal: '< 500',
        ok: offline < 500,
      },
    ];
  } finally {
    await database.stop();
  }
}

interface Heard {
  stream: IncomingMessage;
  /** When each change was heard, by its board's newest number of changes. */
  at: Map<number, number>;
}

/** An open page that writes down when it hears of which change. */
function listen(base: string, tab: string): Promise<Heard> {
  return new Promise((resolve, reject) => {
    get(new URL(`/api/live?tab=${tab}`, base), (stream) => {
      const at = new Map<number, number>();
      let text = '';
      stream.setEncoding('utf8');
      stream.on('data', (part: string) => {
        text += part;
        const blocks = text.split('\n\n');
        text = blocks.pop() ?? '';
        for (const block of blocks) {
          const data = /^event: change\n(?:id: \d+\n)?data: (.*)$/m.exec(block)?.[1];
          if (data === undefined) continue;
          for (const { id } of JSON.parse(data) as LiveChange[]) if (!at.has(id)) at.set(id, performance.now());
        }
        if (at.size === 0) resolve({ stream, at });
      });
    }).once('error', reject);
  });
}

/** Writes at a steady rate, however long answers take. */
async function shared(
  servers: readonly Serving[],
  boards: readonly StoredBoard[],
): Promise<{ late: number; p99: number; told: number }> {
  const pages = await Promise.all(
    Array.from({ length: DEVICES }, (_, i) => listen(nth(servers, i % servers.length).base, `device${i}`)),
  );
  const agent = new Agent({ keepAlive: true, maxSockets: DEVICES });
  const revisions = new Map(boards.map((b) => [b.id, b.revision]));
  const took: number[] = [];
  const acknowledged: number[] = [];
  const writing: Promise<void>[] = [];
  const began = performance.now();
  for (let n = 0; n < WRITES_A_SECOND * (WARM_SECONDS + SECONDS); n += 1) {
    const due = began + (n * 1000) / WRITES_A_SECOND;
    if (due > performance.now()) await sleep(due - performance.now());
    const stored = nth(boards, n % boards.length);
    writing.push(
      (async () => {
        const basedOn = revisions.get(stored.id) ?? 1;
        const answer = await ask(nth(servers, n % servers.length).base, agent, {
          method: 'PUT',
          path: `/api/boards/${stored.id}`,
          body: JSON.stringify({ basedOn, board: { ...stored.board, use: `Use ${n}` } }),
        });
        if (n >= WRITES_A_SECOND * WARM_SECONDS) took.push(performance.now() - due);
        if (answer.status !== 200) return;
        revisions.set(stored.id, basedOn + 1);
        acknowledged.push(performance.now());
      })(),
    );
  }
  await Promise.all(writing);
  agent.destroy();
  await sleep(AFTERWARDS_MS);
  // Numbers are given out in the order of commits, nearly: the k-th change that a page hears is the k-th that was acknowledged, nearly.
  acknowledged.sort((a, b) => a - b);
  let [late, told] = [0, 0];
  for (const { stream, at } of pages) {
    const heard = [...at.values()].sort((a, b) => a - b);
    told += acknowledged.length;
    acknowledged.forEach((ack, k) => {
      const when = heard[k];
      if (when === undefined || when - ack > 1000) late += 1;
    });
    stream.destroy();
  }
  took.sort((a, b) => a - b);
  return { late: late / told, p99: took[Math.floor(took.length * 0.99)] ?? Number.NaN, told };
}

/** How long the application takes from an address to being usable when there is no server and it was here before, ms. */
async function offlineStart({ base }: Serving): Promise<number> {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox'],
  });
  const context = await browser.newContext();
  const page = await context.newPage();
  const first = new URL('/boards', base).href;
  await page.goto(first);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.reload({ waitUntil: 'networkidle' });
  await context.setOffline(true);
  const times: number[] = [];
  for (let i = 0; i < STARTS; i += 1) {
    const start = performance.now();
    await page.goto(first, { waitUntil: 'commit' });
    await page
      .getByRole('link', { name: /Board / })
      .first()
      .waitFor();
    times.push(performance.now() - start);
  }
  await browser.close();
  return times.sort((a, b) => a - b)[Math.floor(STARTS / 2)] ?? Number.NaN;
}
