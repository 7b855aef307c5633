import { readFile, writeFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { mariadbProgram } from '../bin/debianPackages.ts';
import { newDatabase } from '../bin/mariadb/testDatabase.ts';
import { nothingFound } from './axe.ts';
import { startServer, type RunningServer } from '../server/src/serve.ts';
import { test } from './pages.ts';

test.use({ fresh: true });

let server: RunningServer;
test.beforeAll(async ({}, info) => {
  const url = await newDatabase(process.env.CADENZA_SHARED_DATABASE!, `e2e_keeping_${info.workerIndex}`);
  server = await startServer({
    databaseUrl: url,
    host: '127.0.0.1',
    port: 0,
    webFolder: `${import.meta.dirname}/../web/dist`,
    begin: 'demo',
    tell: () => {},
    keeper: {
      url,
      program: mariadbProgram,
      folder: info.outputPath('copies'),
    },
  });
});
test.afterAll(() => server.stop());
const open = (page: Page, path: string) => page.goto(new URL(path, server.address).href);
const boards = (page: Page) => page.getByRole('heading', { name: 'Boards', exact: true });

test('everything goes out as one file, is looked into, comes back, and comes along beside what is there', async ({
  page,
}, info) => {
  await open(page, '/shop');
  await page.getByRole('link', { name: 'Backup' }).first().click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Download all' }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/^cadenza-\d{4}-\d\d-\d\d\.sql$/);
  const file = info.outputPath('all.sql');
  await download.saveAs(file);

  // Something changes after it.
  const shop = (await (await page.request.get(new URL('/api/shop', server.address).href)).json()) as {
    version: number;
    shop: object;
  };
  await page.request.put(new URL('/api/shop', server.address).href, {
    data: { version: shop.version, shop: { ...shop.shop, name: 'Another name' } },
  });

  const openFile = async (path: string) => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: 'Open a backup …' }).click(),
    ]);
    await chooser.setFiles(path);
  };
  // Half of it says so, and nothing is offered.
  const half = info.outputPath('half.sql');
  const bytes = await readFile(file);
  await writeFile(half, bytes.subarray(0, bytes.length / 2));
  await openFile(half);
  await expect(page.getByText(/The file was cut off/)).toBeVisible();

  await openFile(file);
  const dialog = page.getByRole('dialog', { name: 'What is in it' });
  await expect(dialog.getByRole('row', { name: /^Shop The/ })).toContainText('Another name');
  await nothingFound(page, 'what is in a backup');
  await dialog.getByRole('button', { name: 'Replace what is here' }).click();
  await expect(boards(page)).toBeVisible();
  await open(page, '/shop/about');
  await expect(page.getByRole('textbox', { name: 'Name of the shop' })).toHaveValue('The Tram Shed');

  await open(page, '/shop/backup');
  await page.getByRole('button', { name: 'Put back what was here before the last restore' }).click();
  await expect(boards(page)).toBeVisible();
  await open(page, '/shop/about');
  await expect(page.getByRole('textbox', { name: 'Name of the shop' })).toHaveValue('Another name');

  await open(page, '/shop/backup');
  await openFile(file);
  await dialog.getByRole('button', { name: 'Bring its shop in' }).click();
  await expect(boards(page)).toBeVisible();
  await open(page, '/shop/about');
  await expect(page.getByRole('textbox', { name: 'Name of the shop' })).toHaveValue('The Tram Shed');
  await expect(page.getByText(/Another name.*8 boards/)).toBeVisible();
});

test('copies are made, counted and looked into by the keyboard alone', async ({ page }) => {
  await open(page, '/shop/backup');
  await page.getByRole('button', { name: 'Copy now' }).press('Enter');
  await expect(page.getByText('The copy is made, and was read again.')).toBeVisible();
  const kept = page.getByRole('textbox', { name: 'Copies kept' });
  await kept.fill('0');
  await kept.press('Enter');
  await expect(page.getByText(/must be at least 1 cop/)).toBeVisible();
  await kept.fill('3');
  await kept.press('Enter');
  await page
    .getByRole('button', { name: /^Look inside the copy/ })
    .first()
    .press('Enter');
  await expect(page.getByRole('dialog', { name: 'What is in it' })).toContainText('Its checksum fits');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.reload();
  await expect(kept).toHaveValue('3');
});
