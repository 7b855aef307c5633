import { NOTHING_WORKED } from '#core/features/feature.ts';
import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { panelFacts } from '#core/plan/planArbitrary.ts';
import { makeBoard, noteFacts, openPlace, saved, storedBoard, storedMade, test, typeLength } from './pages.ts';
import { AS_IT_LIES, flatRecipe } from '#core/board/recipe.ts';

test('two diagonals tell how far a board is out and which way to correct; what no board has is said, and readings outlive a reload', async ({
  page,
  request,
}) => {
  const id = await makeBoard(request);
  await openPlace(page, `/boards/${id}/trim`);
  await typeLength(page, 'Diagonal A to C', '415.5');
  await typeLength(page, 'Diagonal B to D', '414.2');
  // (415.5^2 - 414.2^2) / (4 * 400 * 110) = 0.006128: 0.35 degrees, 0.7 mm over 110.
  const answer = page.getByRole('status').filter({ hasText: 'out:' });
  await expect(answer).toContainText('0.35° out: 0.7 mm over the width, 2.5 mm over the length');
  await expect(answer).toContainText('Take 0.7 mm off at corner C, tapering to nothing at B');
  await typeLength(page, 'Diagonal B to D', '520');
  await expect(page.getByRole('alert').filter({ hasText: 'No board of 400 mm by 110 mm' })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Diagonal B to D')).toHaveValue('520');
  // A rock of 2 mm costs half of it.
  await page.getByText('Flatness', { exact: true }).click();
  await typeLength(page, 'It rocks by', '2');
  await expect(page.getByRole('status').filter({ hasText: 'Flattening it again takes' })).toContainText('1 mm off');
});

const worked = async (page: Page) => (await storedBoard(page)).board.worked;

test('a groove is added, moved by keys and by mouse, refused where it is nonsense, and taken back; steps and figures follow', async ({
  page,
  request,
}) => {
  await openPlace(page, `/boards/${await makeBoard(request)}/trim?view=board`);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Juice groove' }).click();
  const grip = page.getByRole('slider', { name: 'Groove, in from the edge' });
  // A fifth of the board's width of 110.
  await expect(grip).toHaveAttribute('aria-valuenow', '22');
  await grip.focus();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(grip).toHaveAttribute('aria-valuenow', '27.5');
  await grip.hover();
  const box = (await grip.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 9, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => Number(await grip.getAttribute('aria-valuenow'))).toBeLessThan(27.5);
  expect((Number(await grip.getAttribute('aria-valuenow')) * 2) % 1).toBe(0);
  await expect(page.getByRole('heading', { name: /Juice groove, show side/ })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(grip).toHaveAttribute('aria-valuenow', '27.5');

  // Odd input stays as typed, says why, and changes nothing.
  await typeLength(page, 'Depth', 'deep');
  await expect(page.getByText(/^Depth is not a length/)).toBeVisible();
  await page.getByLabel('Depth', { exact: true }).press('Escape');
  await typeLength(page, 'Depth', '31');
  await expect(page.getByText('Juice groove: right through, the board is 30 mm thick.').first()).toBeVisible();
  await saved(page);
  expect((await worked(page)).features).toMatchObject([{ kind: 'groove', offset: 27.5, depth: 31 }]);
  await page.getByRole('button', { name: 'Remove juice groove' }).click();
  await expect(grip).toHaveCount(0);
});

test('edges are shaped all round or by the side, and drawn; an under-bevel tells its saw settings', async ({
  page,
  request,
}) => {
  await openPlace(page, `/boards/${await makeBoard(request)}/trim?view=board`);
  await page.getByRole('combobox', { name: 'Below' }).click();
  await page.getByRole('option', { name: 'Under-bevel' }).click();
  await typeLength(page, 'Left of the side below', '12');
  await expect(page.getByText('the bevel reaches 18 mm in on the underside')).toBeVisible();
  await page.getByText('Left end', { exact: true }).click();
  await typeLength(page, 'Left of the side below', '15');
  await expect(page.getByText(/bevels of .* miss each other by 3 mm at the corner/).first()).toBeVisible();
  await saved(page);
  expect((await worked(page)).edges).toMatchObject({
    far: { bottom: { reveal: 12 } },
    left: { bottom: { reveal: 15 } },
  });
  await page.getByRole('button', { name: 'As the shop has it' }).click();
  await saved(page);
  await expect.poll(async () => (await worked(page)).edges).toBeNull();
});

test('a bad place stops a board that does not clear it, and the size that remains is one press away', async ({
  page,
  request,
}) => {
  await openPlace(page, `/boards/${await makeBoard(request)}/trim`);
  await page.getByRole('button', { name: 'Mark one' }).click();
  await typeLength(page, 'Long', '40');
  await expect(page.getByText('No board of this size lies clear of them.')).toBeVisible();
  // As long as the panel came out by the shop's habits, which another test may be changing.
  const glued = await page.getByLabel('Panel as glued, length').inputValue();
  await page.getByRole('button', { name: /^Make it [\d.]+ mm long$/ }).click();
  await expect(page.getByText('No board of this size lies clear of them.')).toHaveCount(0);
  await saved(page);
  // The panel was glued for 400 and stays as long as it is; once everything is planned anew the board still lies clear.
  await expect(page.getByLabel('Panel as glued, length')).toHaveValue(glued);
  await page.waitForTimeout(1500);
  await expect(page.getByText('No board of this size lies clear of them.')).toHaveCount(0);
  const { board } = await storedBoard(page);
  expect(board.length).toBeLessThan(380);
  expect(board.length).toBeGreaterThan(340);
  // It is moved with the keys like everything that is dragged.
  await page.getByRole('slider', { name: /^Gap/ }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(async () => (await storedMade(page)).spots[0]!.x).toBe(5);
  // Another is drawn on the panel itself.
  const panel = (await page.locator('svg[aria-label^="Panel with"]').boundingBox())!;
  await page.mouse.move(panel.x + panel.width / 2, panel.y + panel.height / 2);
  await page.mouse.down();
  await page.mouse.move(panel.x + panel.width / 2 + 40, panel.y + panel.height / 2 + 12, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await storedMade(page)).spots.length).toBe(2);
  await page.getByRole('button', { name: 'Take Gap off the list' }).last().click();
  await expect.poll(async () => (await storedMade(page)).spots.length).toBe(1);
  // Undo goes back to the length the board had; what was found on the panel is no wish, and stays.
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await storedBoard(page)).board.length).toBe(400);
  expect((await storedMade(page)).spots).toHaveLength(1);
  await page.reload();
  await expect(page.getByLabel('Panel as glued, length')).toHaveValue(glued);
  await page.getByRole('button', { name: 'It is not glued yet' }).click();
  await expect.poll(async () => (await storedMade(page)).panelLength).toBeNull();
  await expect(page.getByRole('button', { name: 'The panel is glued' })).toBeVisible();
});

