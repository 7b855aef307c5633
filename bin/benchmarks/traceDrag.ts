import { certain, nth } from '#core/lists/there.ts';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import { BOARD_FILE_FORMAT, BOARD_FILE_VERSION } from '#core/format/boardFile.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { startServer } from '../../server/src/serve.ts';
import { ROOT } from '../root.ts';
import { startTestDatabase } from '../mariadb/testDatabase.ts';
import { stripsOf } from '#core/board/recipe.ts';

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
export async function withBoardPage<T>(
  { board, rack, species }: PlanInput,
  run: (page: Page, address: string, browser: Browser) => Promise<T>,
): Promise<T> {
  const database = await startTestDatabase();
  const server = await startServer({
    databaseUrl: database.url,
    host: '127.0.0.1',
    port: 0,
    webFolder: join(ROOT, 'web', 'dist'),
    begin: 'demo',
    tell: () => {},
  });
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
  });
  try {
    const { shop } = (await (await fetch(`${server.address}api/shop`)).json()) as { shop: unknown };
    const answer = await fetch(`${server.address}api/boards/import`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({
        file: { format: BOARD_FILE_FORMAT, version: BOARD_FILE_VERSION, board, facts: [], rack, species, shop },
        addPieces: true,
      }),
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
  /** Frames a second while the drag went on, and while the pointer moved as much over the same page with nothing in hand. */
  framesPerSecond: number;
  framesAtRest: number;
  /** Frames from a move of the pointer to the first one in which the handle has moved, median. */
  framesToRedraw: number;
}

const MOVES = 60;
/** Where the layout has nothing to touch, pixels. */
const EMPTY_PLACE = [20, 150] as const;
const MOVE_EVERY_MS = 16;

/** What is dragged: on which view of the board, by its name (the sixth joint of the layout without one), along the board too. */
interface Dragged {
  view: string;
  handle: string | null;
  /** The stage of a recipe that is chosen first, where the handle lies on one. */
  stage?: string;
  across: boolean;
  /** How many times slower than this machine's the browser's processor is, at rest and in the drag. */
  slowed: number;
}

/** The median of three drags of a joint. */
export function traceJointDrags(input: PlanInput, slowed = 1): Promise<Drag> {
  return traceDrags(input, { view: 'layout', handle: null, across: false, slowed });
}

/** The median of three drags. */
export async function traceDrags(input: PlanInput, dragged: Dragged): Promise<Drag> {
  const drags = [await traceDrag(input, dragged), await traceDrag(input, dragged), await traceDrag(input, dragged)];
  const of = (key: keyof Drag) =>
    nth(
      drags.map((d) => d[key]).sort((a, b) => a - b),
      1,
    );
  return {
    longestTask: of('longestTask'),
    framesPerSecond: of('framesPerSecond'),
    framesAtRest: of('framesAtRest'),
    framesToRedraw: of('framesToRedraw'),
  };
}

/** Moves the pointer over a page at rest, then drags a handle to and fro, first counting frames, then reading the trace. */
async function traceDrag(input: PlanInput, { view, handle, stage, across, slowed }: Dragged): Promise<Drag> {
  return withBoardPage(input, async (page, address, browser) => {
    await page.goto(address.replace(/layout$/, view));
    const joint = handle === null ? page.getByRole('slider').nth(5) : page.getByRole('slider', { name: handle });
    if (stage) await page.getByRole('tab', { name: stage }).click();
    await joint.waitFor();
    await page.waitForFunction(
      (count) => document.querySelectorAll('image[data-wood]').length >= count,
      // Of slices there are no pictures of wood.
      stage ? 0 : stripsOf(input.board).length,
    );
    await page.waitForTimeout(2500);
    const client = await page.context().newCDPSession(page);
    await client.send('Emulation.setCPUThrottlingRate', { rate: slowed });
    const box = certain(await joint.boundingBox());
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const move = async (left: number, top: number, each?: (i: number) => Promise<unknown>) => {
      for (let i = 0; i <= MOVES; i += 1) {
        await page.mouse.move(left + (across ? 30 * Math.sin(i / 6) : 0), top + 30 * Math.sin(i / 6));
        await each?.(i);
        await page.waitForTimeout(MOVE_EVERY_MS);
      }
    };
    const frames = async (moving: () => Promise<void>) => {
      await countFrames(page);
      await moving();
      return page.evaluate(() => (globalThis as unknown as { framesPerSecond(): number }).framesPerSecond());
    };
    const framesAtRest = await frames(() => move(EMPTY_PLACE[0], EMPTY_PLACE[1]));
    // The first touch picks the strip up; what is measured is the drag. Writing a trace costs frames, so they are counted in a drag without it.
    await page.mouse.move(x, y);
    await page.mouse.down();
    const widths = new Set<string>();
    const framesPerSecond = await frames(() =>
      move(x, y, async (i) => i % 10 === 0 && widths.add(certain(await joint.getAttribute('aria-valuenow')))),
    );
    const framesToRedraw = await redrawing(page, () => move(x, y));
    await browser.startTracing(page, { categories: ['devtools.timeline', 'toplevel', '__metadata'] });
    await move(x, y);
    await page.mouse.up();
    if (widths.size < 5) throw new Error('The drag did not change the strip: nothing was measured.');
    const trace = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] };
    return { longestTask: longestMainThreadTask(trace.traceEvents), framesPerSecond, framesAtRest, framesToRedraw };
  });
}

