import type { Shop } from '../shop/shop.ts';
import { isMetal, type Defect } from '../stock/defect.ts';
import type { Piece } from '../stock/piece.ts';
import { thicknessAt, volumeBetween, widthAt } from '../stock/shape.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Way } from './cutPlan.ts';
import { formOfPart } from './flattening.ts';
import { bestOrder, type OrderOutcome } from './millingOrder.ts';

const TOLERANCE = LENGTH_TOLERANCE_MM;
/** A hidden defect stays this far inside the edge that shows, mm (common practice: a pencil line). */
export const SHOW_CLEARANCE = 1;

export interface Range {
  from: number;
  to: number;
}

/**
 * A piece with everything that decides where blanks may lie. Along: `x` in mm from the end that is cut first, which is the far end when
 * the piece is thicker there (`mirrored`), so that moving a blank toward 0 never makes it thinner. Across: `y` from the near edge.
 */
export interface UnitGeometry {
  piece: Piece;
  shop: Shop;
  mirrored: boolean;
  /** First and last place a blank may touch. */
  start: number;
  end: number;
  /** Extra loss at the two raw ends beyond a clean cut: a leftover that keeps the raw end is that much less useful. */
  endLoss: { start: number; end: number };
  /** Promised elsewhere; a cut beside it takes its kerf from the rest. */
  taken: Range[];
  defects: Defect[];
  /** Lengths in which metal lies that is to be cut out: no crosscut runs through them. */
  metal: Range[];
  /** Where a blank may have to begin: after an end trim, a defect or a promised length, or a kerf behind where one may have to end. Ascending. */
  breakpoints: number[];
  /** Where a blank may have to end: at the other end trim, before a defect or a promised length, or a kerf before where one may have to begin. Descending. */
  stops: number[];
  orders: Map<string, OrderOutcome>;
}

/** A blank's cross section: what is free across it and how thick it is. */
export interface BlankSpace {
  length: number;
  near: number;
  far: number;
  thickness: number;
  cut: Range[];
  under: { up: Range[]; down: Range[]; any: Range[] };
}

/** How much of each end is trimmed before the first blank: the shop's habit unless it is sawn clean, or what is checked or sniped if that is more. */
export function endTrim(piece: Piece, end: 'mark' | 'far', shop: Shop): number {
  const { checked, snipe, sawn } = piece.ends[end];
  return Math.max(sawn ? 0 : shop.habits.stockEndTrim, checked, snipe);
}

/** Geometries of pieces with nothing promised: a plan is made again and again from the same rack. */
const KNOWN = new WeakMap<Piece, UnitGeometry>();

export function unitGeometry(piece: Piece, shop: Shop, promised: readonly Range[]): UnitGeometry {
  if (promised.length > 0) return makeGeometry(piece, shop, promised);
  const known = KNOWN.get(piece);
  if (known?.shop === shop) return known;
  const made = makeGeometry(piece, shop, promised);
  KNOWN.set(piece, made);
  return made;
}

function makeGeometry(piece: Piece, shop: Shop, promised: readonly Range[]): UnitGeometry {
  const far = piece.farEnd ?? piece;
  const mirrored = far.thickness > piece.thickness || (far.thickness === piece.thickness && far.width > piece.width);
  const flip = (from: number, length: number) => (mirrored ? piece.length - from - length : from);
  const [first, last] = mirrored ? (['far', 'mark'] as const) : (['mark', 'far'] as const);
  const start = endTrim(piece, first, shop);
  const end = piece.length - endTrim(piece, last, shop);
  const taken = promised
    .map((r) => ({ from: flip(r.from, r.to - r.from), to: flip(r.from, r.to - r.from) + (r.to - r.from) }))
    .sort((a, b) => a.from - b.from);
  const kerf = shop.crosscutSaw.kerf;
  const defects = piece.defects
    .filter((d) => d.treatment !== 'harmless')
    .map((d) => withMargin(d, shop))
    .map((d) => ({ ...d, from: flip(d.from, d.length) }));
  const after = [...defects.map((d) => d.from + d.length), ...taken.map((r) => r.to + kerf)];
  const before = [...defects.map((d) => d.from), ...taken.map((r) => r.from - kerf)];
  const inside = (x: number) => x > start && x < end;
  return {
    piece,
    shop,
    mirrored,
    start,
    end,
    taken,
    defects,
    metal: piece.defects
      .filter((d) => d.treatment === 'cut' && isMetal(d))
      .map((d) => ({ from: flip(d.from, d.length), to: flip(d.from, d.length) + d.length })),
    endLoss: {
      start: Math.max(0, start - shop.habits.stockEndTrim),
      end: Math.max(0, piece.length - end - shop.habits.stockEndTrim),
    },
    breakpoints: [...new Set([start, ...[...after, ...before.map((x) => x + kerf)].filter(inside)])].sort(
      (a, b) => a - b,
    ),
    stops: [...new Set([end, ...[...before, ...after.map((x) => x - kerf)].filter(inside)])].sort((a, b) => b - a),
    orders: new Map(),
  };
}

