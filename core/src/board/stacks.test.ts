import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainBoard } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { canJoin, evenOut, repeatStrips, reverseStrips } from './arrange.ts';
import { flatPart } from './accents.ts';
import { boardSchema, type Board } from './board.ts';
import { withBack } from './backs.ts';
import { ringOf, withFrame } from './frames.ts';
import { withInsert } from './inserts.ts';
import { asLook, LOOKS, withSlices } from './looks.ts';
import { recutBoard } from './recutForTests.ts';
import {
  AS_IT_LIES,
  cutStripsOf,
  looseStripsOf,
  recipeProblems,
  stripsOf,
  withStrips,
  type RecipeOperation,
  type StripOperation,
} from './recipe.ts';
import { stackOperationsOf, sticksIn } from './stack.ts';
import {
  noStackBecause,
  withOneAccentLess,
  withOneMoreAccent,
  withoutStack,
  withStack,
  withStackChanged,
  withStacksFitted,
} from './stacks.ts';

const six = plainBoard({}, [40, 40, 40, 40, 40, 40]);
const WOODS = ['walnut-black', 'maple-hard', 'padauk'];
const first = (board: Board) => stackOperationsOf(board.recipe)[0];
const on = (board: Board, change: (id: string) => Board) => {
  const stack = first(board);
  return stack ? change(stack.id) : board;
};

let repeated = 0;

/** What hands may do to a board with stacks, in any order. */
const DEEDS: Record<string, (board: Board, pick: number) => Board> = {
  stack: (b, pick) => (stackOperationsOf(b.recipe).length < 4 ? withStack(b, WOODS.slice(pick % 3)) : b),
  more: (b) => on(b, (id) => withOneMoreAccent(b, id)),
  less: (b) => on(b, (id) => withOneAccentLess(b, id)),
  out: (b) => on(b, (id) => withoutStack(b, id)),
  fit: (b) => withStacksFitted(b, DEFAULT_SHOP, null),
  bits: (b, pick) =>
    on(b, (id) =>
      withStackChanged(b, id, {
        bits: WOODS.slice(0, 1 + (pick % 3)).map((species, i) => ({ species, length: 20 + i + pick })),
      }),
    ),
  accents: (b, pick) => on(b, (id) => withStackChanged(b, id, { accents: 2 + (pick % 4) })),
  repeat: (b, pick) => {
    const strips = stripsOf(b);
    return strips.length > 30 || strips.length === 0
      ? b
      : withStrips(
          b,
          repeatStrips(strips, [pick % strips.length], () => `again-${(repeated += 1)}`),
        );
  },
  reverse: (b) =>
    withStrips(
      b,
      reverseStrips(
        stripsOf(b),
        stripsOf(b).map((_, i) => i),
      ),
    ),
  drop: (b, pick) =>
    withStrips(
      b,
      stripsOf(b).filter((_, i) => i !== pick % Math.max(1, stripsOf(b).length)),
    ),
  even: (b) => withStrips(b, evenOut(stripsOf(b), 300, (s) => (s.stack === null ? s.width : s.width)).strips),
  frame: (b) => (b.recipe.filter((o) => o.kind === 'frame').length < 4 ? withFrame(b, ringOf('maple-hard', 20)) : b),
  back: (b) => withBack(b, DEFAULT_SHOP, { species: 'maple-hard', runs: 'along', thickness: 6 }),
  insert: (b) =>
    b.recipe.filter((o) => o.kind === 'insert').length < 4
      ? withInsert(b, { species: 'maple-hard', width: 10, at: 100, angle: 0, jog: 0 })
      : b,
  look: (b, pick) => asLook(b, LOOKS[pick % LOOKS.length]!),
  slices: (b) => withSlices(b),
};

