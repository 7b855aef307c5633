import { expect, type Page } from '@playwright/test';
import type { Fact } from '#core/facts/fact.ts';
import { at, makeBoard, openPlace, test } from './pages.ts';

test.use({ fresh: true });

const title = (page: Page) => page.getByRole('heading', { level: 2 }).first();
const go = (page: Page) => page.getByRole('button', { name: /done, go on|^Done/i });
/** What the server has of a board. */
async function factsOf(page: Page, id: string): Promise<Fact[]> {
  return ((await (await page.request.get(at(`/api/boards/${id}/facts`))).json()) as { facts: Fact[] }).facts;
}
/** Goes on by the key of a foot switch until a step of this name is due. */
async function goOnTo(page: Page, name: string): Promise<void> {
  for (let done = 0; done < 30; done += 1) {
    const now = await title(page).textContent();
    if (now?.includes(name)) return;
    await page.keyboard.press(' ');
    await expect(title(page)).not.toHaveText(now ?? '');
  }
}

test('a board is made at the bench by a foot switch; what is measured is planned from at once, undone, and outlives a server that is gone', async ({
  page,
  request,
  context,
}) => {
  test.slow();
  const id = await makeBoard(request, { name: `Bench ${Date.now()}` });
  await openPlace(page, `/boards/${id}/bench`);
  await expect(title(page)).toHaveText('Crosscut the blanks');
  // Where the keyboard has gone to a button, space presses that; after the mouse it goes on.
  await page.getByRole('button', { name: 'The next step' }).focus();
  await page.keyboard.press('Tab');
  await page.keyboard.press(' ');
  await expect(page.getByRole('dialog')).toContainText('What went otherwise?');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByRole('button', { name: 'The next step' }).click();
  await page.getByRole('button', { name: 'Back to what is due' }).click();
  await goOnTo(page, 'Flatten the panel');
  await expect(page.getByRole('region', { name: 'What is waited for' })).toContainText('the glue');

  // Looked at, then measured: what cannot be is asked back, what can be is planned from.
  await page.getByRole('button', { name: 'All is good' }).click();
  await page.keyboard.press('m');
  const figure = page.getByRole('dialog').getByRole('textbox');
  await figure.fill('1.14');
  await figure.press('Enter');
  await expect(page.getByRole('alert')).toContainText('That would be right in inches');
  await page.getByRole('button', { name: 'Type it again' }).click();
  for (const nonsense of ['0', '-3', '10 m', 'thick']) {
    await figure.fill(nonsense);
    await figure.press('Enter');
    await expect(page.getByRole('dialog')).toContainText('The thickness');
  }
  // A caliper sends in inches, and one with a flat battery is not believed.
  const caliper = (value: number, unit: string, flat: boolean) =>
    request.post(at('/api/readings'), { data: { instrument: 'caliper', value, unit, flat } });
  await caliper(28.3, 'mm', true);
  await expect(page.getByRole('dialog')).toContainText('The battery of the caliper is flat');
  await caliper(1.2, 'in', false);
  await expect(figure).toHaveValue('30.48');
  await figure.fill('28,3');
  await figure.press('Enter');
  const mishap = page.getByRole('region', { name: 'What went otherwise' });
  await expect(mishap).toContainText(
    '28.3 mm thick, 2.2 mm under; the board ends 27.8 mm thick, 2.2 mm under what is wished.',
  );

  // Out of reach it goes on; what was noted is there when the page is opened again, and arrives once.
  await context.route('**/api/**', (route) => route.abort());
  await mishap.getByRole('button', { name: /^Go on/ }).click();
  await expect(mishap).toBeHidden();
  await page.keyboard.press(' ');
  await expect(title(page)).toHaveText('Trim both long edges');
  await expect(page.getByText(/Not saved yet/)).toBeVisible();
  await page.close();
  await context.unroute('**/api/**');
  const again = await context.newPage();
  await openPlace(again, `/boards/${id}/bench`);
  await expect(title(again)).toHaveText('Trim both long edges');
  await expect.poll(async () => (await factsOf(again, id)).filter((f) => f.kind === 'decided').length).toBe(1);
  const facts = await factsOf(again, id);
  expect(new Set(facts.map((f) => f.id)).size).toBe(facts.length);

  // A slip is undone at any time.
  await again.locator('summary').filter({ hasText: 'steps done' }).click();
  const last = again.getByRole('button', { name: /^It is not done/ }).last();
  await last.click();
  await expect(title(again)).toHaveText('Flatten the panel');
});

