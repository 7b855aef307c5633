import { expect, type Page } from '@playwright/test';
import { openPlace, saved, storedBoard, stripFace, strips, test, typeLength } from './pages.ts';
import { stripsOf } from '#core/board/recipe.ts';

/** Goes along the shelf to the first section of beech: tests before may have put other woods into the rack. */
async function toBeech(page: Page): Promise<void> {
  const offered = () => page.evaluate(() => document.activeElement!.getAttribute('aria-label') ?? '');
  await expect.poll(offered).toMatch(/^Put in/);
  for (let i = 0; i < 20 && !(await offered()).startsWith('Put in European beech'); i += 1)
    await page.keyboard.press('ArrowRight');
  expect(await offered()).toMatch(/^Put in European beech/);
}

test('an edge-grain board from the rack by mouse, saved as it is made', async ({ page }) => {
  await openPlace(page, '/boards');
  await page.getByRole('button', { name: 'New board', exact: true }).click();
  await expect(page).toHaveURL(/brief$/);
  await page.getByLabel('Name', { exact: true }).fill('Mule <b>bread</b> board');
  await page.getByRole('button', { name: 'Cheese' }).click();
  await typeLength(page, 'Length', '15 3/4"');
  await typeLength(page, 'Width', '15 cm');
  await page.getByRole('link', { name: 'Lay out strips' }).click();

  // Two by click, one dragged onto the drawing above the others.
  const shelf = page.getByRole('region', { name: 'Sections the rack gives' });
  await shelf.getByRole('button', { name: /European beech 49.3 mm/ }).click();
  await shelf.getByRole('button', { name: /Wild cherry 36.8 mm/ }).click();
  await shelf.getByRole('button', { name: /European walnut 36.8 mm/ }).scrollIntoViewIfNeeded();
  const walnut = (await shelf.getByRole('button', { name: /European walnut 36.8 mm/ }).boundingBox())!;
  const first = (await stripFace(page, 0).boundingBox())!;
  await page.mouse.move(walnut.x + 20, walnut.y + 20);
  await page.mouse.down();
  await page.mouse.move(first.x + 200, first.y + 30, { steps: 6 });
  await page.mouse.move(first.x + 200, first.y + 3);
  await page.mouse.up();
  await expect(strips(page)).toHaveCount(3);
  await expect(strips(page).nth(0)).toHaveAccessibleName(/European walnut/);

  // Drag the joint behind the first strip down: its width grows to a snapped or half-millimetre value, the others move along.
  const joint = (await page.getByRole('slider', { name: /Joint behind strip 1/ }).boundingBox())!;
  await page.mouse.move(joint.x + 300, joint.y + joint.height / 2);
  await page.mouse.down();
  await page.mouse.move(joint.x + 300, joint.y - 20, { steps: 4 });
  await page.mouse.up();
  await saved(page);
  const after = (await storedBoard(page)).board;
  expect(after.name).toBe('Mule <b>bread</b> board');
  expect([after.length, after.width, after.use]).toEqual([400.05, 150, 'Cheese']);
  expect(stripsOf(after)[0]!.width).toBeLessThan(36.8);
  // Walnut of the rack gives 21.4 and 36.8; between them half millimetres.
  expect(stripsOf(after)[0]!.width === 21.4 || (stripsOf(after)[0]!.width * 2) % 1 === 0).toBe(true);
  expect(
    stripsOf(after)
      .slice(1)
      .map((s) => s.width),
  ).toEqual([49.3, 36.8]);

  // One undo takes the whole drag back; the picked-up strip can be moved by dragging it.
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  expect(stripsOf((await storedBoard(page)).board)[0]!.width).toBe(36.8);
  const from = (await stripFace(page, 0).boundingBox())!;
  const to = (await stripFace(page, 2).boundingBox())!;
  await page.mouse.move(from.x + 250, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + 250, to.y + to.height - 4, { steps: 8 });
  await page.mouse.up();
  await expect(strips(page).nth(2)).toHaveAccessibleName(/European walnut/);
  await saved(page);

  // The sum is in sight and short; the plan follows and survives a reload.
  await expect(page.getByLabel('Sum of the strips')).toContainText('122.9 mm');
  await expect(page.getByLabel('Sum of the strips')).toContainText('33.1 mm to go');
  await page.getByRole('link', { name: /^Mill/ }).click();
  await page.getByText('Width, short', { exact: true }).click();
  await expect(page.getByLabel('Width ladder')).toContainText('33.1 mm short of 150 mm');
  await page.reload();
  await expect(page.getByLabel('Thickness ladder')).toContainText('30 mm as wanted');
  await expect(page.getByText('Rip the strips')).toBeVisible();
});

