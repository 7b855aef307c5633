import { expect, type Page } from '@playwright/test';
import { at, deafen, makeBoard, openPlace, saved, storedBoard, stripFace, strips, test, typeLength } from './pages.ts';
import { AS_IT_LIES, flatRecipe, stripsOf } from '#core/board/recipe.ts';

const widths = async (page: Page) => stripsOf((await storedBoard(page)).board).map((s) => s.width);

test('a joint is moved by keys: half a millimetre a step, ten times with Shift', async ({ page, request }) => {
  await openPlace(page, `/boards/${await makeBoard(request)}/layout`);
  const joint = page.getByRole('slider', { name: /Joint behind strip 1/ });
  await joint.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(joint).toHaveAttribute('aria-valuenow', '26.8');
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  expect(await widths(page)).toEqual([30.8, 48.8, 36.8]);
});

test('Shift trades width with the neighbour, Alt lets go of every snap', async ({ page, request }) => {
  await openPlace(page, `/boards/${await makeBoard(request)}/layout`);
  const drag = async (key: 'Shift' | 'Alt', by: number) => {
    const joint = page.getByRole('slider', { name: /Joint behind strip 1/ });
    // Waits until the drawing has come to rest after the drag before.
    await joint.hover({ position: { x: 120, y: (await joint.boundingBox())!.height / 2 } });
    const box = (await joint.boundingBox())!;
    await page.keyboard.down(key);
    await page.mouse.down();
    await page.mouse.move(box.x + 120, box.y + box.height / 2 + by, { steps: 5 });
    await page.mouse.up();
    await page.keyboard.up(key);
    await saved(page);
  };
  await drag('Shift', 25);
  const [first, second, third] = await widths(page);
  expect(first).toBeGreaterThan(30.8);
  expect(first! + second!).toBeCloseTo(79.6, 6);
  expect(third).toBe(36.8);
  await drag('Alt', 7);
  await expect.poll(async () => ((await widths(page))[0]! * 2) % 1).not.toBeCloseTo(0, 3);
});

