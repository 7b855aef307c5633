import { layerGap } from '../shop/layering.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Unit } from './cutProblem.ts';
import { isSpare, type DemandType } from './demandTypes.ts';
import type { Defect } from '../stock/defect.ts';
import type { MipModel } from './mipSolver.ts';
import { beginnings, MOST_PLACES } from './beginnings.ts';
import { routesOf, type RouteNetwork } from './routes.ts';
import { sideKept, sideValue, widthBeside } from './settle.ts';
import {
  blankSpace,
  freeStretches,
  laneKind,
  nextLane,
  orderFor,
  ownVolume,
  stretchVolume,
  widestRip,
  type BlankSpace,
  type LaneKind,
  type UnitGeometry,
} from './unitGeometry.ts';

/** More ways to rip one blank than this are not all listed; the bound then comes from the wood in the strips alone. */
const MOST_SPLITS = 6000;
const MOST_STACKS = 2000;
/** On a piece that tapers both ways, so many rips of a kind side by side are looked for a place. */
const MOST_BESIDE = 6;

/** Identical pieces with nothing promised: one column of flow carries all of them. */
export interface UnitClass {
  units: Unit[];
  geometry: UnitGeometry;
}

/** A blank at a place of a piece. */
export interface RouteBlank {
  x: number;
  profile: number;
}

/** One way to cut a piece of a class along its length, and what that costs: of all ways that give the same blanks, the cheapest. */
export interface Route {
  column: number;
  unitClass: number;
  blanks: RouteBlank[];
}

/** Blanks of a class that look the same across: same length, same obstacles, same thickness. */
export interface Profile {
  space: BlankSpace;
  /** Blanks that can be ripped alike are one group, wherever their lanes lie: its row allows as many splits as there are blanks. */
  group: number;
  splits: Split[];
}

/** One way to rip a blank: which lanes lie where. */
export interface Split {
  column: number;
  lanes: { kind: number; y: number; pool: number }[];
}

/** Lanes that can hold the same things, wherever they are. */
export interface Pool {
  kind: number;
  stacks: Stack[];
}

/** What one lane may hold: demand types, one under the other when it is resawn. */
export interface Stack {
  column: number;
  types: { type: number; way: number }[];
}

/** The programme for one species, with what its columns mean. */
export interface CutModel {
  mip: MipModel;
  classes: UnitClass[];
  kinds: LaneKind[];
  routes: Route[];
  profiles: Profile[];
  pools: Pool[];
  types: readonly DemandType[];
  /** Columns of what stays missing of each type, strips of boards and spares apart; empty when nothing may. */
  missing: { column: number; type: number; spare: boolean }[];
  /** False when a list was cut short, so that the programme's bound is not a bound. */
  complete: boolean;
}

/** Rows and columns of a growing programme. */
class Programme {
  readonly mip: MipModel = { cost: [], upper: [], columns: [], rowLower: [], rowUpper: [] };

  row(lower: number, upper: number): number {
    this.mip.rowLower.push(lower);
    this.mip.rowUpper.push(upper);
    return this.mip.rowLower.length - 1;
  }

  column(cost: number, upper: number, entries: readonly (readonly [row: number, value: number])[]): number {
    const byRow = new Map<number, number>();
    for (const [row, value] of entries) byRow.set(row, (byRow.get(row) ?? 0) + value);
    this.mip.cost.push(cost);
    this.mip.upper.push(upper);
    this.mip.columns.push({ rows: [...byRow.keys()], values: [...byRow.values()] });
    return this.mip.cost.length - 1;
  }
}

/**
 * States one species as a mixed-integer programme. A piece is cut along one of its routes, which gives blanks of some groups; each blank chooses one way
 * to be ripped into lanes; each lane holds one strip, or several when it is resawn. Every wish is met.
 *
 * A blank begins at an end trim, behind a defect or promised length or behind another blank, or it ends so on the other side: a maker turns a plank round, and
 * waste may lie in the middle. Any plan can be slid into such a one, run by run, without costing more, so the programme's optimum is the optimum; across a blank
 * every place counts, because pushing a lane toward the near edge never makes a plan worse.
 *
 * @param mayMiss whether strips may stay missing; their columns then cost nothing here
 */
