import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { ROOT } from '../bin/root.ts';
import { startTestDatabase } from '../bin/mariadb/testDatabase.ts';
import { startServer } from '../server/src/serve.ts';
import {
  at,
  deafen,
  makeBoard,
  makePiece,
  openPlace,
  saved,
  storedBoard,
  stripFace,
  strips,
  test,
  typeLength,
} from './pages.ts';
import { stripsOf } from '#core/board/recipe.ts';
import type { Board } from '#core/board/board.ts';

test.use({ fresh: true });

async function setFirstWidth(page: Page, text: string): Promise<void> {
  await stripFace(page, 0).click({ position: { x: 200, y: 12 } });
  await typeLength(page, 'Strip width', text);
}

test('two tabs never overwrite each other silently: both versions are offered', async ({ page, context, request }) => {
  const id = await makeBoard(request);
  const other = await context.newPage();
  await deafen(other);
  for (const p of [page, other]) await openPlace(p, `/boards/${id}/layout`);
  await setFirstWidth(page, '40');
  await saved(page);
  await setFirstWidth(other, '25');
  const dialog = other.getByRole('dialog', { name: 'This board was changed elsewhere' });
  await expect(dialog).toContainText('Both versions are safe');
  expect(stripsOf((await storedBoard(page)).board)[0]!.width).toBe(40);

  await dialog.getByRole('button', { name: 'Keep both' }).click();
  await expect(other).not.toHaveURL(new RegExp(id));
  await saved(other);
  expect((await storedBoard(other)).board).toMatchObject({ recipe: [{ width: 25 }, {}, {}, {}] });
  expect(stripsOf((await storedBoard(page)).board)[0]!.width).toBe(40);

  // The other way: take the other version, then bring one's own back with undo.
  const third = await context.newPage();
  await deafen(third);
  await openPlace(third, `/boards/${id}/layout`);
  await setFirstWidth(page, '41');
  await saved(page);
  await setFirstWidth(third, '26');
  await third.getByRole('button', { name: 'Take the other' }).click();
  await expect(strips(third).first()).toHaveAccessibleName(/41 mm/);
  await third.getByRole('button', { name: 'Undo' }).click();
  await saved(third);
  expect(stripsOf((await storedBoard(third)).board)[0]!.width).toBe(26);
});

test('a database killed in the middle of a save costs nothing, not even over a reload', async ({ page }) => {
  test.setTimeout(120_000);
  const database = await startTestDatabase(true);
  const server = await startServer({
    databaseUrl: database.url,
    host: '127.0.0.1',
    port: 0,
    webFolder: join(ROOT, 'web', 'dist'),
    begin: 'demo',
    tell: () => {},
  });
  try {
    const [first] = (await (await page.request.get(`${server.address}api/boards`)).json()) as { id: string }[];
    const width = async () => {
      // While the database is gone a connection may be cut as well; the question is asked again.
      const answer = await page.request.get(`${server.address}api/boards/${first!.id}`).catch(() => null);
      return answer?.ok() ? stripsOf(((await answer.json()) as { board: Board }).board)[0]!.width : undefined;
    };
    page.on('dialog', (dialog) => void dialog.accept());
    await page.goto(`${server.address}boards/${first!.id}/layout`);
    await stripFace(page, 0).waitFor();
    const kill = () => process.kill(Number(readFileSync(join(database.folder, 'mariadb.pid'), 'utf8')), 'SIGKILL');

    kill();
    await setFirstWidth(page, '33');
    // The start command brings the database back; the change is sent without anybody doing anything.
    await expect.poll(width, { timeout: 30_000 }).toBe(33);

    kill();
    await setFirstWidth(page, '34');
    await page.reload();
    await expect(strips(page).first()).toHaveAccessibleName(/34 mm/, { timeout: 30_000 });
    await expect(page.getByRole('status').filter({ hasText: /^\s*Saved \d/ })).toBeVisible({ timeout: 30_000 });
    await expect.poll(width).toBe(34);
  } finally {
    await server.stop();
    await database.stop();
  }
});

test('while the server cannot save, the page says so and sends the change later', async ({ page, request }) => {
  const id = await makeBoard(request);
  await openPlace(page, `/boards/${id}/layout`);
  await page.route('**/api/boards/*', (route) =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  );
  await setFirstWidth(page, '35');
  await expect(page.getByRole('status').filter({ hasText: 'Not saved yet' })).toContainText('kept here');
  await setFirstWidth(page, '36');
  await page.unroute('**/api/boards/*');
  await saved(page);
  expect(await storedBoard(page)).toMatchObject({ revision: 3, board: { recipe: [{ width: 36 }, {}, {}, {}] } });
});

