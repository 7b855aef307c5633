import { expect } from '@playwright/test';
import { at, openPlace, test } from './pages.ts';

test.use({ fresh: true });

test('a newcomer sets up a shop of inches beside the demo, enters a pile, lays a board out, and takes the demo up again', async ({
  page,
}) => {
  await openPlace(page, '/boards');
  const demoBoards = await page.locator('ul > li').filter({ hasText: 'Saved' }).count();
  expect(demoBoards).toBeGreaterThanOrEqual(3);
  await page.getByRole('link', { name: 'Set up my own shop' }).click();
  await expect(page.getByText('“The Tram Shed” is set aside whole')).toBeVisible();
  await page.getByText('Inches', { exact: true }).click();
  // What plans will say follows the answers: no planer, so the panel is made flat in another way.
  const ways = page.getByRole('complementary', { name: 'What plans will do with it' });
  await expect(ways).toContainText('Planer');
  await page.getByLabel('Planer', { exact: true }).uncheck();
  await expect(ways).toContainText('Orbital sander only');
  await page.getByLabel('Belt sander').check();
  await expect(ways).toContainText('Belt sander');
  await page.getByLabel('Planer', { exact: true }).check();
  await expect(page.getByLabel('Planer width')).toHaveValue('13');
  // Nonsense is told by its field, and nothing is lost.
  await page.getByLabel('Planer width').fill('two feet and a bit');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/Planer width/).filter({ hasText: /cannot be read|not a length|must/ })).toBeVisible();
  await page.getByRole('button', { name: 'Begin with an empty rack' }).click();
  await expect(page.getByText('One answer cannot be read')).toBeVisible();
  await expect(page.getByLabel('Planer width')).toBeFocused();
  await expect(page.getByLabel('Planer width')).toHaveValue('two feet and a bit');
  await page.getByLabel('Planer width').fill('12 1/2');
  await page.keyboard.press('Tab');
  // Enter leaves a field; it begins nothing.
  await page.getByLabel('Name of the shop').fill('Kiln Loft');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(at('/setup'));
  await page.getByRole('button', { name: 'Begin with an empty rack' }).click();
  await page.waitForURL(at('/rack'));
  await expect(page.getByText('The rack is empty.')).toBeVisible();
  await page.getByRole('link', { name: 'Enter the pile' }).click();
  await expect(page).toHaveURL(at('/rack/pile'));
  await openPlace(page, '/shop/machines');
  await expect(page.getByLabel('Rip kerf')).toHaveValue('1/8');
  await expect(page.getByLabel('Planer width')).toHaveValue('12 1/2');
  await openPlace(page, '/boards');
  await expect(page.getByText('No boards yet.')).toBeVisible();
  await expect(page.getByText('This is a made-up shop')).toHaveCount(0);
  await page.getByRole('button', { name: 'New board' }).click();
  await expect(page.getByLabel('Length', { exact: true })).toHaveValue('18');
  await expect(page.getByLabel('Width', { exact: true })).toHaveValue('12');
  await expect(page.getByLabel('Thickness', { exact: true })).toHaveValue('1 1/4');
  // Back to the demo: it is as it was left, and the new shop waits in its turn.
  await openPlace(page, '/shop/about');
  await page.getByRole('button', { name: 'Take it up again' }).click();
  await page.waitForURL(at('/boards'));
  await expect(page.getByText('This is a made-up shop, “The Tram Shed”')).toBeVisible();
  await expect(page.locator('ul > li').filter({ hasText: 'Saved' })).toHaveCount(demoBoards);
  await openPlace(page, '/shop/about');
  await expect(page.getByText('Kiln Loft, 1 board, 0 pieces')).toBeVisible();
  await page.getByRole('button', { name: 'Throw it away' }).click();
  await expect(page.getByText('Kiln Loft, 1 board')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByText('Kiln Loft, 1 board, 0 pieces')).toBeVisible();
});
