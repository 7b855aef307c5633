import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import ICAL from 'ical.js';
import { makeBoard, openPlace, saved, storedBoard, storedMade, test, typeLength } from './pages.ts';

test('a pit is sanded to its bottom, finishes are put in another order, and a day that is due is judged', async ({
  page,
  request,
}) => {
  const id = await makeBoard(request);
  await openPlace(page, `/boards/${id}/trim`);
  // The stations by their keys: Finish is the seventh.
  await page.keyboard.press('7');
  await expect(page).toHaveURL(/\/finish$/);
  await typeLength(page, 'Deepest place of the show side', '0,6');
  await expect(page.getByRole('button', { name: 'show side: 0.60 mm deep, a pit' })).toBeVisible();
  await expect(page.getByText(/The show side with 40, 60/)).toBeVisible();
  await expect.poll(async () => (await storedMade(page)).pits).toEqual({ top: 0.6 });
  await page.reload();
  await expect(page.getByLabel('Deepest place of the show side')).toHaveValue('0.6');
  await typeLength(page, 'Deepest place of the show side', '80');
  await expect(page.getByText(/what goes through it is no pit/)).toBeVisible();

  // The worst place of the underside is marked where it lies.
  await page.getByRole('button', { name: 'Mark the deepest place' }).click();
  await page.getByRole('button', { name: /^underside: / }).click({ position: { x: 30, y: 20 } });
  await expect(page.getByRole('button', { name: 'underside: 0.50 mm deep, a pit' })).toBeVisible();
  await expect(page.getByRole('group', { name: 'The board unfolded' }).locator('circle')).toHaveCount(2);
  await typeLength(page, 'Deepest place of the underside', '0');
  await expect(page.getByRole('group', { name: 'The board unfolded' }).locator('circle')).toHaveCount(1);

  // The far edge is chosen by keyboard, and a paper left out says what stays.
  await page.getByRole('button', { name: /^far edge: / }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Papers over the far edge' })).toBeVisible();

  await page.getByRole('combobox', { name: 'Put another finish over it' }).click();
  await page.getByRole('option', { name: 'Film finish' }).click();
  await expect(page.getByText('Film finish goes on over wax and oil blend, where it does not hold.')).toBeVisible();
  await page.getByRole('button', { name: 'Leave Mineral oil out' }).click();
  await page.getByRole('button', { name: 'Leave Wax and oil blend out' }).click();
  await expect(page.getByText(/where it does not hold/)).toBeHidden();
  await saved(page);
  expect((await storedBoard(page)).board.finish).toEqual(['film']);
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/where it does not hold/)).toBeVisible();

  await page.getByLabel('It is due').fill('2020-01-01');
  await expect(page.getByText('That day is past.')).toBeVisible();

  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Calendar for the owner' }).click();
  const file = await saving;
  expect(file.suggestedFilename()).toMatch(/-care\.ics$/);
  const events = new ICAL.Component(ICAL.parse(readFileSync(await file.path(), 'utf8')) as unknown as string)
    .getAllSubcomponents('vevent')
    .map((e) => new ICAL.Event(e).summary);
  expect(events.filter((s) => s.startsWith('Oil '))).toHaveLength(4);
});
