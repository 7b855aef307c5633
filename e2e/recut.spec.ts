import { expect, type Page } from '@playwright/test';
import { framesOf } from '#core/board/frame.ts';
import { lookOf, USUAL } from '#core/board/looks.ts';
import { rowLies } from '#core/board/rowPatterns.ts';
import { AS_IT_LIES, flatRecipe } from '#core/board/recipe.ts';
import { insertsOf } from '#core/board/inset.ts';
import { recutOf, type Recut } from '#core/board/recut.ts';
import type { Shop } from '#core/shop/shop.ts';
import { at, makeBoard, openPlace, saved, storedBoard, test } from './pages.ts';

const six = [40, 40, 40, 40, 40, 40].map((width, i) => ({
  id: `r${i}`,
  species: i % 2 === 0 ? 'beech-european' : 'cherry-wild',
  width,
  ...AS_IT_LIES,
}));
const size = { length: 300, width: 220, thickness: 30 };

/** What the stored board asks of its slices, in the shop that there is. */
async function recut(page: Page): Promise<Recut> {
  const { shop } = (await (await page.request.get(at('/api/shop'))).json()) as { shop: Shop };
  const made = recutOf((await storedBoard(page)).board, shop);
  if (!made) throw new Error('A flat board.');
  return made;
}
const stage = (page: Page, name: string) => page.getByRole('tab', { name: new RegExp(`^${name}`) });
const turned = async (page: Page) => rowLies(await recut(page)).map((l) => l.endForEnd);