test('two devices at one board see each other, and a step that both finish is finished once; trouble has ways', async ({
  page,
  browser,
  request,
}) => {
  test.slow();
  const id = await makeBoard(request);
  await openPlace(page, `/boards/${id}/bench`);
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })).newPage();
  await openPlace(phone, `/boards/${id}/bench`);
  await expect(title(phone)).toHaveText('Crosscut the blanks');
  await Promise.all([go(page).click(), go(phone).click()]);
  // A second device says so within two seconds, however slow the machine is that looks.
  await expect(title(phone)).not.toHaveText('Crosscut the blanks');
  await expect(title(page)).not.toHaveText('Crosscut the blanks');
  await expect.poll(async () => (await factsOf(page, id)).filter((f) => f.kind === 'done').length).toBe(2);
  await expect(page.locator('summary').filter({ hasText: '1 of 15 steps done' })).toBeVisible();

  // Swiping looks ahead; what holds a step is said there.
  await phone.getByRole('button', { name: 'The next step' }).click();
  await phone.getByRole('button', { name: 'The next step' }).click();
  await expect(phone.getByText('First:')).toBeVisible();
  await expect(go(phone)).toBeDisabled();
  await phone.getByRole('button', { name: 'Back to what is due' }).click();

  await phone.getByRole('button', { name: 'Trouble' }).click();
  await phone.getByLabel('Which strip').selectOption('Strip 2');
  await phone.getByRole('button', { name: 'Torn out' }).click();
  const mishap = page.getByRole('region', { name: 'What went otherwise' });
  await expect(mishap).toContainText('Strip 2 is no good: torn out.');
  await mishap.getByRole('button', { name: /^Turn its bad face down/ }).click();
  await expect(mishap).toBeHidden();
  await expect
    .poll(
      async () =>
        (
          (await (await request.get(at(`/api/boards/${id}`))).json()) as {
            board: { recipe: { id: string; turned?: boolean }[] };
          }
        ).board.recipe.find((o) => o.id === 't1')?.turned,
    )
    .toBe(true);

  // Pictures: what is none is refused by name, what is one arrives small.
  await phone.getByRole('button', { name: 'Trouble' }).click();
  await phone.getByRole('radio', { name: 'Note or picture' }).click();
  await phone.setInputFiles('input[type=file]', {
    name: 'notes.png',
    mimeType: 'image/png',
    buffer: Buffer.from('no picture'),
  });
  await expect(phone.getByText('"notes.png" is no picture that this browser can read.')).toBeVisible();
  const shot = await page.screenshot();
  await phone.setInputFiles('input[type=file]', { name: 'bench.png', mimeType: 'image/png', buffer: shot });
  await expect.poll(async () => (await factsOf(page, id)).filter((f) => f.kind === 'picture').length).toBe(1);
  await page.getByText(/more noted$/).click();
  await expect(page.getByRole('img', { name: 'Taken at the bench' })).toBeVisible();
  await phone.context().close();
});

test('a fact for a board that was removed is told, and kept on the device', async ({ page, request }) => {
  const id = await makeBoard(request);
  await openPlace(page, `/boards/${id}/bench`);
  await expect(title(page)).toHaveText('Crosscut the blanks');
  const { revision } = (await (await request.get(at(`/api/boards/${id}`))).json()) as { revision: number };
  expect((await request.post(at(`/api/boards/${id}/remove`), { data: { basedOn: revision } })).status()).toBe(204);
  await page.keyboard.press(' ');
  await expect(page.getByText(/Not saved: This board does not exist/)).toBeVisible();
  await request.post(at(`/api/boards/${id}/restore`), { data: {} });
  await page.reload();
  await expect.poll(async () => (await factsOf(page, id)).length).toBe(1);
});

test('a board that is done goes into the log as it was; it is found, compared, and teaches', async ({
  page,
  request,
}) => {
  test.slow();
  const name = `Log ${Date.now()}`;
  const id = await makeBoard(request, { name });
  const steps = (await (await request.get(at(`/api/boards/${id}/facts`))).json()) as { facts: Fact[] };
  expect(steps.facts).toEqual([]);
  await openPlace(page, `/boards/${id}/bench`);
  for (let done = 0; done < 40; done += 1) {
    if (await page.getByRole('region', { name: 'Every step is done' }).isVisible()) break;
    const now = (await title(page).textContent()) ?? '';
    await page.keyboard.press(' ');
    await expect(
      title(page)
        .or(page.getByRole('region', { name: 'Every step is done' }))
        .first(),
    ).not.toHaveText(now);
  }
  await page.getByLabel('For whom is it?').fill('The hut warden');
  await page.getByRole('button', { name: 'Take it into the log' }).click();
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();
  await expect(page.getByRole('img', { name: `${name}, drawn from above` })).toBeVisible();

  // It is there once: the bench leads to its page.
  await openPlace(page, `/boards/${id}/bench`);
  const region = page.getByRole('region', { name: 'Every step is done' });
  await expect(region).toContainText('It is in the log since');
  await region.getByRole('link', { name: 'Open its page' }).click();
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();

  // It came back and was oiled; that is added to its page.
  await page.getByLabel('Note').fill('looked dull');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText(/Oiled again, looked dull/)).toBeVisible();

  await page.getByRole('link', { name: 'All boards of the log' }).click();
  await page.getByLabel('Look for').fill('warden');
  await expect(page.getByRole('status')).toHaveText('1 board');
  await page.getByRole('checkbox', { name: `Compare ${name}` }).check();
  await page.getByLabel('Look for').fill('dough');
  await page.getByRole('checkbox', { name: 'Compare Middle Hut dough board' }).check();
  await page.getByRole('button', { name: 'Compare two' }).click();
  await expect(page.getByRole('columnheader')).toHaveText([name, 'Middle Hut dough board']);

  // What it teaches is taken by one press, and taken back by another. The shop that others plan with meanwhile stays as it is.
  const sent: number[] = [];
  await page.route('**/api/shop', async (route) => {
    if (route.request().method() === 'GET') return route.fallback();
    const { version, shop } = route.request().postDataJSON() as {
      version: number;
      shop: { habits: { panelFlatten: number } };
    };
    sent.push(shop.habits.panelFlatten);
    return route.fulfill({ json: { version: version + 1, shop, demo: true } });
  });
  await openPlace(page, '/log/lessons');
  const lesson = page.locator('section').filter({ hasText: 'Panels lost' });
  await lesson.getByRole('button', { name: 'Plan with that' }).click();
  await expect.poll(() => sent.length).toBe(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => sent.length).toBe(2);
  expect(sent[0]).toBeGreaterThan(sent[1]!);

  await openPlace(page, '/log');
  await page.getByRole('link', { name, exact: true }).click();
  await page.getByRole('button', { name: 'Make it again' }).click();
  await expect(page).toHaveURL(/boards\/[^/]+\/brief$/);
});