/** Metal that is cut out keeps clear of every blade: the kerf of the cut beside it, and what straightening takes, fall outside it. */
function withMargin(defect: Defect, shop: Shop): Defect {
  if (defect.treatment !== 'cut' || !isMetal(defect)) return defect;
  const along = shop.crosscutSaw.kerf;
  const across = metalMargin(shop);
  return {
    ...defect,
    from: defect.from - along,
    length: defect.length + 2 * along,
    across: defect.across - across,
    width: defect.width + 2 * across,
  };
}

/** Wood between metal and a strip, mm: the widest kerf along the grain and what a sawn edge is straightened by. */
export function metalMargin({ saw, habits }: Pick<Shop, 'saw' | 'habits'>): number {
  return saw.kerf + habits.stockEdgeJoint;
}

/** A place along the geometry as a place along the piece from its marked end, for a part of that length. */
export function alongPiece(geometry: UnitGeometry, x: number, length: number): number {
  return geometry.mirrored ? geometry.piece.length - x - length : x;
}

const NONE: Range[] = [];
const CLEAR = { up: NONE, down: NONE, any: NONE };

const meetsKerf = (m: Range, from: number, to: number): boolean => m.from < to - TOLERANCE && m.to > from + TOLERANCE;

/** The cross section of a blank, or null when it would leave the usable length or touch wood promised elsewhere. */
export function blankSpace(geometry: UnitGeometry, x: number, length: number): BlankSpace | null {
  const { piece, shop, taken, defects } = geometry;
  const to = x + length;
  if (x < geometry.start - TOLERANCE || to > geometry.end + TOLERANCE) return null;
  const kerf = shop.crosscutSaw.kerf;
  if (taken.some((r) => x < r.to + kerf - TOLERANCE && to > r.from - kerf + TOLERANCE)) return null;
  if (geometry.metal.some((m) => meetsKerf(m, x - kerf, x) || meetsKerf(m, to, to + kerf))) return null;
  const [a, b] = geometry.mirrored ? [piece.length - x, piece.length - to] : [x, to];
  const far = Math.min(widthAt(piece, a), widthAt(piece, b));
  const thickness = Math.min(thicknessAt(piece, a), thicknessAt(piece, b));
  const near = nearLoss(piece, length, shop);
  if (defects.length === 0) return { length, near, far, thickness, cut: NONE, under: CLEAR };
  const here = defects.filter((d) => d.from < to - TOLERANCE && d.from + d.length > x + TOLERANCE);
  const across = (list: Defect[]): Range[] =>
    list.map((d) => ({ from: d.across, to: d.across + d.width })).sort((a, b) => a.from - b.from);
  const hidden = here.filter((d) => d.treatment === 'under');
  return {
    length,
    near,
    far,
    thickness,
    cut: across(here.filter((d) => d.treatment === 'cut')),
    under: {
      up: across(hidden.filter((d) => d.face !== 'down')),
      down: across(hidden.filter((d) => d.face !== 'up')),
      any: across(hidden),
    },
  };
}

/** What straightening an edge of a part takes before the first rip, mm: nothing when one is straight already, else jointing and the part's crook. */
export function nearLoss(piece: Piece, length: number, shop: Shop): number {
  if (piece.surface === 'ready' || piece.straight === 'near' || piece.straight === 'both') return 0;
  if (piece.straight === 'far') return shop.habits.stockEdgeJoint;
  return (
    shop.habits.stockEdgeJoint + (piece.form ? formOfPart(piece.form, piece, { length, width: piece.width }).crook : 0)
  );
}

/** A joint that is dragged asks for a new size with every pixel; older ones are forgotten. */
const MOST_ORDERS = 200;

/** The best order of milling for a part of this size out of the piece; remembered, because a plan asks often. */
export function orderFor(geometry: UnitGeometry, length: number, rip: number): OrderOutcome {
  const key = `${length}/${rip}`;
  let outcome = geometry.orders.get(key);
  if (!outcome) {
    outcome = bestOrder(geometry.piece, { length, width: rip }, geometry.shop);
    if (geometry.orders.size >= MOST_ORDERS) geometry.orders.clear();
    geometry.orders.set(key, outcome);
  }
  return outcome;
}

