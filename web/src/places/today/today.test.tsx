import { notifications, notificationsStore } from '@mantine/notifications';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Board } from '#core/board/board.ts';
import type { Fact } from '#core/facts/fact.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP, type Shop } from '#core/shop/shop.ts';
import { openShopAt } from '../../openBoardForTests.tsx';
import { NOW, storedAs, type ServerForTests } from '../../serverForTests.ts';
import { plain, press } from '../../shownForTests.tsx';
import { StartPlace } from './StartPlace.tsx';
import { TodayPlace } from './TodayPlace.tsx';

const RACK = [plainPiece({ mark: 'A1', length: 2400, width: 220, thickness: 56, count: 8 })];
const bread = (change: Partial<Board> = {}): Board => ({
  ...plainBoard({ name: 'Bread board', length: 300, width: 180 }, [45, 45, 45, 45, 45]),
  ...change,
});
const by = (day: string, cured = true): Board['due'] => ({ day, time: null, cured });
const open = (board: Board, prepare?: (server: ServerForTests) => void, shop: Shop = DEFAULT_SHOP) =>
  openShopAt(TodayPlace, planInput(board, RACK, shop), { prepare });
/** What stands in a part of the page. */
const part = async (name: string) => plain((await screen.findByRole('region', { name })).textContent);
const done = (step: string, at: string, wait: number): Fact => ({
  kind: 'done',
  id: step,
  at,
  step,
  copy: 1,
  minutes: 20,
  wait: { minutes: wait, for: 'the glue' },
});

describe('a shop in which nothing is due', () => {
  it('is quiet and tells what could be begun, and in which evening it fits; one press takes it up, another puts it off', async () => {
    const { server } = await open(bread());
    expect(await part('Now')).toContain('Nothing is in work. Take a board up, or give one a day.');
    expect(await part('Could be begun')).toMatch(/of work.* until it first waits: fits today 09:00/);

    press('Take up Bread board');
    await waitFor(async () => expect(await part('Now')).toMatch(/^When the shop opens, today 09:00/));
    expect(screen.getByRole('link', { name: 'Begin: Bread board, step 1' }).getAttribute('href')).toBe(
      `/boards/b1/bench?step=${makePlan(planInput(bread(), RACK)).operations[0]!.id}`,
    );
    expect(screen.queryByRole('region', { name: 'Could be begun' })).toBeNull();
    expect(server.schedule.schedule.taken).toEqual(['b1']);

    press('Put off Bread board');
    expect(await part('Could be begun')).toContain(', put off');
    expect(server.schedule.schedule).toMatchObject({ taken: [], waiting: ['b1'] });
  });

  it('says so when no evening has room until the first wait', async () => {
    const hours = [{ from: '09:00', to: '09:10' }, null, null, null, null, null, null];
    await open(bread(), undefined, { ...DEFAULT_SHOP, hours });
    expect(await part('Could be begun')).toContain('no evening has room for that');
  });

  it('opens with the boards first, and with today once something is in work', async () => {
    await openShopAt(StartPlace, planInput(bread(), RACK));
    expect(await screen.findByRole('link', { name: /Bread board/ })).toBeDefined();
  });
});

it('what another device decided meanwhile stays: the decision is made once more on top of it', async () => {
  const { server } = await open(bread(), (s) => (s.others = [storedAs('b2', bread({ name: 'Second' }))]));
  await screen.findByRole('button', { name: 'Take up Second' });
  server.schedule = { version: 7, schedule: { order: [], taken: ['b1'], waiting: [] } };
  server.refuse({ status: 409, code: 'stale' });
  press('Take up Second');
  await waitFor(() => expect(server.schedule.schedule.taken).toEqual(['b1', 'b2']));
  expect(server.writes.map((w) => (w.body as { version: number }).version)).toEqual([0, 7]);
});