test('a drawing comes from SVG without its scripts, becomes a job that a simulated engraver runs, and leaves as a file', async ({
  page,
  request,
}) => {
  await openPlace(page, `/boards/${await makeBoard(request)}/trim?view=board`);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Mark' }).click();
  const choose = async (name: string, text: string) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: /drawing from SVG|Another drawing/ }).click();
    await (await chooser).setFiles({ name, mimeType: 'image/svg+xml', buffer: Buffer.from(text) });
  };
  await choose('bad.svg', '<!DOCTYPE svg [<!ENTITY a "b">]><svg>&a;</svg>');
  await expect(page.getByRole('alert').filter({ hasText: 'declares entities' })).toContainText('The mark is as it was');
  await choose(
    'hut.svg',
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 20"><script>document.title="run"</script><path d="M0 20L20 0L40 20Z"/></svg>',
  );
  await expect(page.getByText('Scripts in it were left out; they are never run.')).toBeVisible();
  expect(await page.title()).not.toBe('run');
  await saved(page);
  expect((await worked(page)).features[0]).toMatchObject({
    kind: 'mark',
    method: 'laser',
    art: { length: 1000, width: 500 },
  });
  await page.getByText('Templates and jobs', { exact: true }).click();
  await expect(page.getByRole('button', { name: 'Mark, engraver' })).toHaveAttribute('aria-pressed', 'true');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as G-code' }).click();
  expect(readFileSync(await (await download).path(), 'utf8')).toMatch(/^\(Mark, underside up[\s\S]*M30\n$/);
  // A file from elsewhere that would plough through the wood.
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Try a file' }).click();
  await (
    await chooser
  ).setFiles({
    name: 'other.nc',
    mimeType: 'text/plain',
    buffer: Buffer.from('G21 G90\nM3 S1\nG1 Z-3 F100\nG0 X90 Y20\nM30'),
  });
  await expect(page.getByText('Line 4: It would travel through the wood, 3.0 mm deep.')).toBeVisible();
  const pdf = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as PDF' }).click();
  expect(
    readFileSync(await (await pdf).path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
});

test('by touch a grip follows the finger and the page stays; letters change the view', async ({ browser, request }) => {
  const context = await browser.newContext({ hasTouch: true, viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await openPlace(
    page,
    `/boards/${await makeBoard(request, { worked: { ...NOTHING_WORKED, features: [{ kind: 'groove', id: 'g', face: 'top', offset: 20, bit: 12, depth: 6, corner: 10, wells: 1, spout: null, fall: 0 }] } })}/trim`,
  );
  await page.keyboard.press('e');
  const grip = page.getByRole('slider', { name: 'Groove, in from the edge' });
  await grip.scrollIntoViewIfNeeded();
  const box = (await grip.boundingBox())!;
  const [x, y, scroll] = [box.x + box.width / 2, box.y + box.height / 2, await page.evaluate(() => scrollY)];
  const client = await context.newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: { x: number; y: number }[]) =>
    client.send('Input.dispatchTouchEvent', { type, touchPoints: points });
  await touch('touchStart', [{ x, y }]);
  for (let i = 1; i <= 5; i += 1) await touch('touchMove', [{ x, y: y - 2 * i }]);
  await touch('touchEnd', []);
  await expect.poll(async () => Number(await grip.getAttribute('aria-valuenow'))).toBeGreaterThan(24);
  expect(await page.evaluate(() => scrollY)).toBe(scroll);
  await context.close();
});

test('what is left of a panel of one species goes into the rack, once', async ({ page, request }) => {
  const strips = [40, 40, 36].map((width, i) => ({ id: `t${i}`, species: 'beech-european', width, ...AS_IT_LIES }));
  const id = await makeBoard(request, { recipe: flatRecipe(strips) });
  await noteFacts(request, id, panelFacts(800));
  await openPlace(page, `/boards/${id}/trim`);
  await page.getByRole('button', { name: 'Into the rack' }).click();
  await expect(page.getByText(/in the rack as G\d/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/in the rack as G\d/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Into the rack' })).toHaveCount(0);
});
