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
  const at = new Map<number, State[]>();
  const keptAt = new Map<number, State[]>();
  /** Places still to be left, the nearest last. */
  const waiting: number[] = [];
  let states = 0;
  // Where blanks differ from place to place, ways are told apart that nobody would: there runs are slid together until one gap is left between two obstacles.
  const { farEnd, thickness, width } = geometry.piece;
  const tapers = farEnd !== null && (farEnd.thickness !== thickness || farEnd.width !== width);
  const mostStates = tapers ? MOST_STATES.tapers : MOST_STATES.plain;
  const mostGaps = tapers ? 1 + geometry.defects.length + geometry.taken.length : Infinity;
  const add = (map: Map<number, State[]>, x: number, state: State) => {
    const place = round(x);
    const list = map.get(place);
    if (!list && !(map === at ? keptAt : at).has(place)) waiting.splice(firstAtMost(waiting, place), 0, place);
    states += 1;
    if (!list) map.set(place, [state]);
    else list.push(state);
  };
  for (const head of heads) add(at, head, { cost: first(head), counts: [], gaps: 0, inGap: true, blanks: null });
  const isHead = new Set(heads.map(round));
  const clear = (from: number, to: number) => !geometry.taken.some((r) => r.from < to - LENGTH_TOLERANCE_MM && r.to > from + LENGTH_TOLERANCE_MM);
  const routes: State[] = [];
  while (waiting.length > 0 && states < mostStates) {
    const x = waiting.pop()!;
    // What was carried this far as a leftover may end here.
    const kept = pruned(keptAt.get(x) ?? [], tapers);
    const here = pruned([...(at.get(x) ?? []), ...(isHead.has(x) ? kept : [])], tapers);
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
        counts[index]! += 1;
        add(at, to, { cost: s.cost + cost, counts, gaps: s.gaps, inGap: false, blanks: { x, profile, before: s.blanks } });
      }
    }
    // A gap only matters behind a blank: before the first one the way begins further on.
    const cut = here.filter((s) => s.blanks !== null);
    if (cut.length === 0) continue;
    const end = last(x);
    for (const s of cut) if (!s.inGap) routes.push({ ...s, cost: s.cost + end.cost, blanks: slid(s.blanks, end) });
    if (next === undefined) continue;
    const waste = worth(x, next);
    // On from a place that only a gap led to, it is the same gap.
    const onward = cut.filter((s) => s.inGap || s.gaps < mostGaps);
    for (const s of onward) add(at, next, { ...s, cost: s.cost + waste, gaps: s.inGap ? s.gaps : s.gaps + 1, inGap: true });
    const far = firstFrom(heads, x + keep + kerf - LENGTH_TOLERANCE_MM);
    if (far !== undefined && clear(x, far)) {
      const cost = worth(x, far) - rate * stretchVolume(geometry, x, far - kerf) + carrying;
      for (const s of cut) if (!s.inGap && s.gaps < mostGaps) add(keptAt, far, { ...s, cost: s.cost + cost, gaps: s.gaps + 1, inGap: true });
    }
  }
  const ids = [...groups.keys()];
  return {
    complete: states < mostStates,
    routes: pruned(routes, false).map(({ cost, counts, blanks }) => ({ cost, blanks: listed(blanks), counts: new Map(counts.flatMap((n, i) => (n > 0 ? [[ids[i]!, n] as const] : []))) })),
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
    if (ascending[middle]! < least) low = middle + 1;
    else high = middle;
  }
  return ascending[low];
}

/** Where a number goes among descending ones. */
function firstAtMost(descending: readonly number[], value: number): number {
  let [low, high] = [0, descending.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (descending[middle]! > value) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Each way is held against all that cost less; of more than this only the last list is. */
const MOST_COMPARED = { plain: 5000, tapers: 1000 };

/** Without ways that another one beats: it costs no more, and has as many blanks of every group. @param told whether gaps are counted */
function pruned(states: readonly State[], told: boolean): State[] {
  const cheapest = new Map<string, State>();
  for (const state of states) {
    const key = told ? `${state.counts.join()}/${state.gaps}` : trimmed(state.counts);
    const known = cheapest.get(key);
    if (!known || state.cost < known.cost) cheapest.set(key, state);
  }
  const list = [...cheapest.values()].sort((a, b) => a.cost - b.cost);
  if (list.length > (told ? MOST_COMPARED.tapers : MOST_COMPARED.plain)) return list;
  const best: State[] = [];
  for (const state of list) {
    if (!best.some((b) => (!told || b.gaps <= state.gaps) && state.counts.every((n, i) => n <= (b.counts[i] ?? 0)))) best.push(state);
  }
  return best;
}

/** Counts as text, without the noughts that a longer way would not have. */
function trimmed(counts: readonly number[]): string {
  let end = counts.length;
  while (end > 0 && counts[end - 1] === 0) end -= 1;
  return counts.slice(0, end).join();
}
