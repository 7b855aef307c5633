import { expect } from '@playwright/test';
import { makeBoard, openPlace, saved, storedBoard, test, typeLength } from './pages.ts';
import { AS_IT_LIES, flatRecipe } from '#core/board/recipe.ts';

test('the mill shows stairs to scale; a habit is changed at its rung, for this board only, and the plan follows', async ({
  page,
  request,
}) => {
  const id = await makeBoard(request);
  await openPlace(page, `/boards/${id}/mill`);
  await expect(page.getByRole('img', { name: /Stairs of the thickness/ })).toBeVisible();
  await page.getByText('Flatten the panel', { exact: true }).first().click();
  await page
    .getByRole('button', { name: /Flatten the panel, both faces/ })
    .first()
    .click();
  await typeLength(page, 'Flatten the panel, both faces', '2.5');
  await expect(page.getByText('(this board)').first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText('Rip to 33 mm', { exact: true })).toBeVisible();
  await saved(page);
  expect((await storedBoard(page)).board.differs.habits).toEqual({ panelFlatten: 2.5 });
  // The other way round, and the orders of milling side by side.
  await page.getByRole('button', { name: 'How thick and long could it be?' }).click();
  await expect(page.getByText(/the thickest board is/)).toContainText('mm');
  await expect(page.getByRole('columnheader', { name: 'Full length first' })).toBeVisible();
  // A school is chosen at its step by keyboard alone.
  await page.getByRole('button', { name: /^Ripping/ }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('radio', { name: 'Fat, rest, mill again' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('heading', { name: /Mill the rested strips to size/ })).toBeVisible();
});

test('a batch is divided into panels by its figures', async ({ page, request }) => {
  const id = await makeBoard(request, { count: 4 });
  await openPlace(page, `/boards/${id}/mill`);
  await page.getByRole('button', { name: 'Take 2 to a panel' }).click();
  await saved(page);
  expect((await storedBoard(page)).board.perPanel).toBe(2);
  await openPlace(page, `/boards/${id}/trim`);
  await expect(page.getByRole('heading', { name: /Cut the boards apart/ })).toBeVisible();
  await expect(page.getByRole('group', { name: /Panel with 2 boards on it and 5 cuts/ })).toBeVisible();
  // Another number of boards: how many to a panel is chosen anew, and said.
  await openPlace(page, `/boards/${id}/brief`);
  await page.getByLabel('How many').fill('1');
  await page.getByLabel('How many').press('Enter');
  await saved(page);
  expect((await storedBoard(page)).board).toMatchObject({ count: 1, perPanel: 1 });
});

test('strips are regrouped by keys, and glue, hands and the way to flatten are chosen with what they change', async ({
  page,
  request,
}) => {
  const strips = Array.from({ length: 8 }, (_, i) => ({
    id: `t${i}`,
    species: 'beech-european',
    width: 30,
    ...AS_IT_LIES,
  }));
  const id = await makeBoard(request, { recipe: flatRecipe(strips), width: 234 });
  await openPlace(page, `/boards/${id}/glue`);
  const joint = page.getByRole('button', { name: /Joint between strips 2 and 3/ });
  const before = await joint.getAttribute('aria-pressed');
  await joint.focus();
  await page.keyboard.press('Enter');
  await expect(joint).toHaveAttribute('aria-pressed', before === 'true' ? 'false' : 'true');
  await expect(page.getByText('Your own groups.')).toBeVisible();
  await saved(page);
  expect((await storedBoard(page)).board.gluing.groups!.reduce((sum, g) => sum + g, 0)).toBe(8);
  await page.getByRole('button', { name: 'Let Cadenza choose' }).click();
  await expect(page.getByText('Chosen for the fewest hours in clamps')).toBeVisible();
  await page.getByRole('switch', { name: /second pair of hands/ }).click({ force: true });
  await expect(page.getByRole('row', { name: /, taken two pairs/ })).toBeVisible();
  await page
    .getByRole('row', { name: /^Hand planes/ })
    .getByRole('button', { name: 'Take this' })
    .first()
    .click();
  await expect(page.getByText(/min by hand planes/)).toBeVisible();
  await saved(page);
  expect((await storedBoard(page)).board).toMatchObject({
    gluing: { groups: null, helper: true },
    differs: { schools: { flatten: 'handPlanes' } },
  });
});

test('a glue-up is timed: the clock outlives a reload, a second device goes on with it, and what was too soon is noted', async ({
  page,
  request,
  browser,
}) => {
  const id = await makeBoard(request);
  await openPlace(page, `/boards/${id}/glue`);
  const other = await (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })).newPage();
  await openPlace(other, `/boards/${id}/glue`);
  await page.getByRole('button', { name: /start the clock/ }).click();
  await expect(page.getByRole('timer')).toBeVisible();
  // The second device has not heard of it yet: it is told, and shows the same clock.
  await other
    .getByRole('button', { name: /start the clock/ })
    .click({ timeout: 3000 })
    .catch(() => {});
  await expect(other.getByRole('timer')).toBeVisible();
  await page.getByRole('button', { name: 'Joints closed, first clamp' }).click();
  await page.getByRole('button', { name: 'Last clamp tight' }).click();
  await expect(page.getByText(/in time/)).toHaveCount(2);
  await page.reload();
  await expect(page.getByRole('timer')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Last clamp tight' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Squeeze-out off' }).click();
  await expect(page.getByText(/too soon/)).toBeVisible();
  await page.getByRole('textbox', { name: /What went wrong/ }).fill('Scraped while wet');
  await page.getByRole('button', { name: 'Stop the clock' }).click();
  await expect(page.getByRole('button', { name: /start the clock/ })).toBeVisible();
  await page.getByText('Done before: 1').click();
  await expect(page.getByText(/Scraped while wet/)).toBeVisible();
  await other.context().close();
});

