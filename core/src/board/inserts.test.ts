import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { plainBoard } from '../plan/planArbitrary.ts';
import { boardSchema } from './board.ts';
import { againOf, panelBoardOf } from './again.ts';
import { crossings, cutAxes, insertsOf, insetOf } from './inset.ts';
import { withInsert, withInsertChanged, withInsertInGap, withoutInsert, type Wanted } from './inserts.ts';
import { asLook, lookOf, LOOKS } from './looks.ts';
import {
  cutStripsOf,
  isCutAgain,
  looseStripsOf,
  panelRecipe,
  panelsOfRecipe,
  recipeProblems,
  stripsOf,
  withStrips,
} from './recipe.ts';

const six = plainBoard();
const tenths = (least: number, most: number) => fc.integer({ min: least * 10, max: most * 10 }).map((n) => n / 10);
const wanted: fc.Arbitrary<Wanted> = fc.record({
  species: fc.constantFrom('maple-hard', 'walnut-black'),
  width: tenths(2, 60),
  at: tenths(0, 400),
  angle: fc.oneof(fc.constant(0), tenths(-60, 60)),
  jog: tenths(-20, 20),
});
const put = (list: readonly Wanted[]) => list.reduce((so, one) => withInsert(so, one), six);

describe('strips are put in and taken out', () => {
  it('every board of it is one that can be saved; ids are its own; the panel is what it was', () => {
    fc.assert(
      fc.property(fc.array(wanted, { minLength: 1, maxLength: 6 }), (list) => {
        const board = put(list);
        expect(recipeProblems(board.recipe)).toEqual([]);
        expect(boardSchema.safeParse(board).success).toBe(true);
        expect(stripsOf(board)).toEqual(stripsOf(six));
        expect(panelRecipe(board.recipe)).toEqual(six.recipe);
        expect(looseStripsOf(board).map((s) => [s.species, s.width])).toEqual(list.map((w) => [w.species, w.width]));
        expect(cutStripsOf(board)).toEqual([...stripsOf(board), ...looseStripsOf(board)]);
        expect(insertsOf(board.recipe).map((i) => i.operation.at)).toEqual(list.map((w) => w.at));
      }),
    );
  });

  it('taken out in any order the board is as it was', () => {
    fc.assert(
      fc.property(fc.array(wanted, { minLength: 1, maxLength: 5 }), fc.infiniteStream(fc.nat()), (list, choice) => {
        let board = put(list);
        for (const pick of choice) {
          const left = insertsOf(board.recipe);
          if (left.length === 0) break;
          board = withoutInsert(board, left[pick % left.length]!.operation.id);
          expect(recipeProblems(board.recipe)).toEqual([]);
          expect(insertsOf(board.recipe)).toHaveLength(left.length - 1);
        }
        expect(board.recipe).toEqual(six.recipe);
      }),
      { numRuns: 50 },
    );
  });

  it('one is changed and no other; a name that nothing has changes nothing', () => {
    const two = put([
      { species: 'maple-hard', width: 10, at: 100, angle: 0, jog: 0 },
      { species: 'maple-hard', width: 10, at: 200, angle: 0, jog: 0 },
    ]);
    const [first, second] = insertsOf(two.recipe);
    const changed = withInsertChanged(two, first!.operation.id, { width: 14, angle: 20, species: 'walnut-black' });
    const [now, other] = insertsOf(changed.recipe);
    expect([now!.strip.width, now!.strip.species, now!.operation.angle, now!.operation.at]).toEqual([
      14,
      'walnut-black',
      20,
      100,
    ]);
    expect(other).toEqual(second);
    expect(withInsertChanged(two, 'nobody', { at: 5 })).toBe(two);
    expect(withoutInsert(two, 'nobody')).toBe(two);
  });

  it('where nothing is laid out, or a panel is sliced, nothing is put in', () => {
    const one: Wanted = { species: 'maple-hard', width: 10, at: 100, angle: 0, jog: 0 };
    const empty = { ...six, recipe: [] };
    expect(withInsert(empty, one)).toBe(empty);
    const end = asLook(six, 'endGrain');
    expect(withInsert(end, one)).toBe(end);
  });

  it('other strips in the panel: what is put in stays, even where an id meets its own', () => {
    const board = put([{ species: 'walnut-black', width: 10, at: 100, angle: 15, jog: 3 }]);
    const own = looseStripsOf(board)[0]!;
    const others = stripsOf(six).map((s, i) => ({ ...s, id: i === 0 ? own.id : s.id }));
    const relaid = withStrips(board, others);
    expect(recipeProblems(relaid.recipe)).toEqual([]);
    expect(stripsOf(relaid).map((s) => s.id)).toEqual(others.map((s) => s.id));
    expect(looseStripsOf(relaid)).toMatchObject([{ species: 'walnut-black', width: 10 }]);
    expect(insertsOf(relaid.recipe)).toMatchObject([{ operation: { at: 100, angle: 15, jog: 3 } }]);
    // Without any strip the board is no board, and keeps what it will be.
    const none = withStrips(board, []);
    expect([stripsOf(none), insertsOf(none.recipe).length, recipeProblems(none.recipe)]).toEqual([[], 1, []]);
    expect(stripsOf(withStrips(none, stripsOf(six)))).toEqual(stripsOf(six));
  });
});

