import { firstOf, nth } from '../lists/there.ts';
import type { Spot } from '../facts/fact.ts';

/** The clear part of a panel, where boards may lie, mm from its left end and far edge. */
export interface ClearPanel {
  left: number;
  right: number;
  far: number;
  near: number;
}

export interface Placement {
  /** Far edge of all boards: long edges are trimmed before boards are cut apart. */
  y: number;
  /** Left ends of the boards that fit, first to last. */
  xs: number[];
}

type Bad = Pick<Spot, 'x' | 'y' | 'length' | 'width'>;
const TOLERANCE = 1e-6;

/**
 * Where as many equal boards as possible lie clear of bad places, all with the grain along the panel and between the same two long edges.
 * Proven best: for one pair of edges each board as far left as it goes leaves most for the next, and among the pairs of edges only those count at which a
 * bad place begins or ends, for between them the same places are in the way. Of equal ones the first that stays nearest to `y`.
 *
 * @param kerf between two boards, mm @param y where the far edge would lie with nothing in the way
 */
export function placeBoards(
  panel: ClearPanel,
  bad: readonly Bad[],
  board: { length: number; width: number },
  count: number,
  kerf: number,
  y: number,
): Placement {
  const last = panel.near - board.width;
  const edges = [y, panel.far, last, ...bad.flatMap((s) => [s.y + s.width, s.y - board.width])].filter(
    (at) => at >= panel.far - TOLERANCE && at <= last + TOLERANCE,
  );
  let best: Placement = { y, xs: [] };
  for (const at of edges.sort((a, b) => Math.abs(a - y) - Math.abs(b - y))) {
    const xs = leftmost(panel, bad, board, count, kerf, at);
    if (xs.length > best.xs.length) best = { y: at, xs };
  }
  return best;
}

/** Boards one after the other, each at the first place that is clear. */
function leftmost(
  panel: ClearPanel,
  bad: readonly Bad[],
  board: Other,
  count: number,
  kerf: number,
  y: number,
): number[] {
  const spots = [...bad].sort((a, b) => a.x - b.x);
  const xs: number[] = [];
  for (let at = panel.left; xs.length < count;) {
    const x = firstClear(panel, spots, at, board, y);
    if (x === null) break;
    xs.push(x);
    at = x + board.length + kerf;
  }
  return xs;
}

/** The longest boards of a width of which `count` lie clear, mm, to a tenth; 0 when there is no length at which they do. */
export function longestThatFits(
  panel: ClearPanel,
  bad: readonly Bad[],
  width: number,
  count: number,
  kerf: number,
  y: number,
): number {
  if (width > panel.near - panel.far + TOLERANCE) return 0;
  return greatest(
    (panel.right - panel.left) / count + 1,
    (length) => placeBoards(panel, bad, { length, width }, count, kerf, y).xs.length === count,
  );
}

/** The widest boards of a length of which `count` lie clear, mm, to a tenth; 0 when there are none. */
export function widestThatFits(
  panel: ClearPanel,
  bad: readonly Bad[],
  length: number,
  count: number,
  kerf: number,
  y: number,
): number {
  return greatest(
    panel.near - panel.far + 1,
    (width) => placeBoards(panel, bad, { length, width }, count, kerf, y).xs.length === count,
  );
}

/** The greatest tenth of a millimetre at which something fits, found by halving: a smaller board fits wherever a larger one does. @param tooMuch at which it does not */
function greatest(tooMuch: number, fits: (mm: number) => boolean): number {
  let [least, most] = [0, Math.ceil(tooMuch * 10)];
  while (most - least > 1) {
    const half = Math.floor((least + most) / 2);
    if (fits(half / 10)) least = half;
    else most = half;
  }
  return least / 10;
}

/** Something else that comes out of the same panel, mm. */
export interface Other {
  length: number;
  width: number;
}

export interface MixedPlacement extends Placement {
  /** The others that fit: which, and where. */
  others: { index: number; x: number; y: number }[];
}

/**
 * The same with others of any size between or behind the boards: first as many boards as possible, then as much as possible of the others, by area.
 * Proven best among all layouts in which everything lies one behind the other: of the same things placed, the arrangement that ends first leaves most for the rest, so for every
 * set of things only that one is kept (dynamic programming over sets; a board counts only by number, since all are alike). `others` at most 10.
 */
