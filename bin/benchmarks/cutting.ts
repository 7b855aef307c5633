import { nth } from '#core/lists/there.ts';
import { readFileSync, readdirSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { extname, join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import type { CutPlan } from '#core/cutting/cutPlan.ts';
import type { CutProblem } from '#core/cutting/cutProblem.ts';
import { firstFit } from '#core/cutting/firstFit.ts';
import { improveCut } from '#core/cutting/improveCut.ts';
import type { Figure } from './figure.ts';
import { buildWeb } from '../buildWeb.ts';
import { cuttingInstance } from './cuttingInstances.ts';
import { ensureProgram } from '../debianPackages.ts';
import { highsInNode } from '../highsInNode.ts';
import { ROOT } from '../root.ts';

/** Strips of an instance, and how many seeds are run. */
const SIZES = [
  [20, 5],
  [60, 30],
  [150, 3],
] as const;
const SECONDS = 10;
const SOON_SECONDS = 1;
/** Of the instances of 60 strips so many are proven within so many seconds. */
const PROVEN_GOALS = [
  [1, 20],
  [5, 27],
  [10, 30],
] as const;
/** The first solves compile WebAssembly and JavaScript while they run, on other threads whose time is counted too; they are not measured. */
const WARM_UP = cuttingInstance(60, 99);
const MOST_MEMORY_MB = 500;

/** How one search went. */
interface Run {
  value: number;
  bound: number | null;
  gap: number | null;
  /** Gap after one second; null when no bound was known for all species by then. */
  gapSoon: number | null;
  seconds: number;
}

type Search = (problem: CutProblem) => Promise<Run>;

function runOf(plan: Pick<CutPlan, 'score' | 'bound' | 'gap'>, gapSoon: number | null, seconds: number): Run {
  return { value: plan.score.total, bound: plan.bound, gap: plan.gap, gapSoon, seconds };
}

async function nodeSearch(): Promise<Search> {
  const solver = await highsInNode();
  return (problem) => {
    // Seconds of the processor: what else the machine does in this hour does not count.
    const now = () => process.cpuUsage().user / 1e6;
    const start = now();
    let soon: number | null = null;
    const plan = improveCut(problem, solver, {
      seconds: SECONDS,
      now,
      onProgress: (p) => {
        if (now() - start <= SOON_SECONDS) soon = p.gap;
      },
    });
    return Promise.resolve(runOf(plan, soon, now() - start));
  };
}

/** The page's own worker, as it is built, fed with a problem. */
function browserSearch(page: Page, worker: string): Search {
  return async (problem) => {
    const plain = { ...problem, banned: [...problem.banned] };
    const result = await page.evaluate(
      async ({ plain: given, worker: url, seconds, soonSeconds }) => {
        type Told = { plan: { score: { total: number }; bound: number | null; gap: number | null }; done: boolean };
        const keeper = globalThis as unknown as { cutWorker?: Worker };
        const cutWorker = (keeper.cutWorker ??= new Worker(url, { type: 'module' }));
        const start = performance.now();
        let soon: number | null = null;
        return new Promise<{ plan: Told['plan']; soon: number | null; seconds: number }>((resolve) => {
          cutWorker.onmessage = (event: MessageEvent<Told>) => {
            const { plan, done } = event.data;
            if (performance.now() - start <= soonSeconds * 1000) soon = plan.gap;
            if (done)
              resolve({
                plan: { score: { total: plan.score.total }, bound: plan.bound, gap: plan.gap },
                soon,
                seconds: (performance.now() - start) / 1000,
              });
          };
          cutWorker.postMessage({ problem: { ...given, banned: new Set(given.banned) }, seconds });
        });
      },
      { plain, worker, seconds: SECONDS, soonSeconds: SOON_SECONDS },
    );
    return {
      value: result.plan.score.total,
      bound: result.plan.bound,
      gap: result.plan.gap,
      gapSoon: result.soon,
      seconds: result.seconds,
    };
  };
}

const TYPES: Record<string, string> = { '.js': 'text/javascript', '.wasm': 'application/wasm', '.css': 'text/css' };

/** The built interface on a port of its own, without the server behind it. */
function serveAssets(): Promise<{ address: string; close(): void }> {
  const assets = join(ROOT, 'web', 'dist', 'assets');
  const server = createServer((request, response) => {
    const name = (request.url ?? '').split('/').at(-1) ?? '';
    if (!readdirSync(assets).includes(name)) {
      response.setHeader('Content-Type', 'text/html').end('<title>bench</title>');
      return;
    }
    response
      .setHeader('Content-Type', TYPES[extname(name)] ?? 'application/octet-stream')
      .end(readFileSync(join(assets, name)));
  }).listen(0, '127.0.0.1');
  return new Promise((resolve) =>
    server.once('listening', () =>
      resolve({ address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, close: () => server.close() }),
    ),
  );
}

/** The most memory a process has held, MB. */
function peakMemory(pid: number | 'self'): number {
  return Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? Number.NaN) / 1000;
}

async function figuresFor(
  where: string,
  search: Search,
  sizes: readonly (readonly [number, number])[],
): Promise<Figure[]> {
  const figures: Figure[] = [];
  await search(WARM_UP);
  for (const [strips, seeds] of sizes) {
    const runs: Run[] = [];
    let slowestFirst = 0;
    for (let seed = 1; seed <= seeds; seed += 1) {
      const problem = cuttingInstance(strips, seed);
      const start = performance.now();
      const first = firstFit(problem);
      slowestFirst = Math.max(slowestFirst, performance.now() - start);
      const run = await search(problem);
      runs.push(run);
      const told = `value ${run.value.toFixed(2)}, bound ${run.bound?.toFixed(2) ?? 'none'}, ${run.seconds.toFixed(2)} s, ${(run.value / first.score.total).toFixed(2)} of first fit`;
      const gap = run.gap === null ? Number.NaN : 100 * run.gap;
      figures.push({
        name: `${where}, ${strips} strips from ${problem.rack.length} pieces, seed ${seed}: ${told}; gap`,
        value: gap,
        unit: '%',
        goal: strips === 150 ? '<= 1' : 'told',
        ok: strips !== 150 || gap <= 1,
      });
    }
    figures.push({
      name: `${where}, ${strips} strips: slowest first feasible plan`,
      value: slowestFirst,
      unit: 'ms',
      goal: '< 100',
      ok: slowestFirst < 100,
    });
    if (strips !== 60) continue;
    const provenAt = (limit: number) => runs.filter((r) => r.gap === 0 && r.seconds <= limit).length;
    for (const [limit, goal] of PROVEN_GOALS) {
      const proven = provenAt(limit);
      figures.push({
        name: `${where}, 60 strips: instances proven within ${limit} s`,
        value: proven,
        unit: `of ${seeds}`,
        goal: `>= ${goal}`,
        ok: proven >= goal,
      });
    }
    const soon = nth(
      runs.map((r) => r.gapSoon ?? 1).sort((a, b) => a - b),
      Math.floor(seeds / 2),
    );
    figures.push({
      name: `${where}, 60 strips: median gap at ${SOON_SECONDS} s`,
      value: 100 * soon,
      unit: '%',
      goal: '< 1',
      ok: soon < 0.01,
    });
  }
  return figures;
}

/** Seeded instances of 20, 60 and 150 strips in Node, and of 60 in the browser's worker: value, bound, gap, time, and the ratio to first fit. */
export async function cuttingFigures(): Promise<Figure[]> {
  const figures = await figuresFor('Node', await nodeSearch(), SIZES);
  const memory = peakMemory('self');
  figures.push({
    name: 'Node: peak memory',
    value: memory,
    unit: 'MB',
    goal: `< ${MOST_MEMORY_MB}`,
    ok: memory < MOST_MEMORY_MB,
  });

  ensureProgram('chromium', 'chromium');
  buildWeb();
  const { address, close } = await serveAssets();
  const worker = readdirSync(join(ROOT, 'web', 'dist', 'assets')).find((name) => /^cutWorker-.*\.js$/.test(name));
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const page = await browser.newPage();
    await page.goto(address);
    figures.push(
      ...(await figuresFor(
        'Browser worker',
        browserSearch(page, `/assets/${worker}`),
        SIZES.filter(([strips]) => strips === 60),
      )),
    );
    const session = await browser.newBrowserCDPSession();
    const { processInfo } = await session.send('SystemInfo.getProcessInfo');
    const most = Math.max(...processInfo.filter((p) => p.type === 'renderer').map((p) => peakMemory(p.id)));
    figures.push({
      name: 'Browser worker: peak memory of the page with its worker',
      value: most,
      unit: 'MB',
      goal: `< ${MOST_MEMORY_MB}`,
      ok: most < MOST_MEMORY_MB,
    });
  } finally {
    await browser.close();
    close();
  }
  return figures;
}