describe('one more strip', () => {
  it('lies in the middle of the widest gap that the others leave, whatever their order', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 5, max: 395 }), { maxLength: 5 }), (places) => {
        const like = { species: 'walnut-black', width: 10, angle: 15 };
        const board = put(places.map((at) => ({ ...like, at, jog: 2 })));
        const before = new Set(insertsOf(board.recipe).map((i) => i.operation.id));
        const more = insertsOf(withInsertInGap(board, 400, like).recipe).find((i) => !before.has(i.operation.id))!;
        expect(more.operation).toMatchObject({ angle: 15, jog: 0 });
        const edges = [0, ...places, 400].sort((a, b) => a - b);
        const widest = Math.max(...edges.slice(1).map((to, i) => to - edges[i]!));
        expect(Math.min(...edges.map((e) => Math.abs(e - more.operation.at)))).toBeCloseTo(widest / 2, 9);
      }),
    );
  });
});

describe('looks', () => {
  it.each([
    ['banded', 2, 0],
    ['split', 1, 30],
  ] as const)('%s begins with what it puts in, and goes back to flat without a trace', (look, count, angle) => {
    const made = asLook(six, look);
    expect([lookOf(made), isCutAgain(made)]).toEqual([look, true]);
    expect(insertsOf(made.recipe).map((i) => i.operation.angle)).toEqual(Array(count).fill(angle));
    expect(asLook(made, 'edge').recipe).toEqual(six.recipe);
    for (const to of LOOKS) expect(recipeProblems(asLook(made, to).recipe)).toEqual([]);
    expect(lookOf(asLook(made, 'endGrain'))).toBe('endGrain');
  });

  it('a reader of inches begins with inches', () => {
    const sixteenths = (mm: number) => (mm * 16) / 25.4;
    for (const look of ['banded', 'split', 'framed'] as const)
      for (const strip of looseStripsOf(asLook(six, look, 'inch')))
        expect(sixteenths(strip.width)).toBeCloseTo(Math.round(sixteenths(strip.width)), 9);
    expect(sixteenths(panelsOfRecipe(asLook(six, 'endGrain', 'inch').recipe)[0]!.thickness!)).toBeCloseTo(20, 9);
  });

  it('bands lie alike from both ends, and on a short board leave a middle; of another wood than the edges where there is one', () => {
    const at = (length: number) => insertsOf(asLook({ ...six, length }, 'banded').recipe).map((i) => i.operation.at);
    const [left, right] = at(600);
    // 7 in to the band, half of it more to its middle.
    expect(left).toBeCloseTo(7 * 25.4 + 10, 9);
    expect(right).toBeCloseTo(600 - left!, 9);
    expect(at(210)).toEqual([80, 130]);
    const mixed = withStrips(
      six,
      stripsOf(six).map((s, i) => ({ ...s, species: i === 2 ? 'walnut-black' : s.species })),
    );
    expect(looseStripsOf(asLook(mixed, 'banded')).map((s) => s.species)).toEqual(['walnut-black', 'walnut-black']);
    expect(asLook({ ...six, recipe: [] }, 'banded').recipe).toEqual([]);
  });
});

describe('what is read backward', () => {
  it('parts, cuts and panel add up to the block, for any strips: along at every height, and across', () => {
    fc.assert(
      fc.property(fc.array(wanted, { minLength: 1, maxLength: 4 }), (list) => {
        const board = put(list);
        const inset = insetOf(board, DEFAULT_SHOP)!;
        expect(insetOf(board, DEFAULT_SHOP)).toBe(inset);
        expect(againOf(board, DEFAULT_SHOP)).toBe(inset);
        const ats = inset.inserts.map((i) => i.operation.at);
        expect(ats).toEqual([...ats].sort((a, b) => a - b));
        let [x, y] = [0, 0];
        for (const insert of inset.inserts) {
          expect(insert.before).toEqual([x, y]);
          x += insert.moved[0];
          y += insert.moved[1];
          expect(insert.moved[1]).toBe(insert.jog);
          // Pressed on the strip: square to the cut it moves by the strip less the kerf.
          const { square } = cutAxes(insert.angle);
          expect(insert.moved[0] * square[0] + insert.moved[1] * square[1]).toBeCloseTo(insert.width - insert.kerf, 9);
          const [from, to] = [crossings(insert, inset), crossings(insert, inset, 'behind')];
          expect((to.far - from.far) * square[0]).toBeCloseTo(insert.kerf, 9);
          expect(from.far - from.near).toBeCloseTo(inset.trueWidth * (square[1] / square[0]), 9);
        }
        expect(inset.panelLength + x).toBeCloseTo(inset.block.length, 9);
        expect(inset.block.width + inset.steps).toBeCloseTo(inset.trueWidth, 9);
        const panel = panelBoardOf(board, DEFAULT_SHOP);
        expect([panel.width, panel.thickness, panel.count]).toEqual([inset.trueWidth, inset.thickness, board.count]);
        expect(cutStripsOf(panel)).toEqual(cutStripsOf(board));
      }),
    );
  });
});
