import { MM_PER_INCH, type UnitSystem } from '../units/length.ts';
import { flatPart } from './accents.ts';
import type { Board } from './board.ts';
import { framesOf } from './frame.ts';
import { ringOf, withFrame, withInside } from './frames.ts';
import { withInsert } from './inserts.ts';
import { insertsOf } from './inset.ts';
import {
  inWorkingOrder,
  panelRecipe,
  stripsOf,
  withStrips,
  FLUSH,
  type Recipe,
  type RecipeOperation,
} from './recipe.ts';
import { recutRecipe } from './recut.ts';

/** How a board looks from above; each begins a recipe that can be changed in every way afterwards. */
export const LOOKS = ['edge', 'face', 'endGrain', 'chevron', 'banded', 'split', 'framed'] as const;
export type Look = (typeof LOOKS)[number];

/** What a look is called in a sentence. */
export const LOOK_WORDS: Readonly<Record<Look, string>> = {
  edge: 'edge grain',
  face: 'face grain',
  endGrain: 'end grain',
  chevron: 'chevron',
  banded: 'banded',
  split: 'split',
  framed: 'framed',
};

/** Whether a look is a flat board of strips: told by its construction alone. */
export const isFlatLook = (look: Look): look is 'edge' | 'face' => look === 'edge' || look === 'face';

/** What operations begin with, mm, in round figures of the units that are read (common practice): how thick rows of end grain and a back are, how wide a band, what a split is glued with, and a frame, which is narrow, since it holds what moves. */
export const USUAL: Readonly<Record<UnitSystem, Record<'row' | 'back' | 'band' | 'split' | 'frame', number>>> = {
  metric: { row: 30, back: 6, band: 20, split: 6, frame: 25 },
  inch: {
    row: 1.25 * MM_PER_INCH,
    back: MM_PER_INCH / 4,
    band: 0.75 * MM_PER_INCH,
    split: MM_PER_INCH / 4,
    frame: MM_PER_INCH,
  },
};
/** Bands begin so far from both ends, mm; a split leans so far, degrees (common practice: 7 in from each end). */
const BAND_FROM_END_MM = 7 * MM_PER_INCH;
const SPLIT_ANGLE = 30;
/** A chevron begins with these figures (common practice: 35 degrees, 1 1/2 in). */
const USUAL_ANGLE = 35;
const USUAL_PITCH_MM = 38.1;

/** How a board looks as it is made. */
export function lookOf({ construction, recipe }: Pick<Board, 'construction' | 'recipe'>): Look {
  const inserts = insertsOf(recipe);
  if (inserts.length > 0) return inserts.every((i) => i.operation.angle === 0) ? 'banded' : 'split';
  const recut = recutRecipe(recipe);
  if (!recut) return framesOf(recipe).length > 0 ? 'framed' : construction;
  return recut.turns.some((t) => t.turn === 'up') ? 'endGrain' : 'chevron';
}

/** What follows the first panel, each operation with an id that no strip has. */
function recutTail(look: 'endGrain' | 'chevron', rowThickness: number): RecipeOperation[] {
  const slice = { kind: 'slice' as const, id: 'slices', takes: ['panel'], first: 0, count: null, panels: 1 };
  const block = { ...FLUSH, kind: 'glue' as const, id: 'block' };
  if (look === 'chevron')
    return [
      { ...FLUSH, kind: 'glue', id: 'panel', takes: [], stagger: USUAL_ANGLE },
      { ...slice, angle: USUAL_ANGLE, pitch: USUAL_PITCH_MM },
      { kind: 'turn', id: 'over', takes: 'slices', turn: 'over', pattern: [false, true] },
      { ...block, takes: ['over'] },
    ];
  return [
    { ...FLUSH, kind: 'glue', id: 'panel', takes: [], thickness: rowThickness },
    { ...slice, angle: 0, pitch: null },
    { kind: 'turn', id: 'up', takes: 'slices', turn: 'up', pattern: [true] },
    { kind: 'turn', id: 'round', takes: 'up', turn: 'endForEnd', pattern: [false, true] },
    { ...block, takes: ['round'], runs: 'across' },
  ];
}

