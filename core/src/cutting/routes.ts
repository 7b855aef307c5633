import { certain, nth } from '../lists/there.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { stretchVolume, type UnitGeometry } from './unitGeometry.ts';

/** A piece as a net of places along it, and what ways between them cost. Lengths in mm, costs in the shop's currency. */
export interface RouteNetwork {
  geometry: UnitGeometry;
  /** Where a run of blanks may begin, ascending. */
  heads: readonly number[];
  /** Shortest leftover that is kept, what carrying one costs, and what a cubic millimetre of the piece is worth. */
  keep: number;
  carrying: number;
  rate: number;
  /** Value of the wood between two places. */
  worth(from: number, to: number): number;
  /** What the first cut costs when a run begins at a place. */
  first(start: number): number;
  /** What is left behind a place, and by how much all blanks, or only the last, are slid toward the far end. */
  last(x: number): { cost: number; by: number; last: boolean };
  /** Blanks that may lie at a place. */
  blanksAt(x: number): { profile: number; group: number; to: number; cost: number }[];
}

export interface FoundRoute {
  cost: number;
  blanks: { x: number; profile: number }[];
  /** How many blanks of each group. */
  counts: ReadonlyMap<number, number>;
}

/** A way so far: its blanks as a list back to the beginning. */
interface State {
  cost: number;
  counts: number[];
  /** Gaps between blanks so far, and whether it stands in one. */
  gaps: number;
  inGap: boolean;
  blanks: { x: number; profile: number; before: State['blanks'] } | null;
}

/** More ways than this are not all listed; on a piece that tapers, where hardly two are alike, fewer. */
const MOST_STATES = { plain: 100_000, tapers: 12_000 };

/**
 * All ways worth cutting a piece along its length: for each choice of blanks the cheapest, without those that another one beats with as many blanks of every
 * group. Between blanks wood is waste, or a leftover where that is long enough.
 * @returns `complete` is false when the list was cut short
 */
export function routesOf(network: RouteNetwork): { routes: FoundRoute[]; complete: boolean } {
  const { geometry, heads, keep, carrying, rate, worth, first, last, blanksAt } = network;
  const { kerf } = geometry.shop.crosscutSaw;
  const round = (x: number) => Math.round(x * 1e6) / 1e6;
  const groups = new Map<number, number>();
  const at = new Map<number, Ways>();
  const keptAt = new Map<number, Ways>();
  /** Places still to be left, the nearest last. */
  const waiting: number[] = [];
  let states = 0;
  // Where blanks differ from place to place, ways are told apart that nobody would: there runs are slid together until one gap is left between two obstacles.
  const { farEnd, thickness, width } = geometry.piece;
  const tapers = farEnd !== null && (farEnd.thickness !== thickness || farEnd.width !== width);
  const mostStates = tapers ? MOST_STATES.tapers : MOST_STATES.plain;
  const mostGaps = tapers ? 1 + geometry.defects.length + geometry.taken.length : Infinity;
  const add = (map: Map<number, Ways>, x: number, state: State) => {
    const place = round(x);
    let ways = map.get(place);
    if (!ways) {
      if (!(map === at ? keptAt : at).has(place)) waiting.splice(firstAtMost(waiting, place), 0, place);
      ways = new Map();
      map.set(place, ways);
    }
    states += 1;
    keepCheapest(ways, state, tapers);
  };
  for (const head of heads) add(at, head, { cost: first(head), counts: [], gaps: 0, inGap: true, blanks: null });
  const isHead = new Set(heads.map(round));
  const clear = (from: number, to: number) =>
    !geometry.taken.some((r) => r.from < to - LENGTH_TOLERANCE_MM && r.to > from + LENGTH_TOLERANCE_MM);
  const routes: Ways = new Map();
  while (waiting.length > 0 && states < mostStates) {
    const x = certain(waiting.pop());
    // What was carried this far as a leftover may end here.
    const kept = undominated(keptAt.get(x) ?? NO_WAYS, tapers);
    const ended: Ways = at.get(x) ?? new Map<number | string, State>();
    if (isHead.has(x)) for (const state of kept) keepCheapest(ended, state, tapers);
    const here = undominated(ended, tapers);
    const next = firstFrom(heads, x + 2 * LENGTH_TOLERANCE_MM);
    if (next !== undefined && kept.length > 0 && clear(x, next)) {
      const cost = worth(x, next) - rate * stretchVolume(geometry, x - kerf, next - kerf);
      for (const s of kept) add(keptAt, next, { ...s, cost: s.cost + cost });
    }
    if (here.length === 0) continue;
    const blanks = blanksAt(x);
    for (const { profile, group, to, cost } of blanks) {
      const index = groups.get(group) ?? groups.size;
      groups.set(group, index);
      for (const s of here) {
        const counts = s.counts.slice();
        while (counts.length <= index) counts.push(0);
        counts[index] = nth(counts, index) + 1;
        add(at, to, {
          cost: s.cost + cost,
          counts,
          gaps: s.gaps,
          inGap: false,
          blanks: { x, profile, before: s.blanks },
        });
      }
    }
    // A gap only matters behind a blank: before the first one the way begins further on.
    const cut = here.filter((s) => s.blanks !== null);
    if (cut.length === 0) continue;
    const end = last(x);
    for (const s of cut)
      if (!s.inGap) keepCheapest(routes, { ...s, cost: s.cost + end.cost, blanks: slid(s.blanks, end) }, false);
    if (next === undefined) continue;
    const waste = worth(x, next);
    // On from a place that only a gap led to, it is the same gap.
    const onward = cut.filter((s) => s.inGap || s.gaps < mostGaps);
    for (const s of onward)
      add(at, next, { ...s, cost: s.cost + waste, gaps: s.inGap ? s.gaps : s.gaps + 1, inGap: true });
    const far = firstFrom(heads, x + keep + kerf - LENGTH_TOLERANCE_MM);
    if (far !== undefined && clear(x, far)) {
      const cost = worth(x, far) - rate * stretchVolume(geometry, x, far - kerf) + carrying;
      for (const s of cut)
        if (!s.inGap && s.gaps < mostGaps)
          add(keptAt, far, { ...s, cost: s.cost + cost, gaps: s.gaps + 1, inGap: true });
    }
  }
  const ids = [...groups.keys()];
  return {
    complete: states < mostStates,
    routes: undominated(routes, false).map(({ cost, counts, blanks }) => ({
      cost,
      blanks: listed(blanks),
      counts: new Map(counts.flatMap((n, i) => (n > 0 ? [[nth(ids, i), n] as const] : []))),
    })),
  };
}

