import { firstOf, nth } from '../lists/there.ts';
import type { CutPlan, RippedStrip, StripDemand } from './cutPlan.ts';
import { unitsBySpecies, type CutProblem, type Unit, type UnitOrder } from './cutProblem.ts';
import { demandTypes, isSpare, type DemandType } from './demandTypes.ts';
import { addScores, NO_SCORE, settleUnit, type PlacedBlank, type PlacedLane, type UsedUnit } from './settle.ts';
import { beginnings } from './beginnings.ts';
import { shortagesOf } from './shortages.ts';
import { layerGap } from '../shop/layering.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { blankSpace, laneKind, nextLane, orderFor, widestRip, type BlankSpace, type LaneKind } from './unitGeometry.ts';

interface OpenBlank extends PlacedBlank {
  space: BlankSpace;
  /** Next free place across, mm. */
  next: number;
}

interface OpenUnit {
  unit: Unit;
  /** Next free place along, mm. */
  next: number;
  blanks: OpenBlank[];
  /** How often something was laid into it: what found no place finds none until it is another number. */
  changes: number;
}

/**
 * Assigns every demand to a piece by first fit, decreasing rip width: open rips with room for another layer, open blanks, then a new crosscut.
 * Among pieces of the species offcuts come first, then the thinnest, then the shortest.
 *
 * @returns a feasible plan: rips never overlap, stay clear of what must go and inside the usable size of their piece
 */
export function firstFit(problem: CutProblem): CutPlan {
  const { used, unmet } = firstFitUnits(problem);
  const settled = used.map(settleUnit);
  return {
    method: 'first-fit',
    blanks: settled.flatMap((s) => s.blanks),
    leftovers: settled.flatMap((s) => s.leftovers),
    shortages: shortagesOf(unmet, problem),
    score: settled.reduce((sum, s) => addScores(sum, s.score), NO_SCORE),
    bound: null,
    gap: null,
    proofs: [],
  };
}

/** In what order strips look for a place, and where: behind what lies in a piece already, or anywhere in it that a search would look. */
interface Attempt {
  first(a: Item, b: Item): number;
  anywhere: boolean;
  order: UnitOrder;
}

interface Item {
  type: DemandType;
  members: StripDemand[];
}

const byLength = (a: Item, b: Item) => b.type.length - a.type.length;
const byWidth = (a: Item, b: Item) => widest(b.type) - widest(a.type);
const byThickness = (a: Item, b: Item) => thickest(b.type) - thickest(a.type);
/** The usual order first; the others are tried while a strip finds no place. */
const ATTEMPTS: readonly Attempt[] = [
  { first: (a, b) => byLength(a, b) || byWidth(a, b) || byThickness(a, b), anywhere: false, order: 'thinFirst' },
  { first: (a, b) => byLength(a, b) || byWidth(a, b) || byThickness(a, b), anywhere: true, order: 'thinFirst' },
  { first: (a, b) => byThickness(a, b) || byLength(a, b) || byWidth(a, b), anywhere: true, order: 'thinFirst' },
  { first: (a, b) => byWidth(a, b) || byLength(a, b) || byThickness(a, b), anywhere: true, order: 'thickFirst' },
  { first: (a, b) => byWidth(b, a) || byLength(a, b) || byThickness(a, b), anywhere: true, order: 'thinFirst' },
];

/** The same before leftovers and cost are worked out: pieces with their blanks, and what found no place. Before a strip is called missing other orders are tried. */
export function firstFitUnits(problem: CutProblem): { used: UsedUnit[]; unmet: StripDemand[] } {
  const needed = ({ unmet }: ReturnType<typeof attempt>) =>
    unmet.reduce((sum, d) => sum + (d.spare > 0 ? 1 : SPARES_FOR_ONE), 0);
  let best = attempt(problem, firstOf(ATTEMPTS));
  for (const other of ATTEMPTS.slice(1)) {
    if (!best.unmet.some((d) => d.spare === 0)) break;
    const next = attempt(problem, other);
    if (needed(next) < needed(best)) best = next;
  }
  return best;
}