export function cutModel(units: readonly Unit[], types: readonly DemandType[], mayMiss: boolean): CutModel {
  const programme = new Programme();
  const model: CutModel = {
    mip: programme.mip,
    classes: classesOf(units),
    kinds: [],
    routes: [],
    profiles: [],
    pools: [],
    types,
    missing: [],
    complete: true,
  };
  const demandRows = types.map((type) => programme.row(type.members.length, Infinity));
  const kindIndex = new Map<string, number>();
  const poolIndex = new Map<string, number>();
  const poolRows: number[] = [];
  const groups: Groups = { rows: [], known: new Map() };

  const kindsFor = new Map<number, { kind: number; members: { type: number; way: number }[] }[]>();
  types.forEach((type, t) =>
    type.ways.forEach((ways, w) => {
      const kind = laneKind(ways, units[0]?.geometry.shop.saw.kerf ?? 0);
      const key = `${kind.key}`;
      if (!kindIndex.has(key)) {
        kindIndex.set(key, model.kinds.length);
        model.kinds.push(kind);
      }
      const list = kindsFor.get(type.length) ?? [];
      const entry = list.find((e) => e.kind === kindIndex.get(key)) ?? { kind: kindIndex.get(key)!, members: [] };
      if (!list.includes(entry)) list.push(entry);
      entry.members.push({ type: t, way: w });
      kindsFor.set(type.length, list);
    }),
  );

  model.classes.forEach(({ units: same, geometry }, c) => {
    const unit = same[0]!;
    const { shop, piece } = geometry;
    const kerf = shop.crosscutSaw.kerf;
    const profileOf = new Map<string, number | null>();

    const known = new Map<number, Map<number, number | null>>();
    const profileAt = (x: number, length: number): number | null => {
      const there = known.get(x) ?? known.set(x, new Map()).get(x)!;
      if (!there.has(length)) there.set(length, profileFor(x, length));
      return there.get(length)!;
    };
    const profileFor = (x: number, length: number): number | null => {
      const space = blankSpace(geometry, x, length);
      if (!space) return null;
      const key = `${length}|${space.near}|${space.far}|${space.thickness}|${JSON.stringify([space.cut, space.under])}`;
      const found = profileOf.get(key);
      if (found !== undefined) return found;
      const profile = makeProfile(
        model,
        programme,
        unit,
        space,
        x,
        kindsFor.get(length)!,
        poolIndex,
        poolRows,
        demandRows,
        groups,
      );
      profileOf.set(key, profile);
      return profile;
    };

    const stay = (from: number, to: number): number => {
      const kept = freeStretches(geometry, from, Math.max(from, to)).filter((s) => s.kept);
      return kept.reduce(
        (sum, s) => sum - Math.max(0, unit.rate * stretchVolume(geometry, s.from, s.to) - shop.cutting.leftoverEach),
        0,
      );
    };
    const worth = (from: number, to: number) =>
      from >= piece.length ? 0 : unit.rate * ownVolume(geometry, from, Math.min(to, piece.length));

    const lengths = [...kindsFor.keys()];
    // On a piece that is alike all along it is nothing but how much is left over that counts: blanks lie at the first end, and what is left is slid to where it is worth most.
    const alike = isAlike(geometry);
    const heads = alike
      ? [geometry.start]
      : beginnings(geometry, lengths, kindWidths(model, kindsFor), relevantDefects(geometry, model.kinds)).filter((x) =>
          lengths.some((l) => profileAt(x, l) !== null),
        );
    if (heads.length > MOST_PLACES) model.complete = false;

    const network: RouteNetwork = {
      geometry,
      heads: heads.slice(0, MOST_PLACES),
      keep: shop.habits.keepLength,
      carrying: shop.cutting.leftoverEach,
      rate: unit.rate,
      worth,
      first: (start) => worth(0, start) + stay(0, start - kerf) + unit.openPiece + unit.openPlank,
      last: (x) =>
        alike && x > geometry.start + LENGTH_TOLERANCE_MM
          ? slidTo(x)
          : { by: 0, cost: worth(x, piece.length) + stay(x, piece.length), last: false },
      blanksAt: (x) =>
        lengths.flatMap((length) => {
          const profile = profileAt(x, length);
          return profile === null
            ? []
            : [
                {
                  profile,
                  group: model.profiles[profile]!.group,
                  to: x + length + kerf,
                  cost: worth(x, x + length + kerf),
                },
              ];
        }),
    };
    const { routes, complete } = routesOf(network);
    if (!complete) model.complete = false;
    const capacity = programme.row(-Infinity, same.length);
    for (const { cost, blanks, counts } of routes) {
      const entries = [...counts].map(([group, count]) => [groups.rows[group]!, -count] as const);
      model.routes.push({
        unitClass: c,
        blanks,
        column: programme.column(cost, same.length, [[capacity, 1], ...entries]),
      });
    }

    /** Blanks that end at a place, slid to where what is left is worth most: to the far end, or away from both ends, or the last one alone to the far end. */
    function slidTo(x: number): { by: number; cost: number; last: boolean } {
      const { start, end, endLoss } = geometry;
      const at = (by: number) =>
        worth(0, start + by) +
        stay(0, start + by - kerf) +
        worth(x + by, piece.length) +
        stay(x + by, piece.length) -
        worth(0, start) -
        stay(0, start - kerf);
      // The last blank's kerf falls into the end trim, or beyond the end.
      const most = end - (x - kerf);
      const options: { by: number; cost: number; last?: boolean }[] = [{ by: 0, cost: at(0) }];
      if (most > LENGTH_TOLERANCE_MM) {
        options.push({ by: most, cost: at(most) });
        const middle = shop.habits.keepLength + endLoss.start + kerf - start;
        if (middle > 0 && middle < most) options.push({ by: middle, cost: at(middle) });
        // With two blanks or more the last one alone may go to the far end: what is left between has no checked end.
        const between = start + lengths[0]! / 2;
        const two = x - start > Math.max(...lengths) + kerf + LENGTH_TOLERANCE_MM;
        if (two)
          options.push({
            by: most,
            last: true,
            cost:
              worth(x + most, piece.length) +
              stay(x + most, piece.length) +
              worth(between, between + most) +
              stay(between, between + most - kerf),
          });
      }
      return { last: false, ...options.reduce((best, o) => (o.cost < best.cost - 1e-9 ? o : best)) };
    }
  });

  if (mayMiss) {
    types.forEach((type, t) => {
      for (const spare of [false, true]) {
        const most = type.members.filter((m) => isSpare(m) === spare).length;
        if (most > 0) model.missing.push({ column: programme.column(0, most, [[demandRows[t]!, 1]]), type: t, spare });
      }
    });
  }
  return model;
}

