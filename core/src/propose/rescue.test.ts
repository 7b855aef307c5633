import { describe, expect, it } from 'vitest';
import type { Board } from '../board/board.ts';
import { workOfPlan } from '../plan/boardWork.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { firstSchedule } from '../schedule/improve.ts';
import { shopProblem, type WorkDue } from '../schedule/shopProblem.ts';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { boardWith, rescuesFor, shopWith, UNCURED_NOTE, type Rescue } from './rescue.ts';

/** Monday, 2026-11-30, 9:00 in Greenwich: the usual shop opens. */
const FROM = Date.UTC(2026, 10, 30, 9) / 60_000;
const RACK = [plainPiece({ mark: 'A1', length: 2400, width: 220, thickness: 56, count: 8 })];
const bread = (change: Partial<Board> = {}): Board => ({
  ...plainBoard({ length: 300, width: 180, thickness: 30 }, [45, 45, 45, 45, 45]),
  ...change,
});
const dueOf = (id: string, board: Board, shop: Shop): WorkDue => {
  const input = planInput(board, RACK, shop);
  return { work: workOfPlan(id, input, makePlan(input)), due: board.due };
};
const rescue = (board: Board, shop: Shop = DEFAULT_SHOP, others: readonly WorkDue[] = []): Rescue[] =>
  rescuesFor({
    board: 'own',
    input: planInput(board, RACK, shop),
    boards: [...others, dueOf('own', board, shop)],
    shop,
    zone: 'UTC',
    from: FROM,
    order: [],
  });
const kinds = (rescues: readonly Rescue[]) => rescues.map((r) => r.changes.map((c) => c.what).join('+'));
const by = (day: string, cured = true) => ({ day, time: null, cured });

describe('what would save a day', () => {
  it('a finish that hardens for weeks: another one, or the board given dry with a note; the figures are those of the plan with it', () => {
    const board = bread({ finish: ['drying-oil'], due: by('2026-12-08') });
    const ways = rescue(board);
    expect(ways.length).toBeGreaterThan(1);
    // Where something makes the day, only that is told, the smaller change before the larger.
    for (const way of ways) {
      expect(way.late).toBeLessThanOrEqual(0);
      // Planned anew from nothing, the board with its change is done when it was said.
      const changed = way.changes.reduce(boardWith, board);
      const shop = way.changes.reduce(shopWith, DEFAULT_SHOP);
      const again = firstSchedule(shopProblem([dueOf('own', changed, shop)], shop, 'UTC', FROM));
      expect(again.boards.get('own')!.late).toBeCloseTo(way.late, 6);
    }
    expect(new Set(kinds(ways))).toEqual(new Set(['finish', 'uncured']));
  });

  it('only the hours: evenings more, and no more of them than it takes', () => {
    const hours = [{ from: '09:00', to: '11:00' }, null, null, null, null, null, null];
    const shop: Shop = { ...DEFAULT_SHOP, hours };
    const ways = rescue(bread({ due: by('2026-12-09', false) }), shop);
    const evenings = ways.find((w) => w.changes[0]!.what === 'evenings');
    expect(evenings).toBeDefined();
    const [change] = evenings!.changes;
    if (change?.what !== 'evenings') throw new Error('Something else changes.');
    // One evening fewer would not do.
    const fewer = shopWith(shop, { ...change, open: change.open.slice(0, -1) });
    const late = firstSchedule(
      shopProblem([dueOf('own', bread({ due: by('2026-12-09', false) }), fewer)], fewer, 'UTC', FROM),
    );
    expect(late.boards.get('own')!.late!).toBeGreaterThan(0);
    // They lie on days on which the shop is shut.
    for (const { day } of change.open) expect(new Date(`${day}T00:00:00Z`).getUTCDay()).not.toBe(1);
  });

  it('another board before it: that one waits, and it is said which becomes late with a change', () => {
    const hours = Array.from({ length: 7 }, () => ({ from: '18:00', to: '20:00' }));
    const shop: Shop = { ...DEFAULT_SHOP, hours };
    const alone = firstSchedule(shopProblem([dueOf('own', bread(), shop)], shop, 'UTC', FROM)).boards.get('own')!;
    const day = new Date(alone.handled * 60_000).toISOString().slice(0, 10);
    const other = dueOf('other', bread({ name: 'Other', due: by(day, false) }), shop);
    const ways = rescue(bread({ due: by(day, false) }), shop, [other]);
    // The other came first in the order; behind this one it is no longer before it, and that is told.
    const later = ways.find((w) => w.changes[0]!.what === 'later')!;
    expect(later.late).toBeLessThanOrEqual(0);
    expect(later.changes).toEqual([{ what: 'later', board: 'other', name: 'Other' }]);
  });

  it('a day that is past, or no day at all: nothing saves it', () => {
    expect(rescue(bread({ due: by('2026-11-01') })).every((w) => w.late > 0)).toBe(true);
    expect(rescue(bread())).toEqual([]);
  });
});

describe('a change that is taken', () => {
  it('changes what it is about, and nothing else', () => {
    const board = bread({ due: by('2026-12-08') });
    const uncured = boardWith(board, { what: 'uncured' });
    expect(uncured).toEqual({ ...board, due: { ...board.due, cured: false }, pack: [UNCURED_NOTE] });
    expect(boardWith(uncured, { what: 'uncured' }).pack).toEqual([UNCURED_NOTE]);
    expect(boardWith(board, { what: 'glue', glue: 'waterproof', name: '' }).differs.glue).toBe('waterproof');
    expect(boardWith(board, { what: 'later', board: 'x', name: '' })).toBe(board);
    const more = shopWith(DEFAULT_SHOP, { what: 'clamps', clamp: 'pipe', more: 3 });
    expect(more.clamps.map((c) => c.count)).toEqual([11]);
    expect({ ...more, clamps: DEFAULT_SHOP.clamps }).toEqual(DEFAULT_SHOP);
    expect(shopWith(DEFAULT_SHOP, { what: 'uncured' })).toBe(DEFAULT_SHOP);
  });
});
