import { expect } from '@playwright/test';
import { openPlace, test, typeLength } from './pages.ts';

test('species are found, compared by how they move, and a new one is added by what it is like', async ({ page }) => {
  await openPlace(page, '/species');
  await page.getByLabel('Search species').fill('quercus');
  await page.getByRole('button', { name: 'White oak' }).click();
  await expect(page.getByRole('complementary', { name: 'About White oak' })).toContainText('open pores hold dirt');
  const row = page.getByRole('row', { name: /White oak/ });
  const moves = async () => Number(/[\d.]+/.exec((await row.getByRole('cell').nth(1).textContent()) ?? '')![0]);
  await typeLength(page, 'Width that moves', '100');
  const narrow = await moves();
  await typeLength(page, 'Width that moves', '200');
  await expect.poll(moves).toBeCloseTo(2 * narrow, 0);
  await page.getByText('Quarter-sawn').click();
  await expect.poll(moves).toBeLessThan(2 * narrow);
  await typeLength(page, 'Width that moves', '-3');
  await expect(page.getByText(/Width that moves cannot be negative/)).toBeVisible();

  await page.getByRole('button', { name: 'Add species' }).click();
  await expect(page.getByText('Name must not be empty.')).toBeVisible();
  await expect(page.getByText('Choose the species it is most like.')).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Hut larch');
  await page.getByRole('combobox', { name: 'Most like' }).click();
  await page.getByRole('option', { name: 'Pear' }).click();
  await page.getByRole('button', { name: 'Add species' }).click();
  await expect(page.getByRole('complementary', { name: 'About Hut larch' })).toContainText(
    'Taken over from Pear; entered by hand',
  );

  // Its figures are one's own to change; those from books are not.
  await page.getByText('Change its figures').click();
  const hut = page.getByRole('complementary', { name: 'About Hut larch' });
  await hut.getByRole('textbox', { name: 'Weight at 12 % moisture' }).fill('9000');
  await hut.getByRole('textbox', { name: 'Weight at 12 % moisture' }).press('Enter');
  await expect(hut.getByText(/Weight at 12 % moisture must be at most 1400/)).toBeVisible();
  await hut.getByRole('textbox', { name: 'Weight at 12 % moisture' }).fill('590');
  await hut.getByRole('textbox', { name: 'Weight at 12 % moisture' }).press('Enter');
  await expect(page.getByText('Hut larch is changed; plans with it follow.')).toBeVisible();
  await expect(page.getByRole('row', { name: /Hut larch/ })).toContainText('590');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('row', { name: /Hut larch/ })).not.toContainText('590');
  await page.getByRole('button', { name: 'White oak' }).click();
  await expect(page.getByText('Change its figures')).toHaveCount(0);
});
