import { fireEvent, screen, waitFor } from '@testing-library/react';
import { Notifications } from '@mantine/notifications';
import { beforeEach, expect, it, vi } from 'vitest';
import type { ListedEntry } from '#contract/log.ts';
import { entryOf } from '#core/log/entryOf.ts';
import type { Pair } from '#core/log/entry.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP, type Shop } from '#core/shop/shop.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { queryClient } from '../../data/queryClient.ts';
import { plain, press, show } from '../../shownForTests.tsx';
import { ComesBack } from './ComesBack.tsx';
import { LessonsPlace } from './LessonsPlace.tsx';
import { LogFigures } from './LogFigures.tsx';
import { LogPlace } from './LogPlace.tsx';

// A chart needs a canvas, which a document without a browser has not.
vi.mock('./PairChart.tsx', () => ({ PairChart: () => <p>A chart</p> }));

const listed = (n: number): ListedEntry => ({
  id: `e${n}`,
  version: 1,
  name: `Board ${n}`,
  use: 'Bread',
  forWhom: n % 2 === 0 ? '=HYPERLINK("x")' : 'A hut',
  finishedAt: `2026-11-${String(n + 1).padStart(2, '0')}T08:00:00.000Z`,
  species: ['maple-hard'],
  length: 400,
  width: 250,
  thickness: 29.3,
  minutesPlanned: 200,
  minutesTaken: n === 1 ? 0 : 245,
  cost: null,
  mishaps: n,
});

let answers: Record<string, unknown>;
let asked: string[];
let saved: Shop[];
beforeEach(() => {
  queryClient.clear();
  asked = [];
  saved = [];
  answers = { '/api/species': HANDBOOK_SPECIES, '/api/shop': { shop: DEFAULT_SHOP, version: 4, demo: false } };
  vi.stubGlobal('fetch', (path: string, { method = 'GET', body }: RequestInit = {}) => {
    asked.push(path);
    if (method === 'PUT') {
      const { shop } = JSON.parse(body as string) as { shop: Shop };
      saved.push(shop);
      return Promise.resolve(Response.json({ shop, version: 5, demo: false }));
    }
    return Promise.resolve(Response.json(answers[path.split('?')[0]!]));
  });
});

it('finished boards stand in a table, asked for by words, wood and order; two of them can be compared', async () => {
  answers['/api/log'] = { count: 3, entries: [listed(0), listed(1), listed(2)] };
  show(<LogPlace />);
  await screen.findByText('3 boards');
  const row = plain(screen.getByRole('row', { name: /Board 1/ }).textContent);
  expect(row).toContain('400 × 250 × 29.3 mm');
  expect(row).toContain('Hard maple');
  expect(row).toContain('3 h 20 min planned');
  fireEvent.change(screen.getByLabelText('Look for'), { target: { value: 'oak & elm' } });
  fireEvent.change(screen.getByLabelText('Order'), { target: { value: 'longest' } });
  await waitFor(() => expect(asked.at(-1)).toBe('/api/log?words=oak+%26+elm&sort=longest&from=0'));
  const compare = screen.getByRole<HTMLButtonElement>('button', { name: 'Compare two' });
  expect(compare.disabled).toBe(true);
  for (const n of [0, 1, 2]) fireEvent.click(screen.getByRole('checkbox', { name: `Compare Board ${n}` }));
  expect(compare.disabled).toBe(false);
  // Of three the last two are.
  expect(screen.getAllByRole<HTMLInputElement>('checkbox').map((box) => box.checked)).toEqual([false, true, true]);
});

it('the table goes out as CSV, page after page, and no text in it is a formula', async () => {
  answers['/api/log'] = { count: 1, entries: [listed(0)] };
  const files: Blob[] = [];
  vi.stubGlobal(
    'URL',
    Object.assign(URL, { createObjectURL: (b: Blob) => (files.push(b), 'blob:x'), revokeObjectURL: () => {} }),
  );
  show(<LogPlace />);
  await screen.findByText('1 board');
  press('Table (CSV)');
  await waitFor(() => expect(files).toHaveLength(1));
  const [head, line] = (await files[0]!.text()).split('\r\n');
  expect(head).toContain('board,use,for,done,length_mm');
  expect(line).toContain(`Board 0,Bread,"'=HYPERLINK(""x"")",2026-11-01,400,250,29.3`);
});

