import { act, render, screen } from '@testing-library/react';
import { MantineProvider } from '@mantine/core';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import earlier from '#core/format/earlier/v15/chevron.json' with { type: 'json' };
import { boardSchema } from '#core/board/board.ts';
import { shopSchema } from '#core/shop/shop.ts';
import { pieceSchema } from '#core/stock/piece.ts';
import { AloneNote } from '../shell/AloneNote.tsx';

/** Names that tabs hold, as a browser keeps them over all of them. */
let held = new Set<string>();
const locks = {
  request: (name: string, _options: unknown, work: (lock: object | null) => unknown) => {
    if (held.has(name)) return Promise.resolve(work(null));
    held.add(name);
    return Promise.resolve(work({}));
  },
  query: () => Promise.resolve({ held: [...held].map((name) => ({ name })) }),
};

let pages = 0;
/** A module as another page has it: from its beginning. Only this one, so that other tests keep theirs. */
const fresh = async (name: string): Promise<unknown> => import(/* @vite-ignore */ `./${name}.ts?page=${(pages += 1)}`);
const freshApplication = async () => (await fresh('application')) as typeof import('./application.ts');

/** The page of another tab, with what only a tab has. */
async function tab(session: Record<string, string> = {}) {
  sessionStorage.clear();
  for (const [key, value] of Object.entries(session)) sessionStorage.setItem(key, value);
  return (await fresh('drafts')) as typeof import('./drafts.ts');
}
const session = () => Object.fromEntries(Object.keys(sessionStorage).map((k) => [k, sessionStorage.getItem(k)!]));

beforeEach(() => {
  held = new Set();
  vi.stubGlobal('navigator', Object.assign(Object.create(navigator) as Navigator, { locks }));
});

describe('what is not sent yet', () => {
  it('is there again over a reload of its tab', async () => {
    const before = await tab();
    await before.adoptDrafts();
    before.keepDraft('cadenza.draft.b1', '{"a":1}');
    held.clear();
    const after = await tab(session());
    await after.adoptDrafts();
    expect([after.readKeptDraft('cadenza.draft.b1'), after.keptDrafts()]).toEqual([{ a: 1 }, 1]);
    after.dropDraft('cadenza.draft.b1');
    expect([after.readKeptDraft('cadenza.draft.b1'), after.keptDrafts()]).toEqual([null, 0]);
  });

  it('of a closed tab is taken over by the next page; that of a tab that is still open is not', async () => {
    const open = await tab();
    await open.adoptDrafts();
    open.keepDraft('cadenza.draft.b1', '{"of":"open"}');
    const other = await tab();
    await other.adoptDrafts();
    expect(other.draftsFrom('cadenza.draft.')).toEqual([]);
    held.clear();
    const later = await tab();
    await later.adoptDrafts();
    expect([later.draftsFrom('cadenza.draft.'), later.keptDrafts()]).toEqual([['cadenza.draft.b1'], 1]);
  });

  it('by an earlier Cadenza comes into the form of this one, whatever it is of; what is of this one stays', async () => {
    const { board, shop, rack } = earlier;
    const page = await tab({
      'cadenza.draft.b1': `15 ${JSON.stringify({ basedOn: 3, steps: [{ board, undo: 3, redo: null }] })}`,
      'cadenza.draft.shop': `15 ${JSON.stringify({ base: { version: 2, value: shop }, mine: shop })}`,
      'cadenza.draft.piece.p1': `15 ${JSON.stringify({ base: { version: 1, value: rack[0] }, mine: rack[0] })}`,
      'cadenza.draft.b2': '{"of":"this one"}',
    });
    await page.adoptDrafts();
    await page.bringUpDrafts();
    const draft = page.readKeptDraft('cadenza.draft.b1') as { steps: { board: unknown }[] };
    expect(boardSchema.safeParse(board).success).toBe(false);
    expect(boardSchema.safeParse(draft.steps[0]!.board).success).toBe(true);
    const lines = ['shop', 'piece.p1'].map(
      (name) =>
        page.readKeptDraft(`cadenza.draft.${name}`) as { base: { version: number; value: unknown }; mine: unknown },
    );
    for (const [i, schema] of [shopSchema, pieceSchema].entries())
      expect([schema.safeParse(lines[i]!.mine).success, schema.safeParse(lines[i]!.base.value).success]).toEqual([
        true,
        true,
      ]);
    expect(lines.map((line) => line.base.version)).toEqual([2, 1]);
    expect(page.readKeptDraft('cadenza.draft.b2')).toEqual({ of: 'this one' });
  });

  it('of two closed tabs with the same record is taken one after the other, and neither is lost', async () => {
    for (const of of ['first', 'second']) {
      const page = await tab();
      await page.adoptDrafts();
      page.keepDraft('cadenza.draft.b1', JSON.stringify({ of }));
    }
    held.clear();
    const seen: unknown[] = [];
    for (let k = 0; k < 2; k += 1) {
      const page = await tab();
      await page.adoptDrafts();
      expect(page.keptDrafts()).toBe(2 - k);
      seen.push(page.readKeptDraft('cadenza.draft.b1'));
      page.dropDraft('cadenza.draft.b1');
    }
    expect(new Set(seen.map((s) => (s as { of: string }).of))).toEqual(new Set(['first', 'second']));
  });

  it('of a tab that was copied with all it holds stays with the first, and the copy is a tab of its own', async () => {
    const first = await tab();
    await first.adoptDrafts();
    first.keepDraft('cadenza.draft.b1', '1');
    const copy = await tab(session());
    await copy.adoptDrafts();
    copy.keepDraft('cadenza.draft.b2', '2');
    expect(new Set(Object.keys(localStorage).map((k) => k.split('/')[1]))).toHaveProperty('size', 2);
  });

  it('where nobody can tell which tabs are open nothing is taken from anybody', async () => {
    localStorage.setItem('cadenza.kept/gone/cadenza.draft.b1', '1');
    vi.stubGlobal('navigator', Object.create(Navigator.prototype));
    const page = await tab();
    await page.adoptDrafts();
    expect([page.draftsFrom('cadenza.draft.'), page.keptDrafts()]).toEqual([[], 1]);
  });
});

