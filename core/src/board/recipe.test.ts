import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  AS_IT_LIES,
  flatRecipe,
  FLUSH,
  GREATEST_STRIP_COUNT,
  recipeProblems,
  recipeSchema,
  stripsOf,
  withStrips,
  type Recipe,
  type Strip,
  type Turn,
} from './recipe.ts';

const strip = (id: string, width = 30): Strip => ({ id, species: 'maple-hard', width, ...AS_IT_LIES });
const leaf = (id: string) => ({ kind: 'strip' as const, ...strip(id) });
const glue = (id: string, ...takes: string[]) => ({ ...FLUSH, kind: 'glue' as const, id, takes });
const slice = (id: string, ...takes: string[]) => ({
  kind: 'slice' as const,
  id,
  takes,
  first: 0,
  angle: 0,
  pitch: null,
  count: null,
  panels: 1,
});
const turn = (id: string, takes: string, how: Turn, pattern = [true]) => ({
  kind: 'turn' as const,
  id,
  takes,
  turn: how,
  pattern,
});
const insert = (id: string, ...takes: string[]) => ({ kind: 'insert' as const, id, takes, at: 100, angle: 0, jog: 0 });
const frame = (id: string, ...takes: string[]) => ({ kind: 'frame' as const, id, takes, first: 'sides' as const });
const back = (id: string, ...takes: string[]) => ({
  kind: 'back' as const,
  id,
  takes,
  runs: 'along' as const,
  thickness: 6,
});
/** What is wrong, each as its field and what it says. */
const wrong = (recipe: Recipe) => recipeProblems(recipe).map((p) => `${p.path.join('.')}: ${p.message}`);

const FIVE = [...'abcde'].map((id) => leaf(id));

