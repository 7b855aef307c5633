import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { Board } from '#core/board/board.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP, type Shop } from '#core/shop/shop.ts';
import { keys, queryClient } from '../../data/queryClient.ts';
import { openShopAt } from '../../openBoardForTests.tsx';
import { storedAs, type ServerForTests } from '../../serverForTests.ts';
import { field, plain, press, said } from '../../shownForTests.tsx';
import { CalendarPlace } from './CalendarPlace.tsx';

const RACK = [plainPiece({ mark: 'A1', length: 2400, width: 220, thickness: 56, count: 8 })];
const bread = (change: Partial<Board> = {}): Board => ({
  ...plainBoard({ name: 'Bread board', length: 300, width: 180 }, [45, 45, 45, 45, 45]),
  due: { day: '2026-12-24', time: null, cured: false },
  ...change,
});
const open = async (board = bread(), prepare?: (server: ServerForTests) => void, shop: Shop = DEFAULT_SHOP) => {
  Element.prototype.scrollTo = vi.fn();
  const shown = await openShopAt(CalendarPlace, planInput(board, RACK, shop), { prepare });
  await screen.findByRole('heading', { name: 'Calendar' });
  return shown;
};
const drawing = () => screen.findByRole('group', { name: 'Steps of all boards in time' });
/** Steps that can be chosen, as they are called. */
const steps = async () =>
  within(await drawing())
    .getAllByRole('button')
    .map((b) => b.getAttribute('aria-label') ?? '');
const first = async () => within(await drawing()).getAllByRole('button')[0]!;
const panel = () => screen.findByRole('region', { name: 'The step' });