test('a stop is gone on with only with a note, which stays on the record', async ({ page, request }) => {
  const strips = Array.from({ length: 19 }, (_, i) => ({
    id: `t${i}`,
    species: 'beech-european',
    width: 48,
    ...AS_IT_LIES,
  }));
  const id = await makeBoard(request, { recipe: flatRecipe(strips), width: 900 });
  await openPlace(page, `/boards/${id}/glue`);
  const stop = page.locator('details').filter({ hasText: 'none of the 8 clamps opens so far' }).first();
  await stop.locator('summary').click();
  await expect(stop.getByRole('button', { name: 'Go on' })).toBeDisabled();
  await stop.getByRole('textbox').fill('Two clamps hooked together');
  await stop.getByRole('textbox').press('Enter');
  await expect(stop.getByText('Gone on with')).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByText('Gone on with').first()).toBeVisible();
  await openPlace(page, `/boards/${id}/sheet`);
  await expect(page.getByText(/Gone on with: Two clamps hooked together/).first()).toBeVisible();
});

test('clamps and glues are entered in the shop; a glue that closes before it is spread is refused and its text stays', async ({
  page,
}) => {
  await openPlace(page, '/shop/clamps');
  const lines = page.getByRole('group', { name: /^Clamps \d/ });
  const count = await lines.count();
  await page.getByRole('button', { name: 'Add clamps' }).click();
  await expect(lines).toHaveCount(count + 1);
  await page.getByRole('button', { name: `Remove clamps ${count + 1}` }).click();
  await expect(lines).toHaveCount(count);
  await page.getByRole('link', { name: /^Glues/ }).click();
  await page.getByRole('button', { name: 'Add a glue' }).click();
  const glue = page.getByRole('group', { name: 'Another glue' });
  await glue.getByRole('textbox', { name: 'Until pressed' }).fill('2');
  await glue.getByRole('textbox', { name: 'Until pressed' }).press('Enter');
  await expect(page.getByText(/must not be shorter than its open time/)).toBeVisible();
  await page.getByRole('button', { name: 'Remove Another glue' }).click();
  await expect(glue).toHaveCount(0);
});