it('says what to do while nothing is there, and that nothing is like what was asked', async () => {
  answers['/api/log'] = { count: 0, entries: [] };
  show(<LogPlace />);
  await screen.findByText(/No board is done yet/);
  fireEvent.change(screen.getByLabelText('Look for'), { target: { value: 'x' } });
  await screen.findByText('No board in the log is like that.');
});

const pairs = (happened: readonly number[]): Pair[] =>
  happened.map((h) => ({
    what: 'flatten',
    step: 'flattenPanel',
    machine: null,
    species: null,
    width: 250,
    planned: 1.5,
    happened: h,
  }));

it('a lesson is taken by one press and taken back by another; fewer than five pairs teach nothing', async () => {
  answers['/api/log/pairs'] = { pairs: pairs([2, 2.1, 2.2, 2.3, 2.4]) };
  show(
    <>
      <Notifications />
      <LessonsPlace />
    </>,
  );
  await screen.findByText(/Panels lost/);
  expect(plain(document.body.textContent)).toContain(
    'Panels lost 2.2 mm at flattening (5 of them, 2 mm to 2.4 mm); the habit says 1.5 mm.',
  );
  press('Plan with that');
  await waitFor(() => expect(saved.map((s) => s.habits.panelFlatten)).toEqual([2.3]));
  fireEvent.click(await screen.findByText('Undo'));
  await waitFor(() => expect(saved.map((s) => s.habits.panelFlatten)).toEqual([2.3, DEFAULT_SHOP.habits.panelFlatten]));
});

it('says how many are missing while there are too few', async () => {
  answers['/api/log/pairs'] = { pairs: pairs([2, 2.1]) };
  show(<LessonsPlace />);
  await screen.findByText(/it takes at least 5 measurements of a kind/);
  expect(plain(document.body.textContent)).toContain('There are 2 of all kinds.');
});

it('two boards beside each other say what each was wished and came to', () => {
  const input = planInput(plainBoard(), [plainPiece({ length: 4000 })]);
  const entry = entryOf(input, null, '2026-11-27T08:00:00.000Z', 'A hut');
  const thinner = {
    ...entry,
    reached: { ...entry.reached, thickness: 28.8 },
    board: { ...entry.board, name: 'Thinner' },
  };
  show(<LogFigures entries={[entry, thinner]} />);
  expect(screen.getAllByRole('columnheader').map((h) => h.textContent)).toEqual(['Test board', 'Thinner']);
  const [, mine, other] = [...screen.getByRole('row', { name: /^Thickness/ }).children].map((c) =>
    plain(c.textContent),
  );
  expect(mine).toBe('30 mm');
  expect(other).toBe('28.8 mm 1.2 mm under what was wished');
});

it('a board that comes back says how often it can still be sanded, and that is less each time', async () => {
  const input = planInput(plainBoard(), [plainPiece({ length: 4000 })]);
  const entry = entryOf(input, null, '2026-11-27T08:00:00.000Z', '');
  const sanded = { at: '2027-11-27T08:00:00.000Z', what: 'sanded' as const, note: '' };
  const told = async (care: (typeof sanded)[], thickness = 30) => {
    const { unmount } = show(<ComesBack entry={{ ...entry, care, reached: { ...entry.reached, thickness } }} />);
    await screen.findByRole('heading', { name: 'If it comes back' });
    const text = plain(document.body.textContent);
    unmount();
    return text;
  };
  // 0.4 of scars, and the scratches of 80 and 150: 0.701 each time, 21 times from 30 to 15 mm.
  expect(await told([])).toMatch(
    /about 30 mm thick now.*with 80, 150, 220 takes about 0\.7 mm.*21 times until it is too thin/,
  );
  expect(await told([sanded, sanded])).toMatch(/about 28\.6 mm thick now.*19 times/);
  expect(await told([], 15.2)).toContain('not any more, it would be too thin');
});