describe('the timeline', () => {
  it('has every step by its board once, one of them for the keyboard; its machines, hands and clamps beside it', async () => {
    const { container } = await open();
    const all = await steps();
    expect(all[0]).toMatch(/^Bread board: Crosscut .*today 09:00 to \d\d:\d\d$/);
    expect(new Set(all).size).toBe(all.length);
    const keyed = within(await drawing())
      .getAllByRole('button')
      .filter((b) => b.getAttribute('tabindex') === '0');
    expect(keyed).toHaveLength(1);
    const rows = plain(container.textContent);
    for (const row of ['Table saw', 'Planer', 'pipe clamps']) expect(rows.toLowerCase()).toContain(row.toLowerCase());
  });

  it('is walked along with arrows, and what is chosen stands below', async () => {
    await open();
    const [one, two] = await steps();
    fireEvent.keyDown(await first(), { key: 'ArrowRight' });
    expect(plain((await panel()).textContent)).toContain(two!.split(': ')[1]!.split(',')[0]!.slice(0, 12));
    await waitFor(() => expect(document.activeElement?.getAttribute('aria-label')).toBe(two));
    fireEvent.keyDown(document.activeElement!, { key: 'ArrowUp' });
    await waitFor(() => expect(document.activeElement?.getAttribute('aria-label')).toBe(one));
    fireEvent.keyDown(document, { key: 'Escape' });
    expect(screen.queryByRole('region', { name: 'The step' })).toBeNull();
  });

  it('leaves the keyboard with the step that has it, wherever that comes to lie', async () => {
    await open();
    const bar = await first();
    const [one] = await steps();
    bar.focus();
    const scroller = (await drawing()).parentElement!;
    scroller.scrollLeft = 100_000;
    fireEvent.scroll(scroller);
    expect(await steps()).toEqual([one]);
    // Its place in the document is another for a moment, as when rows change places.
    const row = bar.parentElement!;
    bar.remove();
    row.append(bar);
    expect(document.activeElement).toBe(document.body);
    fireEvent.scroll(scroller, { target: { scrollLeft: 99_000 } });
    expect(document.activeElement).toBe(bar);
    fireEvent.keyDown(document.activeElement!, { key: 'Enter' });
    expect(await panel()).toBeDefined();
  });

  it('comes nearer by key and by wheel with Ctrl, up to an end', async () => {
    await open();
    const wide = async () => Number((await drawing()).getAttribute('width'));
    const before = await wide();
    fireEvent.keyDown(document, { key: 'i' });
    expect(await wide()).toBeCloseTo(2 * before, 6);
    fireEvent.keyDown(document, { key: 'o' });
    expect(await wide()).toBeCloseTo(before, 6);
    const box = (await drawing()).parentElement!;
    fireEvent.wheel(box, { deltaY: -100 });
    expect(await wide()).toBeCloseTo(before, 6);
    const nearer = new WheelEvent('wheel', { deltaY: -100, ctrlKey: true, cancelable: true, bubbles: true });
    fireEvent(box, nearer);
    expect(nearer.defaultPrevented).toBe(true);
    expect(await wide()).toBeCloseTo(2 * before, 6);
    for (let k = 0; k < 12; k += 1) press('Nearer');
    expect(screen.getByRole('button', { name: 'Nearer' }).hasAttribute('disabled')).toBe(true);
  });

  it('a step is dragged by so much time as the pointer went, in quarters of an hour, and never into the past', async () => {
    await open();
    const scale = 24 / 60;
    const drag = async (by: number) => {
      const bar = await first();
      // All at once, as on a machine that is too slow to draw in between.
      act(() => {
        fireEvent.pointerDown(bar, { pointerId: 1, button: 0, clientX: 300 });
        fireEvent.pointerMove(bar, { pointerId: 1, clientX: 300 + by });
        fireEvent.pointerUp(bar, { pointerId: 1, clientX: 300 + by });
      });
      await panel();
      return field('Begin at').value;
    };
    expect(await drag(100 * scale)).toBe('2026-11-27T10:45');
    expect(await drag(-4000 * scale)).toBe('2026-11-27T08:00');
    // A press is no drag.
    expect(await drag(2)).toBe('2026-11-27T09:00');
  });

  it('what another device does meanwhile waits until the hand lets go of a step', async () => {
    const { server } = await open();
    const bar = await first();
    fireEvent.pointerDown(bar, { pointerId: 1, button: 0, clientX: 300 });
    server.others = [storedAs('b2', bread({ name: 'Second' }))];
    await act(() => queryClient.invalidateQueries({ queryKey: keys.schedule }));
    expect((await steps()).some((s) => s.startsWith('Second'))).toBe(false);
    fireEvent.pointerCancel(bar, { pointerId: 1 });
    expect((await steps()).some((s) => s.startsWith('Second'))).toBe(true);
  });
});