describe('accents of bits are laid in and taken out', () => {
  it('whatever is done in whatever order, the board is one that can be saved, and every strip is numbered once', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...Object.keys(DEEDS)), fc.nat(40)), { minLength: 1, maxLength: 14 }),
        (deeds) => {
          const board = deeds.reduce((b, [deed, pick]) => DEEDS[deed]!(b, pick), withStack(six, WOODS));
          expect(recipeProblems(board.recipe)).toEqual([]);
          expect(boardSchema.safeParse(board).success).toBe(true);
          const numbered = cutStripsOf(board).map((s) => s.id);
          expect(new Set(numbered).size).toBe(numbered.length);
          expect(numbered.length).toBe(
            stripsOf(board).length === 0 ? 0 : board.recipe.filter((o) => o.kind === 'strip').length,
          );
          for (const stack of stackOperationsOf(board.recipe)) {
            expect(stripsOf(board).some((s) => s.stack === stack.id)).toBe(true);
            expect(new Set(sticksIn(stack, board.recipe).map((s) => s.width)).size).toBe(1);
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  it('one stack is two accents, each between long strips; one more goes where it is farthest from the others; out again it is as it was', () => {
    const board = withStack(six, WOODS);
    const kinds = (b: Board) =>
      stripsOf(b)
        .map((s) => (s.stack === null ? 's' : 'a'))
        .join('');
    expect(kinds(board)).toBe('sassssas');
    expect(kinds(withOneMoreAccent(board, 'stack-1'))).toBe('sassassas');
    expect(withoutStack(board, 'stack-1')).toEqual(six);
    expect(looseStripsOf(board).map((s) => s.species)).toEqual(WOODS);
    // The last accent takes its stack along.
    expect(withOneAccentLess(withOneAccentLess(board, 'stack-1'), 'stack-1')).toEqual(six);
    expect(
      withStrips(
        board,
        stripsOf(board).filter((s) => s.stack === null),
      ),
    ).toEqual(six);
  });

  it('an accent is told by the first wood of its bits, and follows it; widths of all accents change at once', () => {
    const changed = withStackChanged(withStack(six, WOODS), 'stack-1', {
      bits: [
        { species: 'padauk', length: 25 },
        { species: 'maple-hard', length: 35 },
      ],
      accents: 5,
      depth: 33,
    });
    expect(stripsOf(changed).filter((s) => s.stack !== null)).toMatchObject([
      { species: 'padauk', width: 5 },
      { species: 'padauk', width: 5 },
    ]);
    expect(first(changed)).toMatchObject({ bits: [25, 35], takes: ['bits-1', 'bits-2'] });
    expect(looseStripsOf(changed).map((s) => s.width)).toEqual([33, 33]);
    expect(withStackChanged(changed, 'stack-1', { bits: [] })).toBe(changed);
  });

  it('slices take none, nor do panels without two strips; a look of slices makes plain strips of them', () => {
    expect(noStackBecause(recutBoard(six))).toBe('sliced');
    expect(withStack(recutBoard(six), WOODS)).toEqual(recutBoard(six));
    expect(noStackBecause(plainBoard({}, [40]))).toBe('narrow');
    expect(noStackBecause(plainBoard({}, [40, 40]))).toBeNull();
    const rows = asLook(withStack(six, WOODS), 'endGrain');
    expect(stripsOf(rows).every((s) => s.stack === null)).toBe(true);
    expect(recipeProblems(rows.recipe)).toEqual([]);
    // Flat looks keep them.
    const framed = withFrame(withStack(six, WOODS), ringOf('maple-hard', 20));
    expect(asLook(framed, 'edge').recipe).toEqual(withStack(six, WOODS).recipe);
    expect(flatPart(framed.recipe)).toHaveLength(withStack(six, WOODS).recipe.length);
  });

  it('fitted, a stack is as deep as its accents and their spares ask, in whole steps of the hands', () => {
    const depth = (b: Board) => sticksIn(first(b)!, b.recipe)[0]!.width;
    const fitted = withStacksFitted(withStack(six, WOODS), DEFAULT_SHOP, null);
    expect(depth(fitted) % 0.5).toBeCloseTo(0, 9);
    const more = withStacksFitted(withOneMoreAccent(fitted, 'stack-1'), DEFAULT_SHOP, 'stack-1');
    expect(depth(more)).toBeGreaterThan(depth(fitted) + 3);
    const inches = withStacksFitted(withStack(six, WOODS, 'inch'), DEFAULT_SHOP, null, 'inch');
    expect((depth(inches) / 25.4) * 32).toBeCloseTo(Math.round((depth(inches) / 25.4) * 32), 6);
  });

  it('accents are joined with nothing, not even of their wood', () => {
    const board = withStack(six, ['maple-hard']);
    expect(canJoin(stripsOf(board), [2, 3])).toBe(true);
    expect(canJoin(stripsOf(board), [0, 1])).toBe(false);
  });
});