/** The same strips made into a board of another look; edge and face grain are told by its construction, which stays. @param system whose round figures it begins with */
export function asLook<B extends Pick<Board, 'construction' | 'recipe' | 'length'>>(
  board: B,
  look: Look,
  system: UnitSystem = 'metric',
): B {
  const strips = stripsOf(board);
  if (look !== 'endGrain' && look !== 'chevron') {
    const recipe = inWorkingOrder(flatPart(board.recipe).map((o) => (o.kind === 'glue' ? { ...o, ...FLUSH } : o)));
    const flat = { ...board, recipe: strips.length === 0 ? [] : recipe };
    if (isFlatLook(look)) return flat;
    return look === 'framed'
      ? withFrame(flat, ringOf(accentOf(flat), USUAL[system].frame))
      : withInserts(flat, look, USUAL[system]);
  }
  return withStrips({ ...board, recipe: recutTail(look, USUAL[system].row) }, strips);
}

/** The wood that the edges of a board are not of, where it has another. */
export function accentOf(board: Pick<Board, 'recipe'>): string {
  const strips = stripsOf(board);
  const edge = strips[0]?.species ?? '';
  return strips.find((s) => s.species !== edge)?.species ?? edge;
}

/** A flat board with what such a look puts in. */
function withInserts<B extends Pick<Board, 'recipe' | 'length'>>(
  board: B,
  look: 'banded' | 'split',
  { band, split }: Record<'band' | 'split', number>,
): B {
  const put = { species: accentOf(board), jog: 0 };
  if (look === 'split') return withInsert(board, { ...put, width: split, at: board.length / 2, angle: SPLIT_ANGLE });
  // On a short board as far in as leaves a middle.
  const at = Math.min(BAND_FROM_END_MM, board.length / 3) + band / 2;
  return [at, board.length - at].reduce(
    (so, place) => withInsert(so, { ...put, width: band, at: place, angle: 0 }),
    board,
  );
}

/** The same board with its panel sliced and its slices turned up, whatever is round it. @param system whose round figures it begins with */
export function withSlices<B extends Pick<Board, 'recipe'>>(board: B, system: UnitSystem = 'metric'): B {
  return withInside(board, (inside) =>
    isPanel(inside.recipe)
      ? withStrips({ ...inside, recipe: recutTail('endGrain', USUAL[system].row) }, stripsOf(inside))
      : inside,
  );
}

/** The same board as it was before its panel was sliced, whatever is round it. */
export function withoutSlices<B extends Pick<Board, 'recipe'>>(board: B): B {
  return withInside(board, (inside) =>
    recutRecipe(inside.recipe)
      ? { ...inside, recipe: panelRecipe(inside.recipe).map((o) => (o.kind === 'glue' ? { ...o, ...FLUSH } : o)) }
      : inside,
  );
}

/** Whether nothing is done to a panel of strips yet. */
const isPanel = (recipe: Recipe): boolean => recipe.every((o) => o.kind === 'strip' || o.kind === 'glue');

/** The same board with one of its operations changed. */
export function withOperation<B extends Pick<Board, 'recipe'>, K extends RecipeOperation['kind']>(
  board: B,
  kind: K,
  id: string,
  change: Partial<Extract<RecipeOperation, { kind: K }>>,
): B {
  return { ...board, recipe: board.recipe.map((o) => (o.kind === kind && o.id === id ? { ...o, ...change } : o)) };
}

/**
 * The same board with its slices turned otherwise, by patterns that repeat; slices that are turned up stay so.
 * @param turns in order, without those that turn nothing
 */
export function withTurns<B extends Pick<Board, 'recipe'>>(
  board: B,
  turns: readonly { turn: 'over' | 'endForEnd'; pattern: boolean[] }[],
): B {
  const recut = recutRecipe(board.recipe);
  if (!recut) return board;
  const up = recut.turns.filter((t) => t.turn === 'up').map((t) => ({ turn: t.turn, pattern: t.pattern }));
  const wanted = [...up, ...turns.filter((t) => t.pattern.includes(true))];
  const taken = new Set(board.recipe.map((o) => o.id));
  for (const t of recut.turns) taken.delete(t.id);
  let before = recut.slice.id;
  const made = wanted.map((t, i): RecipeOperation => {
    let id = recut.turns[i]?.id ?? `turn-${i + 1}`;
    while (taken.has(id)) id = `${id}-`;
    taken.add(id);
    const operation = { kind: 'turn' as const, id, takes: before, turn: t.turn, pattern: [...t.pattern] };
    before = id;
    return operation;
  });
  const at = board.recipe.indexOf(recut.last);
  const rest = board.recipe.slice(0, at).filter((o) => o.kind !== 'turn');
  return {
    ...board,
    recipe: [...rest, ...made, { ...recut.last, takes: [before] }, ...board.recipe.slice(at + 1)],
  };
}
