import { expect, test as base, type APIRequestContext, type Page, type Request, type Response } from '@playwright/test';
import { UNDECIDED, type Board } from '#core/board/board.ts';
import { madeFor } from '#core/board/madeFor.ts';
import type { Fact } from '#core/facts/fact.ts';
import type { Made } from '#core/facts/made.ts';
import { PLAIN_CONDITION, type PieceFields } from '#core/stock/piece.ts';
import { AS_IT_LIES, flatRecipe } from '#core/board/recipe.ts';

/** What a page waits for before it has settled. */
const WAITED_FOR: ReadonlySet<string> = new Set(['document', 'script', 'stylesheet', 'fetch', 'xhr']);

/** The address of the server under test. */
export const at = (path: string) => new URL(path, process.env.CADENZA_URL).href;

/** When a page has nothing under way for so long it has settled, ms: what one answer asks for follows within a task or two. */
const SETTLED_MS = 100;
/** A machine that is busy with something else may take so long for a page, ms: it decides nothing. */
const LOADED_MS = 60_000;
/** Nobody hears the end of what a worker was loading when its page let go of it: after so long it is waited for no more, ms. */
const LOST_MS = 10_000;

/** Pages that hear or know something of their own: each load of them is one from the server, and they go with their test. */
const apart = new WeakSet<Page>();

/** What a test sets up otherwise, where the application remembers it. */
const REMEMBERED = ['cadenza.display', 'cadenza.oiled', 'mantine-color-scheme-value'];

/** Whether the next test may go on with the page: it is that of the tests' own server, and nobody set anything up otherwise. */
async function isAsAtFirst(page: Page): Promise<boolean> {
  if (page.isClosed() || apart.has(page) || !page.url().startsWith(at('/'))) return false;
  return page.evaluate((keys) => !keys.some((key) => localStorage.getItem(key)), REMEMBERED);
}

/**
 * The tests of a worker have one page, which stays open from one to the next and goes to places as links do, like a maker's: loading the application costs four times what going
 * to a place does. Whatever sets it up otherwise, or fails, gets the next test a new one. `fresh`: each test of a file gets a new one, being about loading, keeping or other devices. `leaves`: what a test
 * brought is there for the next one of its file.
 */
export const test = base.extend<{ fresh: boolean; leaves: boolean; tidied: void }, { kept: { page: Page | null } }>({
  fresh: [false, { option: true }],
  leaves: [false, { option: true }],
  // What lies about makes Today, money, lists and every search of cuts longer for all tests that come after.
  tidied: [
    async ({ request, leaves }, use) => {
      await use();
      if (!leaves) await tidyUp(request);
    },
    { auto: true },
  ],
  kept: [async ({}, use) => use({ page: null }), { scope: 'worker' }],
  page: async ({ browser, fresh, kept }, use, info) => {
    const page = (fresh ? null : kept.page) ?? (await (await browser.newContext()).newPage());
    if (!fresh) kept.page = null;
    page.context().on('response', notice);
    const { viewport, colorScheme } = info.project.use;
    if (viewport) await page.setViewportSize(viewport);
    await page.emulateMedia({ colorScheme: colorScheme ?? 'light' });
    await use(page);
    const context = page.context();
    for (const other of context.pages()) if (other !== page) await other.close();
    if (fresh || info.status !== info.expectedStatus || !(await isAsAtFirst(page))) return context.close();
    await context.unrouteAll({ behavior: 'ignoreErrors' });
    await page.unrouteAll({ behavior: 'ignoreErrors' });
    page.context().off('response', notice);
    await page.mouse.move(0, 0);
    // What was told in passing would be read as the next test's.
    await page.evaluate(() => {
      for (const close of document.querySelectorAll<HTMLElement>('.mantine-Notification-root [aria-label="Close"]'))
        close.click();
    });
    await page.evaluate(goesTo, '/instruments');
    kept.page = page;
  },
  context: async ({ page }, use) => use(page.context()),
});

