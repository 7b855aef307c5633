import { join } from 'node:path';
import { expect } from '@playwright/test';
import { PLAIN_CONDITION } from '#core/stock/piece.ts';
import { startTestDatabase } from '../bin/mariadb/testDatabase.ts';
import { ROOT } from '../bin/root.ts';
import { startServer } from '../server/src/serve.ts';
import { roomIds, SHOP_ROOMS } from '../web/src/places/shop/shopRooms.ts';
import { at, deafen, makeBoard, makePiece, openPlace, test } from './pages.ts';

test('pieces are added in any notation, edited, duplicated, removed and put back', async ({ page }) => {
  await openPlace(page, '/rack');
  await expect(
    page.getByRole('button', { name: /^B1, European beech, 2400 mm by 180 mm by 52 mm, rough/ }),
  ).toBeVisible();
  await page.keyboard.press('a');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Mark').fill('Z7');
  await dialog.getByRole('combobox', { name: 'Species' }).click();
  await page.getByRole('option', { name: 'White ash' }).click();
  await dialog.getByLabel('Length', { exact: true }).fill(`8'`);
  await dialog.getByLabel('Width', { exact: true }).fill('-7');
  await dialog.getByLabel('Thickness', { exact: true }).fill('');
  await dialog.getByRole('button', { name: 'Put it in the rack' }).click();
  await expect(dialog).toContainText('Width cannot be negative.');
  await expect(dialog).toContainText('Thickness is empty.');
  await dialog.getByLabel('Width', { exact: true }).fill('7 1/2"');
  await dialog.getByLabel('Thickness', { exact: true }).fill('4/4');
  await dialog.getByRole('button', { name: 'Put it in the rack' }).click();
  const piece = page.getByRole('button', { name: /^Z7, White ash, 2438.4 mm by 190.5 mm by 25.4 mm, rough/ });
  await expect(piece).toHaveAttribute('aria-pressed', 'true');

  await piece.focus();
  await page.keyboard.press('d');
  await expect(dialog.getByLabel('Mark')).toHaveValue('Z8');
  await dialog.getByLabel('Mark').fill('Z7');
  await dialog.getByRole('button', { name: 'Put it in the rack' }).click();
  await expect(dialog).toContainText('Mark Z7 is already on another piece');
  await dialog.getByLabel('Mark').fill('Z8');
  await dialog.getByText('Both faces').click();
  await dialog.getByRole('button', { name: 'Put it in the rack' }).click();
  const twin = page.getByRole('button', { name: /^Z8, White ash.*both faces planed/ });
  await expect(twin).toBeVisible();

  await twin.focus();
  await page.keyboard.press('e');
  await dialog.getByLabel('Length', { exact: true }).fill('9999 m');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toContainText('Length must be at most 8000 mm');
  await dialog.getByLabel('Length', { exact: true }).fill('1 m 5 cm');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('button', { name: /^Z8, White ash, 1050 mm/ })).toBeVisible();

  await page.getByRole('button', { name: /^Z8/ }).focus();
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: /^Z8/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /^Z8, White ash, 1050 mm/ })).toBeVisible();
});

test('a piece of a species that nobody knows yet brings it along', async ({ page }) => {
  await openPlace(page, '/rack');
  await page.keyboard.press('a');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Mark').fill('Z9');
  await dialog.getByRole('combobox', { name: 'Species', exact: true }).click();
  await page.getByRole('option', { name: 'Another species …' }).click();
  for (const [field, value] of [
    ['Length', '900'],
    ['Width', '90'],
    ['Thickness', '30'],
  ] as const)
    await dialog.getByLabel(field, { exact: true }).fill(value);
  await dialog.getByRole('button', { name: 'Put it in the rack' }).click();
  await expect(dialog).toContainText('The name must not be empty.');
  await expect(dialog).toContainText('Choose a species whose density and movement are like its own.');
  await dialog.getByLabel('Its name').fill('Plane tree');
  await dialog.getByRole('combobox', { name: 'With figures like those of' }).click();
  await page.getByRole('option', { name: 'White ash' }).click();
  await dialog.getByRole('button', { name: 'Put it in the rack' }).click();
  await expect(page.getByRole('button', { name: /^Z9, Plane tree, 900 mm/ })).toBeVisible();
  const known = (await (await page.request.get(at('/api/species'))).json()) as { name: string; source: string }[];
  expect(known.find((s) => s.name === 'Plane tree')!.source).toBe('Taken over from White ash; entered by hand');
});

