import { join } from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import { BOARD_FILE_FORMAT, BOARD_FILE_VERSION } from '#core/format/boardFile.ts';
import type { PlanInput } from '#core/plan/context.ts';
import { startServer } from '../server/src/serve.ts';
import { ROOT } from './root.ts';
import { startTestDatabase } from './testDatabase.ts';

interface TraceEvent {
  name: string;
  ph: string;
  dur?: number;
  ts: number;
  pid: number;
  tid: number;
  args?: { name?: string };
}

/** The built application with a board of its own in headless Chromium, software rendering. */
export async function withBoardPage<T>({ board, rack, species }: PlanInput, run: (page: Page, address: string, browser: Browser) => Promise<T>): Promise<T> {
  const database = await startTestDatabase();
  const server = await startServer({ databaseUrl: database.url, host: '127.0.0.1', port: 0, webFolder: join(ROOT, 'web', 'dist'), demo: true, tell: () => {} });
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
  });
  try {
    const { shop } = (await (await fetch(`${server.address}api/shop`)).json()) as { shop: unknown };
    const answer = await fetch(`${server.address}api/boards/import`, {
      method: 'POST', headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ file: { format: BOARD_FILE_FORMAT, version: BOARD_FILE_VERSION, board, rack, species, shop }, addPieces: true }),
    });
    const { id } = (await answer.json()) as { id: string };
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    // The loader of these commands names functions with a helper that a page does not have.
    await page.addInitScript('globalThis.__name = (f) => f');
    return await run(page, `${server.address}boards/${id}/layout`, browser);
  } finally {
    await browser.close();
    await server.stop();
    await database.stop();
  }
}

export interface Drag {
  /** Longest task on the page's main thread while the drag went on, ms. */
  longestTask: number;
  /** Frames a second while the drag went on. */
  framesPerSecond: number;
}

const MOVES = 90;
const MOVE_EVERY_MS = 16;

/** Drags a joint of a board up and down for a second and a half, and reads the trace. */
export async function traceJointDrag(input: PlanInput): Promise<Drag> {
  return withBoardPage(input, async (page, address, browser) => {
    await page.goto(address);
    const joint = page.getByRole('slider').nth(5);
    await joint.waitFor();
    await page.waitForFunction((count) => document.querySelectorAll('image[data-wood]').length >= count, input.board.strips.length);
    await page.waitForTimeout(2500);
    const box = (await joint.boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    // The first touch picks the strip up; what is measured is the drag.
    await page.mouse.move(x, y);
    await browser.startTracing(page, { categories: ['devtools.timeline', 'toplevel', '__metadata'] });
    await page.mouse.down();
    const frames = page.evaluate((milliseconds) => new Promise<number>((resolve) => {
      const start = performance.now();
      let count = 0;
      const next = () => {
        count += 1;
        const gone = performance.now() - start;
        if (gone < milliseconds) requestAnimationFrame(next);
        else resolve((count * 1000) / gone);
      };
      requestAnimationFrame(next);
    }), MOVES * MOVE_EVERY_MS);
    for (let i = 0; i <= MOVES; i += 1) {
      await page.mouse.move(x, y + 30 * Math.sin(i / 6));
      await page.waitForTimeout(MOVE_EVERY_MS);
    }
    const framesPerSecond = await frames;
    const held = await joint.getAttribute('aria-valuenow');
    await page.mouse.up();
    if (Number(held) === input.board.strips[5]!.width) throw new Error('The drag did not change the strip: nothing was measured.');
    const trace = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] };
    return { longestTask: longestMainThreadTask(trace.traceEvents), framesPerSecond };
  });
}

function longestMainThreadTask(events: TraceEvent[]): number {
  const main = new Set(events.filter((e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain').map((e) => `${e.pid}.${e.tid}`));
  const tasks = events.filter((e) => e.ph === 'X' && (e.name === 'RunTask' || e.name === 'ThreadControllerImpl::RunTask') && main.has(`${e.pid}.${e.tid}`));
  if (tasks.length === 0) throw new Error('The trace holds no tasks of the main thread.');
  return Math.max(...tasks.map((t) => t.dur ?? 0)) / 1000;
}
