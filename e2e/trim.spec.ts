import { expect, test } from '@playwright/test';
import { makeBoard, openPlace, typeLength } from './pages.ts';

test('two diagonals tell how far a board is out and which way to correct; what no board has is said, and readings outlive a reload', async ({ page, request }) => {
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