describe('a stack that is none', () => {
  const leaf = (id: string, change: Partial<StripOperation> = {}): RecipeOperation => ({
    kind: 'strip',
    ...AS_IT_LIES,
    id,
    species: 'maple-hard',
    width: 20,
    ...change,
  });
  const stack = (id: string, takes: string[], bits = takes.map(() => 30)): RecipeOperation => ({
    kind: 'stack',
    id,
    takes,
    bits,
  });
  const glue = (...takes: string[]): RecipeOperation => ({
    kind: 'glue',
    id: 'p',
    takes,
    stagger: 0,
    shifts: [],
    runs: 'along',
    thickness: null,
  });
  const accent = (id: string, of: string, change: Partial<StripOperation> = {}) =>
    leaf(id, { width: 3, stack: of, ...change });
  const told = (recipe: RecipeOperation[]) => recipeProblems(recipe).map((p) => `${p.path.join('.')}: ${p.message}`);

  it('a good one is none of these', () => {
    expect(told([leaf('x'), stack('k', ['x']), leaf('a'), accent('c', 'k'), leaf('b'), glue('a', 'c', 'b')])).toEqual(
      [],
    );
  });

  it.each<[string, RecipeOperation[], RegExp]>([
    [
      'is named before it is there',
      [leaf('x'), accent('c', 'k'), stack('k', ['x']), glue('c')],
      /^1\.stack: must name a stack made before; nothing is called k/,
    ],
    ['is a strip', [leaf('x'), accent('c', 'x'), glue('c')], /^1\.stack: must be a stack/],
    [
      'gives no accent',
      [leaf('x'), stack('k', ['x']), leaf('a'), glue('a')],
      /^3\.takes: must take everything; k is left/,
    ],
    ['comes last', [leaf('x'), stack('k', ['x'])], /^1: must be a glue-up/],
    [
      'is of an accent',
      [leaf('x'), stack('k', ['x']), accent('c', 'k'), stack('m', ['c']), accent('d', 'm'), glue('d')],
      /^3\.takes\.0: must be a strip out of the rack/,
    ],
    [
      'is of strips of two widths',
      [leaf('x'), leaf('y', { width: 21 }), stack('k', ['x', 'y']), accent('c', 'k'), glue('c')],
      /^2\.takes\.1: must be as wide as the first/,
    ],
    [
      'says too few lengths',
      [leaf('x'), leaf('y'), stack('k', ['x', 'y'], [30]), accent('c', 'k'), glue('c')],
      /^2\.bits: must say for each/,
    ],
    [
      'has an accent of another wood',
      [leaf('x'), stack('k', ['x']), accent('c', 'k', { species: 'padauk' }), glue('c')],
      /^2\.species: must be maple-hard, as the first bit/,
    ],
    [
      'is a frame',
      [
        leaf('x'),
        stack('k', ['x']),
        leaf('a'),
        accent('c', 'k'),
        glue('a'),
        leaf('d'),
        leaf('e'),
        leaf('f'),
        { kind: 'frame', id: 'r', takes: ['p', 'c', 'd', 'e', 'f'], first: 'sides' },
      ],
      /^8\.takes\.1: must be a strip/,
    ],
    [
      'is sliced',
      [
        leaf('x'),
        stack('k', ['x']),
        accent('c', 'k'),
        glue('c'),
        { kind: 'slice', id: 's', takes: ['p'], first: 0, angle: 0, pitch: null, count: null, panels: 1 },
        { ...glue('s'), id: 'q' },
      ],
      /^1: must be for a flat panel: this one is sliced/,
    ],
  ])('%s', (_, recipe, problem) => {
    expect(told(recipe).join('\n')).toMatch(problem);
  });
});