/** One or several rips that lie side by side with a kerf between. */
export interface LaneKind {
  key: string;
  /** All rips and the kerfs between them, mm. */
  width: number;
  parts: { offset: number; rip: number; shows: Way['shows'] }[];
}

export function laneKind(ways: readonly Pick<Way, 'rip' | 'shows'>[], kerf: number): LaneKind {
  let offset = 0;
  const parts = ways.map(({ rip, shows }) => {
    const part = { offset, rip, shows };
    offset += rip + kerf;
    return part;
  });
  return { key: ways.map((w) => `${w.shows}${w.rip}`).join('+'), width: offset - kerf, parts };
}

/** The widest of its rips: what is flattened as one loses what the widest does. */
export function widestRip({ parts }: LaneKind): number {
  return Math.max(...parts.map((p) => p.rip));
}

/** The first place at or after `y` where a lane fits across a blank, or null. */
export function nextLane(space: BlankSpace, kind: LaneKind, y: number): number | null {
  const first = Math.max(y, space.near);
  if (first + kind.width > space.far + TOLERANCE) return null;
  if (space.cut.length === 0 && space.under.any.length === 0) return first;
  const tries = [first];
  for (const { offset, rip } of kind.parts) {
    for (const r of space.cut) tries.push(r.to - offset);
    for (const r of space.under.any) tries.push(r.to - offset, r.to + SHOW_CLEARANCE - rip - offset);
  }
  tries.sort((a, b) => a - b);
  for (const at of tries) {
    if (at < first - TOLERANCE || at + kind.width > space.far + TOLERANCE) continue;
    if (kind.parts.every((part) => laneClear(space, at + part.offset, part.rip, part.shows))) return at;
  }
  return null;
}

/** Whether a rip at `y` is free of what must go, and has a clean side to show. */
export function laneClear(space: BlankSpace, y: number, rip: number, shows: Way['shows']): boolean {
  const to = y + rip;
  const meets = (r: Range) => r.from < to - TOLERANCE && r.to > y + TOLERANCE;
  if (space.cut.some(meets)) return false;
  if (shows === 'face') return !(space.under.up.some(meets) && space.under.down.some(meets));
  const nearEdge = space.under.any.some((r) => r.from <= y + TOLERANCE && r.to > y + TOLERANCE);
  const farEdge = space.under.any.some((r) => r.from < to - TOLERANCE && r.to > to - SHOW_CLEARANCE + TOLERANCE);
  return !(nearEdge && farEdge);
}

/** A stretch of the piece that no blank takes. */
export interface FreeStretch extends Range {
  kept: boolean;
}

/** The stretches between two cuts that stay wood: promised lengths left out, kept when long enough by the shop's habit. */
export function freeStretches(geometry: UnitGeometry, from: number, to: number): FreeStretch[] {
  const { piece, shop, taken } = geometry;
  const kerf = shop.crosscutSaw.kerf;
  const stretches: FreeStretch[] = [];
  let at = from;
  for (const range of [...taken.filter((r) => r.to > from && r.from < to), { from: to + kerf, to }]) {
    const end = Math.min(to, range.from - kerf);
    if (end > at + TOLERANCE) {
      const raw =
        (at <= TOLERANCE ? geometry.endLoss.start : 0) + (end >= piece.length - TOLERANCE ? geometry.endLoss.end : 0);
      stretches.push({ from: at, to: end, kept: end - at - raw >= shop.habits.keepLength - TOLERANCE });
    }
    at = Math.max(at, range.to + kerf);
  }
  return stretches;
}

/** Volume of a stretch of the geometry, full width, mm3. */
export function stretchVolume(geometry: UnitGeometry, from: number, to: number): number {
  const { piece, mirrored } = geometry;
  return mirrored ? volumeBetween(piece, piece.length - to, piece.length - from) : volumeBetween(piece, from, to);
}

/** Volume between two places that is not promised elsewhere, mm3. */
export function ownVolume(geometry: UnitGeometry, from: number, to: number): number {
  let volume = stretchVolume(geometry, from, to);
  for (const r of geometry.taken) {
    const a = Math.max(from, r.from);
    const b = Math.min(to, r.to);
    if (b > a) volume -= stretchVolume(geometry, a, b);
  }
  return volume;
}
