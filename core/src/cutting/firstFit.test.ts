import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demandsFor } from '../saw/demands.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';
import { cutProblemFor } from '../saw/cutForBoard.ts';
import { demandKey } from '../saw/demandKey.ts';
import { partsAcross, widestPart } from './rips.ts';
import { auditCut, volumeAccount } from './auditCut.ts';

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
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5000 }),
        fc.integer({ min: 1, max: 800 }),
        fc.integer({ min: 0, max: 6 }),
        (usable, size, kerf) => {
          const k = partsAcross(usable, size, kerf);
          if (k > 0) expect(k * size + (k - 1) * kerf).toBeLessThanOrEqual(usable + 1e-6);
          expect((k + 1) * size + k * kerf).toBeGreaterThan(usable);
        },
      ),
    );
  });
});

describe('firstFit', () => {
  it('never cuts where it must not, and places or reports every demand once', () => {
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const { cutting, allowances, shop } = makePlan(input);
        expect(auditCut(cutting.blanks, input.rack, [], shop)).toEqual([]);
        // A search for better saws as this board does, not as the shop usually does.
        expect(cutProblemFor([{ key: '', board: input.board, done: [] }], { ...input, promised: [] }).shop).toBe(shop);
        const met = cutting.blanks.flatMap((b) => b.strips.map((s) => demandKey(s.demand)));
        expect(new Set(met).size).toBe(met.length);
        const short = cutting.shortages.reduce((sum, s) => sum + s.parts, 0);
        // Spares are only wished for: what of them finds no place is no shortage.
        const demands = demandsFor(input.board, allowances, input.shop);
        const placed = (spare: boolean) =>
          cutting.blanks.flatMap((b) => b.strips).filter((s) => s.demand.spare > 0 === spare).length;
        expect(placed(false) + short).toBe(demands.filter((d) => d.spare === 0).length);
        expect(placed(true)).toBeLessThanOrEqual(demands.filter((d) => d.spare > 0).length);
      }),
    );
  });

  it('conserves volume: stock is strips, what is kept, kerfs and waste, to a millionth', () => {
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const { cutting, shop } = makePlan(input);
        for (const piece of input.rack) {
          const of = (x: { pieceId: string; unit: number }) => x.pieceId === piece.id && x.unit === 0;
          const blanks = cutting.blanks.filter(of);
          if (blanks.length === 0) continue;
          const { stock, strips, kept, kerf, waste } = volumeAccount(piece, blanks, cutting.leftovers.filter(of), shop);
          expect((strips + kept + kerf + waste) / stock).toBeCloseTo(1, 6);
          for (const part of [strips, kept, kerf]) expect(part).toBeGreaterThanOrEqual(0);
          expect(waste).toBeGreaterThanOrEqual(-1e-6 * stock);
        }
      }),
    );
  });

  it.each([
    ['noSpecies', plainPiece({ species: 'walnut-black' }), 0],
    // Edge grain: 46 wide strips want 46 planed; 40 rough gives 36.8.
    ['tooThin', plainPiece({ thickness: 40 }), 46 - 36.8],
    ['tooNarrow', plainPiece({ width: 30 }), 32 - 28],
    ['tooShort', plainPiece({ length: 420 }), 429 - 400],
    ['usedUp', plainPiece({ length: 450, width: 70 }), 0],
    [
      'defects',
      plainPiece({
        length: 460,
        defects: [
          { id: 'd', kind: 'knot', face: 'up', from: 200, across: 0, length: 30, width: 150, treatment: 'cut' },
        ],
      }),
      0,
    ],
  ] as const)('says %s and by how much', (reason, piece, shortBy) => {
    const [shortage] = makePlan(planInput(plainBoard(), [piece])).cutting.shortages;
    expect(shortage?.reason).toBe(reason);
    expect(shortage?.shortBy).toBeCloseTo(shortBy, 9);
  });

  it('takes the offcut before the plank', () => {
    const { blanks } = makePlan(
      planInput(plainBoard({}, [46]), [
        plainPiece({ length: 450 }),
        plainPiece({ id: 'offcut', mark: 'O', length: 460, origin: { kind: 'offcut', of: 'P0' } }),
      ]),
    ).cutting;
    expect(blanks.map((b) => b.pieceId)).toEqual(['offcut']);
  });

  it('leaves what is long enough to the rack', () => {
    const { leftovers, score } = makePlan(
      planInput(plainBoard({}, [46]), [plainPiece({ price: { amount: 1000, per: 'cubicMetre' } })]),
    ).cutting;
    // Behind the blank 10 + 429 + 3; beside its one rip 150 - 2 - 32 - 3, which is wide and long enough to keep.
    expect(leftovers.filter((l) => l.kept)).toEqual([
      { pieceId: 'p1', unit: 0, from: 442, length: 1558, across: 0, width: 150, side: false, kept: true },
      { pieceId: 'p1', unit: 0, from: 10, length: 429, across: 37, width: 113, side: true, kept: true },
    ]);
    // By hand: 442 mm of 150 x 50 at 1000 a cubic metre, less half of the offcut 429 x 113 x 50.
    expect(score.wood).toBeCloseTo((442 * 150 * 50 - 0.5 * 429 * 113 * 50) / 1e6, 9);
    expect(score).toMatchObject({ pieces: 0.2, planks: 0.5, leftovers: 0.2 });
  });
});