test('a face-grain board by keyboard alone', async ({ page }) => {
  await openPlace(page, '/boards');
  const key = (k: string) => page.keyboard.press(k);
  await key('n');
  await expect(page.getByLabel('Name', { exact: true })).toBeVisible();
  const tabTo = async (name: string | RegExp) => {
    for (let i = 0; i < 40; i += 1) {
      const label = await page.evaluate(
        () =>
          (document.activeElement as HTMLInputElement | null)?.labels?.[0]?.textContent ??
          document.activeElement?.getAttribute('aria-label') ??
          '',
      );
      if (typeof name === 'string' ? label === name : name.test(label)) return;
      await key('Tab');
    }
    throw new Error(`Tab never reached ${name.toString()}`);
  };
  await tabTo('Name');
  await page.keyboard.type('Made by keys');
  await tabTo(/^Edge grain/);
  await key('ArrowDown');
  await tabTo('Width');
  await key('Control+a');
  await page.keyboard.type('170');
  await tabTo('Thickness');
  await key('Control+a');
  await page.keyboard.type('24');
  await key('Enter');
  await key('Escape');
  await key('2');
  await expect(page.getByRole('region', { name: 'Sections the rack gives' })).toBeVisible();

  await key('i');
  await toBeech(page);
  await key('ArrowRight');
  await key('Enter');
  await expect(strips(page)).toHaveCount(1);
  await key('w');
  await page.keyboard.type('2"');
  await key('Enter');
  await expect(strips(page).first()).toHaveAccessibleName(/50.8 mm/);
  await expect(strips(page).first()).toBeFocused();

  await key('d');
  await key('t');
  await key('+');
  await expect(strips(page).nth(1)).toHaveAccessibleName(/51.3 mm, grain to the left/);
  await key('m');
  await expect(strips(page)).toHaveCount(3);
  await key('Alt+ArrowUp');
  await expect(strips(page).nth(0)).toHaveAccessibleName(/grain to the left/);
  await key('r');
  await expect(strips(page).nth(2)).toHaveAccessibleName(/grain to the left/);
  await key('ArrowUp');
  await key('Delete');
  await expect(strips(page)).toHaveCount(2);
  await key('Control+z');
  await expect(strips(page)).toHaveCount(3);
  await key('Control+y');
  await expect(strips(page)).toHaveCount(2);
  await key('Control+z');
  await key(']');
  await saved(page);
  const { board } = await storedBoard(page);
  expect(board).toMatchObject({ name: 'Made by keys', construction: 'face', width: 170, thickness: 24 });
  expect(stripsOf(board)).toHaveLength(3);

  await key('?');
  await expect(page.getByRole('dialog')).toContainText('Mirror');
  await key('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await key('4');
  await expect(page.getByLabel('Thickness ladder')).toBeVisible();
});

test('a face-grain board from the rack by mouse', async ({ page }) => {
  await openPlace(page, '/boards');
  await page.getByRole('button', { name: 'New board', exact: true }).click();
  await page.getByText('Face grain', { exact: true }).click();
  await typeLength(page, 'Thickness', '1"');
  await typeLength(page, 'Width', '180');
  await page.getByRole('link', { name: 'Lay out strips' }).click();
  const shelf = page.getByRole('region', { name: 'Sections the rack gives' });
  await expect(shelf).toContainText('stock lying flat');
  await shelf.getByRole('button', { name: /European birch 187 mm/ }).click();
  await expect(page.getByLabel('Sum of the strips')).toContainText('1 mm over');
  // The wide strip is narrowed on its joint, and a second one from the shelf fills up.
  const joint = (await page.getByRole('slider').boundingBox())!;
  await page.mouse.move(joint.x + 200, joint.y + joint.height / 2);
  await page.mouse.down();
  await page.mouse.move(joint.x + 200, joint.y - 90, { steps: 8 });
  await page.mouse.up();
  await shelf.getByRole('button', { name: /Pear 137 mm/ }).click();
  await expect(strips(page)).toHaveCount(2);
  await page.getByRole('button', { name: 'Mirror the board about this strip' }).click();
  await expect(strips(page)).toHaveCount(3);
  await saved(page);
  const { board } = await storedBoard(page);
  expect(board).toMatchObject({
    construction: 'face',
    thickness: 25.4,
    recipe: [
      { species: 'birch-european' },
      { species: 'pear', width: 137 },
      { species: 'birch-european' },
      { kind: 'glue' },
    ],
  });
  expect(stripsOf(board)[0]!.width).toBeLessThan(187);
  expect(stripsOf(board)[2]!.width).toBe(stripsOf(board)[0]!.width);
  await page.getByRole('link', { name: /^Mill/ }).click();
  await expect(page.getByText('Joint both edges of each strip').first()).toBeVisible();
});

test('an edge-grain board by keyboard alone', async ({ page }) => {
  await openPlace(page, '/boards');
  const press = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key);
  };
  await press('n');
  await expect(page.getByLabel('Name', { exact: true })).toBeVisible();
  await press('2');
  await expect(page.getByRole('region', { name: 'Sections the rack gives' })).toBeVisible();
  await press('i');
  await toBeech(page);
  await press('Enter');
  await expect(strips(page)).toHaveCount(1);
  await press('ArrowRight', 'ArrowRight', 'Enter');
  await expect(strips(page)).toHaveCount(2);
  await press('m', 'ArrowDown', 'd', '[', '-', 'ArrowUp', 't');
  await expect(strips(page)).toHaveCount(4);
  await saved(page);
  const { board } = await storedBoard(page);
  // Beech of the rack gives 49.3, 31.8, 29.4, 26.4, 23.8; the last strip went one width down and half a millimetre more.
  expect(stripsOf(board).map((s) => [s.width, s.endForEnd])).toEqual([
    [49.3, false],
    [29.4, false],
    [49.3, true],
    [31.3, false],
  ]);
  await press('s');
  // Strips are options too; those of the list of species are meant.
  const offered = page.getByRole('option', { name: /^(?!Strip)/ });
  await expect(offered.filter({ hasText: 'Pear' })).toBeVisible();
  await page.keyboard.type('Pear');
  await expect(offered).toHaveCount(1);
  await press('ArrowDown', 'Enter');
  await expect(strips(page).nth(2)).toHaveAccessibleName(/Pear/);
  await expect(strips(page).nth(2)).toBeFocused();
  await press('8');
  await expect(page.getByRole('article', { name: 'Bench sheet' })).toContainText('Cut list');
});

test('species can be changed on the rail and a width the rack does not give is allowed and flagged', async ({
  page,
}) => {
  await openPlace(page, '/boards');
  await page.keyboard.press('n');
  await expect(page.getByLabel('Name', { exact: true })).toBeVisible();
  await page.keyboard.press('2');
  await page.getByRole('button', { name: /Pear 30.8 mm/ }).click();
  await page.getByRole('combobox', { name: 'Species' }).click();
  await page.getByRole('combobox', { name: 'Species' }).fill('walnut');
  await page.getByRole('option', { name: 'European walnut' }).click();
  await expect(strips(page).first()).toHaveAccessibleName(/European walnut/);
  await typeLength(page, 'Strip width', '60');
  await expect(page.getByRole('toolbar', { name: /^Strip/ })).toContainText(
    'the widest the rack gives in this species is 36.8 mm',
  );
  await typeLength(page, 'Strip width', 'sixty');
  await expect(page.getByText('Strip width is not a length Cadenza can read')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Strip width' })).toHaveValue('sixty');
  await page.getByRole('textbox', { name: 'Strip width' }).press('Escape');
  await saved(page);
  expect(stripsOf((await storedBoard(page)).board)[0]!.width).toBe(60);
});
