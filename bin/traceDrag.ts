import { join } from 'node:path';
import { chromium } from '@playwright/test';
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

/**
 * Drags a joint of a board in headless Chromium, software rendering, and reads the trace.
 * @returns the longest task on the page's main thread while the drag went on, ms
 */
export async function longestDragTask({ board, rack, species }: PlanInput): Promise<number> {
  const database = await startTestDatabase();
  const server = await startServer({ databaseUrl: database.url, host: '127.0.0.1', port: 0, webFolder: join(ROOT, 'web', 'dist'), demo: true, tell: () => {} });
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
  });
  try {
    const answer = await fetch(`${server.address}api/boards/import`, {
      method: 'POST', headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ file: { format: 'cadenza-board', version: 1, board, rack, species, shop: (await (await fetch(`${server.address}api/shop`)).json() as { shop: unknown }).shop }, addPieces: true }),
    });
    const { id } = (await answer.json()) as { id: string };
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${server.address}boards/${id}/layout`);
    const joint = page.getByRole('slider').nth(5);
    await joint.waitFor();
    await page.waitForTimeout(800);
    const box = (await joint.boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    // The first touch picks the strip up; what is measured is the drag.
    await page.mouse.move(x, y);
    await browser.startTracing(page, { categories: ['devtools.timeline', 'toplevel', '__metadata'] });
    await page.mouse.down();
    for (let i = 0; i <= 60; i += 1) await page.mouse.move(x, y + 30 * Math.sin(i / 6));
    const held = await joint.getAttribute('aria-valuenow');
    await page.mouse.up();
    if (Number(held) === board.strips[5]!.width) throw new Error('The drag did not change the strip: nothing was measured.');
    const trace = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] };
    return longestMainThreadTask(trace.traceEvents);
  } finally {
    await browser.close();
    await server.stop();
    await database.stop();
  }
}

function longestMainThreadTask(events: TraceEvent[]): number {
  const main = new Set(events.filter((e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain').map((e) => `${e.pid}.${e.tid}`));
  const tasks = events.filter((e) => e.ph === 'X' && (e.name === 'RunTask' || e.name === 'ThreadControllerImpl::RunTask') && main.has(`${e.pid}.${e.tid}`));
  if (tasks.length === 0) throw new Error('The trace holds no tasks of the main thread.');
  return Math.max(...tasks.map((t) => t.dur ?? 0)) / 1000;
}
