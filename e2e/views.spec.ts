import { panelFacts } from '#core/plan/planArbitrary.ts';
import { expect, type APIResponse } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { Board } from '#core/board/board.ts';
import { asLook } from '#core/board/looks.ts';
import { NOTHING_WORKED, UNDRAWN } from '#core/features/feature.ts';
import { nothingFound } from './axe.ts';
import { at, goToPlace, makeBoard, noteFacts, openPlace, test } from './pages.ts';

const VIEWS = [
  '/boards',
  '/today',
  '/calendar',
  '/money',
  '/rack',
  '/rack/shed-b1',
  '/rack/pile',
  '/rack/salvage',
  '/rack/labels',
  '/propose',
  '/setup',
  '/shop',
  '/shop/ways',
  '/shop/glues',
  '/shop/finishes',
  '/shop/people',
  '/shop/prices',
  '/species',
  '/log',
  '/log/lessons',
  '/instruments',
  '/devices',
  'brief',
  'layout',
  'cuts',
  'mill',
  'glue',
  'trim',
  'trim?view=board',
  'trim?view=files',
  'finish',
  'care',
  'sheet',
  'bench',
  'money',
  'paper/quotation',
];

const WORKED: Board['worked'] = {
  ...NOTHING_WORKED,
  features: [
    { kind: 'groove', id: 'g', face: 'top', offset: 20, bit: 12, depth: 6, corner: 10, wells: 1, spout: null, fall: 0 },
    {
      kind: 'mark',
      id: 'm',
      face: 'top',
      name: 'Hut',
      method: 'laser',
      x: 200,
      y: 55,
      length: 60,
      width: 30,
      depth: 1,
      ...UNDRAWN,
      art: { name: 'a', length: 1000, width: 500, d: 'M0 0L1000 0L500 500Z' },
    },
  ],
};

/** Views of the shop and the rack, and those of one board: two tests that run beside each other. */
const HALVES = {
  'of the shop': VIEWS.filter((view) => view.startsWith('/')),
  'of a board': VIEWS.filter((view) => !view.startsWith('/')),
};

for (const [half, views] of Object.entries(HALVES))
  test(`every view ${half}: axe finds nothing, light and dark, and nothing sticks out sideways at 768 and 390 pixels`, async ({
    page,
    request,
  }) => {
    // Ten views, each gone through node by node.
    test.slow();
    const id = await makeBoard(request, { worked: WORKED });
    const found = [{ id: 's', x: 0, y: 40, length: 5, width: 10, what: 'Gap' }];
    await noteFacts(request, id, panelFacts(null, found));
    await openPlace(page, '/log');
    for (const view of views) {
      await page.emulateMedia({ colorScheme: 'light' });
      await page.setViewportSize({ width: 1280, height: 800 });
      await goToPlace(page, view.startsWith('/') ? view : `/boards/${id}/${view}`);
      await expect(page.locator('main')).not.toBeEmpty();
      await nothingFound(page, view);
      await page.emulateMedia({ colorScheme: 'dark' });
      await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark');
      // The same things stand on the page: only how they stand out is another.
      await nothingFound(page, `${view}, dark`, ['color-contrast']);
      for (const width of [768, 390]) {
        await page.setViewportSize({ width, height: 844 });
        await expect
          .poll(() => page.evaluate(() => document.documentElement.scrollWidth), { message: `${view} at ${width}` })
          .toBeLessThanOrEqual(width);
      }
    }
  });

test('axe finds nothing on what is particular to boards cut and glued again, light and dark, and nothing sticks out sideways', async ({
  page,
  request,
}) => {
  test.slow();
  const flat = await makeBoard(request, { length: 300, thickness: 25 });
  const stored = (await (await request.get(at(`/api/boards/${flat}`))).json()) as { board: Board };
  for (const look of ['endGrain', 'chevron', 'split', 'framed'] as const) {
    const answer = await request.post(at('/api/boards'), { data: asLook(stored.board, look) });
    const { id } = (await answer.json()) as { id: string };
    /** @param drawn whether it is drawings that the dark changes; lists and figures are those of any board */
    const looked = async (what: string, drawn = false) => {
      for (const width of [768, 390]) {
        await page.setViewportSize({ width, height: 844 });
        await expect
          .poll(() => page.evaluate(() => document.documentElement.scrollWidth), { message: `${what} at ${width}` })
          .toBeLessThanOrEqual(width);
      }
      await page.setViewportSize({ width: 1280, height: 800 });
      for (const scheme of drawn ? (['light', 'dark'] as const) : (['light'] as const)) {
        await page.emulateMedia({ colorScheme: scheme });
        await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', scheme);
        await nothingFound(page, `${look} ${what}, ${scheme}`, scheme === 'dark' ? ['color-contrast'] : undefined);
      }
    };
    await openPlace(page, `/boards/${id}/layout`);
    // What a slant changes stands in the stages where it is cut and laid; the rest is the same for both looks.
    const stages = {
      endGrain: ['Slices', 'Rows', 'Board'],
      chevron: ['Slices', 'Rows'],
      split: ['Put in'],
      framed: ['Frame'],
    };
    for (const stage of stages[look]) {
      await page.getByRole('tab', { name: stage }).click();
      await page.waitForTimeout(300);
      await looked(stage, true);
    }
    if (look === 'chevron') continue;
    for (const place of look === 'split' || look === 'framed' ? ['sheet'] : ['brief', 'trim', 'sheet']) {
      await openPlace(page, `/boards/${id}/${place}`);
      await looked(place);
    }
    if (look === 'split' || look === 'framed') continue;
    await openPlace(page, `/boards/${id}/glue`);
    await page.getByText('The rows', { exact: true }).click();
    await looked('glue, the rows');
  }
});