/** Begins to count the frames of a page; `framesPerSecond()` there tells how many there were since. */
async function countFrames(page: Page): Promise<void> {
  await page.evaluate(() => {
    const start = performance.now();
    let count = 0;
    let told = false;
    const next = () => {
      count += 1;
      if (!told) requestAnimationFrame(next);
    };
    requestAnimationFrame(next);
    Object.assign(globalThis, {
      framesPerSecond: () => {
        told = true;
        return (count * 1000) / (performance.now() - start);
      },
    });
  });
}

/** Counts, for every move of the pointer while nothing else is under way, the frames until a handle of the page has changed. */
async function redrawing(page: Page, moving: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const counts: number[] = [];
    let waiting: number | null = null;
    const seen = () =>
      [...document.querySelectorAll('[role="slider"]')]
        .map((s) => `${s.getAttribute('transform')} ${s.getBoundingClientRect().y}`)
        .join();
    let before = seen();
    addEventListener(
      'pointermove',
      () => {
        waiting ??= 0;
      },
      { capture: true },
    );
    let told = false;
    const next = () => {
      // Runs before this frame is drawn: what changed until the next callback was drawn in it.
      const now = seen();
      if (waiting !== null && now !== before) {
        counts.push(waiting);
        waiting = null;
      } else if (waiting !== null) waiting += 1;
      before = now;
      if (!told) requestAnimationFrame(next);
    };
    requestAnimationFrame(next);
    Object.assign(globalThis, {
      framesToRedraw: () => {
        told = true;
        return counts.sort((a, b) => a - b)[Math.floor(counts.length / 2)] ?? 99;
      },
    });
  });
  await moving();
  return page.evaluate(() => (globalThis as unknown as { framesToRedraw(): number }).framesToRedraw());
}

function longestMainThreadTask(events: TraceEvent[]): number {
  const main = new Set(
    events.filter((e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain').map((e) => `${e.pid}.${e.tid}`),
  );
  const tasks = events.filter(
    (e) =>
      e.ph === 'X' &&
      (e.name === 'RunTask' || e.name === 'ThreadControllerImpl::RunTask') &&
      main.has(`${e.pid}.${e.tid}`),
  );
  if (tasks.length === 0) throw new Error('The trace holds no tasks of the main thread.');
  return Math.max(...tasks.map((t) => t.dur ?? 0)) / 1000;
}
