import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Board } from '#core/board/board.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import { DEFAULT_SHOP, type Shop } from '#core/shop/shop.ts';
import type { Piece } from '#core/stock/piece.ts';
import { queryClient } from '../../data/queryClient.ts';
import { openBoardAt, openShopAt } from '../../openBoardForTests.tsx';
import type { ServerForTests } from '../../serverForTests.ts';
import { plain, press, said, type } from '../../shownForTests.tsx';
import { BoardMoneyPlace } from './BoardMoneyPlace.tsx';
import { MoneyPlace } from './MoneyPlace.tsx';
import { PaperPlace } from './PaperPlace.tsx';
import { shoppingQuery } from './shopping.ts';

const stock = (change: Partial<Piece> = {}) =>
  plainPiece({ mark: 'A1', length: 2400, width: 220, thickness: 56, price: { amount: 40, per: 'piece' }, ...change });
const bread = (change: Partial<Board> = {}): Board => ({
  ...plainBoard({ name: 'Bread board', length: 300, width: 180 }, [45, 45, 45, 45, 45]),
  due: { day: '2026-12-24', time: null, cured: false },
  ...change,
});
const SHOP: Shop = {
  ...DEFAULT_SHOP,
  glues: DEFAULT_SHOP.glues.map((g) => ({ ...g, pricePerKg: 16 })),
  prices: { ...DEFAULT_SHOP.prices, wage: 20, boardsMonth: 4, tax: 0.2 },
};
/** All figures of money in some text, in coins. */
const coins = (text: string) =>
  [...text.matchAll(/€\s?([\d,]+\.\d\d)/g)].map((m) => Math.round(Number(m[1]!.replace(',', '')) * 100));

describe('the money of a board', () => {
  const open = (board = bread(), shop = SHOP, rack = [stock()]) =>
    openBoardAt(BoardMoneyPlace, planInput(board, rack, shop));

  it('adds up to the coin: its parts are the whole, and the sums behind a part are the part', async () => {
    await open();
    const whole = coins(plain(screen.getByRole('heading', { name: /^What it costs: / }).textContent))[0]!;
    const parts = screen.getAllByRole('button', { expanded: false }).map((b) => coins(plain(b.textContent))[0]!);
    expect(parts.length).toBeGreaterThan(3);
    expect(parts.reduce((sum, p) => sum + p, 0)).toBe(whole);
    // The drawing tells the same figures.
    expect(coins(plain(screen.getByRole('img', { name: /^Cost: / }).getAttribute('aria-label')))).toEqual(parts);
    press(/^Work/);
    const rows = within(screen.getByRole('button', { expanded: true }).parentElement!).getAllByRole('row');
    const last = rows.map((r) => coins(plain(r.lastElementChild!.textContent))[0]!);
    expect(last.reduce((sum, p) => sum + p, 0)).toBe(
      coins(plain(screen.getByRole('button', { expanded: true }).textContent))[0],
    );
    press(/^Work/);
    expect(screen.queryByRole('button', { expanded: true })).toBeNull();
  });

  it('says what has no price, and counts it for nothing', async () => {
    await open(bread(), { ...SHOP, glues: DEFAULT_SHOP.glues.map((g) => ({ ...g, pricePerKg: null })) });
    expect(plain(screen.getByRole('button', { name: /^Glue/ }).textContent)).toMatch(/^Gluewithout a price: .*€0\.00$/);
  });

  it('a price is taken by one press and says what it pays; an odd one is refused by name and changes nothing', async () => {
    const { server } = await open();
    const [ask] = screen.getAllByRole('button', { name: /^Ask €/ });
    const asked = coins(ask!.getAttribute('aria-label')!)[0]!;
    fireEvent.click(ask!);
    await waitFor(() => expect(server.board.board.price).toBe(asked / 100));
    expect((await screen.findByText(/an hour\.$/)).textContent).toMatch(/^Pays /);
    type('Asked for one', '-5');
    expect(said('Asked for one')).toBe('Asked for one must not be negative.');
    expect(server.board.board.price).toBe(asked / 100);
    type('Asked for one', '3');
    expect(await screen.findByText('Less than it costs without any work.')).toBeDefined();
    type('Asked for one', '');
    await waitFor(() => expect(server.board.board.price).toBeNull());
  });

  it('several at once cost less a board, and the rack says how many it gives', async () => {
    await open(bread(), SHOP, [stock({ length: 1000 })]);
    const table = () => screen.getByRole('columnheader', { name: 'Rack gives them' }).closest('table')!;
    await waitFor(() => expect(within(table()).getAllByRole('row')).toHaveLength(5));
    const rows = within(table())
      .getAllByRole('row')
      .slice(1)
      .map((r) => plain(r.textContent));
    expect(rows[0]).toMatch(/^1€.*yes$/);
    expect(rows[3]).toMatch(/^10€.*not all$/);
    const each = rows.map((r) => coins(r.replace(/^\d+€/, '€'))[0]!);
    expect(each[1]).toBeLessThan(each[0]!);
  });
});

