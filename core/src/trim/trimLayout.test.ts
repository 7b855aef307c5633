import fc from 'fast-check';
import { expect, it } from 'vitest';
import { makePlan } from '../plan/plan.ts';
import { planInputArbitrary } from '../plan/planArbitrary.ts';

it('boards lie inside the panel, clear of creep and snipe, and boards, kerfs and trims add up to its area', () => {
  fc.assert(
    fc.property(planInputArbitrary, (input) => {
      const { allowances, shop, strips, ladders, trim } = makePlan(input);
      if (strips.length === 0) return;
      const { length, width, boards, others, missing, missingOthers, creep, snipe, cuts } = trim;
      const { kerf } = shop.crosscutSaw;
      expect([boards.length, missing]).toEqual([allowances.panels[0]!.boards, 0]);
      // Only what is wider than the trimmed panel finds no room: it is glued long enough for all.
      expect(missingOthers).toBe(
        input.board.worked.others.filter((o) => o.width > ladders.width.reached + 1e-6).length,
      );
      const all = [...boards, ...others].sort((a, b) => a.x - b.x);
      for (const [i, b] of all.entries()) {
        expect([
          b.x >= Math.max(creep, snipe) + kerf - 1e-9,
          b.x + b.length + kerf + Math.max(creep, snipe) <= length + 1e-9,
          b.y >= -1e-9,
          b.y + b.width <= width + 1e-9,
        ]).toEqual([true, true, true, true]);
        if (i > 0) expect(b.x - all[i - 1]!.x - all[i - 1]!.length).toBeCloseTo(kerf, 9);
      }
      for (const b of boards)
        expect([b.length, b.width]).toEqual([input.board.length, expect.closeTo(ladders.width.reached, 9)]);
      // Nothing of the panel is lost: what is cut out, what is trimmed beside it, kerfs between, and both ends.
      const [first, last] = [all[0]!, all.at(-1)!];
      const beside = all.reduce((sum, b) => sum + b.length * (width - b.width), 0);
      const ends = width * (first.x + length - last.x - last.length);
      expect(
        all.reduce((sum, b) => sum + b.length * b.width, 0) + beside + (all.length - 1) * kerf * width + ends,
      ).toBeCloseTo(length * width, 3);
      expect(cuts.filter((c) => c.from === undefined).map((c) => c.along)).toEqual([
        'edge',
        'edge',
        ...Array<string>(all.length + 1).fill('end'),
      ]);
      expect(cuts.map((c) => c.number)).toEqual(cuts.map((_, i) => i + 1));
    }),
  );
});