describe('a newer Cadenza', () => {
  const registered = (waiting: object | null, controller: object | null) => {
    const registration = Object.assign(new EventTarget(), { waiting, installing: null as null | EventTarget });
    const container = Object.assign(new EventTarget(), { controller, register: () => Promise.resolve(registration) });
    vi.stubGlobal('navigator', Object.assign(Object.create(navigator) as Navigator, { serviceWorker: container }));
    vi.stubGlobal('isSecureContext', true);
    return registration;
  };

  it('that waits when a page begins is taken at once', async () => {
    const postMessage = vi.fn();
    registered({ postMessage }, {});
    const { keepApplication } = await freshApplication();
    await keepApplication();
    expect(postMessage).toHaveBeenCalledWith('take over');
  });

  it('that comes while somebody works is offered, and taken by one press', async () => {
    const registration = registered(null, {});
    const { keepApplication, newerIsHere, onNewer, takeNewer } = await freshApplication();
    const told = vi.fn();
    onNewer(told);
    await keepApplication();
    const worker = Object.assign(new EventTarget(), { state: 'installing', postMessage: vi.fn() });
    registration.installing = worker;
    registration.dispatchEvent(new Event('updatefound'));
    expect(newerIsHere()).toBe(false);
    worker.state = 'installed';
    worker.dispatchEvent(new Event('statechange'));
    expect([newerIsHere(), told.mock.calls.length]).toEqual([true, 1]);
    takeNewer();
    expect(worker.postMessage).toHaveBeenCalledWith('take over');
  });

  it('the very first one is nothing new', async () => {
    const registration = registered(null, null);
    const { keepApplication, newerIsHere } = await freshApplication();
    await keepApplication();
    const worker = Object.assign(new EventTarget(), { state: 'installed' });
    registration.installing = worker;
    registration.dispatchEvent(new Event('updatefound'));
    worker.dispatchEvent(new Event('statechange'));
    expect(newerIsHere()).toBe(false);
  });
});

it('nothing is said while the server is heard', () => {
  render(
    <MantineProvider env="test">
      <AloneNote />
    </MantineProvider>,
  );
  act(() => {});
  expect(screen.queryByRole('status')).toBeNull();
});