test('a figure of the shop and of a piece outlive an outage: they stay as typed, it is said, and they are stored when the server is back', async ({
  page,
  request,
}) => {
  const id = await makePiece(request, { mark: 'O1' });
  const outage = async (
    place: string,
    path: string,
    label: string,
    typed: string,
    stored: () => Promise<unknown>,
    wanted: unknown,
  ) => {
    await openPlace(page, place);
    await page.route(path, (route) =>
      route.request().method() === 'PUT'
        ? route.fulfill({
            status: 503,
            contentType: 'application/problem+json',
            body: JSON.stringify({ code: 'database-gone', detail: 'The disk is full.' }),
          })
        : route.continue(),
    );
    await typeLength(page, label, typed);
    const note = page.getByRole('status').filter({ hasText: 'Not saved yet' });
    await expect(note).toContainText('The disk is full. Your changes are kept here');
    await expect(page.getByRole('textbox', { name: label, exact: true })).toHaveValue(typed);
    // A look at what is stored, as when the window comes back, does not take it away; nor does a reload.
    await page.evaluate(() => window.dispatchEvent(new Event('visibilitychange')));
    await page.reload();
    await expect(page.getByRole('textbox', { name: label, exact: true })).toHaveValue(typed);
    await page.unroute(path);
    await expect.poll(stored, { timeout: 20_000 }).toEqual(wanted);
    await expect(page.getByRole('status').filter({ hasText: 'Saved.' })).toBeVisible();
  };
  const json = async (path: string) => (await (await request.get(at(path))).json()) as unknown;
  await outage(
    '/shop',
    '**/api/shop',
    'Band saw kerf',
    '1.3',
    async () => ((await json('/api/shop')) as { shop: { bandSaw: { kerf: number } } }).shop.bandSaw.kerf,
    1.3,
  );
  await outage(
    `/rack/${id}`,
    '**/api/rack/*',
    'Length',
    '777',
    async () =>
      ((await json('/api/rack')) as { piece: { id: string; length: number } }[]).find((p) => p.piece.id === id)!.piece
        .length,
    777,
  );
});

test('switching units any number of times changes no stored value', async ({ page, request }) => {
  const id = await makeBoard(request, { width: 123.456, length: 401.123457 });
  await openPlace(page, `/boards/${id}/brief`);
  const before = await storedBoard(page);
  for (const unit of ['inch', 'mm', 'inch']) {
    await page.getByText(unit, { exact: true }).first().click();
    for (const field of ['Length', 'Width', 'Thickness']) {
      await page.getByRole('textbox', { name: field, exact: true }).focus();
      await page.keyboard.press('Tab');
    }
  }
  await page.getByRole('link', { name: /^Layout/ }).click();
  await expect(page.getByLabel('Sum of the strips')).toContainText(/4 19\/32"|4 37\/64/);
  await page.waitForTimeout(600);
  expect(await storedBoard(page)).toEqual(before);
});

test('a board goes out to a file and comes back identical; a broken file gets a sentence', async ({
  page,
  request,
}, info) => {
  const id = await makeBoard(request, { name: 'Round trip "µ" <i>' });
  await openPlace(page, `/boards/${id}/layout`);
  const original = (await storedBoard(page)).board;
  await page.getByRole('button', { name: 'More for this board' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Save as file' }).click(),
  ]);
  const path = info.outputPath('board.json');
  await download.saveAs(path);
  expect(download.suggestedFilename()).toBe('Round-trip-µ-i.cadenza.json');
  // Pieces of tests beside it may be gone before it comes back; those of the demo stay.
  const file = JSON.parse(readFileSync(path, 'utf8')) as { rack: { id: string }[] };
  const rack = file.rack.filter(({ id: piece }) => piece.startsWith('shed-'));
  expect(rack.length).toBeGreaterThan(5);
  writeFileSync(path, JSON.stringify({ ...file, rack }));

  await openPlace(page, '/boards');
  await page.getByLabel('Board file').setInputFiles(path);
  await expect(page.getByRole('dialog')).toContainText('all of them in your rack');
  await page.getByRole('button', { name: 'Open the board' }).click();
  await page.waitForURL(/layout$/);
  expect(page.url()).not.toContain(id);
  expect((await storedBoard(page)).board).toEqual(original);

  await openPlace(page, '/boards');
  await page.getByLabel('Board file').setInputFiles({
    name: 'half.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"cadenza-board","ver'),
  });
  await expect(page.getByText('may have been cut off')).toBeVisible();
});

test('a file from another shop brings its pieces along when asked', async ({ page, request }) => {
  const id = await makeBoard(request, { name: 'From afar' });
  const file = (await (await request.get(at(`/api/boards/${id}/file`))).json()) as {
    rack: { id: string; mark: string }[];
    board: { name: string };
  };
  file.rack = [{ ...file.rack[0]!, id: 'afar-1', mark: 'AFAR1' }];
  await openPlace(page, '/boards');
  await page
    .getByLabel('Board file')
    .setInputFiles({ name: 'afar.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(file)) });
  await expect(page.getByRole('dialog')).toContainText('with 1 piece, 1 of them not in your rack');
  await page.getByLabel('Add that piece to the rack too').check();
  await page.getByRole('button', { name: 'Open the board' }).click();
  await page.waitForURL(/layout$/);
  await openPlace(page, '/rack');
  await expect(page.getByRole('button', { name: /^AFAR1/ })).toBeVisible();
  // Deep links and policies of the page itself.
  const deep = await request.get(at('/boards/some/deep/link'));
  expect([deep.status(), deep.headers()['content-type']]).toEqual([200, expect.stringContaining('text/html')]);
  expect(deep.headers()['content-security-policy']).toContain("default-src 'self'");
  expect((await request.get(at('/assets/missing.js'))).status()).toBe(404);
});

test('boards and pieces that are removed come back with undo', async ({ page, request }) => {
  const id = await makeBoard(request, { name: 'Removed and back' });
  await openPlace(page, '/boards');
  await page.getByRole('button', { name: 'More for Removed and back' }).click();
  await page.getByRole('menuitem', { name: 'Remove' }).click();
  await expect(page.getByRole('link', { name: /Removed and back/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: /Removed and back/ })).toBeVisible();
  expect((await request.get(at(`/api/boards/${id}`))).status()).toBe(200);
  await openPlace(page, '/boards/no-such-board/layout');
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
});