/** A strip of a board counts for more than all spares there are. */
const SPARES_FOR_ONE = 10_000;

function attempt(problem: CutProblem, { first, anywhere, order }: Attempt): { used: UsedUnit[]; unmet: StripDemand[] } {
  const bySpecies = unitsBySpecies(problem, order);
  const opened: Opened = new Map();
  const bySpeciesDemand = new Map<string, StripDemand[]>();
  for (const demand of problem.demands) {
    const known = bySpeciesDemand.get(demand.species);
    if (known) known.push(demand);
    else bySpeciesDemand.set(demand.species, [demand]);
  }

  const unmet: StripDemand[] = [];
  for (const [species, demands] of bySpeciesDemand) {
    const units = bySpecies.get(species) ?? [];
    const items = demandTypes(demands).flatMap((type) => type.members.map((members) => ({ type, members })));
    // Spares are wishes: they get what the strips of the board leave.
    items.sort(
      (a, b) =>
        Number(isSpare(a.members)) - Number(isSpare(b.members)) ||
        first(a, b) ||
        firstOf(a.members).copy - firstOf(b.members).copy ||
        firstOf(a.members).strip - firstOf(b.members).strip,
    );
    const seekers = new Map<DemandType, Seeker>();
    for (const { type, members } of items) {
      const seeker = seekers.get(type) ?? seekerOf(type, units, problem.shop.saw.kerf);
      seekers.set(type, seeker);
      if (!findPlace(seeker, opened, members, anywhere)) unmet.push(...members);
    }
  }

  const named = (u: OpenUnit) => `${u.unit.piece.species}/${u.unit.piece.id}`;
  const used = [...opened.values()].sort((a, b) =>
    named(a) < named(b) ? -1 : named(a) > named(b) ? 1 : a.unit.unit - b.unit.unit,
  );
  return { used, unmet };
}

/** Pieces that something lies in already. */
type Opened = Map<Unit, OpenUnit>;

/** Strips of one kind on their way through the rack: where they may lie, and where they found no place. */
interface Seeker {
  type: DemandType;
  kinds: readonly LaneKind[];
  allowed: readonly Unit[];
  /** How often something had been laid into a piece when nothing of the kind found a place in it. */
  full: Map<Unit, number>;
}

function seekerOf(type: DemandType, units: readonly Unit[], kerf: number): Seeker {
  const { from } = type;
  return {
    type,
    kinds: type.ways.map((ways) => laneKind(ways, kerf)),
    allowed: from ? units.filter((u) => from.has(u.piece.id)) : units,
    full: new Map(),
  };
}

function findPlace(
  { type, kinds, allowed, full }: Seeker,
  opened: Opened,
  members: StripDemand[],
  anywhere: boolean,
): boolean {
  return allowed.some((unit) => {
    const known = opened.get(unit);
    if (full.get(unit) === (known?.changes ?? 0)) return false;
    const open = known ?? { unit, next: unit.geometry.start, blanks: [], changes: 0 };
    if (!place(type, kinds, members, open, anywhere)) {
      full.set(unit, open.changes);
      return false;
    }
    open.changes += 1;
    opened.set(unit, open);
    return true;
  });
}

function widest(type: DemandType): number {
  return firstOf(type.ways).reduce((sum, way) => sum + way.rip, 0);
}

function thickest(type: DemandType): number {
  return firstOf(type.thickness);
}