/** Defects that decide anything for rips of these kinds: one that may go underneath decides nothing where strips lie flat and their other side is clean. */
function relevantDefects({ defects }: UnitGeometry, kinds: readonly LaneKind[]): Defect[] {
  const onEdge = kinds.some((k) => k.parts.some((p) => p.shows === 'edge'));
  return defects.filter(
    (d) =>
      d.treatment === 'cut' ||
      onEdge ||
      d.face === 'through' ||
      defects.some((o) => o !== d && o.treatment === 'under' && o.face !== d.face),
  );
}

/** Whether it makes no difference where along the piece a blank lies. */
function isAlike({ piece, defects, taken }: UnitGeometry): boolean {
  return (
    defects.length === 0 &&
    taken.length === 0 &&
    (piece.farEnd === null || (piece.farEnd.width === piece.width && piece.farEnd.thickness === piece.thickness))
  );
}

/** Widths across that rips of a length may take together, mm: each kind alone and beside itself. */
function kindWidths(model: CutModel, kindsFor: ReadonlyMap<number, { kind: number }[]>): Map<number, number[]> {
  const kerf = model.classes[0]?.geometry.shop.saw.kerf ?? 0;
  return new Map(
    [...kindsFor].map(([length, kinds]) => [
      length,
      kinds.flatMap(({ kind }) =>
        Array.from({ length: MOST_BESIDE }, (_, i) => (i + 1) * model.kinds[kind]!.width + i * kerf),
      ),
    ]),
  );
}

