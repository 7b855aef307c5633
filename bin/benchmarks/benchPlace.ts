import { setTimeout as sleep } from 'node:timers/promises';
import type { Page } from '@playwright/test';
import { nth } from '#core/lists/there.ts';
import { entryOf } from '#core/log/entryOf.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { openDatabase } from '../../server/src/stores/database.ts';
import { addEntry, logPage } from '../../server/src/stores/logStore.ts';
import { openStore } from '../../server/src/stores/openStore.ts';
import type { Figure } from './figure.ts';
import { benchInstance, cells } from './instances.ts';
import { buildWeb } from '../buildWeb.ts';
import { ensureProgram } from '../debianPackages.ts';
import { startTestDatabase } from '../mariadb/testDatabase.ts';
import { withBoardPage } from './traceDrag.ts';

const LOG_ENTRIES = 5000;
/** What a phone's processor does is done by this machine's in a quarter of the time. */
const PHONE_SLOWED = 4;

const median = (values: number[]): number =>
  nth(
    values.sort((a, b) => a - b),
    Math.floor(values.length / 2),
  );

/** From the key of a foot switch to the next step on the screen: noted, planned from, drawn; ms, the median of some. */
async function factToScreen(page: Page, address: string): Promise<number> {
  await page.goto(address.replace(/layout$/, 'bench'));
  await page.getByRole('button', { name: 'Trouble' }).waitFor();
  await sleep(2500);
  const times: number[] = [];
  for (let press = 0; press < 6; press += 1) {
    times.push(
      await page.evaluate(
        () =>
          new Promise<number>((resolve) => {
            const title = document.querySelector('h2');
            const [before, start] = [title?.textContent, performance.now()];
            const look = () => {
              if (document.querySelector('h2')?.textContent !== before) resolve(performance.now() - start);
              else requestAnimationFrame(look);
            };
            window.dispatchEvent(new KeyboardEvent('keydown', { key: ' ' }));
            requestAnimationFrame(look);
          }),
      ),
    );
    await sleep(900);
  }
  return median(times);
}

/** What the fixed work takes on such a phone in a calm minute, ms: the least of thirty runs when the goal was set. */
const CALM_WORK_MS = 160;

/** Work of the kind that a page does when it opens, always the same: by how slow it is one minute is told from another. Run in the page. */
function fixedWork(): number {
  const start = performance.now();
  let sum = 0;
  for (let round = 0; round < 6; round += 1) {
    const rows = Array.from({ length: 4000 }, (_, i) => ({
      id: `row ${(i * 7919) % 4001}`,
      at: [i, i / 3],
      of: { i },
    }));
    rows.sort((a, b) => (a.id < b.id ? -1 : 1));
    const read = JSON.parse(JSON.stringify(rows)) as typeof rows;
    sum += new Map(read.map((row) => [row.id, row])).size;
  }
  return sum === 0 ? 0 : performance.now() - start;
}

/** From opening the bench on a phone until its button takes a press, ms: what is loaded is kept from the first time, as on any phone that was here before; told as in a calm minute, by what fixed work takes in between. */
async function usableOnPhone(page: Page, address: string): Promise<number> {
  await page.setViewportSize({ width: 390, height: 844 });
  const bench = address.replace(/layout$/, 'bench');
  await page.goto(bench);
  await page.getByRole('button', { name: 'Trouble' }).waitFor();
  const client = await page.context().newCDPSession(page);
  await client.send('Emulation.setCPUThrottlingRate', { rate: PHONE_SLOWED });
  const times: number[] = [];
  const work: number[] = [];
  for (let load = 0; load < 5; load += 1) {
    work.push(await page.evaluate(fixedWork));
    await page.goto(bench, { waitUntil: 'commit' });
    times.push(
      await page.evaluate(
        () =>
          new Promise<number>((resolve) => {
            const look = () => {
              const button = [...document.querySelectorAll('button')].find((b) => /done/i.test(b.textContent));
              if (button && !button.disabled) resolve(performance.now());
              else requestAnimationFrame(look);
            };
            look();
          }),
      ),
    );
    await sleep(800);
  }
  return (median(times) * CALM_WORK_MS) / median(work);
}

/** A page of a long log, and one that was searched for, ms. */
async function longLog(): Promise<{ list: number; search: number }> {
  const database = await startTestDatabase();
  const db = openDatabase(database.url);
  try {
    await openStore(db);
    const input = planInput(plainBoard(), [plainPiece({ length: 4000 })]);
    const entry = entryOf(input, null, '2026-01-01T08:00:00.000Z', '');
    await db.transaction(async (tx) => {
      for (let i = 0; i < LOG_ENTRIES; i += 1)
        await addEntry(tx, {
          ...entry,
          board: { ...entry.board, name: `Board ${i}`, use: i % 7 === 0 ? 'Bread' : 'Cheese' },
          forWhom: `Hut ${i % 97}`,
          finishedAt: new Date(Date.parse('2020-01-01') + i * 3_600_000).toISOString(),
        });
    });
    const timed = async (run: () => Promise<unknown>) => {
      const times: number[] = [];
      for (let i = 0; i < 9; i += 1) {
        const start = performance.now();
        await run();
        times.push(performance.now() - start);
      }
      return median(times);
    };
    return {
      list: await timed(() => logPage(db, {})),
      search: await timed(() => logPage(db, { words: 'bread hut 42', species: 'maple-hard', sort: 'name' })),
    };
  } finally {
    await db.destroy();
    await database.stop();
  }
}

/** Every figure that the issue of the bench and the log asks for. */
export async function benchFigures(): Promise<Figure[]> {
  ensureProgram('mariadbd', 'mariadb-server');
  ensureProgram('chromium', 'chromium');
  buildWeb();
  const flat = benchInstance(40, 60);
  const strips = await withBoardPage(flat, factToScreen);
  const recut = await withBoardPage(cells(15, 24), factToScreen);
  const phone = await withBoardPage(flat, usableOnPhone);
  const log = await longLog();
  const upTo = (name: string, value: number, most: number): Figure => ({
    name,
    value,
    unit: 'ms',
    goal: `<= ${most}`,
    ok: value <= most,
  });
  return [
    upTo('a fact to the new plan on the screen, 40 strips, median', strips, 200),
    upTo('the same for 360 cells', recut, 500),
    upTo(
      'the bench usable on a phone, its processor slowed four times, as in a calm minute, median of 5 loads',
      phone,
      1000,
    ),
    upTo(`a page of a log of ${LOG_ENTRIES} boards, median`, log.list, 100),
    upTo('the same by words, a wood and a name, median', log.search, 100),
  ];
}