describe('a recipe', () => {
  it('of strips and the glue-up that takes them all is in order; so is none at all', () => {
    expect(wrong([])).toEqual([]);
    expect(wrong([leaf('a'), leaf('b'), glue('panel', 'b', 'a')])).toEqual([]);
  });

  it.each([
    [
      'takes what nobody made',
      [leaf('a'), glue('p', 'a', 'b')],
      /^1\.takes\.1: must name something made before; nothing is called b there$/,
    ],
    ['takes what is made later', [glue('p', 'a'), leaf('a')], /^0\.takes\.0: must name something made before/],
    ['takes itself', [leaf('a'), glue('p', 'a', 'p')], /^1\.takes\.1: must name something made before/],
    ['takes a thing twice', [leaf('a'), leaf('b'), glue('p', 'a', 'a', 'b')], /^2\.takes\.1: must not take a twice$/],
    ['leaves a strip over', [leaf('a'), leaf('b'), glue('p', 'a')], /^2\.takes: must take everything; b is left over$/],
    ['has two things of one name', [leaf('a'), leaf('a'), glue('p', 'a')], /^1\.id: must be an id of its own/],
    ['has a glue-up named as a strip', [leaf('a'), glue('a', 'a')], /^1\.id: must be an id of its own/],
    [
      'ends with a strip',
      [leaf('a'), glue('p', 'a'), leaf('b')],
      /^2: must be a glue-up, an insert, a frame or a back: the last operation gives the panel/,
    ],
    ['is strips alone', [leaf('a'), leaf('b')], /^1: must be a glue-up/],
    [
      'is glued twice',
      [leaf('a'), leaf('b'), glue('p', 'a'), glue('q', 'p', 'b')],
      /^3\.takes: must be strips: the first panel is glued of strips/,
    ],
    ['puts a strip in without a panel', [leaf('a'), leaf('b'), insert('i', 'a', 'b')], /^2\.takes\.0: must be a panel/],
    [
      'puts a panel in',
      [leaf('a'), leaf('b'), glue('p', 'a'), insert('i', 'p', 'b'), insert('j', 'b', 'i')],
      /^4\.takes\.0: must not take b twice/,
    ],
    [
      'puts in what comes later',
      [leaf('a'), glue('p', 'a'), insert('i', 'p', 'b'), leaf('b')],
      /^2\.takes\.1: must name something made before; nothing is called b there/,
    ],
    [
      'puts a strip into rows',
      [leaf('a'), leaf('b'), glue('p', 'a'), slice('s', 'p'), glue('q', 's'), insert('i', 'q', 'b')],
      /must be put into a flat panel: this one is sliced|must be the only|must be strips/,
    ],
    [
      'leaves a strip over that was to be put in',
      [leaf('a'), leaf('b'), leaf('c'), glue('p', 'a'), insert('i', 'p', 'b')],
      /^4\.takes: must take everything; c is left over/,
    ],
    ['frames a strip', [...FIVE, frame('f', 'a', 'b', 'c', 'd', 'e')], /^5\.takes\.0: must be a panel/],
    [
      'frames with a panel',
      [leaf('a'), leaf('b'), leaf('c'), leaf('d'), glue('p', 'a'), frame('f', 'p', 'b', 'c', 'd', 'f')],
      /^5\.takes\.4: must name something made before/,
    ],
    [
      'frames before it slices',
      [...FIVE, glue('p', 'a'), frame('f', 'p', 'b', 'c', 'd', 'e'), slice('s', 'f')],
      /^7: must be a glue-up, an insert, a frame or a back/,
    ],
    [
      'glues what is framed',
      [...FIVE, glue('p', 'a'), frame('f', 'p', 'b', 'c', 'd', 'e'), glue('q', 'f')],
      /^7: must come before the frame/,
    ],
    [
      'is framed after it is backed',
      [...FIVE, leaf('g'), glue('p', 'a'), back('k', 'p', 'g'), frame('f', 'k', 'b', 'c', 'd', 'e')],
      /^7: must come last: nothing is glued to a back/,
    ],
    ['backs a strip', [leaf('a'), leaf('b'), back('k', 'a', 'b')], /^2\.takes\.0: must be a panel/],
    [
      'backs with a panel',
      [leaf('a'), leaf('b'), glue('p', 'a'), glue('q', 'b'), back('k', 'p', 'q')],
      /must be the only panel of strips/,
    ],
    ['slices a strip', [leaf('a'), slice('s', 'a'), glue('q', 's')], /^1\.takes\.0: must be a panel/],
    [
      'takes slices of what is glued later',
      [leaf('a'), slice('s', 'p'), glue('p', 'a'), glue('q', 's')],
      /^1\.takes\.0: must name something made before; nothing is called p there/,
    ],
    ['turns a panel', [leaf('a'), glue('p', 'a'), turn('t', 'p', 'over'), glue('q', 't')], /^2\.takes: must be slices/],
    ['ends with slices', [leaf('a'), glue('p', 'a'), slice('s', 'p')], /^2: must be a glue-up/],
    [
      'turns only some slices up',
      [leaf('a'), glue('p', 'a'), slice('s', 'p'), turn('t', 's', 'up', [false, true]), glue('q', 't')],
      /^3\.pattern: must turn every slice up/,
    ],
    [
      'turns slices up twice',
      [leaf('a'), glue('p', 'a'), slice('s', 'p'), turn('t', 's', 'up'), turn('u', 't', 'up'), glue('q', 'u')],
      /^4\.turn: must not turn slices up twice/,
    ],
    [
      'takes the slices of two panels',
      [leaf('a'), leaf('b'), glue('p', 'a'), glue('o', 'b'), slice('s', 'p'), slice('t', 'o'), glue('q', 's', 't')],
      /^3: must be the only panel of strips/,
    ],
    ['glues nothing', [leaf('a'), glue('p', 'a'), slice('s', 'p'), glue('q')], /^3\.takes: must/],
    [
      'is 200 operations',
      Array.from({ length: 200 }, (_, i) => turn(`t${i}`, `t${i - 1}`, 'over')),
      /^0\.takes: must name/,
    ],
  ] as [string, Recipe, RegExp][])('that %s is refused with the field it stands in', (_, recipe, told) => {
    const found = wrong(recipe);
    expect(found.some((sentence) => told.test(sentence))).toBe(true);
    const parsed = recipeSchema.safeParse(recipe);
    expect(parsed.success).toBe(false);
    // The schema says the same, at the same place.
    expect(parsed.error!.issues.map((i) => `${i.path.join('.')}: ${i.message}`)).toEqual(expect.arrayContaining(found));
  });

  it('has no more strips than any hand-made board', () => {
    const many = (count: number) => flatRecipe(Array.from({ length: count }, (_, i) => strip(`s${i}`)));
    expect(recipeSchema.safeParse(many(GREATEST_STRIP_COUNT)).success).toBe(true);
    expect(recipeSchema.safeParse(many(GREATEST_STRIP_COUNT + 1)).success).toBe(false);
  });

  it.each([
    ['kind', 'weld'],
    ['width', 0],
    ['width', 1001],
    ['width', '30'],
    ['species', 'Maple Hard'],
    ['id', 'a b'],
    ['turned', 'yes'],
    ['rolled', null],
    ['locked', 1],
  ])('whose strip has %s %j is refused', (field, value) => {
    const parsed = recipeSchema.safeParse([{ ...leaf('a'), [field]: value }, glue('p', 'a')]);
    expect(parsed.success).toBe(false);
    expect(parsed.error!.issues[0]!.path).toEqual([0, field]);
  });

  it('the order of a board is that of the glue-up, not that in which strips were written down', () => {
    const recipe: Recipe = [leaf('a'), leaf('b'), leaf('c'), glue('panel', 'c', 'a', 'b')];
    expect(stripsOf({ recipe }).map((s) => s.id)).toEqual(['c', 'a', 'b']);
  });

  it('laid out anew it holds just these strips in just this order, and its glue-up keeps its name', () => {
    const names = fc.uniqueArray(fc.stringMatching(/^[a-z]{1,6}$/), { maxLength: 12 });
    fc.assert(
      fc.property(names, names, (before, after) => {
        const board = {
          recipe: flatRecipe(
            before.map((id) => strip(id)),
            'glue-up',
          ),
        };
        const next = withStrips(
          board,
          after.map((id, i) => strip(id, 10 + i)),
        );
        expect(stripsOf(next).map(({ id, width }) => [id, width])).toEqual(after.map((id, i) => [id, 10 + i]));
        expect(wrong(next.recipe)).toEqual([]);
        if (before.length > 0 && after.length > 0) expect(next.recipe.at(-1)!.id).toBe('glue-up');
      }),
    );
  });

  it('a strip that is called as the glue-up would be keeps its name; the glue-up takes another', () => {
    const recipe = flatRecipe([strip('panel'), strip('panel-')]);
    expect(wrong(recipe)).toEqual([]);
    expect(recipe.at(-1)!.id).toBe('panel--');
  });

  it('that is cut again may be known before there are strips, and keeps all it does when strips change', () => {
    const bare: Recipe = [glue('p'), slice('s', 'p'), turn('t', 's', 'up'), glue('q', 't')];
    expect(wrong(bare)).toEqual([]);
    const laid = withStrips({ recipe: bare }, [strip('q'), strip('s')]);
    expect(wrong(laid.recipe)).toEqual([]);
    expect(stripsOf(laid).map((s) => s.id)).toEqual(['q', 's']);
    expect(laid.recipe.slice(2).map((o) => [o.kind, o.id])).toEqual([
      ['glue', 'p'],
      ['slice', 's-'],
      ['turn', 't'],
      ['glue', 'q-'],
    ]);
    expect(wrong(withStrips(laid, []).recipe)).toEqual([]);
    // A flat board without strips is nothing at all.
    expect(withStrips({ recipe: flatRecipe([strip('a')]) }, []).recipe).toEqual([]);
  });

  it.each([
    ['angle', 89, 'must be at most 60°'],
    ['angle', '35', 'must be a number of degrees'],
    ['pitch', 0, 'at least'],
    ['count', 0, 'must be at least 1'],
    ['count', 400, 'must be at most 200'],
    ['panels', 1.5, 'must be a whole number'],
  ])('whose slices have %s %j are refused in a sentence that names the field', (field, value, told) => {
    const recipe = [leaf('a'), glue('p', 'a'), { ...slice('s', 'p'), [field]: value }, glue('q', 's')];
    const parsed = recipeSchema.safeParse(recipe);
    expect(parsed.success).toBe(false);
    const [issue] = parsed.error!.issues;
    expect([issue!.path, issue!.message]).toEqual([[2, field], expect.stringContaining(told)]);
  });
});