function classesOf(units: readonly Unit[]): UnitClass[] {
  const classes = new Map<string, UnitClass>();
  for (const unit of units) {
    const key = unit.geometry.taken.length > 0 ? `${unit.piece.id}/${unit.unit}` : unit.piece.id;
    const known = classes.get(key);
    if (known) known.units.push(unit);
    else classes.set(key, { units: [unit], geometry: unit.geometry });
  }
  return [...classes.values()];
}

/** Groups of blanks that can be ripped alike: their rows, and the columns of their splits by what these hold. */
interface Groups {
  rows: number[];
  known: Map<string, { group: number; columns: number[] }>;
}

/** Lists the ways to rip a blank and what its lanes may hold. Null when nothing wanted fits. */
function makeProfile(
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
    const lane = model.kinds[kind]!;
    if (nextLane(space, lane, 0) === null) continue;
    const planed = space.thickness - orderFor(geometry, space.length, widestRip(lane)).loss.total;
    const fitting = members.filter(({ type, way }) => {
      const t = model.types[type]!;
      return t.thickness[way]! <= planed + LENGTH_TOLERANCE_MM && (t.from === null || t.from.has(unit.piece.id));
    });
    if (fitting.length === 0) continue;
    const gap = lane.parts.length === 1 ? layerGap(unit.geometry.shop, lane.parts[0]!.rip) : null;
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
            ...types.map(({ type }) => [demandRows[type]!, 1] as const),
          ]),
        })),
      });
    }
    kinds.push({ kind, pool, most: fitting.reduce((sum, { type }) => sum + model.types[type]!.members.length, 0) });
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
        programme.column(-credit, Infinity, [[row, 1], ...lanes.map(({ pool }) => [poolRows[pool]!, -1] as const)]),
      ),
    };
    groups.known.set(key, known);
  }
  const { group, columns } = known;
  model.profiles.push({ space, group, splits: told.map(({ lanes }, i) => ({ lanes, column: columns[i]! })) });
  return model.profiles.length - 1;
}

/** What a lane of a planed thickness may hold: single strips, or as many layers as fit when it can be resawn; only fullest stacks. */
function stacksFor(
  model: CutModel,
  fitting: { type: number; way: number }[],
  planed: number,
  gap: number | null,
): { type: number; way: number }[][] {
  const thickness = ({ type, way }: { type: number; way: number }) => model.types[type]!.thickness[way]!;
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
      const item = order[i]!;
      const room = left - thickness(item) - (stack.length > 0 ? gap : 0);
      if (room < -LENGTH_TOLERANCE_MM || (used.get(item.type) ?? 0) >= model.types[item.type]!.members.length) continue;
      fuller = true;
      if (i < from) continue;
      used.set(item.type, (used.get(item.type) ?? 0) + 1);
      fill(i, [...stack, item], room);
      used.set(item.type, used.get(item.type)! - 1);
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
        if (counts[k]! >= most) return;
        const y = nextLane(space, model.kinds[kind]!, end + kerf);
        if (y === null) return;
        const grown = counts.with(k, counts[k]! + 1);
        const key = grown.join(',');
        const ends = y + model.kinds[kind]!.width;
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
          const bigger = all.get(counts.with(k, counts[k]! + 1).join(','));
          return bigger !== undefined && creditAt(bigger.end) >= credit;
        }),
    );
}
