import { expect, type Page } from '@playwright/test';
import { at, deafen, makeBoard, makePiece, openPlace, test } from './pages.ts';
import { AS_IT_LIES, flatRecipe } from '#core/board/recipe.ts';

const strip = (id: string, width: number) => ({ id, species: 'hickory', width, ...AS_IT_LIES });
const proven = (page: Page) =>
  expect(page.getByRole('status').filter({ hasText: 'Proven: nothing better is possible.' })).toBeVisible({
    timeout: 20_000,
  });
const marks = async (page: Page) =>
  ((await (await page.request.get(at('/api/rack'))).json()) as { piece: { mark: string; species: string } }[])
    .filter((r) => r.piece.species === 'hickory')
    .map((r) => r.piece.mark)
    .sort();

// One after the other: they share the only hickory in the rack.
test.describe.configure({ mode: 'serial' });
test.use({ leaves: true });

test('a cut plan is searched, proven and kept; the other board that wants the same wood is told', async ({
  page,
  request,
}) => {
  await makePiece(request, {
    mark: 'H1',
    species: 'hickory',
    length: 470,
    width: 120,
    thickness: 40,
    price: { amount: 1000, per: 'cubicMetre' },
  });
  const strips = [strip('a', 30), strip('b', 30), strip('c', 30)];
  const [one, two] = [
    await makeBoard(request, { name: 'Hickory one', recipe: flatRecipe(strips) }),
    await makeBoard(request, { name: 'Hickory two', recipe: flatRecipe(strips) }),
  ];
  const other = await page.context().newPage();
  // It has not heard yet that the wood is promised.
  await deafen(other);
  for (const [tab, id] of [
    [page, one],
    [other, two],
  ] as const) {
    await openPlace(tab, `/boards/${id}/cuts`);
    await proven(tab);
    await expect(tab.getByRole('button', { name: /^Strip \d from H1/ })).toHaveCount(3);
  }
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('This wood is promised.')).toBeVisible();
  await other.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(other.getByText(/Wood of piece H1 is promised to "Hickory one" meanwhile/)).toBeVisible();
  // Nothing is lost: the second board now sees what it lacks and what to buy.
  await expect(other.getByRole('alert').filter({ hasText: 'cannot be had' })).toContainText('To buy: 1 × 6/4');
  await openPlace(other, '/rack');
  await expect(other.getByRole('button', { name: /^H1, Hickory.*partly promised/ })).toBeVisible();
});

test('after the saw the rack has the leftovers, a failed strip is planned again, and a cut can be taken back', async ({
  page,
  request,
}) => {
  await makePiece(request, { mark: 'H2', species: 'hickory', length: 1200, width: 60, thickness: 40 });
  await openPlace(page, '/boards');
  await page
    .getByRole('link', { name: /Hickory one/ })
    .first()
    .click();
  await page.getByRole('link', { name: /^Cuts/ }).click();
  await page.getByRole('button', { name: 'It is cut' }).click();
  await expect(page.getByText('After the saw')).toBeVisible();
  expect(await marks(page)).toEqual(['H2']);
  await page.getByLabel('Strip 2').click();
  await expect(page.getByLabel('Strip 2 failed')).toBeChecked();
  await proven(page);
  await expect(page.getByRole('button', { name: /^Strip 2 from H2/ })).toBeVisible();
  await page.getByRole('button', { name: 'Take this cut back' }).click();
  await expect(page.getByText('After the saw')).toHaveCount(0);
  expect(await marks(page)).toEqual(['H1', 'H2']);
});

test('strips change places by mouse, and the new order is kept', async ({ page, request }) => {
  const id = await makeBoard(request, {
    name: 'Hickory swapped',
    recipe: flatRecipe([strip('a', 30), strip('b', 30)]),
  });
  await openPlace(page, `/boards/${id}/cuts`);
  await proven(page);
  const box = (n: number) =>
    page
      .getByRole('button', { name: new RegExp(`^Strip ${n} from`) })
      .evaluate((strip) => strip.getBoundingClientRect().toJSON() as DOMRect);
  const [one, two] = [await box(1), await box(2)];
  await page.mouse.move(one.x + one.width / 2, one.y + one.height / 2);
  await page.mouse.down();
  await page.mouse.move(two.x + two.width / 2, two.y + two.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByText('Strips 1 and 2 change places: costs nothing.')).toBeVisible();
  expect((await box(1)).y > (await box(2)).y).toBe(two.y > one.y);
  // Somebody puts other wood into the rack at the very moment: no search of what it changes comes over what is kept.
  const kept = page.waitForResponse((r) => r.request().method() === 'POST' && r.url().includes('/saw/'));
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await kept;
  await makePiece(request, { mark: 'ZK1' });
  await expect(page.getByText('This wood is promised.')).toBeVisible();
  expect((await box(1)).y > (await box(2)).y).toBe(two.y > one.y);
  await page.getByRole('button', { name: 'Release the wood' }).click();
  await expect(page.getByText('This wood is promised.')).toHaveCount(0);
});

test('a strip is taken from another piece by keys, and what that costs is told', async ({ page, request }) => {
  const id = await makeBoard(request, { name: 'Hickory moved', recipe: flatRecipe([strip('a', 30)]) });
  // Dear wood is the second choice.
  await makePiece(request, {
    mark: 'H3',
    species: 'hickory',
    length: 1200,
    width: 60,
    thickness: 40,
    price: { amount: 9000, per: 'cubicMetre' },
  });
  await openPlace(page, `/boards/${id}/cuts`);
  await proven(page);
  await page.getByRole('button', { name: /^Strip 1 from H/ }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('dialog').getByRole('button', { name: 'H3' }).click();
  await expect(page.getByRole('status').filter({ hasText: /Strip 1 from H3: costs .* more\./ })).toBeVisible({
    timeout: 20_000,
  });
  await expect(page.getByRole('button', { name: /^Strip 1 from H3/ })).toBeVisible();
  await expect(page.getByText('Strip 1 from H3', { exact: false }).last()).toBeVisible();
  await page.getByRole('button', { name: 'Any piece' }).click();
  await expect(page.getByRole('button', { name: /^Strip 1 from H[^3]/ })).toBeVisible({ timeout: 20_000 });
  await page.getByText('Table', { exact: true }).click();
  await expect(page.getByRole('table', { name: 'Cut list' }).getByRole('row')).toHaveCount(2);
});