export function placeMixed(
  panel: ClearPanel,
  bad: readonly Bad[],
  board: { length: number; width: number },
  count: number,
  others: readonly Other[],
  kerf: number,
  y: number,
): MixedPlacement {
  const last = panel.near - board.width;
  const candidates = [y, panel.far, last, ...bad.flatMap((s) => [s.y + s.width, s.y - board.width])]
    .filter((at) => at >= panel.far - TOLERANCE && at <= last + TOLERANCE)
    .sort((a, b) => Math.abs(a - y) - Math.abs(b - y));
  let [best, bestValue]: [MixedPlacement, [number, number]] = [{ y, xs: [], others: [] }, [0, 0]];
  for (const at of candidates.length > 0 ? candidates : [panel.far]) {
    const found = mixedAt(panel, bad, board, candidates.length > 0 ? count : 0, others, kerf, at);
    const value: [number, number] = [
      found.xs.length,
      found.others.reduce((sum, o) => sum + nth(others, o.index).length * nth(others, o.index).width, 0),
    ];
    if (value[0] > bestValue[0] || (value[0] === bestValue[0] && value[1] > bestValue[1] + TOLERANCE))
      [best, bestValue] = [found, value];
  }
  return best;
}

interface State {
  /** Where the next thing may begin. */
  at: number;
  before: State | null;
  placed: { index: number | null; x: number; y: number } | null;
}

function mixedAt(
  panel: ClearPanel,
  bad: readonly Bad[],
  board: Other,
  count: number,
  others: readonly Other[],
  kerf: number,
  y: number,
): MixedPlacement {
  const sets = 1 << others.length;
  // By the number of boards and the set of others placed so far.
  const states: (State | null)[] = Array<State | null>((count + 1) * sets).fill(null);
  states[0] = { at: panel.left, before: null, placed: null };
  const offer = (key: number, state: State) => {
    const known = states[key];
    if (!known || state.at < known.at - TOLERANCE) states[key] = state;
  };
  const spots = [...bad].sort((a, b) => a.x - b.x);
  const edgesOf = others.map((o) =>
    [y, panel.far, panel.near - o.width, ...bad.flatMap((s) => [s.y + s.width, s.y - o.width])].filter(
      (at) => at >= panel.far - TOLERANCE && at + o.width <= panel.near + TOLERANCE,
    ),
  );
  let [bestKey, bestValue] = [0, [0, 0]];
  const area = (set: number) => others.reduce((sum, o, i) => sum + ((set >> i) & 1) * o.length * o.width, 0);
  for (let n = 0; n <= count; n += 1) {
    for (let set = 0; set < sets; set += 1) {
      const state = states[n * sets + set];
      if (!state) continue;
      const value = [n, area(set)];
      if (firstOf(value) > firstOf(bestValue) || (value[0] === bestValue[0] && nth(value, 1) > nth(bestValue, 1)))
        [bestKey, bestValue] = [n * sets + set, value];
      if (n < count) {
        const x = firstClear(panel, spots, state.at, board, y);
        if (x !== null)
          offer((n + 1) * sets + set, { at: x + board.length + kerf, before: state, placed: { index: null, x, y } });
      }
      others.forEach((other, i) => {
        if ((set >> i) & 1) return;
        for (const edge of nth(edgesOf, i)) {
          const x = firstClear(panel, spots, state.at, other, edge);
          if (x !== null)
            offer(n * sets + (set | (1 << i)), {
              at: x + other.length + kerf,
              before: state,
              placed: { index: i, x, y: edge },
            });
        }
      });
    }
  }
  const placed: NonNullable<State['placed']>[] = [];
  for (let state = states[bestKey] ?? null; state?.placed; state = state.before) placed.unshift(state.placed);
  return {
    y,
    xs: placed.filter((p) => p.index === null).map((p) => p.x),
    others: placed.flatMap((p) => (p.index === null ? [] : [{ index: p.index, x: p.x, y: p.y }])),
  };
}

/** The first place from `at` on where something lies clear; null where there is none. @param spots by where they begin */
function firstClear(
  panel: ClearPanel,
  spots: readonly Bad[],
  at: number,
  { length, width }: Other,
  y: number,
): number | null {
  let x = at;
  for (const s of spots) {
    if (s.x >= x + length - TOLERANCE) break;
    if (s.x + s.length > x + TOLERANCE && s.y < y + width - TOLERANCE && s.y + s.width > y + TOLERANCE)
      x = s.x + s.length;
  }
  return x + length <= panel.right + TOLERANCE ? x : null;
}