function place(
  type: DemandType,
  kinds: readonly LaneKind[],
  members: StripDemand[],
  open: OpenUnit,
  anywhere: boolean,
): boolean {
  const { geometry } = open.unit;
  const { shop } = geometry;
  for (const [i, ways] of type.ways.entries()) {
    const kind = nth(kinds, i);
    const order = orderFor(geometry, type.length, widestRip(kind));
    const fits = (space: BlankSpace) =>
      space.thickness - order.loss.total >= nth(type.thickness, i) - LENGTH_TOLERANCE_MM;
    for (const blank of open.blanks) {
      if (blank.length !== type.length || !fits(blank.space)) continue;
      if (members.length === 1 && addLayer(blank, firstOf(ways), firstOf(members), open.unit)) return true;
      const y = nextLane(blank.space, kind, blank.next);
      if (y === null) continue;
      addLane(blank, kind, y, ways, members, open.unit);
      return true;
    }
    for (const x of anywhere
      ? freePlaces(open, type.length, kind)
      : [open.next, ...geometry.breakpoints.filter((b) => b > open.next)]) {
      const space = blankSpace(geometry, x, type.length);
      if (!space || !fits(space)) continue;
      const y = nextLane(space, kind, 0);
      if (y === null) continue;
      const blank: OpenBlank = { x, length: type.length, lanes: [], space, next: 0 };
      open.blanks.push(blank);
      open.next = Math.max(open.next, x + type.length + shop.crosscutSaw.kerf);
      addLane(blank, kind, y, ways, members, open.unit);
      return true;
    }
  }
  return false;
}

/** Places of a piece where a blank of a length may begin and nothing lies yet, nearest first. */
function freePlaces({ unit: { geometry }, blanks }: OpenUnit, length: number, kind: LaneKind): number[] {
  const { kerf } = geometry.shop.crosscutSaw;
  const behind = blanks.flatMap((b) => [b.x + b.length + kerf, b.x - kerf - length]);
  const free = (x: number) =>
    blanks.every(
      (b) => x >= b.x + b.length + kerf - LENGTH_TOLERANCE_MM || x + length + kerf <= b.x + LENGTH_TOLERANCE_MM,
    );
  return [...beginnings(geometry, [length], new Map([[length, [kind.width]]])), ...behind]
    .filter(free)
    .sort((a, b) => a - b);
}

function addLane(
  blank: OpenBlank,
  kind: LaneKind,
  y: number,
  ways: DemandType['ways'][number],
  members: StripDemand[],
  unit: Unit,
): void {
  blank.lanes.push(
    makeLane(
      unit,
      blank,
      kind,
      y,
      members.map((demand, k) => [{ demand, way: nth(ways, k) }]),
    ),
  );
  blank.next = y + kind.width + unit.geometry.shop.saw.kerf;
}

/** A lane with its rips; each rip may hold several layers. */
export function makeLane(
  unit: Unit,
  blank: { length: number; space: BlankSpace },
  kind: LaneKind,
  y: number,
  rips: { demand: StripDemand; way: DemandType['ways'][number][number] }[][],
): PlacedLane {
  const strips = rips.flatMap((layers, k): RippedStrip[] => {
    const { offset, rip } = nth(kind.parts, k);
    const outcome = orderFor(unit.geometry, blank.length, widestRip(kind));
    const planed = Math.max(0, blank.space.thickness - outcome.loss.total);
    return layers.map(({ demand, way }, layer) => ({
      demand,
      way: { ...way, rip },
      from: y + offset,
      planed,
      order: outcome.order,
      layer: layer + 1,
      layers: layers.length,
    }));
  });
  return { y, width: kind.width, strips };
}

function addLayer(blank: OpenBlank, way: DemandType['ways'][number][number], demand: StripDemand, unit: Unit): boolean {
  const gap = layerGap(unit.geometry.shop, way.rip);
  if (gap === null) return false;
  for (const lane of blank.lanes) {
    const first = firstOf(lane.strips);
    if (lane.width !== way.rip || first.way.shows !== way.shows) continue;
    const used = lane.strips.reduce((sum, s) => sum + s.way.thickness, 0) + lane.strips.length * gap;
    if (used + way.thickness > first.planed + LENGTH_TOLERANCE_MM) continue;
    lane.strips = [...lane.strips, { ...first, demand, way }].map((s, i, all) => ({
      ...s,
      layer: i + 1,
      layers: all.length,
    }));
    return true;
  }
  return false;
}
