import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { at, makeBoard, openPlace, saved, storedBoard, stripFace, strips, test } from './pages.ts';
import { AS_IT_LIES, flatRecipe, stripsOf } from '#core/board/recipe.ts';

const five = [30.8, 36.8, 48.8, 36.8, 30.8].map((width, i) => ({
  id: `f${i}`,
  species: ['pear', 'cherry-wild', 'beech-european', 'cherry-wild', 'pear'][i]!,
  width,
  ...AS_IT_LIES,
}));
const order = async (page: Page) =>
  stripsOf((await storedBoard(page)).board)
    .map((s) => s.id)
    .join(' ');
const press = async (page: Page, ...keys: string[]) => {
  for (const key of keys) await page.keyboard.press(key);
};

test('several strips are picked up, moved, swapped, turned and locked; undo and redo outlive a reload', async ({
  page,
  request,
}) => {
  const id = await makeBoard(request, { recipe: flatRecipe(five), width: 178 });
  await openPlace(page, `/boards/${id}/layout`);
  await stripFace(page, 0).click();
  await stripFace(page, 1).click({ modifiers: ['Shift'] });
  await expect(page.getByRole('toolbar', { name: '2 strips' })).toBeVisible();
  await press(page, 'Alt+ArrowDown', 't');
  await expect.poll(() => order(page)).toBe('f2 f0 f1 f3 f4');
  await expect(strips(page).nth(1)).toHaveAccessibleName(/grain to the left/);
  await stripFace(page, 0).click();
  await stripFace(page, 4).click({ modifiers: ['Control'] });
  await press(page, 'x', 'o', 'l');
  await expect.poll(() => order(page)).toBe('f4 f0 f1 f3 f2');
  await expect(strips(page).nth(0)).toHaveAccessibleName(/turned over, locked/);
  await saved(page);

  await page.reload();
  await expect(strips(page).nth(0)).toHaveAccessibleName(/locked/);
  await press(page, 'Control+z', 'Control+z', 'Control+z');
  await expect.poll(() => order(page)).toBe('f2 f0 f1 f3 f4');
  await press(page, 'Control+z', 'Control+z');
  await expect.poll(() => order(page)).toBe('f0 f1 f2 f3 f4');
  await press(page, 'Control+z');
  await expect(page.getByText('Nothing further to take back: this is how the board began.')).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(strips(page)).toHaveCount(5);
  await press(page, 'Control+y', 'Control+y', 'Control+y');
  await expect.poll(() => order(page)).toBe('f4 f0 f1 f3 f2');

  // A state is named, found again among those with a name, and brought back.
  await page.getByRole('button', { name: 'History' }).click();
  const history = page.getByRole('dialog', { name: 'History of this board' });
  await history.getByRole('textbox').last().fill('As it began');
  await history.getByRole('textbox').last().press('Enter');
  await history.getByRole('switch', { name: 'Only those with a name' }).click({ force: true });
  await expect(history.getByRole('button', { name: 'Bring it back' })).toHaveCount(1);
  await history.getByRole('button', { name: 'Bring it back' }).click();
  await expect.poll(() => order(page)).toBe('f0 f1 f2 f3 f4');
});

test('widths even out round locked strips, or it is said what stands against it', async ({ page, request }) => {
  const id = await makeBoard(request, { recipe: flatRecipe(five), width: 170 });
  await openPlace(page, `/boards/${id}/layout`);
  await stripFace(page, 2).click();
  await press(page, 'l', 'e');
  await expect
    .poll(async () => stripsOf((await storedBoard(page)).board).reduce((sum, s) => sum + s.width, 0))
    .toBeCloseTo(176, 6);
  expect(stripsOf((await storedBoard(page)).board)[2]!.width).toBe(48.8);
  await press(page, 'a', 'l', 'e');
  await saved(page);
  await page.getByRole('link', { name: /^Brief/ }).click();
  await page.getByRole('textbox', { name: 'Width', exact: true }).fill('300');
  await page.getByRole('textbox', { name: 'Width', exact: true }).press('Enter');
  await expect.poll(async () => (await storedBoard(page)).board.width).toBe(300);
  await page.getByRole('link', { name: /^Layout/ }).click();
  await stripFace(page, 0).click();
  await press(page, 'e');
  await expect(
    page.getByText(/Evened out as far as it goes: 130 mm too narrow still. 5 strips are locked/).first(),
  ).toBeVisible();
});

test('versions stand side by side; one is worked on, one is kept; switching the construction says what changes', async ({
  page,
  request,
}) => {
  const id = await makeBoard(request, { recipe: flatRecipe(five), width: 178 });
  await openPlace(page, `/boards/${id}/layout`);
  await page.getByText('Versions', { exact: true }).click();
  await page.getByRole('button', { name: 'Set this one aside too' }).click();
  await page.getByText('Top', { exact: true }).click();
  await stripFace(page, 0).click();
  await press(page, 'Delete');
  await page.getByText('Versions (2)', { exact: true }).click();
  const cards = page.getByRole('region', { name: 'Versions of this board' }).getByRole('listitem');
  await expect(cards.nth(0)).toContainText('4 strips');
  await expect(cards.nth(1)).toContainText('5 strips');
  await expect(cards.nth(1)).toContainText(/Glue lines\s*4/);
  await cards.nth(1).getByRole('button', { name: 'Work on this' }).click();
  await expect(cards.nth(0)).toContainText('5 strips');
  await page.getByRole('button', { name: 'To face grain' }).click();
  await expect(page.getByRole('dialog')).toContainText(
    "Face grain: the rip shows as width; the stock decides the board's thickness.",
  );
  await page.getByRole('button', { name: 'Switch', exact: true }).click();
  await expect(cards.nth(0)).toContainText('face grain');
  await cards
    .nth(1)
    .getByRole('button', { name: /^More for/ })
    .click();
  await page.getByRole('menuitem', { name: 'Keep this one, let all others go' }).click();
  await expect
    .poll(async () => (await storedBoard(page)).board)
    .toMatchObject({ construction: 'edge', versions: [], recipe: [{}, {}, {}, {}, {}] });
});

