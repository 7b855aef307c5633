import { expect, type Page } from '@playwright/test';
import { startServer, type RunningServer } from '../server/src/serve.ts';
import { nothingFound } from './axe.ts';
import { at, makeBoard, makePiece, openPlace, saved, storedBoard, test, typeLength } from './pages.ts';

test.use({ fresh: true });

const PASSPHRASE = 'four planed mules asleep';

test('a change on one device is on the other at once; each sees that the other is there, and what is being typed stays', async ({
  page,
  browser,
  request,
}) => {
  const id = await makeBoard(request, { name: 'Shared board' });
  const tablet = await (await browser.newContext({ viewport: { width: 768, height: 1024 } })).newPage();
  await openPlace(page, `/boards/${id}/brief`);
  await openPlace(tablet, `/boards/${id}/brief`);
  await expect(page.getByText('Also here: A computer')).toBeVisible();
  await expect(tablet.getByText('Also here: A computer')).toBeVisible();

  // Somebody types on the tablet and has not left the field.
  const field = tablet.getByRole('textbox', { name: 'Length', exact: true });
  await field.fill('41');
  await typeLength(page, 'Width', '108');
  await saved(page);
  await expect(tablet.getByRole('textbox', { name: 'Width', exact: true })).toHaveValue(/108/);
  await expect(field).toHaveValue('41');
  await field.fill('412');
  await field.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Length', exact: true })).toHaveValue(/412/);
  expect((await storedBoard(page)).board).toMatchObject({ length: 412, width: 108 });

  // A piece follows too, where nobody touched anything.
  const own = await makePiece(request, { mark: 'LIVE-1' });
  await openPlace(tablet, `/rack/${own}`);
  await expect(page.getByText('Also here')).toBeHidden();
  await expect(tablet.getByRole('heading', { level: 1 })).toContainText('LIVE-1');
  const rack = (await (await request.get(at('/api/rack'))).json()) as { piece: { id: string }; version: number }[];
  const { piece, version } = rack.find((p) => p.piece.id === own)!;
  const { id: _id, ...fields } = piece;
  const changed = await request.put(at(`/api/rack/${own}`), {
    data: { version, piece: { ...fields, mark: 'LIVE-2' } },
  });
  expect(changed.status()).toBe(200);
  await expect(tablet.getByRole('heading', { level: 1 })).toContainText('LIVE-2');
  await tablet.context().close();
});

test.describe('a server that others can reach', () => {
  let server: RunningServer;
  test.beforeAll(async () => {
    server = await startServer({
      databaseUrl: process.env.CADENZA_SHARED_DATABASE!,
      host: '127.0.0.1',
      port: 0,
      hosts: 'shed.example',
      webFolder: `${import.meta.dirname}/../web/dist`,
      begin: null,
      tell: () => {},
      passphrase: () => Promise.resolve(PASSPHRASE),
    });
  });
  test.afterAll(() => server.stop());
  const open = (page: Page, path: string) => page.goto(new URL(path, server.address).href);

  test('asks for its passphrase once, lets a phone in by a code, and lets go of it again', async ({
    page,
    browser,
  }) => {
    await open(page, '/rack');
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await nothingFound(page, 'Sign in');
    await page.getByLabel('Passphrase').fill('not that one');
    await page.getByLabel('This device is called').fill('Desk');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toHaveText('That is not the passphrase.');
    await expect(page.getByLabel('This device is called')).toHaveValue('Desk');
    await page.getByLabel('Passphrase').fill(PASSPHRASE);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page).toHaveURL(/\/rack$/);
    await expect(page.getByRole('heading', { name: 'Rack' })).toBeVisible();

    await open(page, '/devices');
    await page.getByLabel('It may').selectOption('look');
    await page.getByRole('button', { name: 'Show a code' }).click();
    await expect(page.getByRole('img', { name: 'Code to scan with the other device' })).toBeVisible();
    const invitation = new URL(await page.getByLabel('Address').inputValue());

    const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
    await open(phone, invitation.pathname);
    await phone.getByLabel('This device is called').fill('Yard phone');
    await phone.getByRole('button', { name: 'Use it here' }).click();
    await expect(phone.getByRole('navigation', { name: 'Places' })).toBeVisible();
    await expect(phone.getByText('This device may look and change nothing.')).toBeVisible();

    const row = page.getByRole('row').filter({ has: page.getByRole('textbox', { name: 'Name of Yard phone' }) });
    await expect(row).toBeVisible();
    await row.getByRole('button', { name: 'End Yard phone' }).click();
    await expect(row).toBeHidden();
    // The page on the phone may be on its way to the door by itself.
    await open(phone, '/rack').catch(() => {});
    await expect(phone.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await phone.context().close();
    await page.getByRole('button', { name: 'Sign out on this device' }).click();
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  });
});
