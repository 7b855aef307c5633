import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demandsFor } from '../plan/demands.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { partsAcross, widestPart } from './rips.ts';
import { usableSize } from './usable.ts';

const inch = (n: number) => n * 25.4;

describe('counts (common practice)', () => {
  it('a 2 3/4 in offcut rips into two strips just under 1 1/4 in with a 1/8 in kerf, once 1/8 in went for a straight edge', () => {
    const usable = inch(2.75 - 1 / 8);
    expect(widestPart(usable, 2, inch(1 / 8))).toBeCloseTo(inch(1.25), 9);
    expect(partsAcross(usable, inch(1.249), inch(1 / 8))).toBe(2);
    expect(partsAcross(usable, inch(1.251), inch(1 / 8))).toBe(1);
  });

  it('three 17 in boards with half an inch to spare each come from 4 1/2 ft, four do not', () => {
    expect(partsAcross(inch(54), inch(17.5), inch(1 / 8))).toBe(3);
  });

  it('parts and kerfs fill what there is, and one more would not fit', () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 5000 }), fc.integer({ min: 1, max: 800 }), fc.integer({ min: 0, max: 6 }), (usable, size, kerf) => {
      const k = partsAcross(usable, size, kerf);
      if (k > 0) expect(k * size + (k - 1) * kerf).toBeLessThanOrEqual(usable + 1e-6);
      expect((k + 1) * size + k * kerf).toBeGreaterThan(usable);
    }));
  });
});

describe('firstFit', () => {
  it('cuts inside the usable piece, with a kerf between neighbours, every demand once', () => {
    fc.assert(fc.property(planInputArbitrary, (input) => {
      const { cutting, allowances } = makePlan(input);
      const { kerf } = input.shop.saw;
      const met = new Set<string>();
      for (const blank of cutting.blanks) {
        const piece = input.rack.find((p) => p.id === blank.pieceId)!;
        const usable = usableSize(piece, input.shop.habits);
        const trim = input.shop.habits.stockEndTrim;
        expect(blank.from).toBeGreaterThanOrEqual(trim);
        expect(blank.from + blank.length).toBeLessThanOrEqual(piece.length - trim + 1e-6);
        let next = 0;
        for (const { demand, from } of blank.strips) {
          expect(from).toBeCloseTo(next, 6);
          next = from + demand.rip + kerf;
          expect(from + demand.rip).toBeLessThanOrEqual(usable.width + 1e-6);
          expect(demand.species).toBe(piece.species);
          if (input.board.construction === 'edge') expect(demand.thickness).toBeLessThanOrEqual(usable.thickness + 1e-6);
          met.add(`${demand.copy}.${demand.strip}`);
        }
      }
      for (const piece of input.rack) {
        const mine = cutting.blanks.filter((b) => b.pieceId === piece.id);
        mine.slice(1).forEach((blank, i) => expect(blank.from - (mine[i]!.from + mine[i]!.length)).toBeCloseTo(kerf, 6));
      }
      const short = cutting.shortages.reduce((sum, s) => sum + s.parts, 0);
      expect(met.size + short).toBe(demandsFor(input.board, allowances).length);
    }));
  });

  it('conserves length, width and volume: trims, blanks, kerfs and leftovers make up the piece', () => {
    fc.assert(fc.property(planInputArbitrary, (input) => {
      const { cutting } = makePlan(input);
      const { saw: { kerf }, habits } = input.shop;
      for (const leftover of cutting.leftovers) {
        const piece = input.rack.find((p) => p.id === leftover.pieceId)!;
        const usable = usableSize(piece, habits);
        const blanks = cutting.blanks.filter((b) => b.pieceId === piece.id);
        const section = piece.width * piece.thickness;
        let volume = habits.stockEndTrim * section + leftover.length * section;
        for (const blank of blanks) {
          const rips = blank.strips.reduce((sum, s) => sum + s.demand.rip, 0);
          const between = (blank.strips.length - 1) * kerf;
          // The last kerf may run out of the wood: what is beside the last rip is kerf and leftover, or only part of a kerf.
          const beside = usable.width - rips - between;
          expect(beside).toBeGreaterThanOrEqual(-1e-6);
          expect(blank.leftoverWidth).toBeCloseTo(Math.max(0, beside - kerf), 6);
          const ripped = habits.stockEdgeJoint + rips + between + Math.min(kerf, beside) + blank.leftoverWidth;
          volume += blank.length * ripped * piece.thickness + kerf * section;
        }
        expect(volume / (piece.length * section)).toBeCloseTo(1, 9);
        expect(leftover.length).toBeGreaterThanOrEqual(0);
      }
      expect(cutting.leftovers.map((l) => l.pieceId).sort()).toEqual([...new Set(cutting.blanks.map((b) => b.pieceId))].sort());
    }));
  });

  it.each([
    ['noSpecies', plainPiece({ species: 'walnut-black' }), 0],
    // Edge grain: 46 wide strips want 46 planed; 40 rough gives 36.8.
    ['tooThin', plainPiece({ thickness: 40 }), 46 - 36.8],
    ['tooNarrow', plainPiece({ width: 30 }), 32 - 28],
    ['tooShort', plainPiece({ length: 420 }), 429 - 400],
    ['usedUp', plainPiece({ length: 450, width: 70 }), 0],
  ] as const)('says %s and by how much', (reason, piece, shortBy) => {
    const [shortage] = makePlan(planInput(plainBoard(), [piece])).cutting.shortages;
    expect(shortage?.reason).toBe(reason);
    expect(shortage?.shortBy).toBeCloseTo(shortBy, 9);
  });

  it('takes the offcut before the plank', () => {
    const { blanks } = makePlan(planInput(plainBoard({}, [46]), [plainPiece(), plainPiece({ id: 'offcut', mark: 'O', length: 460 })])).cutting;
    expect(blanks.map((b) => b.pieceId)).toEqual(['offcut']);
  });

  it('leaves what is long enough to the rack', () => {
    const { leftovers } = makePlan(planInput(plainBoard({}, [46]), [plainPiece()])).cutting;
    expect(leftovers).toEqual([{ pieceId: 'p1', length: 2000 - 10 - 429 - DEFAULT_SHOP.saw.kerf, kept: true }]);
  });
});
