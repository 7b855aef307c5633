import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP, type Shop } from '#core/shop/shop.ts';
import { useOpenBoard } from '../../data/openBoard.tsx';
import { openBoardAt } from '../../openBoardForTests.tsx';
import { plain, press } from '../../shownForTests.tsx';
import { CarePlace } from '../care/CarePlace.tsx';
import { FinishPlace } from './FinishPlace.tsx';
import { workOfPlan } from '#core/plan/boardWork.ts';
import { timesOfBoard } from '#core/schedule/oneBoard.ts';
import { coatsAt } from './useFinishDates.ts';
import { makePlan } from '#core/plan/plan.ts';

const rack = [plainPiece({ length: 4000 })];
/** Its planer takes the panel. */
const SHOP = { ...DEFAULT_SHOP, planer: { ...DEFAULT_SHOP.planer!, width: 400 } };
const open = (board = plainBoard(), shop: Shop = SHOP, place = FinishPlace) =>
  openBoardAt(place, planInput(board, rack, shop));
const coats = () => [...document.querySelector('ol')!.querySelectorAll('li > div > b')].map((b) => b.textContent);
const type = (label: string, text: string) => {
  const field = screen.getByLabelText(label);
  fireEvent.change(field, { target: { value: text } });
  fireEvent.blur(field);
};

it('a groove that is taken away while its papers are looked at is looked at no more', async () => {
  const groove = {
    kind: 'groove' as const,
    id: 'g',
    face: 'top' as const,
    offset: 20,
    bit: 12,
    depth: 6,
    corner: 10,
    wells: 1 as const,
    spout: null,
    fall: 0,
  };
  const plain = plainBoard();
  function Place() {
    const { session } = useOpenBoard();
    return (
      <>
        <button onClick={() => session.edit((b) => ({ ...b, worked: plain.worked }))}>No groove</button>
        <FinishPlace />
      </>
    );
  }
  await open({ ...plain, worked: { ...plain.worked, features: [groove] } }, SHOP, Place);
  press('groove');
  expect(screen.getByRole('heading', { name: 'Papers over the groove' })).toBeDefined();
  press('No groove');
  expect(await screen.findByRole('heading', { name: 'Papers over the show side' })).toBeDefined();
});

it('a place is marked by keyboard too, and one no deeper than the marks is told', async () => {
  await open();
  press('Mark the deepest place');
  fireEvent.keyDown(screen.getByRole('button', { name: /^underside: / }), { key: 'Enter' });
  expect(await screen.findByRole('button', { name: /^underside: 0\.50 mm deep, a pit/ })).toBeDefined();
  expect(screen.getByRole('heading', { name: 'Papers over the underside' })).toBeDefined();
});

describe('sides', () => {
  it('are drawn unfolded; one that is pressed shows its papers falling, and what stays without one', async () => {
    await open();
    expect(screen.getByRole('img').getAttribute('aria-label')).toMatch(
      /0\.13 mm from its marks, then 120 takes 0\.13 mm, 220 takes 0\.13 mm/,
    );
    fireEvent.keyDown(screen.getByRole('button', { name: /^left end: / }), { key: 'Enter' });
    expect(screen.getByRole('heading', { name: 'Papers over the left end' })).toBeDefined();
    press('show side');
    fireEvent.click(screen.getByRole('checkbox', { name: '120' }));
    expect(plain(document.querySelector('[role=group] [role=status]')!.textContent)).toContain('nothing stays');
    fireEvent.click(screen.getByRole('checkbox', { name: '220' }));
    expect(screen.getByText('No paper at all: everything stays.')).toBeDefined();
  });

  it('a pit is noted at the bench and sanded to its bottom; nonsense is refused by name; typed back it is none', async () => {
    await open();
    type('Deepest place of the show side', '-1');
    expect(await screen.findByText(/Deepest place of the show side/)).toBeDefined();
    type('Deepest place of the show side', '0,6');
    await waitFor(() => expect(screen.getAllByText(/The show side with 40, 60/)).not.toHaveLength(0));
    expect(screen.getByRole('button', { name: /show side: 0\.60 mm deep, a pit/ })).toBeDefined();
    type('Deepest place of the show side', '0');
    await waitFor(() => expect(screen.queryByText(/The show side with/)).toBeNull());
  });
});

it('where papers take more than is planned, one press plans with it', async () => {
  const { server } = await open(plainBoard(), {
    ...SHOP,
    planer: null,
    jointer: null,
    handTools: { planes: false, beltSander: false, orbitalSander: true },
    schools: { ...SHOP.schools, flatten: 'orbital' },
  });
  press(/^Plan with/);
  await waitFor(() => expect(screen.queryByRole('button', { name: /^Plan with/ })).toBeNull());
  // Both faces: 0.4 of steps, and the scratches of 80 and 150.
  await waitFor(() => expect(server.board.board.differs.habits.sanding).toBe(1.5));
});