/** Boards and pieces of the test that runs, as the API knows them: `boards/…`, `rack/…`. */
const brought = new Set<string>();
/** What pages of the test that runs were told, as far as it may be of a new board or piece. */
let told: Promise<void>[] = [];

/** Remembers the boards and pieces that a page brings. */
function notice(response: Response): void {
  const path = new URL(response.url()).pathname;
  if (response.request().method() !== 'POST' || !/^\/api\/(boards|rack)(\/import|\/batch)?$/.test(path)) return;
  const bring = (body: unknown): void => {
    if (Array.isArray(body)) return body.forEach(bring);
    const { id, piece, pieces } = Object(body) as { id?: unknown; piece?: { id: string }; pieces?: unknown };
    if (typeof id === 'string') brought.add(`boards/${id}`);
    if (piece) brought.add(`rack/${piece.id}`);
    bring(pieces ?? []);
  };
  told.push(
    response.json().then(bring, () => {
      // Its page is gone, or the answer was none: that board stays.
    }),
  );
}

/** Takes away the boards and pieces that a test brought; what was removed meanwhile, or is held by somebody, stays as it is. */
async function tidyUp(request: APIRequestContext): Promise<void> {
  await Promise.all(told);
  told = [];
  const [boards, pieces] = ['boards/', 'rack/'].map((kind) => [...brought].filter((what) => what.startsWith(kind)));
  brought.clear();
  for (const path of boards ?? []) {
    const { revision } = (await (await request.get(at(`/api/${path}`))).json()) as { revision?: number };
    await request.post(at(`/api/${path}/remove`), { data: { basedOn: revision } });
  }
  if (pieces?.length) {
    const rack = (await (await request.get(at('/api/rack'))).json()) as { version: number; piece: { id: string } }[];
    for (const { version, piece } of rack)
      if (pieces.includes(`rack/${piece.id}`))
        await request.post(at(`/api/rack/${piece.id}/remove`), { data: { version } });
  }
}

/** Keeps a page for one test: it is told something of its own by what answers in the server's place. */
export function keepApart(page: Page): void {
  apart.add(page);
}

/** Opens a place and waits until it has all that it asks for: what the page itself fetches, not what its workers load, nor the stream that never ends. */
export async function openPlace(page: Page, path: string): Promise<void> {
  if (apart.has(page) || !page.url().startsWith(at('/'))) return loadPlace(page, path);
  // Where it stands already nothing would change: it is left, and come to anew.
  if (page.url() === at(path)) await goToPlace(page, path === '/log' ? '/instruments' : '/log');
  return goToPlace(page, path);
}

/** Opens a place from the server, also where the application is open. */
export function loadPlace(page: Page, path: string): Promise<void> {
  return settled(page, () => page.goto(at(path)));
}

/** In a page: goes to another place as a link does. */
function goesTo(to: string): void {
  scrollTo(0, 0);
  history.pushState(null, '', to);
  dispatchEvent(new PopStateEvent('popstate'));
}

/** Goes to another place of the open application, as its links do, and waits until it stands there. */
export function goToPlace(page: Page, path: string): Promise<void> {
  return settled(page, async () => {
    const stands = page.evaluate(
      (still) =>
        new Promise<void>((resolve) => {
          let rested: ReturnType<typeof setTimeout> | undefined;
          new MutationObserver((_changes, observer) => {
            clearTimeout(rested);
            rested = setTimeout(() => (observer.disconnect(), resolve()), still);
          }).observe(document.body, { subtree: true, childList: true, characterData: true });
        }),
      SETTLED_MS,
    );
    await page.evaluate(goesTo, path);
    await stands;
  });
}