test('a flat board becomes one of end grain, by mouse: its slices are dragged, its rows turned, and every station follows', async ({
  page,
  request,
}) => {
  const id = await makeBoard(request, { ...size, recipe: flatRecipe(six) });
  await openPlace(page, `/boards/${id}/brief`);
  await page.getByRole('radio', { name: /End grain/ }).check();
  await expect(page.getByText('10 rows')).toBeVisible();
  await expect(page.getByRole('table', { name: 'These strips each way' }).getByRole('row')).toHaveCount(7);
  await saved(page);
  expect(lookOf((await storedBoard(page)).board)).toBe('endGrain');

  await page.getByRole('link', { name: 'Change it stage by stage' }).click();
  await stage(page, 'Slices').click();
  const grip = page.getByRole('slider', { name: 'Width of a slice' });
  const box = (await grip.locator('circle').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 12, box.y + 4, { steps: 4 });
  await page.mouse.up();
  const before = 30 + 0.5 + 2.5;
  await expect.poll(async () => (await recut(page)).pitch).toBeGreaterThan(before + 2);
  // The whole drag is one step of undo.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await recut(page)).pitch).toBeCloseTo(before, 6);

  await stage(page, 'Rows').click();
  await page.getByRole('option', { name: /^Row 2, end for end$/ }).click();
  await page.getByRole('button', { name: 'End for end' }).click();
  await expect.poll(() => turned(page)).toEqual([false, false, false, true, false, true, false, true, false, true]);
  await page.getByRole('button', { name: 'Patterns' }).click();
  await page.getByRole('menuitem', { name: 'Every second by half a strip' }).click();
  await expect
    .poll(async () => rowLies(await recut(page)).map((l) => l.shift))
    .toEqual([0, 20, 0, 20, 0, 20, 0, 20, 0, 20]);

  await stage(page, 'Board').click();
  await expect(page.getByRole('img', { name: 'The finished board from above, drawn to scale' })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(stage(page, 'Board')).toContainText(/300 ×/);

  await page.getByRole('link', { name: /Glue/ }).click();
  await page.getByText('The rows', { exact: true }).click();
  await expect(page.getByRole('heading', { name: /rows 1 to 10|rows \d+ to \d+/ }).first()).toBeVisible();
  await page.getByRole('link', { name: /Bench sheet/ }).click();
  await expect(page.getByRole('img', { name: '10 rows in order, to scale, with how each is turned' })).toBeVisible();
  await expect(page.getByText('Saw 10 slices', { exact: true })).toBeVisible();
});

test('a chevron by keyboard alone: angle and slices step by step, rows by the handful, odd figures get their sentence', async ({
  page,
  request,
}) => {
  const id = await makeBoard(request, { ...size, recipe: flatRecipe(six) });
  await openPlace(page, `/boards/${id}/brief`);
  await page.getByRole('radio', { name: /Chevron/ }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('radio', { name: /Chevron/ })).toBeChecked();
  await page.goto(at(`/boards/${id}/layout`));
  await stage(page, 'Slices').focus();
  await page.keyboard.press('Enter');
  await page.getByRole('slider', { name: 'Angle of the cuts' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(async () => (await recut(page)).angle).toBe(40);
  // Staggered strips follow the cut.
  expect((await recut(page)).panel.stagger).toBe(40);
  await page.getByRole('slider', { name: 'Width of a slice' }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(async () => (await recut(page)).pitch).toBeCloseTo(37.6, 6);

  const angle = page.getByRole('textbox', { name: 'Angle', exact: true });
  await angle.fill('89');
  await angle.press('Enter');
  await expect(page.getByText('Angle must be at most 60°.')).toBeVisible();
  const slices = page.getByRole('textbox', { name: 'Slices', exact: true });
  await slices.fill('400');
  await slices.press('Enter');
  await expect(page.getByText('Slices must be at most 200.')).toBeVisible();
  await page.getByRole('textbox', { name: 'A slice as sawn', exact: true }).fill('a lot');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^Slice .*length/)).toBeVisible();
  expect((await recut(page)).angle).toBe(40);

  await stage(page, 'Rows').focus();
  await page.keyboard.press('Enter');
  await page.getByRole('option', { name: /^Row 1/ }).focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press(']');
  await expect
    .poll(async () =>
      rowLies(await recut(page))
        .slice(0, 4)
        .map((l) => l.shift),
    )
    .toEqual([0, 1, 1, 0]);
  await page.keyboard.press('o');
  await expect
    .poll(async () =>
      rowLies(await recut(page))
        .slice(0, 3)
        .map((l) => l.over),
    )
    .toEqual([false, false, true]);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect
    .poll(async () =>
      rowLies(await recut(page))
        .slice(0, 4)
        .map((l) => l.shift),
    )
    .toEqual([0, 0, 0, 0]);
});

test('a board is split by mouse: its accent is moved, turned and jogged, another is put in by a key, and every station follows', async ({
  page,
  request,
}) => {
  const id = await makeBoard(request, { ...size, recipe: flatRecipe(six) });
  const put = async () => insertsOf((await storedBoard(page)).board.recipe).map((i) => i.operation);
  await openPlace(page, `/boards/${id}/brief`);
  await page.getByRole('radio', { name: /^Split/ }).check();
  await expect(page.getByText('2 parts')).toBeVisible();
  await page.getByRole('link', { name: 'Move, turn and add them on the drawing' }).click();
  await stage(page, 'Put in').click();
  const hold = async (name: string) => {
    const box = (await page.getByRole('slider', { name }).locator('circle').boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const place = await hold('Place of strip 7');
  await page.mouse.move(place.x, place.y);
  await page.mouse.down();
  await page.mouse.move(place.x - 60, place.y, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await put())[0]!.at).toBeLessThan(140);
  // The whole drag is one step of undo.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await put())[0]!.at).toBe(150);
  // Dragged upright the cut is square.
  const angle = await hold('Angle of strip 7');
  await page.mouse.move(angle.x, angle.y);
  await page.mouse.down();
  await page.mouse.move(place.x + 1, angle.y, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await put())[0]!.angle).toBe(0);
  const jog = page.getByRole('textbox', { name: 'Jog behind it', exact: true });
  await jog.fill('a bit');
  await jog.press('Enter');
  await expect(page.getByText(/^Jog .*length/)).toBeVisible();
  await jog.fill('6');
  await jog.press('Enter');
  await expect.poll(async () => (await put())[0]!.jog).toBe(6);
  await page.getByRole('slider', { name: 'Place of strip 7' }).focus();
  await page.keyboard.press('n');
  await expect.poll(async () => (await put()).length).toBe(2);
  await saved(page);

  await page.getByRole('link', { name: /Cuts/ }).click();
  await expect(
    page.getByRole('group', { name: 'Strips of the board in order' }).getByText('8', { exact: true }),
  ).toBeVisible();
  await page.getByRole('link', { name: /Glue/ }).click();
  await page.getByText('The parts', { exact: true }).click();
  await expect(page.getByRole('heading', { name: /pieces 1 to 5, from above/ })).toBeVisible();
  await page.getByRole('link', { name: /Trim/ }).click();
  await expect(page.getByRole('heading', { name: 'The block', exact: true })).toBeVisible();
  await page.getByRole('link', { name: /Bench sheet/ }).click();
  await expect(page.getByRole('img', { name: /^The panel with its 2 cuts/ })).toBeVisible();
  await expect(page.getByText('Saw the panel through at 2 lines', { exact: true })).toBeVisible();
});

test('a board is framed by mouse and backed: a strip of the frame is dragged wider, and the sheet says where all of it goes', async ({
  page,
  request,
}) => {
  const id = await makeBoard(request, { ...size, recipe: flatRecipe(six) });
  await openPlace(page, `/boards/${id}/layout`);
  const add = async (what: RegExp) => {
    await page.getByRole('button', { name: 'Cut and glue again' }).click();
    await page.getByRole('menuitem', { name: what }).click();
  };
  await add(/Glue a frame/);
  const grip = page.getByRole('slider', { name: /^Left end: width of strip/ });
  const box = (await grip.locator('circle').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 20, box.y + 6, { steps: 4 });
  await page.mouse.up();
  const left = async () => framesOf((await storedBoard(page)).board.recipe)[0]?.strips.left.width ?? 0;
  await expect.poll(left).toBeGreaterThan(USUAL.metric.frame + 5);
  // The whole drag is one step of undo.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(left).toBe(USUAL.metric.frame);
  await add(/Glue a back/);
  await expect(page.getByRole('img', { name: 'The board from below with its back, drawn to scale' })).toBeVisible();
  await saved(page);
  await page.getByRole('link', { name: /Bench sheet/ }).click();
  await expect(page.getByRole('img', { name: 'The board with its frame of 4 strips, to scale' })).toBeVisible();
  await expect(page.getByRole('img', { name: /^The back of \d+ strips from below, to scale$/ })).toBeVisible();
  await expect(page.getByText('Make the frame level', { exact: true })).toBeVisible();
});