describe('a board with a day', () => {
  it('is in time and says with how much to spare, when each step must be begun, and when the evenings are full', async () => {
    await open(bread({ due: by('2026-12-24', false) }));
    expect(await part('In work')).toMatch(/dry by the end of Thu, Dec 24.*In time, with [\d.]+ days to spare\./);
    expect(await part('Now')).toContain('at the latest');
    const evenings = await part('The next evenings');
    expect(evenings).toMatch(/today 09:00 to 18:00/);
    // Crosscut comes first of all, when the shop opens.
    expect(evenings).toMatch(/09:00\d+ min/);
    expect(screen.getByText(/^Friday|^Fri/).textContent).toMatch(
      /The shop opens today 09:00\. All that is in work is done by/,
    );
  });

  it('is late by its finish: the ways that save it stand with their figures, and one press changes the board', async () => {
    const { server } = await open(bread({ finish: ['drying-oil'], due: by('2026-12-08') }));
    expect(await part('In work')).toMatch(/days late: it is dry by then, but its finish hardens 21 days more\./);
    press('What would save Bread board');
    const dialog = await screen.findByRole('dialog');
    const note = await within(dialog).findByText(/Give it dry but not hardened, with a note/);
    expect(plain(note.closest('li')!.textContent)).toMatch(/to spareDry .*, usable /);
    fireEvent.click(within(note.closest('li')!).getByRole('button', { name: 'Take this' }));
    await waitFor(async () => expect(await part('In work')).toContain('In time'));
    expect(server.board.board.due).toEqual(by('2026-12-08', false));
    expect(server.board.revision).toBe(2);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('is late by another board: that one waits, and what is decided about it is in the order', async () => {
    const hours = DEFAULT_SHOP.hours.map(() => ({ from: '18:00', to: '20:00' }));
    const others = ['b2', 'b3'].map((id) => storedAs(id, bread({ name: id, due: by('2026-11-30', false) })));
    const { server } = await open(bread({ due: by('2026-11-30', false) }), (s) => (s.others = others), {
      ...DEFAULT_SHOP,
      hours,
    });
    await screen.findByRole('region', { name: 'In work' });
    const [first] = screen.getAllByRole('button', { name: /^What would save / });
    const name = first!.getAttribute('aria-label')!.slice('What would save '.length);
    fireEvent.click(first!);
    const dialog = await screen.findByRole('dialog');
    const waits = (await within(dialog).findAllByText(/\w+ waits/))[0]!.closest('li')!;
    fireEvent.click(within(waits).getByRole('button', { name: 'Take this' }));
    await waitFor(() => expect(server.schedule.schedule.waiting).toHaveLength(1));
    expect([...server.schedule.schedule.waiting, name]).not.toEqual([name]);
    expect(plain(waits.textContent)).toContain(
      `${{ b1: 'Bread board', b2: 'b2', b3: 'b3' }[server.schedule.schedule.waiting[0]!]} waits`,
    );
  });

  it('cannot be saved any more when its day is past: what makes it less late says how late it stays', async () => {
    await open(bread({ due: by('2026-11-20', false) }));
    expect(await part('In work')).toContain('its day is past.');
    press('What would save Bread board');
    const ways = await within(await screen.findByRole('dialog')).findAllByRole('listitem');
    for (const way of ways) expect(plain(way.textContent)).toMatch(/still [\d.]+ days late/);
  });

  it('is never done where nobody comes', async () => {
    await open(bread({ due: by('2026-12-24') }), undefined, {
      ...DEFAULT_SHOP,
      away: [{ from: '2026-11-01', to: '2031-01-01', person: null }],
    });
    expect(await part('In work')).toContain('It is never done: nobody comes often enough.');
    expect(screen.getByText(/Nobody comes any more: see the hours in the shop/)).toBeDefined();
  });
});

it('what waits by itself stands with its end and how much of it is over', async () => {
  const glue = makePlan(planInput(bread(), RACK)).operations.find((o) => o.kind === 'glue')!;
  const since = new Date(Date.parse(NOW) - 30 * 60_000).toISOString();
  await open(bread(), (s) => (s.facts = [done(glue.id, since, 120)]));
  expect(await part('Waiting')).toContain('Bread board: the glue, until today 09:30');
  expect(screen.getByRole<HTMLProgressElement>('progressbar').value).toBeCloseTo(0.25, 6);
});

it('a server that cannot be reached is told, and tried again', async () => {
  const { server } = await open(bread());
  await screen.findByRole('button', { name: 'Take up Bread board' });
  for (let i = 0; i < 3; i += 1) server.refuse('gone');
  press('Take up Bread board');
  // As often as it is sent by itself; then it is told, and the board can be taken up still.
  await waitFor(() => expect(server.writes).toHaveLength(3));
  expect(new Set(server.writes.map((w) => w.name)).size).toBe(1);
  const told = () => notificationsStore.getState().notifications.map((n) => n.message);
  await waitFor(() => expect(told()).toContain('The server cannot be reached.'));
  notifications.clean();
  expect(screen.getByRole('button', { name: 'Take up Bread board' })).toBeDefined();
  expect(server.schedule.schedule.taken).toEqual([]);
});
