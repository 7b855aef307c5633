import { expect } from '@playwright/test';
import { stripsOf } from '#core/board/recipe.ts';
import type { Fact } from '#core/facts/fact.ts';
import { at, loadPlace, makeBoard, openPlace, saved, storedBoard, stripFace, test, typeLength } from './pages.ts';

test.use({ serviceWorkers: 'allow', fresh: true });
// It waits for what takes its time: to notice that the server is gone, and that it is back.
test.slow();

test('without a server the application opens, shows what it was shown before, and keeps edits and facts over a closed tab; then they go out once', async ({
  context,
  request,
}) => {
  const id = await makeBoard(request, { name: 'Far from the desk' });
  const page = await context.newPage();
  await openPlace(page, `/boards/${id}/layout`);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.reload();
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
  for (const path of ['/today', '/rack', `/boards/${id}/bench`, `/boards/${id}/layout`]) await loadPlace(page, path);
  await saved(page);

  await context.setOffline(true);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Far from the desk' })).toBeVisible();
  await expect(page.getByText(/Alone since \d/)).toBeVisible();
  await stripFace(page, 0).click({ position: { x: 200, y: 12 } });
  await typeLength(page, 'Strip width', '33');
  await expect(page.getByText(/Waiting to be sent: 1 change\./)).toBeVisible();
  await page.goto(at(`/boards/${id}/bench`));
  await page.getByRole('button', { name: /done, go on|^Done/i }).click();
  await expect(page.getByText(/1 change, 1 fact from the bench/)).toBeVisible();
  await page.goto(at('/rack'));
  await expect(page.getByRole('heading', { name: 'Rack' })).toBeVisible();
  await page.close();

  // The tab is gone, the device still alone: another page has it all.
  const later = await context.newPage();
  await later.goto(at(`/boards/${id}/layout`));
  await expect(later.getByText(/1 change, 1 fact from the bench/)).toBeVisible();
  await context.setOffline(false);
  await saved(later);
  await expect(later.getByText(/Alone since/)).toBeHidden();
  await expect.poll(async () => stripsOf((await storedBoard(later)).board)[0]!.width).toBe(33);
  expect((await storedBoard(later)).revision).toBe(2);
  const { facts } = (await (await request.get(at(`/api/boards/${id}/facts`))).json()) as { facts: Fact[] };
  expect(facts.map((f) => f.kind)).toEqual(['done']);
  expect(await later.evaluate(() => Object.keys(localStorage).filter((k) => k.startsWith('cadenza.kept/')))).toEqual(
    [],
  );
});
