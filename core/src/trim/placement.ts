import type { Spot } from '../features/feature.ts';

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
export function placeBoards(panel: ClearPanel, bad: readonly Bad[], board: { length: number; width: number }, count: number, kerf: number, y: number): Placement {
  const last = panel.near - board.width;
  const edges = [y, panel.far, last, ...bad.flatMap((s) => [s.y + s.width, s.y - board.width])].filter((at) => at >= panel.far - TOLERANCE && at <= last + TOLERANCE);
  let best: Placement = { y, xs: [] };
  for (const at of edges.sort((a, b) => Math.abs(a - y) - Math.abs(b - y))) {
    const xs = leftmost(panel, bad.filter((s) => s.y < at + board.width - TOLERANCE && s.y + s.width > at + TOLERANCE), board.length, count, kerf);
    if (xs.length > best.xs.length) best = { y: at, xs };
  }
  return best;
}

/** Boards one after the other, each at the first place that is clear. */
function leftmost(panel: ClearPanel, inTheWay: readonly Bad[], length: number, count: number, kerf: number): number[] {
  const spots = [...inTheWay].sort((a, b) => a.x - b.x);
  const xs: number[] = [];
  let at = panel.left;
  while (xs.length < count && at + length <= panel.right + TOLERANCE) {
    const from = at;
    const hit = spots.find((s) => s.x < from + length - TOLERANCE && s.x + s.length > from + TOLERANCE);
    if (hit) at = hit.x + hit.length;
    else {
      xs.push(at);
      at += length + kerf;
    }
  }
  return xs;
}

/**
 * The longest boards of a width of which `count` lie clear, mm; 0 when there is no length at which they do.
 * Found by halving: a shorter board fits wherever a longer one does.
 */
export function longestThatFits(panel: ClearPanel, bad: readonly Bad[], width: number, count: number, kerf: number, y: number): number {
  let [fits, tooLong] = [0, (panel.right - panel.left) / count + 1];
  if (width > panel.near - panel.far + TOLERANCE) return 0;
  while (tooLong - fits > 0.01) {
    const half = (fits + tooLong) / 2;
    if (placeBoards(panel, bad, { length: half, width }, count, kerf, y).xs.length === count) fits = half;
    else tooLong = half;
  }
  return Math.floor(fits * 10) / 10;
}

/** The widest boards of a length of which `count` lie clear, mm; 0 when there are none. */
export function widestThatFits(panel: ClearPanel, bad: readonly Bad[], length: number, count: number, kerf: number, y: number): number {
  let [fits, tooWide] = [0, panel.near - panel.far + 0.02];
  while (tooWide - fits > 0.01) {
    const half = (fits + tooWide) / 2;
    if (placeBoards(panel, bad, { length, width: half }, count, kerf, y).xs.length === count) fits = half;
    else tooWide = half;
  }
  return Math.floor((fits + 0.005) * 10) / 10;
}
