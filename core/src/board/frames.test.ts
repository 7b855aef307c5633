import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainBoard } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { FRAME_SIDES, frameOf, framedAround, framesOf, frameStrips, insideOf, overOf } from './frame.ts';
import { ringOf, withFrame, withFrameChanged, withFrameMoved, withInside, withoutFrame } from './frames.ts';
import { withInsert } from './inserts.ts';
import { asLook, LOOKS, lookOf, withoutSlices, withSlices } from './looks.ts';
import { framedBoard, insetBoard, recutBoard, type RingChoice } from './recutForTests.ts';
import { cutStripsOf, looseStripsOf, recipeProblems, stripsOf, withStrips } from './recipe.ts';
import { rowsOf } from './again.ts';

const plain = () => plainBoard({ length: 400, width: 250, thickness: 25 }, [40, 40, 40, 40, 40, 40]);
const species = fc.constantFrom('maple-hard', 'walnut-black');
const ring = fc.record({ species, sides: fc.integer({ min: 3, max: 60 }), ends: fc.integer({ min: 3, max: 60 }) });
const rings = fc.array(ring, { minLength: 1, maxLength: 4 });
const insides = fc.constantFrom(
  plain(),
  recutBoard(plain()),
  insetBoard(plain(), [{ species: 'walnut-black', width: 10, at: 150, angle: 0, jog: 0 }]),
);
const framed = (board: ReturnType<typeof plain>, all: { species: string; sides: number; ends: number }[]) =>
  all.reduce((so, r) => withFrame(so, ringOf(r.species, r.sides, r.ends)), board);
const widths = (board: ReturnType<typeof plain>) =>
  framesOf(board.recipe).map(({ strips }) => FRAME_SIDES.map((side) => strips[side].width));

describe('rings round a board', () => {
  it('put on, changed, moved and taken off, a recipe is always one, and what is inside stays', () => {
    fc.assert(
      fc.property(insides, rings, fc.nat(), fc.constantFrom(1 as const, -1 as const), (board, all, which, by) => {
        const made = framed(board, all);
        expect(recipeProblems(made.recipe)).toEqual([]);
        expect(framesOf(made.recipe)).toHaveLength(all.length);
        expect(stripsOf(made)).toEqual(stripsOf(board));
        const ids = framesOf(made.recipe).map((f) => f.operation.id);
        const id = ids[which % ids.length]!;
        const moved = withFrameMoved(made, id, by);
        expect(recipeProblems(moved.recipe)).toEqual([]);
        expect(widths(moved).map(String).sort()).toEqual(widths(made).map(String).sort());
        // There and back again it is as it was.
        const there = framesOf(moved.recipe)[ids.indexOf(id) + by]?.operation.id;
        if (there !== undefined) expect(widths(withFrameMoved(moved, there, by === 1 ? -1 : 1))).toEqual(widths(made));
        const wider = withFrameChanged(made, id, { strips: { left: { width: 77 } }, first: 'ends' });
        expect(recipeProblems(wider.recipe)).toEqual([]);
        expect(
          widths(wider)
            .flat()
            .filter((w) => w === 77),
        ).toHaveLength(1);
        const less = withoutFrame(made, id);
        expect(recipeProblems(less.recipe)).toEqual([]);
        expect(looseStripsOf(less).length).toBe(looseStripsOf(made).length - 4);
        // All of them off: the board as it was.
        expect(ids.reduce((so, one) => withoutFrame(so, one), made).recipe).toEqual(board.recipe);
      }),
      { numRuns: 100 },
    );
  });

  it('other strips inside leave the frame round them; a board without strips takes none', () => {
    const made = framed(plain(), [{ species: 'walnut-black', sides: 20, ends: 30 }]);
    const other = withStrips(made, stripsOf(made).slice(0, 2));
    expect(recipeProblems(other.recipe)).toEqual([]);
    expect(widths(other)).toEqual([[20, 20, 30, 30]]);
    const empty = { ...plain(), recipe: [] };
    expect(withFrame(empty, ringOf('walnut-black', 20))).toBe(empty);
    // Nothing left to go round: laid out anew it has its frame again.
    const none = withStrips(made, []);
    expect(recipeProblems(none.recipe)).toEqual([]);
    expect(widths(withStrips(none, stripsOf(plain())))).toEqual([[20, 20, 30, 30]]);
  });

  it('strips are put in, and slices made, inside of the frame', () => {
    const made = framed(plain(), [{ species: 'walnut-black', sides: 20, ends: 20 }]);
    const band = withInsert(made, { species: 'maple-hard', width: 12, at: 100, angle: 0, jog: 0 });
    const sliced = withSlices(made);
    for (const board of [band, sliced]) {
      expect(recipeProblems(board.recipe)).toEqual([]);
      expect(board.recipe.at(-1)!.kind).toBe('frame');
      expect(widths(board)).toEqual([[20, 20, 20, 20]]);
    }
    expect(lookOf(sliced)).toBe('endGrain');
    expect(withSlices(band)).toEqual(band);
    expect(withoutSlices(sliced).recipe.map((o) => o.kind)).toEqual(made.recipe.map((o) => o.kind));
    expect(lookOf(withoutSlices(sliced))).toBe('framed');
    // An id that the frame has already gives way.
    const clash = {
      ...made,
      recipe: made.recipe.map((o) => (o.kind === 'strip' && o.id === 'frame-strip-1' ? { ...o, id: 'slices' } : o)),
    };
    const renamed = withSlices({
      ...clash,
      recipe: clash.recipe.map((o) =>
        o.kind === 'frame' ? { ...o, takes: o.takes.map((t) => (t === 'frame-strip-1' ? 'slices' : t)) } : o,
      ),
    });
    expect(recipeProblems(renamed.recipe)).toEqual([]);
    expect(withInside(plain(), (b) => b)).toEqual(plain());
  });

  it('framed is a look that is begun from any other, and left for any other', () => {
    for (const look of LOOKS) {
      const from = asLook(plain(), look);
      const made = asLook(from, 'framed');
      expect([look, lookOf(made), recipeProblems(made.recipe)]).toEqual([look, 'framed', []]);
      expect(lookOf(asLook(made, look))).toBe(look === 'face' ? 'edge' : look);
    }
  });
});

