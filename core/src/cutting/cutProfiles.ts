import { entryOf, firstOf, nth } from '../lists/there.ts';
import { layerGap } from '../shop/layering.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Unit } from './cutProblem.ts';
import { sideKept, sideValue, widthBeside } from './settle.ts';
import { nextLane, orderFor, widestRip, type BlankSpace } from './unitGeometry.ts';
import { type CutModel, Programme } from './cutProgramme.ts';
import type { Groups, Split } from './cutProgramme.ts';

/** More ways to rip one blank than this are not all listed; the bound then comes from the wood in the strips alone. */
const MOST_SPLITS = 6000;
const MOST_STACKS = 2000;

/** Lists the ways to rip a blank and what its lanes may hold. Null when nothing wanted fits. */
export function makeProfile(
  model: CutModel,
  programme: Programme,
  unit: Unit,
  space: BlankSpace,
  x: number,
  wanted: { kind: number; members: { type: number; way: number }[] }[],
  poolIndex: Map<string, number>,
  poolRows: number[],
  demandRows: number[],
  groups: Groups,
): number | null {
  const { geometry } = unit;
  const kinds: { kind: number; pool: number; most: number }[] = [];
  for (const { kind, members } of wanted) {
    const lane = nth(model.kinds, kind);
    if (nextLane(space, lane, 0) === null) continue;
    const planed = space.thickness - orderFor(geometry, space.length, widestRip(lane)).loss.total;
    const fitting = members.filter(({ type, way }) => {
      const t = nth(model.types, type);
      return nth(t.thickness, way) <= planed + LENGTH_TOLERANCE_MM && (t.from === null || t.from.has(unit.piece.id));
    });
    if (fitting.length === 0) continue;
    const gap = lane.parts.length === 1 ? layerGap(unit.geometry.shop, firstOf(lane.parts).rip) : null;
    const stacks = stacksFor(model, fitting, planed, gap);
    const key = `${kind}|${stacks.map((s) => s.map(({ type, way }) => `${type}.${way}`).join('+')).join(',')}`;
    let pool = poolIndex.get(key);
    if (pool === undefined) {
      pool = model.pools.length;
      poolIndex.set(key, pool);
      const row = programme.row(-Infinity, 0);
      poolRows.push(row);
      model.pools.push({
        kind,
        stacks: stacks.map((types) => ({
          types,
          column: programme.column(0, Infinity, [
            [row, 1],
            ...types.map(({ type }) => [nth(demandRows, type), 1] as const),
          ]),
        })),
      });
    }
    kinds.push({ kind, pool, most: fitting.reduce((sum, { type }) => sum + nth(model.types, type).members.length, 0) });
  }
  if (kinds.length === 0) return null;

  const splits = splitsFor(model, space, kinds, geometry.shop.saw.kerf, (end) => {
    const width = widthBeside(space, end, geometry.shop.saw.kerf);
    return sideKept(width, space.length, geometry.shop)
      ? Math.max(0, sideValue(unit, geometry, x, space.length, width) - geometry.shop.cutting.leftoverEach)
      : 0;
  });
  const told = splits
    .map(({ lanes, credit }) => ({
      lanes,
      credit,
      key: `${lanes
        .map(({ kind, pool }) => `${kind}.${pool}`)
        .sort()
        .join('+')}@${credit.toFixed(6)}`,
    }))
    .sort((a, b) => (a.key < b.key ? -1 : 1));
  const key = told.map((s) => s.key).join('|');
  let known = groups.known.get(key);
  if (!known) {
    const row = programme.row(-Infinity, 0);
    groups.rows.push(row);
    known = {
      group: groups.rows.length - 1,
      columns: told.map(({ lanes, credit }) =>
        programme.column(-credit, Infinity, [[row, 1], ...lanes.map(({ pool }) => [nth(poolRows, pool), -1] as const)]),
      ),
    };
    groups.known.set(key, known);
  }
  const { group, columns } = known;
  model.profiles.push({ space, group, splits: told.map(({ lanes }, i) => ({ lanes, column: nth(columns, i) })) });
  return model.profiles.length - 1;
}

/** What a lane of a planed thickness may hold: single strips, or as many layers as fit when it can be resawn; only fullest stacks. */
function stacksFor(
  model: CutModel,
  fitting: { type: number; way: number }[],
  planed: number,
  gap: number | null,
): { type: number; way: number }[][] {
  const thickness = ({ type, way }: { type: number; way: number }) => nth(nth(model.types, type).thickness, way);
  if (gap === null) return fitting.map((f) => [f]);
  const order = [...fitting].sort((a, b) => thickness(b) - thickness(a) || a.type - b.type);
  const stacks: { type: number; way: number }[][] = [];
  const used = new Map<number, number>();
  const fill = (from: number, stack: { type: number; way: number }[], left: number) => {
    if (stacks.length > MOST_STACKS) {
      model.complete = false;
      return;
    }
    let fuller = false;
    for (let i = 0; i < order.length; i += 1) {
      const item = nth(order, i);
      const room = left - thickness(item) - (stack.length > 0 ? gap : 0);
      if (room < -LENGTH_TOLERANCE_MM || (used.get(item.type) ?? 0) >= nth(model.types, item.type).members.length)
        continue;
      fuller = true;
      if (i < from) continue;
      used.set(item.type, (used.get(item.type) ?? 0) + 1);
      fill(i, [...stack, item], room);
      used.set(item.type, entryOf(used, item.type) - 1);
    }
    if (!fuller && stack.length > 0) stacks.push(stack);
  };
  fill(0, [], planed);
  return stacks;
}

/** Ways to lay lanes across a blank: for each count of each kind the arrangement that ends first; those that another one beats are left out. */
function splitsFor(
  model: CutModel,
  space: BlankSpace,
  kinds: { kind: number; pool: number; most: number }[],
  kerf: number,
  creditAt: (end: number) => number,
): { lanes: Split['lanes']; credit: number }[] {
  interface Arrangement {
    counts: number[];
    end: number;
    lanes: Split['lanes'];
  }
  const all = new Map<string, Arrangement>();
  let layer = new Map<string, Arrangement>([['', { counts: kinds.map(() => 0), end: -kerf, lanes: [] }]]);
  while (layer.size > 0) {
    const next = new Map<string, Arrangement>();
    for (const { counts, end, lanes } of layer.values()) {
      kinds.forEach(({ kind, pool, most }, k) => {
        if (nth(counts, k) >= most) return;
        const y = nextLane(space, nth(model.kinds, kind), end + kerf);
        if (y === null) return;
        const grown = counts.with(k, nth(counts, k) + 1);
        const key = grown.join(',');
        const ends = y + nth(model.kinds, kind).width;
        const known = next.get(key);
        if (!known || ends < known.end)
          next.set(key, { counts: grown, end: ends, lanes: [...lanes, { kind, y, pool }] });
      });
    }
    for (const [key, value] of next) all.set(key, value);
    if (all.size > MOST_SPLITS) {
      model.complete = false;
      break;
    }
    layer = next;
  }
  return [...all.values()]
    .map((a) => ({ ...a, credit: creditAt(a.end) }))
    .filter(
      ({ counts, credit }) =>
        !kinds.some((_, k) => {
          const bigger = all.get(counts.with(k, nth(counts, k) + 1).join(','));
          return bigger !== undefined && creditAt(bigger.end) >= credit;
        }),
    );
}