test('a board is seen from below, in the round and under overlays, and goes out as a drawing true to scale', async ({
  page,
  request,
}) => {
  const id = await makeBoard(request, { recipe: flatRecipe(five), width: 178 });
  await openPlace(page, `/boards/${id}/layout`);
  const tops = () => strips(page).evaluateAll((rows) => rows.map((r) => r.getBoundingClientRect().top));
  expect([...(await tops())].sort((a, b) => a - b)).toEqual(await tops());
  await press(page, 'b');
  await expect
    .poll(async () => JSON.stringify([...(await tops())].sort((a, b) => b - a)) === JSON.stringify(await tops()))
    .toBe(true);
  await page.getByRole('combobox', { name: 'What is shown over the wood' }).click();
  await page.getByRole('option', { name: 'Growth rings' }).click();
  await expect(strips(page).nth(2)).toHaveAccessibleName(/flat-sawn|rift|quartered/);
  await page.getByText('In the round', { exact: true }).click();
  const table = page.getByRole('group', { name: /finished board in the round/ });
  await table.focus();
  const spin = () => table.locator('[data-spin]').getAttribute('data-spin');
  const before = Number(await spin());
  await press(page, 'ArrowRight', 'ArrowRight');
  await expect.poll(async () => Number(await spin())).toBe(before + 20);
  await expect.poll(() => table.locator('image[data-wood]').count()).toBeGreaterThanOrEqual(22);

  await page.getByRole('button', { name: 'Export' }).click();
  await page.getByRole('radio', { name: /^1:2/ }).check();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as SVG' }).click(),
  ]);
  const svg = await readFile(await download.path(), 'utf8');
  const parsed = await page.evaluate((text) => {
    const root = new DOMParser().parseFromString(text, 'image/svg+xml').documentElement;
    const board = root.querySelector('[data-board]')!;
    return {
      error: root.querySelector('parsererror') !== null,
      mm: root.getAttribute('width'),
      box: root.getAttribute('viewBox'),
      board: ['width', 'height'].map((a) => Number(board.getAttribute(a))),
      images: root.querySelectorAll('image').length,
      words: root.textContent,
    };
  }, svg);
  expect(parsed).toMatchObject({ error: false, board: [200, 89], images: 5 });
  expect(parsed.box).toBe(`0 0 ${Number.parseFloat(parsed.mm!)} ${parsed.box!.split(' ')[3]}`);
  expect(parsed.words).toContain('400 mm');
  await page.getByRole('button', { name: 'Export' }).click();
  const [picture] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as PNG' }).click(),
  ]);
  const png = await readFile(await picture.path());
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  expect(png.readUInt32BE(16)).toBeGreaterThan(400);
});

test('shuffling keeps the strips and tells what an order is good for', async ({ page, request }) => {
  const id = await makeBoard(request, { recipe: flatRecipe(five), width: 178 });
  await openPlace(page, `/boards/${id}/layout`);
  await stripFace(page, 2).click();
  await press(page, 'l', 'f');
  const drawer = page.getByRole('dialog', { name: 'Shuffle this board' });
  await expect(drawer).toContainText('1 locked strip stays in place');
  await drawer.getByRole('button', { name: 'Lay out order 1' }).click();
  await expect.poll(() => order(page)).not.toBe('f0 f1 f2 f3 f4');
  expect((await order(page)).split(' ')[2]).toBe('f2');
  expect((await order(page)).split(' ').sort().join(' ')).toBe('f0 f1 f2 f3 f4');
  await drawer.getByRole('button', { name: 'As it was' }).click();
  await expect.poll(() => order(page)).toBe('f0 f1 f2 f3 f4');
});

test('boards are proposed from the rack; what cannot be is said; one becomes a board that can be cut', async ({
  page,
}) => {
  await openPlace(page, '/propose');
  await page.getByRole('textbox', { name: 'Least width' }).fill('500');
  await page.getByRole('textbox', { name: 'Least width' }).press('Enter');
  await expect(page.getByRole('alert')).toContainText('Width: from 500 mm to 300 mm leaves nothing');
  await expect(page.getByRole('button', { name: 'Propose boards' })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Least width' }).fill('220');
  await page.getByRole('textbox', { name: 'Least width' }).press('Enter');
  await page.getByRole('button', { name: 'Propose boards' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'each can be cut' })).toBeVisible({ timeout: 30_000 });
  const cards = page.getByRole('article');
  expect(await cards.count()).toBeGreaterThanOrEqual(10);
  const names = await cards.getByRole('heading').allTextContents();
  expect(new Set(names).size).toBeGreaterThan(5);
  await cards.first().getByRole('button').click();
  await expect(page).toHaveURL(/\/layout$/);
  await expect(strips(page).first()).toBeVisible();
  await expect(page.getByText(/strips missing/)).toHaveCount(0);
  await page.goto(at('/propose?useUp=gone'));
  await expect(page.getByRole('alert')).toContainText('The piece to be used up is not in the rack any more');
});