describe('what a frame asks', () => {
  const RING: RingChoice = { species: 'walnut-black', widths: [10, 12, 14, 16], first: 'sides' };
  const trim = DEFAULT_SHOP.habits.panelEdgeTrim;

  it('rings lie round each other; strips of the pair that is glued first are covered by the other', () => {
    const frame = frameOf(framedBoard(plain(), [RING, { ...RING, first: 'ends' }]), DEFAULT_SHOP)!;
    const [inner, outer] = frame.rings;
    expect(outer!.inner).toEqual(inner!.outer);
    expect(frame.block).toEqual({ length: 400 + 2 * trim, width: 250 + 2 * trim });
    expect(inner!.pairs.map((p) => p.map((s) => s.side))).toEqual([
      ['far', 'near'],
      ['left', 'right'],
    ]);
    expect(inner!.pairs[0].map((s) => s.covers)).toEqual([inner!.inner.length, inner!.inner.length]);
    expect(inner!.pairs[1].map((s) => s.covers)).toEqual([inner!.outer.width, inner!.outer.width]);
    expect(outer!.pairs[0].map((s) => [s.side, s.covers])).toEqual([
      ['left', outer!.inner.width],
      ['right', outer!.inner.width],
    ]);
    expect(outer!.pairs[1].map((s) => s.covers)).toEqual([outer!.outer.length, outer!.outer.length]);
    expect(insideOf(inner!)).toEqual({ x: 14, y: 10 });
    for (const s of frameStrips(frame)) expect(overOf(s)).toBeCloseTo(DEFAULT_SHOP.habits.creep / 2, 9);
    // Numbered after all strips of the panel.
    expect(
      frameStrips(frame)
        .map((s) => s.number)
        .sort((a, b) => a - b),
    ).toEqual([7, 8, 9, 10, 11, 12, 13, 14]);
    expect(cutStripsOf(framedBoard(plain(), [RING]))).toHaveLength(10);
  });

  it('round a smaller field than asked its strips reach further over, and the whole is smaller by as much', () => {
    const frame = frameOf(framedBoard(plain(), [RING]), DEFAULT_SHOP)!;
    const { length, width } = frame.field;
    const made = framedAround(frame, { length: length - 10, width: width - 20 });
    expect(made.block).toEqual({ length: frame.block.length - 10, width: frame.block.width - 20 });
    expect(made.rings[0]!.pairs[0].map(overOf)).toEqual(
      frame.rings[0]!.pairs[0].map((s) => expect.closeTo(overOf(s) + 5, 9) as number),
    );
    expect(made.rings[0]!.pairs[1].map(overOf)).toEqual(
      frame.rings[0]!.pairs[1].map((s) => expect.closeTo(overOf(s) + 10, 9) as number),
    );
  });

  it('rows inside are as many as the field asks', () => {
    const rows = rowsOf(framedBoard(recutBoard(plain()), [{ ...RING, widths: [20, 20, 35, 35] }]), DEFAULT_SHOP)!;
    // 400 and two trims of 3, less two ends of 35, in rows of 30.
    expect(rows.rows).toBe(Math.ceil((400 + 2 * trim - 70) / 30));
    expect(rowsOf(recutBoard(plain()), DEFAULT_SHOP)!.rows).toBe(14);
  });
});