test('axe finds nothing on the other faces of the layout, and on proposals', async ({ page, request }) => {
  test.slow();
  const id = await makeBoard(request, { worked: WORKED });
  const clean = (what: string) => nothingFound(page, what);
  await openPlace(page, `/boards/${id}/layout`);
  for (const view of ['Underside', 'In the round', 'Versions']) {
    await page.getByText(view, { exact: true }).click();
    await page.waitForTimeout(300);
    await clean(view);
  }
  await page.getByText(/^Through the year \+/).click();
  await clean('Through the year');
  for (const panel of ['Shuffle', 'History', 'Export', 'To face grain']) {
    await page.getByRole('button', { name: panel, exact: true }).click();
    await page.waitForTimeout(600);
    await clean(panel);
    await page.getByRole('button', { name: 'Close', exact: true }).click();
  }
  await openPlace(page, '/propose');
  await page.getByRole('button', { name: 'Propose boards' }).click();
  await expect(page.getByRole('article').first()).toBeVisible();
  await clean('Proposals');
});

interface PrintedPage {
  width: number;
  height: number;
  items: { text: string; x: number; right: number; y: number }[];
}

async function printed(pdf: Buffer): Promise<PrintedPage[]> {
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const pages: PrintedPage[] = [];
  for (let n = 1; n <= document.numPages; n += 1) {
    const page = await document.getPage(n);
    const [, , width = 0, height = 0] = page.view;
    const { items } = await page.getTextContent();
    pages.push({
      width,
      height,
      items: items.flatMap((i) =>
        'str' in i && i.str.trim() !== ''
          ? [
              {
                text: i.str,
                x: (i.transform as number[])[4]!,
                right: (i.transform as number[])[4]! + i.width,
                y: (i.transform as number[])[5]!,
              },
            ]
          : [],
      ),
    });
  }
  return pages;
}

/** A board as the list shows it, as far as it is asked here. */
interface Listed {
  id: string;
  board: { name: string };
}

test('care cards print four to a sheet, each whole in its quarter, with all their words', async ({ page, request }) => {
  const id = await makeBoard(request, { name: 'Cheese board', pack: ['A tin of wax'], finish: ['hard-wax-oil'] });
  await openPlace(page, `/boards/${id}/care`);
  await expect(page.getByRole('button', { name: 'Print' })).toBeEnabled();
  const pages = await printed(await page.pdf({ preferCSSPageSize: true }));
  expect(pages).toHaveLength(1);
  const [{ items, width, height }] = pages as [PrintedPage];
  const text = items
    .map((i) => i.text)
    .join(' ')
    .replace(/\s+/g, ' ');
  for (const words of [
    'Cheese board',
    'Never in a dishwasher',
    'stand on its edge',
    'Sand them out',
    'A tin of wax',
    'no food and no water',
  ])
    expect(text.split(words)).toHaveLength(5);
  expect(text).not.toContain('Back to Finish');
  // No line of one card reaches into the next.
  for (const item of items) {
    const half = item.x < width / 2 ? width / 2 : width;
    expect(item.right, item.text).toBeLessThan(half - 8);
    expect(Math.abs(item.y - height / 2), item.text).toBeGreaterThan(8);
  }
});

test('the bench sheet prints whole on A4 and Letter, without the page around it', async ({ page }) => {
  // By then the tests before have made more boards than one page of the list holds.
  let carving: Listed | undefined;
  for (let next: string | undefined = '/api/boards'; next && !carving;) {
    const answer: APIResponse = await page.request.get(at(next));
    carving = ((await answer.json()) as Listed[]).find((b) => b.board.name === 'Upper Hut carving board');
    next = /<([^>]+)>; rel="next"/.exec(answer.headers().link ?? '')?.[1];
  }
  expect(carving).toBeDefined();
  await openPlace(page, `/boards/${carving!.id}/sheet`);
  await expect(page.locator('article ol > li > h3').first()).toBeVisible();
  const steps = await page.locator('article ol > li > h3').allInnerTexts();
  expect(steps.length).toBeGreaterThan(10);
  // A4 is 210 x 297 mm (ISO 216), Letter 8.5 x 11 in; a PDF point is 1/72 in.
  for (const [format, width, height] of [
    ['A4', 595, 842],
    ['Letter', 612, 792],
  ] as const) {
    const pages = await printed(await page.pdf({ format, preferCSSPageSize: false }));
    const text = pages
      .map((p) => p.items.map((i) => i.text).join(' '))
      .join(' ')
      .replace(/\s+/g, ' ');
    for (const step of steps) expect(text).toContain(step.replace(/\s+/g, ' ').trim());
    for (const words of [
      'Upper Hut carving board',
      'The Tram Shed',
      'Cut list',
      'European walnut',
      'Riving knife and guard',
      'manual, local rules and trained practice come first',
    ])
      expect(text).toContain(words);
    for (const chrome of ['Saved', 'Boards Rack', 'Bench sheet', 'Fits A4']) expect(text).not.toContain(chrome);
    for (const p of pages) {
      expect(Math.abs(p.width - width) + Math.abs(p.height - height)).toBeLessThan(3);
      for (const item of p.items) {
        expect(item.x, item.text).toBeGreaterThan(20);
        expect(item.right, item.text).toBeLessThan(p.width - 20);
        expect(item.y, item.text).toBeGreaterThan(20);
      }
    }
  }
});