test('a piece changed elsewhere meanwhile is not overwritten unasked', async ({ page, request }) => {
  const fields = {
    ...PLAIN_CONDITION,
    defects: [],
    mark: 'Y1',
    species: 'ash-white',
    length: 900,
    width: 90,
    thickness: 30,
  };
  const id = await makePiece(request, fields);
  const stored = async () =>
    (
      (await (await request.get(at('/api/rack'))).json()) as { piece: { id: string; length: number; note: string } }[]
    ).find((p) => p.piece.id === id)!.piece;
  await deafen(page);
  await openPlace(page, '/rack');
  await page.getByRole('button', { name: /^Y1, White ash/ }).click();
  await page.getByRole('button', { name: 'Edit Y1' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Note').fill('mine');
  await request.put(at(`/api/rack/${id}`), { data: { version: 1, piece: { ...fields, length: 800 } } });
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByRole('alert')).toContainText(
    'Piece Y1 was changed elsewhere meanwhile. It is now 800 × 90 × 30.',
  );
  expect(await stored()).toMatchObject({ length: 800, note: '' });
  // Only now, knowing it, the person puts theirs in its place.
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toHaveCount(0);
  expect(await stored()).toMatchObject({ length: 900, note: 'mine' });
});

test('a figure of the shop is saved as it is left, and every plan follows', async ({ page }) => {
  await openPlace(page, '/shop/allowances');
  const field = page.getByRole('textbox', { name: 'Keep offcuts from this length' });
  await field.fill('5 m');
  await field.press('Enter');
  await expect(page.getByText('Keep offcuts from this length must be at most 2000 mm')).toBeVisible();
  await field.fill('12"');
  await field.press('Enter');
  await expect(page.getByText('Saved.')).toBeVisible();
  // Two figures left at once, while the first save is still on its way: both are kept.
  await page.route('**/api/shop', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 300));
    await route.continue();
  });
  await page.getByRole('link', { name: /^Machines/ }).click();
  await page.getByRole('textbox', { name: 'Rip kerf' }).fill('3.5');
  await page.getByRole('textbox', { name: 'Saw cuts up to' }).fill('70');
  await page.getByRole('textbox', { name: 'Planer width' }).focus();
  await expect
    .poll(async () => ((await (await page.request.get(at('/api/shop'))).json()) as { shop: { saw: unknown } }).shop.saw)
    .toEqual({ kind: 'table', kerf: 3.5, cutDepth: 70 });
  await openPlace(page, '/shop/allowances');
  await expect(field).toHaveValue('304.8');
});

test('every figure of the shop is found by its name, and the hands land on it; a habit at a step leads there too', async ({
  page,
}) => {
  await openPlace(page, '/shop');
  const find = page.getByRole('textbox', { name: 'Find a figure' });
  await find.fill('planer wid');
  await page.getByRole('link', { name: /^Planer width/ }).click();
  await expect(page.getByRole('textbox', { name: 'Planer width' })).toBeFocused();
  await find.fill('sanding both');
  await find.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Sanding, both faces' })).toBeFocused();
  await find.fill('time machine');
  await expect(page.getByText('No figure of the shop is called so.')).toBeVisible();
  // The list is whole: what stands beside a field in any room can be found.
  for (const room of roomIds) {
    await openPlace(page, `/shop/${room}`);
    await expect(page.getByRole('heading', { level: 2, name: SHOP_ROOMS[room].title })).toBeVisible();
    const labels = await page.locator('section label.mantine-InputWrapper-label').allTextContents();
    expect(labels.filter((label) => !SHOP_ROOMS[room].fields.includes(label))).toEqual([]);
  }
  await openPlace(page, `/boards/${await makeBoard(page.request)}/trim`);
  await page
    .getByRole('button', { name: /^Trim off each long edge/ })
    .first()
    .click();
  await page.getByRole('link', { name: /other allowances/ }).click();
  await expect(page.getByRole('textbox', { name: 'Trim off each long edge' })).toBeFocused();
});

test('the shop is undone step by step, and its tools are not replaced without a question', async ({ page }) => {
  // A shop of its own: every other test plans with the shared one.
  const database = await startTestDatabase();
  const server = await startServer({
    databaseUrl: database.url,
    host: '127.0.0.1',
    port: 0,
    webFolder: join(ROOT, 'web', 'dist'),
    begin: 'demo',
    tell: () => {},
  });
  try {
    const stored = async () =>
      (
        (await (await page.request.get(`${server.address}api/shop`)).json()) as {
          shop: { saw: { kind: string }; clamps: unknown[] };
        }
      ).shop;
    const before = await stored();
    await page.goto(`${server.address}shop`);
    await page.getByRole('button', { name: /^Begin with a circular saw/ }).click();
    await expect(
      page.getByRole('alert').filter({ hasText: 'takes the machines, clamps and ways of working' }),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Keep mine' }).click();
    expect(await stored()).toEqual(before);
    await page.getByRole('button', { name: /^Begin with a circular saw/ }).click();
    await page.getByRole('button', { name: 'Replace them' }).click();
    await expect.poll(async () => (await stored()).saw.kind).toBe('circular');
    await page.locator('h1').click();
    await page.keyboard.press('Control+z');
    await expect.poll(stored).toEqual(before);
  } finally {
    await server.stop();
    await database.stop();
  }
});