describe('what is put in', () => {
  const board = (change: object, strips = 1): Recipe => [
    leaf('a'),
    ...Array.from({ length: strips }, (_, i) => leaf(`b${i}`)),
    glue('p', 'a'),
    ...Array.from({ length: strips }, (_, i) => ({
      ...insert(`i${i}`, i === 0 ? 'p' : `i${i - 1}`, `b${i}`),
      ...change,
    })),
  ];
  const says = (recipe: unknown) => {
    const read = recipeSchema.safeParse(recipe);
    return read.success ? [] : read.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`);
  };

  it.each([
    ['a place before the board', { at: -1 }, /^3\.at: /],
    ['a place that is no figure', { at: 'middle' }, /^3\.at: /],
    ['an angle no saw cuts', { angle: 89 }, /^3\.angle: must be at most 60°/],
    ['an angle that is none', { angle: null }, /^3\.angle: must be a number of degrees/],
    ['a jog wider than any board', { jog: 201 }, /^3\.jog: /],
    ['a third thing', { takes: ['p', 'b0', 'a'] }, /^3\.takes: must be a panel and a strip/],
    ['a field nobody knows', { kerf: 3 }, /^3: /],
  ])('%s is told with its field', (_, change, told) => {
    expect(says(board(change)).some((line) => told.test(line))).toBe(true);
  });

  it('as many as anybody glues, and one more is told', () => {
    expect(says(board({}, 12))).toEqual([]);
    expect(says(board({}, 13))).toEqual([expect.stringContaining('must be one of at most 12 inserts')]);
    // A list of hundreds is told in a moment, and does not hang.
    expect(says(board({}, 400)).length).toBeGreaterThan(0);
  });
});