/** Does something that leads to a page, and waits until it has settled. */
async function settled(page: Page, go: () => Promise<unknown>): Promise<void> {
  const underWay = new Map<Request, number>();
  let last = 0;
  const began = (request: Request) => {
    if (WAITED_FOR.has(request.resourceType())) underWay.set(request, Date.now());
  };
  const awaits = () => [...underWay.values()].some((since) => Date.now() - since < LOST_MS);
  const ended = (request: Request) => {
    if (underWay.delete(request)) last = Date.now();
  };
  page.on('request', began).on('requestfinished', ended).on('requestfailed', ended);
  await go();
  await expect(page.locator('h1').first()).toBeVisible();
  last = Date.now();
  await expect
    .poll(() => !awaits() && Date.now() - last > SETTLED_MS, { intervals: [20], timeout: LOADED_MS })
    .toBe(true);
  page.off('request', began).off('requestfinished', ended).off('requestfailed', ended);
}

/** Lets a page hear nothing of what others store, as one that has just lost its network: what it does may then get in their way. */
export async function deafen(page: Page): Promise<void> {
  keepApart(page);
  await page.route('**/api/live*', (route) => route.abort());
}

/** Adds a board over the API. @returns its id */
export async function makeBoard(request: APIRequestContext, change: Partial<Board> = {}): Promise<string> {
  const strips = [30.8, 48.8, 36.8].map((width, i) => ({
    id: `t${i}`,
    species: ['pear', 'beech-european', 'cherry-wild'][i]!,
    width,
    ...AS_IT_LIES,
  }));
  const board = {
    name: `Test ${Math.random().toString(36).slice(2, 8)}`,
    use: 'Tests',
    construction: 'edge',
    length: 400,
    width: 110,
    thickness: 30,
    count: 1,
    recipe: flatRecipe(strips),
    ...UNDECIDED,
    ...change,
  };
  const answer = await request.post(at('/api/boards'), { data: board });
  expect(answer.status()).toBe(201);
  const { id } = (await answer.json()) as { id: string };
  brought.add(`boards/${id}`);
  return id;
}

/** Notes that something happened to a board, over the API. */
export async function noteFacts(request: APIRequestContext, board: string, facts: readonly Fact[]): Promise<void> {
  const answer = await request.post(at(`/api/boards/${board}/facts`), { data: { facts } });
  expect(answer.status(), await answer.text()).toBe(200);
}

/** What is there already of the board that the page shows. */
export async function storedMade(page: Page): Promise<Made> {
  const id = /boards\/([^/]+)/.exec(page.url())![1]!;
  const { facts } = (await (await page.request.get(at(`/api/boards/${id}/facts`))).json()) as { facts: Fact[] };
  return madeFor((await storedBoard(page)).board, facts);
}

/** Adds a piece over the API. @returns its id */
export async function makePiece(request: APIRequestContext, change: Partial<PieceFields>): Promise<string> {
  const piece = {
    ...PLAIN_CONDITION,
    mark: 'Y0',
    species: 'ash-white',
    length: 900,
    width: 90,
    thickness: 30,
    ...change,
  };
  const answer = await request.post(at('/api/rack'), { data: piece });
  expect(answer.status(), await answer.text()).toBe(201);
  const { id } = ((await answer.json()) as { piece: { id: string } }).piece;
  brought.add(`rack/${id}`);
  return id;
}

/** What the server has stored of the board that the page shows. */
export async function storedBoard(page: Page): Promise<{ revision: number; board: Board }> {
  const id = /boards\/([^/]+)/.exec(page.url())![1]!;
  return (await (await page.request.get(at(`/api/boards/${id}`))).json()) as { revision: number; board: Board };
}

/** Waits until the page says that all is saved. */
export async function saved(page: Page): Promise<void> {
  await expect(page.getByRole('status').filter({ hasText: /^\s*Saved \d/ })).toBeVisible();
}

export const strips = (page: Page) => page.getByRole('option', { name: /^Strip \d/ });

/** The face of a strip in the top view: what hands take hold of. */
export const stripFace = (page: Page, index: number) => strips(page).nth(index).locator('[data-strip-face]');

/** A length field: clear it, type, leave it. */
export async function typeLength(page: Page, label: string, text: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: true });
  await field.fill(text);
  await field.press('Enter');
}
