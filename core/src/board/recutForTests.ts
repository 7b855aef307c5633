import {
  AS_IT_LIES,
  FLUSH,
  stripsOf,
  type FrameFirst,
  type InsertOperation,
  type Recipe,
  type StripOperation,
  type TurnOperation,
} from './recipe.ts';
import type { Board } from './board.ts';

/** What tells boards of one look from others. */
export interface RecutChoices {
  thickness: number | null;
  pitch: number | null;
  first: number;
  angle: number;
  stagger: number;
  count: number | null;
  panels: number;
  turns: Pick<TurnOperation, 'turn' | 'pattern'>[];
  shifts: number[];
  runs: 'along' | 'across';
  /** Strips of other panels whose rows come in turn. */
  inTurn: { species: string; width: number }[][];
}

/** End grain: slices turned up, every second end for end, laid across the board. */
export const END_GRAIN: RecutChoices = {
  thickness: 30,
  pitch: null,
  first: 0,
  angle: 0,
  stagger: 0,
  count: null,
  panels: 1,
  turns: [
    { turn: 'up', pattern: [true] },
    { turn: 'endForEnd', pattern: [false, true] },
  ],
  shifts: [],
  runs: 'across',
  inTurn: [],
};

/** A chevron: staggered strips cut at 35 degrees, every second slice turned over. */
export const CHEVRON: RecutChoices = {
  ...END_GRAIN,
  thickness: null,
  pitch: 38.1,
  angle: 35,
  stagger: 35,
  turns: [{ turn: 'over', pattern: [false, true] }],
  runs: 'along',
};

/** A strip put into a board. */
export interface InsertChoice {
  species: string;
  width: number;
  at: number;
  angle: number;
  jog: number;
}

/** The same strips with others put in between parts of their panel. */
export function insetBoard(board: Board, inserts: readonly InsertChoice[]): Board {
  const strips = stripsOf(board);
  const recipe: Recipe = [
    ...board.recipe.filter((o) => o.kind === 'strip' || o.kind === 'stack'),
    ...inserts.map(({ species, width }, i): StripOperation => ({
      kind: 'strip',
      ...AS_IT_LIES,
      id: `band-${i + 1}`,
      species,
      width,
    })),
    { ...FLUSH, kind: 'glue', id: 'panel', takes: strips.map((s) => s.id) },
    ...inserts.map(({ at, angle, jog }, i): InsertOperation => ({
      kind: 'insert',
      id: `insert-${i + 1}`,
      takes: [i === 0 ? 'panel' : `insert-${i}`, `band-${i + 1}`],
      at,
      angle,
      jog,
    })),
  ];
  return { ...board, recipe };
}

/** Accents of bits: what the sticks are of and how long their bits, how deep they are, and where which accents go among the strips. */
export interface StackChoice {
  bits: { species: string; length: number }[];
  depth: number;
  accents: { at: number; width: number; endForEnd?: boolean; turned?: boolean }[];
}

/** The same strips with accents resawn from stacks among them. */
export function stackedBoard(board: Board, stacks: readonly StackChoice[]): Board {
  const recipe = stacks.flatMap(({ bits, depth }, s): Recipe => [
    ...bits.map(({ species }, i): StripOperation => ({
      kind: 'strip',
      ...AS_IT_LIES,
      id: `stick-${s + 1}-${i + 1}`,
      species,
      width: depth,
    })),
    {
      kind: 'stack',
      id: `stack-${s + 1}`,
      takes: bits.map((_, i) => `stick-${s + 1}-${i + 1}`),
      bits: bits.map((b) => b.length),
    },
  ]);
  const strips = stacks.reduce<StripOperation[]>(
    (all, { bits, accents }, s) =>
      accents.reduce((so, { at, width, ...how }, i) => {
        const accent: StripOperation = {
          kind: 'strip',
          ...AS_IT_LIES,
          ...how,
          id: `accent-${s + 1}-${i + 1}`,
          species: bits[0]?.species ?? '',
          width,
          stack: `stack-${s + 1}`,
        };
        return so.toSpliced(at % (so.length + 1), 0, accent);
      }, all),
    [...stripsOf(board)],
  );
  const glue = { ...FLUSH, kind: 'glue' as const, id: 'panel', takes: strips.map((o) => o.id) };
  return { ...board, recipe: [...recipe, ...strips, glue] };
}

/** A ring round a board. */
export interface RingChoice {
  species: string;
  /** Far side, near side, left end, right end. */
  widths: [number, number, number, number];
  first: FrameFirst;
}

/** The same board with rings round it. */
export function framedBoard(board: Board, rings: readonly RingChoice[]): Board {
  const recipe = rings.reduce<Recipe>((so, { species, widths, first }, r) => {
    const strips = widths.map((width, k): StripOperation => ({
      kind: 'strip',
      ...AS_IT_LIES,
      id: `ring-${r + 1}-${k + 1}`,
      species,
      width,
    }));
    const takes = [so.at(-1)?.id ?? '', ...strips.map((s) => s.id)];
    return [...so, ...strips, { kind: 'frame', id: `frame-${r + 1}`, takes, first }];
  }, board.recipe);
  return { ...board, recipe };
}

/** A back under a board. */
export interface BackChoice {
  strips: { species: string; width: number }[];
  runs: 'along' | 'across';
  thickness: number;
}

/** The same board with a back under it, its strips lying flat. */
export function backedBoard(board: Board, { strips, runs, thickness }: BackChoice): Board {
  const own = strips.map((s, i): StripOperation => ({
    kind: 'strip',
    ...AS_IT_LIES,
    rolled: board.construction === 'edge',
    id: `under-${i + 1}`,
    ...s,
  }));
  const takes = [board.recipe.at(-1)?.id ?? '', ...own.map((s) => s.id)];
  return { ...board, recipe: [...board.recipe, ...own, { kind: 'back', id: 'back', takes, runs, thickness }] };
}

/** The same strips, cut and glued again. */
export function recutBoard(board: Board, change: Partial<RecutChoices> = {}, look = END_GRAIN): Board {
  const { thickness, pitch, first, angle, stagger, count, panels, turns, shifts, runs, inTurn } = {
    ...look,
    ...change,
  };
  const strips = stripsOf(board);
  const others = inTurn.map((own, k) =>
    own.map((s, i): StripOperation => ({ kind: 'strip', ...AS_IT_LIES, id: `turn-${k + 2}-${i + 1}`, ...s })),
  );
  const recipe: Recipe = [
    ...strips,
    { ...FLUSH, kind: 'glue', id: 'panel', takes: strips.map((s) => s.id), thickness, stagger },
    ...others.flatMap((own, k): Recipe => [
      ...own,
      { ...FLUSH, kind: 'glue', id: `panel-${k + 2}`, takes: own.map((s) => s.id), thickness, stagger },
    ]),
    {
      kind: 'slice',
      id: 'slices',
      takes: ['panel', ...others.map((_, k) => `panel-${k + 2}`)],
      first,
      angle,
      pitch,
      count,
      panels,
    },
    ...turns.map((t, i): TurnOperation => ({
      kind: 'turn',
      id: `turn-${i + 1}`,
      takes: i === 0 ? 'slices' : `turn-${i}`,
      ...t,
    })),
    {
      ...FLUSH,
      kind: 'glue',
      id: 'block',
      takes: [turns.length === 0 ? 'slices' : `turn-${turns.length}`],
      shifts,
      runs,
    },
  ];
  return { ...board, recipe };
}