describe('a quotation', () => {
  it('says net, tax and what is to be paid, exact to the coin; for whom and its number stand on it', async () => {
    await openBoardAt(
      PaperPlace,
      planInput(bread({ price: 99.95, count: 3, perPanel: 1 }), [stock({ count: 4 })], SHOP),
    );
    type('For whom', 'The tram depot');
    type('Number', '7');
    const paper = screen.getByRole('article');
    expect(within(paper).getByRole('heading', { name: 'Quotation 7' })).toBeDefined();
    expect(plain(paper.textContent)).toContain('For The tram depot');
    // 3 × 99.95 = 299.85; a fifth of it 59.97.
    expect(coins(plain(paper.textContent))).toEqual([9995, 29985, 5997, 35982]);
  });

  it('is not printed before anything is asked', async () => {
    await openBoardAt(PaperPlace, planInput(bread(), [stock()], SHOP));
    expect(screen.getByRole('alert').textContent).toContain('Say first what is asked for one');
    expect(screen.getByRole('button', { name: 'Print' }).hasAttribute('disabled')).toBe(true);
  });
});

describe('the shop', () => {
  const open = (part: string, input = planInput(bread(), [], SHOP), prepare?: (server: ServerForTests) => void) =>
    openShopAt(MoneyPlace, input, { path: `/money/${part}`, pattern: '/money/:part', prepare });
  const line = async (name: RegExp) => (await screen.findByRole('checkbox', { name })).closest('li')!;

  it('buys the wood that is missing: ticked, and into the rack with its mark and price, which odd figures do not reach', async () => {
    const { server } = await open('shopping');
    const wood = await line(/^Hard maple.* is in the basket/);
    expect(plain(wood.textContent)).toMatch(/for Bread board.*\d × \d+\/4 \(.*\) rough/);
    fireEvent.click(within(wood).getByRole('checkbox'));
    await waitFor(() => expect(server.shopping.shopping.ticked).toHaveLength(1));
    fireEvent.click(within(wood).getByRole('button', { name: /is bought$/ }));
    for (const [label, odd, sentence] of [
      ['How many', '0', 'How many must be a whole number from 1 to 999.'],
      ['How many', '1.5', 'How many must be a whole number from 1 to 999.'],
      ['A piece cost', '-2', 'A piece cost must be an amount, at least 0.'],
    ] as const) {
      type('How many', '2');
      type(label, odd);
      press('Into the rack');
      expect(within(wood).getByRole('alert').textContent).toBe(sentence);
    }
    type('How many', '2');
    type('A piece cost', '12.5');
    server.refuse({ status: 400, code: 'invalid', detail: 'Mark is taken already.' });
    press('Into the rack');
    await waitFor(() => expect(within(wood).getByRole('alert').textContent).toBe('Mark is taken already.'));
    press('Into the rack');
    await waitFor(() =>
      expect(server.rack.map((p) => p.piece)).toMatchObject([
        { species: 'maple-hard', count: 2, surface: 'rough', price: { amount: 12.5, per: 'piece' } },
      ]),
    );
    await waitFor(() => expect(server.shopping.shopping.ticked).toEqual([]));
  });

  it('puts what was bought onto the shelf once, with the price that was paid', async () => {
    const { server } = await open('shopping', planInput(bread(), [stock()], SHOP));
    const glue = await line(/glue/i);
    fireEvent.click(within(glue).getByRole('checkbox'));
    fireEvent.click(await within(glue).findByRole('button', { name: /is bought$/ }));
    type(within(glue).getByText(/^Bought, /).textContent, '0');
    press('Onto the shelf');
    expect(within(glue).getByRole('alert').textContent).toBe('Bought must be more than 0.');
    type(within(glue).getByText(/^Bought, /).textContent, '500');
    type('Paid', '9');
    press('Onto the shelf');
    press('Onto the shelf');
    await waitFor(() => expect(server.shop.version).toBe(2));
    const [own] = server.shop.shop.glues.filter((g) => g.id === SHOP.glue);
    expect(own).toMatchObject({ shelfGrams: 500, pricePerKg: 18 });
    expect(server.writes.filter((w) => w.path === '/shop')).toHaveLength(1);
  });

  it('counts only the boards that are chosen', async () => {
    const { server, text } = await open('shopping');
    await line(/^Hard maple/);
    fireEvent.click(screen.getByRole('checkbox', { name: 'Bread board' }));
    await waitFor(() => expect(text()).toContain('Nothing is missing: rack and shelf have it all.'));
    expect(server.shopping.shopping.boards).toEqual([]);
  });

  it('tells a change of the list that another device was faster with, and stores it on top', async () => {
    const { server } = await open('shopping');
    const wood = await line(/^Hard maple/);
    server.refuse({ status: 409, code: 'stale' });
    fireEvent.click(within(wood).getByRole('checkbox'));
    await waitFor(() => expect(server.shopping.shopping.ticked).toHaveLength(1));
    expect(within(wood).getByRole<HTMLInputElement>('checkbox').checked).toBe(true);
  });

  it('keeps a tick that is on its way, whatever is read of the list meanwhile', async () => {
    const { server } = await open('shopping');
    const tick = within(await line(/^Hard maple/)).getByRole<HTMLInputElement>('checkbox');
    const letGo = server.hold();
    fireEvent.click(tick);
    // Within the event itself: one that shows a moment later went out and came back under the finger.
    expect(tick.checked).toBe(true);
    await act(() => queryClient.invalidateQueries({ queryKey: shoppingQuery.queryKey }));
    expect(server.shopping.shopping.ticked).toEqual([]);
    expect(tick.checked).toBe(true);
    letGo();
    await waitFor(() => expect(server.shopping.shopping.ticked).toHaveLength(1));
    await act(() => queryClient.invalidateQueries({ queryKey: shoppingQuery.queryKey }));
    expect(tick.checked).toBe(true);
  });

  it('knows what its rack is worth, piece by piece and in leftovers, and what has no price', async () => {
    const rack = [
      stock({ count: 3 }),
      stock({ id: 'p2', mark: 'L1', origin: { kind: 'offcut', of: '' }, price: { amount: 5, per: 'piece' } }),
      stock({ id: 'p3', mark: 'U1', price: null }),
    ];
    const { text } = await open('stock', planInput(bread(), rack, SHOP));
    await waitFor(() => expect(text()).toContain('The rack is worth €125.00, and 1 pieces without a price'));
    const rows = screen.getAllByRole('row').map((r) => plain(r.textContent));
    expect(rows.filter((r) => r.startsWith('Hard maple'))).toEqual([
      expect.stringMatching(/^Hard maple5\d\.\d{4}1€125\.00$/),
    ]);
    expect(rows.filter((r) => r.startsWith('U1'))).toEqual([expect.stringContaining('no price')]);
  });

  it('tells of a machine what it saves a board and a year, and after how many boards it is paid for', async () => {
    const shop: Shop = {
      ...SHOP,
      drumSander: null,
      prices: { ...SHOP.prices, wished: [{ tool: 'drumSander', price: 900 }] },
    };
    const { text } = await open('machines', planInput(bread(), [stock()], shop));
    await waitFor(() => expect(text()).toContain('at 48 boards a year (as the shop says) and €20.00 an hour'));
    const row = screen
      .getAllByRole('row')
      .map((r) => plain(r.textContent))
      .find((r) => r.startsWith('Drum sander'))!;
    expect(row).toMatch(/€900\.00(\d+ boards, [\d.]+ years|never)$/);
  });
});