describe('what goes on it', () => {
  it('is the shop’s until the board wants another order; with how much of it, and back again', async () => {
    const { server } = await open();
    expect(coats()).toEqual(['Mineral oil', 'Wax and oil blend']);
    expect(screen.getAllByText(/into end grain/)).toHaveLength(2);
    press('Mineral oil later');
    await waitFor(() => expect(coats()).toEqual(['Wax and oil blend', 'Mineral oil']));
    press('Leave Wax and oil blend out');
    await waitFor(() => expect(server.board.board.finish).toEqual(['mineral-oil']));
    press('Leave Mineral oil out');
    expect(await screen.findByText('Bare wood: nothing goes on it.')).toBeDefined();
    press('As the shop does it');
    await waitFor(() => expect(coats()).toEqual(['Mineral oil', 'Wax and oil blend']));
  });

  const BATHING = { ...SHOP, schools: { ...SHOP.schools, oil: 'bath' as const } };
  it('in a bath: litres and boards at a time', async () => {
    await open(plainBoard({ count: 3 }), { ...BATHING, bath: { length: 900, width: 300, depth: 80 } });
    expect(screen.getByText(/In the tray lying/).textContent).toMatch(/2 at a time, 2 times/);
  });

  it('a tray that is too small says so, and one that nobody entered is asked for', async () => {
    await open(plainBoard(), { ...BATHING, bath: { length: 120, width: 120, depth: 40 } });
    expect(screen.getByText(/does not go into the tray/)).toBeDefined();
  });
});

describe('when', () => {
  it('a day that is due is in time, in time uncured, late or past, and says which finishes would make it', async () => {
    const { server } = await open(plainBoard({ finish: ['hard-wax-oil'] }));
    const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
    type('It is due', inDays(60));
    expect(await screen.findByText('It is ready by then, hardened too.')).toBeDefined();
    await waitFor(() => expect(server.board.board.due).toEqual({ day: inDays(60), time: null, cured: true }));
    type('By', '18:30');
    fireEvent.click(screen.getByLabelText('Hardened by then, to be used'));
    await waitFor(() => expect(server.board.board.due).toEqual({ day: inDays(60), time: '18:30', cured: false }));
    type('It is due', inDays(-3));
    expect(await screen.findByText('That day is past.')).toBeDefined();
    expect(await screen.findByText(/It is not dry by then/)).toBeDefined();
    type('It is due', '');
    await waitFor(() => expect(server.board.board.due).toBeNull());
  });

  it('the first coat was when it was put on, or will be when the schedule says; never where nobody comes', () => {
    const input = planInput(plainBoard(), rack);
    const plan = makePlan(input);
    const now = Date.parse('2026-11-26T10:00:00Z');
    const own = { work: workOfPlan('b1', input, plan), due: null };
    const times = (hours = plan.shop.hours) =>
      timesOfBoard(own, null, { ...plan.shop, hours }, 'Europe/Vienna', now / 60_000).schedule;
    const oil = plan.operations.find((o) => o.kind === 'oil')!;
    const at = '2026-11-20T08:00:00.000Z';
    const done = { kind: 'done' as const, id: 'd', at, step: oil.id, copy: 1, minutes: null };
    expect(coatsAt('b1', plan, [done], times())[0]).toBe(Date.parse(at));
    const [first, second] = coatsAt('b1', plan, [], times());
    expect(first).toBeGreaterThan(now);
    expect(second! - first!).toBeGreaterThan(12 * 3_600_000);
    expect(coatsAt('b1', { ...plan, operations: [] }, [], times())).toEqual([]);
    // Nobody works while the shop is shut: open on Wednesdays alone.
    const wednesdays = plan.shop.hours.map((_, day) => (day === 2 ? { from: '09:00', to: '18:00' } : null));
    for (const coat of coatsAt('b1', plan, [], times(wednesdays))) {
      const words = new Intl.DateTimeFormat('en-GB', {
        timeZone: 'Europe/Vienna',
        weekday: 'short',
        hour: '2-digit',
        hourCycle: 'h23',
      });
      expect(words.format(new Date(coat))).toMatch(/^Wed,? (09|1[0-8])$/);
    }
    expect(coatsAt('b1', plan, [], times(plan.shop.hours.map(() => null)))).toEqual([Infinity, Infinity]);
  });
});

describe('what goes with it', () => {
  it('things are packed and left out; one without a name is refused', async () => {
    const { server } = await open();
    fireEvent.change(screen.getByLabelText('Pack with it'), { target: { value: 'x'.repeat(61) } });
    press('Add');
    expect(await screen.findByText('What is packed must be at most 60 characters.')).toBeDefined();
    fireEvent.change(screen.getByLabelText('Pack with it'), { target: { value: 'A tin of wax' } });
    press('Add');
    await waitFor(() => expect(server.board.board.pack).toEqual(['A tin of wax']));
    // The page shows it when its plan is made, which may be later than it is stored.
    fireEvent.click(await screen.findByRole('button', { name: 'Leave A tin of wax out' }));
    await waitFor(() => expect(server.board.board.pack).toEqual([]));
  });

  it('a card says what it is of, how it is kept, and the shop’s own words; four copies for the paper', async () => {
    vi.stubGlobal('print', vi.fn());
    await open(
      plainBoard({ pack: ['A tin of wax'], finish: ['hard-wax-oil'] }),
      { ...DEFAULT_SHOP, name: 'The Tram Shed', careWords: 'Bring it back\nwhen it is dull.' },
      CarePlace,
    );
    const card = within(screen.getByRole('article'));
    for (const words of [
      /Made by The Tram Shed/,
      /Never in a dishwasher/,
      /no food and no water on it before/,
      'A tin of wax',
    ])
      expect(card.getByText(words)).toBeDefined();
    expect(card.getByText(/Bring it back/).textContent).toBe('Bring it back\nwhen it is dull.');
    expect(document.querySelectorAll('article')).toHaveLength(4);
    fireEvent.click(screen.getByRole('radio', { name: 'Folded A5' }));
    await waitFor(() => expect(document.querySelectorAll('article')).toHaveLength(1));
  });
  afterEach(() => vi.unstubAllGlobals());
});
