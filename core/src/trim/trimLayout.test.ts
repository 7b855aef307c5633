import fc from 'fast-check';
import { expect, it } from 'vitest';
import { makePlan } from '../plan/plan.ts';
import { planInputArbitrary } from '../plan/planArbitrary.ts';
import { trimLayout } from './trimLayout.ts';

it('boards lie inside the panel, clear of creep and snipe, and boards, kerfs and trims add up to its area', () => {
  fc.assert(fc.property(planInputArbitrary, (input) => {
    const { allowances, shop, strips, ladders } = makePlan(input);
    if (strips.length === 0) return;
    const { length, width, boards, creep, snipe, cuts } = trimLayout(input.board, allowances, shop);
    const kerf = shop.saw.kerf;
    expect(boards).toHaveLength(allowances.panels[0]!.boards);
    for (const [i, b] of boards.entries()) {
      expect([b.x >= Math.max(creep, snipe) + kerf - 1e-9, b.x + b.length + kerf + Math.max(creep, snipe) <= length + 1e-9, b.y >= -1e-9, b.y + b.width <= width + 1e-9]).toEqual([true, true, true, true]);
      if (i > 0) expect(b.x - boards[i - 1]!.x - b.length).toBeCloseTo(kerf, 9);
      expect(b.length).toBe(input.board.length);
      expect(b.width).toBeCloseTo(ladders.width.reached, 9);
    }
    const [first, last] = [boards[0]!, boards.at(-1)!];
    const trims = width * (first.x + length - last.x - last.length) + 2 * first.y * (last.x + last.length - first.x);
    const kerfs = (boards.length - 1) * kerf * first.width;
    expect(boards.reduce((sum, b) => sum + b.length * b.width, 0) + trims + kerfs).toBeCloseTo(length * width, 3);
    expect(cuts.map((c) => c.along)).toEqual(['edge', 'edge', ...Array<string>(boards.length + 1).fill('end')]);
  }));
});