function slid(blanks: State['blanks'], { by, last }: { by: number; last: boolean }): State['blanks'] {
  if (by <= 0 || blanks === null) return blanks;
  return { ...blanks, x: blanks.x + by, before: last ? blanks.before : slid(blanks.before, { by, last }) };
}

function listed(blanks: State['blanks']): { x: number; profile: number }[] {
  const list: { x: number; profile: number }[] = [];
  for (let one = blanks; one !== null; one = one.before) list.push({ x: one.x, profile: one.profile });
  return list.reverse();
}

/** The first of ascending numbers that is at least so large. */
function firstFrom(ascending: readonly number[], least: number): number | undefined {
  let [low, high] = [0, ascending.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (nth(ascending, middle) < least) low = middle + 1;
    else high = middle;
  }
  return ascending[low];
}

/** Where a number goes among descending ones. */
function firstAtMost(descending: readonly number[], value: number): number {
  let [low, high] = [0, descending.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (nth(descending, middle) > value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Each way is held against all that cost less; of more than this only the last list is. */
const MOST_COMPARED = { plain: 5000, tapers: 1000 };

/** Of ways with the same blanks, and where gaps are counted as many gaps, the cheapest, by what they are told apart by. */
type Ways = Map<number | string, State>;
const NO_WAYS: Ways = new Map();

/** Counts below this, of so few groups, are one number: ways are told apart often, and text is slow. */
const RADIX = 32;
const MOST_DIGITS = 9;

/** What tells ways apart: how many blanks of each group, without the noughts that a longer way would not have, and where told the gaps. */
function keyOf({ counts, gaps }: State, told: boolean): number | string {
  let key = 0;
  const own = told ? gaps : 0;
  let small = counts.length <= MOST_DIGITS && own < RADIX;
  for (let i = counts.length - 1; i >= 0 && small; i -= 1) {
    small = nth(counts, i) < RADIX;
    key = key * RADIX + nth(counts, i);
  }
  if (small) return key * RADIX + own;
  let end = counts.length;
  while (end > 0 && counts[end - 1] === 0) end -= 1;
  return `${counts.slice(0, end).join()}/${own}`;
}

function keepCheapest(ways: Ways, state: State, told: boolean): void {
  const key = keyOf(state, told);
  const known = ways.get(key);
  if (!known || state.cost < known.cost) ways.set(key, state);
}

/** Without ways that another one beats: it costs no more, and has as many blanks of every group. @param told whether gaps are counted */
function undominated(ways: Ways, told: boolean): State[] {
  const list = [...ways.values()].sort((a, b) => a.cost - b.cost);
  if (list.length > (told ? MOST_COMPARED.tapers : MOST_COMPARED.plain)) return list;
  const best: State[] = [];
  for (const state of list) {
    if (!best.some((b) => (!told || b.gaps <= state.gaps) && hasAsMany(b.counts, state.counts))) best.push(state);
  }
  return best;
}

function hasAsMany(more: readonly number[], counts: readonly number[]): boolean {
  for (let i = 0; i < counts.length; i += 1) if (nth(counts, i) > (more[i] ?? 0)) return false;
  return true;
}
