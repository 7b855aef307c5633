import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { at, keepApart, makePiece, openPlace, test } from './pages.ts';

test('a pile is entered by keyboard alone, in yard sizes, copying the line above', async ({ page }) => {
  await openPlace(page, '/rack');
  await page.keyboard.press('p');
  await expect(page.getByRole('heading', { name: 'A whole pile' })).toBeVisible();
  await page.getByLabel('Mark, line 1').focus();
  await page.keyboard.type('V1');
  await page.keyboard.press('Tab');
  await page.keyboard.type('White oak');
  await page.keyboard.press('Tab');
  await page.keyboard.type("4/4 x 7 1/2 x 8'");
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Length, line 1')).toHaveValue("8'");
  await expect(page.getByLabel('Mark, line 2')).toHaveValue('V2');
  await expect(page.getByLabel('Species, line 2')).toHaveValue('White oak');
  await expect(page.getByLabel('Species, line 2')).toBeFocused();
  await page.keyboard.press('Control+Shift+D');
  await expect(page.getByLabel('Width, line 2')).toHaveValue('7 1/2');
  await page.getByLabel('Length, line 2').fill('long');
  await expect(page.getByRole('alert')).toContainText('Line 2 Length is not a length Cadenza can read.');
  await expect(page.getByRole('button', { name: 'Put 2 pieces in the rack' })).toBeDisabled();
  await page.getByLabel('Length, line 2').fill('1 m');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('button', { name: /^V2, White oak, 1000 mm by 190.5 mm by 25.4 mm/ })).toBeVisible();
});

test('a file is shown before it is stored: bad cells are named, an unknown species can be made, and it goes out again as it was', async ({
  page,
}) => {
  await openPlace(page, '/rack/pile');
  const bytes = Buffer.from(
    'Species;L\u00e4nge;Length;Width;Thickness;Mark;Note\r\nSnakewood;x;500,5;80;30;SN1;=1+1\r\nPear;x;;70;20;SN2;F\u00fcr B\r\n',
    'latin1',
  );
  await page.setInputFiles('input[type=file]', { name: 'pile.csv', mimeType: 'text/csv', buffer: bytes });
  await expect(page.getByText('It was read as Windows-1252')).toBeVisible();
  await expect(page.getByText('Columns left out: Länge.')).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('Line 2 Length must not be empty.');
  expect(
    ((await (await page.request.get(at('/api/rack'))).json()) as { piece: { mark: string } }[]).some(
      (r) => r.piece.mark === 'SN1',
    ),
  ).toBe(false);
  await page.getByRole('combobox', { name: 'Figures for Snakewood' }).click();
  await page.getByRole('option', { name: 'Hornbeam' }).click();
  await page.getByRole('button', { name: 'Line 2', exact: true }).click();
  await expect(page.getByLabel('Length, line 2')).toBeFocused();
  await page.keyboard.type('400');
  await page.getByRole('button', { name: 'Put 2 pieces in the rack' }).click();
  await expect(page.getByRole('button', { name: /^SN1, Snakewood, 500.5 mm/ })).toBeVisible();

  await page.getByLabel('Find in the rack').fill('snakewood');
  await expect(page.getByText(/^1 of \d+ pieces/)).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'More for the rack' }).click();
  await page.getByRole('menuitem', { name: 'Save 1 as CSV' }).click();
  const csv = readFileSync(await (await download).path(), 'utf8');
  expect(csv.split('\r\n')[1]).toContain(",'=1+1,");
});

test('five thousand pieces stay smooth: only the shelves in sight are drawn', async ({ page }) => {
  const piece = ((await (await page.request.get(at('/api/rack'))).json()) as { piece: { id: string } }[])[0]!;
  const { id: _id, ...fields } = piece.piece as Record<string, unknown>;
  keepApart(page);
  await page.route('**/api/rack', async (route) => {
    const many = Array.from({ length: 5000 }, (_, i) => ({
      version: 1,
      piece: {
        ...fields,
        id: `many${i}`,
        mark: `X${i}`,
        species: ['beech-european', 'pear', 'walnut-european'][i % 3],
      },
    }));
    await route.fulfill({ json: many });
  });
  await openPlace(page, '/rack');
  await expect(page.getByText('5000 pieces')).toBeVisible();
  expect(await page.getByRole('button', { name: /^X\d/ }).count()).toBeLessThan(120);
  await page.getByLabel('Find in the rack').fill('X4999');
  await expect(page.getByText('1 of 5000 pieces')).toBeVisible();
  await expect(page.getByRole('button', { name: /^X4999/ })).toBeVisible();
});

test('a place on a piece is drawn by mouse and moved by keys; what stays clear follows', async ({ page, request }) => {
  const id = await makePiece(request, { mark: 'Y9', length: 1000, width: 100 });
  await openPlace(page, `/rack/${id}`);
  const face = page.getByRole('group', { name: 'Upper face' });
  await expect(face).toContainText('980 mm × 98 mm clear');
  const box = (await face.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.5, box.y + 45);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.56, box.y + 75, { steps: 5 });
  await page.mouse.up();
  const knot = face.getByRole('button', { name: /^Knot, must be cut out/ });
  await expect(knot).toBeVisible();
  await expect(face).not.toContainText('980 mm × 98 mm clear');
  const stored = async () =>
    (
      (await (await request.get(at('/api/rack'))).json()) as {
        piece: { id: string; defects: { from: number; treatment: string }[] };
      }[]
    ).find((p) => p.piece.id === id)!.piece.defects;
  await expect.poll(async () => (await stored()).length).toBe(1);
  const { from } = (await stored())[0]!;
  await knot.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await stored())[0]?.from).toBe(from + 10);
  await knot.focus();
  await page.keyboard.press('t');
  await expect.poll(async () => (await stored())[0]?.treatment).toBe('under');
  await page.keyboard.press('Delete');
  await expect.poll(stored).toEqual([]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await stored()).length).toBe(1);
});

test('salvage goes into the rack only after the metal check, as solid bits; treated wood never', async ({ page }) => {
  await openPlace(page, '/rack/salvage');
  await page.getByLabel('It was').fill('Ticket counter');
  await page.getByRole('combobox', { name: 'Species' }).click();
  await page.getByRole('option', { name: 'Hornbeam' }).click();
  await page.getByLabel('First mark').fill('TC1');
  await page.getByText('Treated or unknown').click();
  const store = page.getByRole('button', { name: /^Put \d+ bits? in the rack/ });
  await expect(page.getByText('Treated wood is never for food.')).toBeVisible();
  await page.getByText('Painted').click();
  await expect(page.getByText('Old paint may hold lead.')).toBeVisible();
  await page.getByLabel('Seam, from the first end').fill('500');
  await page.getByRole('button', { name: 'Seam here' }).click();
  await expect(store).toBeDisabled();
  await page.getByLabel('The metal detector has been over all of it').check();
  await store.click();
  await expect(
    page.getByRole('button', { name: /^TC1, Hornbeam, 498.5 mm by 60 mm by 26 mm, both faces planed/ }),
  ).toBeVisible();
});