test('by touch: a tap picks a strip up, a drag moves the one in hand, a second finger changes nothing', async ({
  browser,
  request,
}) => {
  const context = await browser.newContext({ hasTouch: true, viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await openPlace(page, `/boards/${await makeBoard(request)}/layout`);
  const client = await context.newCDPSession(page);
  const center = async (index: number) => {
    await stripFace(page, index).scrollIntoViewIfNeeded();
    const box = (await stripFace(page, index).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: { x: number; y: number; id?: number }[]) =>
    client.send('Input.dispatchTouchEvent', { type, touchPoints: points });
  const third = await center(2);
  await page.touchscreen.tap(third.x, third.y);
  await expect(strips(page).nth(2)).toHaveAttribute('aria-selected', 'true');

  const first = await center(0);
  await touch('touchStart', [{ ...third, id: 0 }]);
  await touch('touchMove', [{ ...third, y: third.y - 20, id: 0 }]);
  await touch('touchStart', [
    { ...third, y: third.y - 20, id: 0 },
    { x: first.x + 60, y: first.y, id: 1 },
  ]);
  await touch('touchMove', [
    { ...third, y: first.y - 6, id: 0 },
    { x: first.x + 60, y: first.y + 30, id: 1 },
  ]);
  await touch('touchEnd', []);
  await expect.poll(() => widths(page)).toEqual([36.8, 30.8, 48.8]);

  // A long press picks a strip up with the one in hand; a tap holds one alone again.
  const press = async (index: number, milliseconds: number) => {
    const at = await center(index);
    await touch('touchStart', [{ ...at, id: 0 }]);
    await page.waitForTimeout(milliseconds);
    await touch('touchEnd', []);
  };
  await press(1, 50);
  await expect(page.getByRole('option', { name: /^Strip \d/, selected: true })).toHaveCount(1);
  await press(2, 700);
  await expect(page.getByRole('option', { name: /^Strip \d/, selected: true })).toHaveCount(2);
  await press(0, 50);
  await expect(page.getByRole('option', { name: /^Strip \d/, selected: true })).toHaveCount(1);
  await context.close();
});

test('odd input in the brief keeps its text, says why, and changes nothing', async ({ page, request }) => {
  await openPlace(page, `/boards/${await makeBoard(request)}/brief`);
  const before = await storedBoard(page);
  for (const [text, words] of [
    ['', 'Length is empty'],
    ['-40', 'Length cannot be negative'],
    ['0', 'Length must be at least 50 mm'],
    ['9999 m', 'Length must be at most 3000 mm'],
    ['4 0 0', 'Length is not a length Cadenza can read'],
    ['1/0', 'fraction over zero'],
    ['<b>400</b>', 'not a length'],
  ] as const) {
    await typeLength(page, 'Length', text);
    await expect(page.getByText(words)).toBeVisible();
    await expect(page.getByRole('textbox', { name: 'Length', exact: true })).toHaveValue(text);
  }
  await page.getByRole('textbox', { name: 'Length', exact: true }).press('Escape');
  await expect(page.getByRole('textbox', { name: 'Length', exact: true })).toHaveValue('400');
  await page.getByLabel('Name', { exact: true }).fill('x'.repeat(10_000));
  await page.keyboard.press('Enter');
  await expect(page.getByText('Name must be at most 120 characters.')).toBeVisible();
  await page.getByLabel('How many').fill('2.5');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Number of boards must be a whole number.')).toBeVisible();
  expect(await storedBoard(page)).toEqual(before);
});

test('a board takes 200 strips and says so at the next one', async ({ page, request }) => {
  const many = Array.from({ length: 200 }, (_, i) => ({ id: `m${i}`, species: 'pear', width: 6, ...AS_IT_LIES }));
  await openPlace(page, `/boards/${await makeBoard(request, { recipe: flatRecipe(many), width: 1200 })}/layout`);
  await expect(strips(page)).toHaveCount(200);
  await page.keyboard.press('d');
  await expect(page.getByText('A board holds at most 200 strips; nothing was changed.')).toBeVisible();
  await expect(strips(page)).toHaveCount(200);
});

test("in a conflict one can go on with one's own version", async ({ page, request }) => {
  const id = await makeBoard(request, { name: 'Contested' });
  await deafen(page);
  await openPlace(page, `/boards/${id}/layout`);
  const { board } = await storedBoard(page);
  expect(
    (
      await request.put(at(`/api/boards/${id}`), {
        data: { basedOn: 1, board: { ...board, name: 'Changed behind its back' } },
      })
    ).status(),
  ).toBe(200);
  await page.keyboard.press('r');
  await page.getByRole('button', { name: 'Go on with yours' }).click();
  await saved(page);
  expect(await storedBoard(page)).toMatchObject({
    revision: 3,
    board: { name: 'Contested', recipe: [{ width: 36.8 }, {}, {}, {}] },
  });
});

test('a finding picks up the strip it is about, and a rung opens to its reason and habit', async ({
  page,
  request,
}) => {
  const strip = (id: string, species: string, width: number, endForEnd = false) => ({
    id,
    species,
    width,
    ...AS_IT_LIES,
    endForEnd,
  });
  const id = await makeBoard(request, {
    recipe: flatRecipe([
      strip('a', 'pear', 30.8),
      strip('b', 'beech-european', 48.8),
      strip('c', 'cherry-wild', 36.8, true),
    ]),
  });
  await openPlace(page, `/boards/${id}/layout`);
  await page.getByText(/Strip 3 runs against its neighbour/).click();
  await expect(strips(page).nth(2)).toHaveAttribute('aria-selected', 'true');
  await expect(page.getByText('Turn strips end for end until all arrows point one way.')).toBeVisible();
  await page.keyboard.press('t');
  await expect(page.getByText(/runs against its neighbour/)).toHaveCount(0);
  await page.getByRole('link', { name: /^Mill/ }).click();
  await page.getByLabel('Thickness ladder').getByText('Flatten the panel', { exact: true }).click();
  await expect(page.getByText(/Strips never lie quite level/).first()).toBeVisible();
  await expect(page.getByText('Source: a habit of this shop').filter({ visible: true })).toHaveCount(1);
});

test('a strip of 3 mm is picked up where it is pressed; sections go to the end until a strip is in hand', async ({
  page,
  request,
}) => {
  const layout = [30, 3, 40].map((width, i) => ({ id: `n${i}`, species: 'pear', width, ...AS_IT_LIES }));
  await openPlace(page, `/boards/${await makeBoard(request, { recipe: flatRecipe(layout) })}/layout`);
  const thin = (await stripFace(page, 1).boundingBox())!;
  await page
    .getByRole('button', { name: /^Put in European beech/ })
    .first()
    .click();
  await expect(strips(page)).toHaveCount(4);
  await saved(page);
  expect(stripsOf((await storedBoard(page)).board)[3]!.species).toBe('beech-european');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(strips(page)).toHaveCount(3);
  await page.mouse.click(thin.x + thin.width / 2, thin.y + thin.height / 2);
  await expect(page.getByRole('toolbar', { name: 'Strip 2', exact: true })).toBeVisible();
});