describe('a pin', () => {
  it('is proposed by Alt and an arrow, says what it costs, refuses what is past by name, and is stored with its board', async () => {
    const { server } = await open(bread(), (s) => (s.others = [storedAs('b2', bread({ name: 'Second' }))]));
    fireEvent.keyDown(await first(), { key: 'ArrowRight', altKey: true });
    const shown = await panel();
    expect(field('Begin at').value).toBe('2026-11-27T10:00');
    expect(plain(within(shown).getByRole('status').textContent)).toMatch(/^It costs/);

    fireEvent.change(field('Begin at'), { target: { value: '2020-01-01T09:00' } });
    expect(said('Begin at')).toBe('Begin at lies in the past: a step can only be pinned to a time to come.');
    expect(within(shown).getByRole('button', { name: 'Pin it' }).hasAttribute('disabled')).toBe(true);
    fireEvent.change(field('Begin at'), { target: { value: '' } });
    expect(said('Begin at')).toBe('Begin at must be a date and a time.');

    // A Sunday: nobody is there.
    fireEvent.change(field('Begin at'), { target: { value: '2026-11-29T10:00' } });
    expect(plain(within(shown).getByRole('status').textContent)).toMatch(
      /^It cannot begin then: what it comes after is not over, or nobody is there\. It would begin Mon.*09:00\.$/,
    );

    // A week later everything on the board is later by about a week, and the other board is not.
    fireEvent.change(field('Begin at'), { target: { value: '2026-12-04T09:00' } });
    expect(plain(within(shown).getByRole('status').textContent)).toMatch(/^It costs: Bread board [\d.]+ days later\.$/);
    press('Pin it');
    await waitFor(() => expect(screen.queryByRole('region', { name: 'The step' })).toBeNull());
    expect(server.board.board.pins).toEqual([
      { step: 'crosscut', copy: 1, at: '2026-12-04T09:00:00.000Z', person: null },
    ]);
    // What is out of sight is not drawn; the table has it.
    fireEvent.keyDown(document, { key: 't' });
    await waitFor(() =>
      expect(
        screen
          .getAllByRole('row')
          .map((r) => plain(r.textContent))
          .filter((r) => r.endsWith('Pinned')),
      ).toEqual([expect.stringMatching(/^Fri.*09:00.*Crosscut.*Bread board/)]),
    );
  });

  it('to a person is kept without a time; it is let go from the table', async () => {
    const people = [
      { id: 'a', name: 'Ada', hours: null },
      { id: 'b', name: 'Bo', hours: null },
    ];
    const { server } = await open(bread(), undefined, { ...DEFAULT_SHOP, people });
    fireEvent.keyDown(document, { key: 't' });
    const line = () => screen.getAllByRole('row')[1]!;
    expect(plain(line().textContent)).toMatch(/^today 09:00.*Crosscut.*Bread board/);
    fireEvent.click(within(line()).getByRole('button', { name: 'Pin' }));
    fireEvent.change(screen.getByLabelText('Done by'), { target: { value: 'b' } });
    press('Pin it');
    await waitFor(() => expect(server.board.board.pins).toMatchObject([{ at: null, person: 'b' }]));
    await waitFor(() => expect(plain(line().textContent)).toContain('Bo'));
    fireEvent.click(within(line()).getByRole('button', { name: 'Pinned' }));
    press('Let it go');
    await waitFor(() => expect(server.board.board.pins).toEqual([]));
  });

  it('that cannot be kept any more is told with the time the step has now', async () => {
    const pins = [{ step: 'crosscut', copy: 1, at: '2026-11-29T10:00:00.000Z', person: null }];
    const { text } = await open(bread({ pins }));
    expect(text()).toMatch(/Pins that cannot be kept as they are: .*Sun.*10:00 is now Mon.*09:00\./);
  });

  it('that the server refuses leaves the step chosen and its text as it was', async () => {
    const { server } = await open();
    fireEvent.keyDown(await first(), { key: 'ArrowRight', altKey: true });
    await panel();
    server.refuse({ status: 409, code: 'conflict', detail: 'The board was changed elsewhere.' });
    press('Pin it');
    await waitFor(() => expect(server.writes).toHaveLength(1));
    await waitFor(() => expect(screen.getByRole('button', { name: 'Pin it' }).hasAttribute('disabled')).toBe(false));
    expect(field('Begin at').value).toBe('2026-11-27T10:00');
  });
});

it('without work it says where to begin', async () => {
  await open(bread({ due: null }));
  expect(plain((await screen.findByText(/Give a board a day in its brief/)).textContent)).toContain(
    'take one up on Today',
  );
  expect(screen.getByText(/Nothing is in work\./)).toBeDefined();
});

it('an address for other calendars is made, changed and closed', async () => {
  const { server } = await open();
  press('Make an address');
  await waitFor(() => expect(field('Subscribe to').value).toMatch(/\/calendar\/secret-1\.ics$/));
  press('New address');
  await waitFor(() => expect(field('Subscribe to').value).toMatch(/secret-2\.ics$/));
  press('Close the address');
  await waitFor(() => expect(screen.queryByLabelText('Subscribe to')).toBeNull());
  expect(server.calendar).toBeNull();
  expect(await screen.findByRole('button', { name: 'Make an address' })).toBeDefined();
});
