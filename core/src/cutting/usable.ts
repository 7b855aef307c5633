import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { PromisedRange, Way } from './cutPlan.ts';
import { beginnings } from './beginnings.ts';
import { partsAcross } from './rips.ts';
import {
  blankSpace,
  laneKind,
  nextLane,
  orderFor,
  unitGeometry,
  type Range,
  type UnitGeometry,
} from './unitGeometry.ts';

/** What a piece gives once its ends are trimmed, one edge is straight and both faces are flat, mm. Never negative. */
export interface UsableSize {
  length: number;
  width: number;
  /** Planed thickness of a part of the asked size. */
  thickness: number;
  /** Whether nothing on the piece must be cut round or hidden. */
  clear: boolean;
}

/**
 * @param part length and ripped width of the part in question, mm: a short part loses less to bow than the whole piece
 */
export function usableSize(piece: Piece, shop: Shop, part: { length: number; width: number }): UsableSize {
  const geometry = unitGeometry(piece, shop, []);
  const length = Math.max(0, geometry.end - geometry.start);
  const space = blankSpace(geometry, geometry.start, Math.min(part.length, length));
  const clear = piece.defects.every((d) => d.treatment === 'harmless');
  if (length === 0 || !space) return { length, width: 0, thickness: 0, clear };
  return {
    length,
    clear,
    width: Math.max(0, space.far - space.near),
    thickness: Math.max(
      0,
      space.thickness - orderFor(geometry, Math.min(part.length, piece.length), part.width).loss.total,
    ),
  };
}

/**
 * How many strips of one size a piece gives, laid out from its first end with a kerf between: blanks are placed by dynamic programming over
 * the places where one may begin, so defects cost no more than they must.
 * @returns strips of one piece; identical pieces each give as many
 */
export function stripsFrom(
  piece: Piece,
  shop: Shop,
  length: number,
  way: Way,
  promised: readonly PromisedRange[] = [],
): number {
  const geometry = unitGeometry(piece, shop, promised);
  if (blankLanesThickness(geometry, length, way) === null) return 0;
  const plain = geometry.defects.length === 0 && geometry.taken.length === 0 && piece.farEnd === null;
  const kind = laneKind([way], shop.saw.kerf);
  const lanesAt = new Map<number, number>();
  const lanes = (x: number): number => {
    const known = lanesAt.get(x) ?? countLanes(x);
    lanesAt.set(x, known);
    return known;
  };
  const countLanes = (x: number): number => {
    const space = blankSpace(geometry, x, length);
    if (
      !space ||
      space.thickness - orderFor(geometry, length, way.rip).loss.total < way.thickness - LENGTH_TOLERANCE_MM
    )
      return 0;
    let count = 0;
    for (let y = nextLane(space, kind, 0); y !== null; y = nextLane(space, kind, y + kind.width + shop.saw.kerf))
      count += 1;
    return count;
  };
  if (plain) return lanes(geometry.start) * partsAcross(geometry.end - geometry.start, length, shop.crosscutSaw.kerf);

  const heads = beginnings(geometry, [length], new Map([[length, [kind.width]]]));
  // Most strips from a place to the far end; places are a breakpoint plus whole blanks.
  const most = new Map<number, number>();
  const from = (x: number): number => {
    const known = most.get(x);
    if (known !== undefined) return known;
    let best = 0;
    most.set(x, 0);
    for (const start of [x, ...heads.filter((b) => b > x)]) {
      const here = lanes(start);
      if (here > 0) best = Math.max(best, here + from(start + length + shop.crosscutSaw.kerf));
    }
    most.set(x, best);
    return best;
  };
  return from(geometry.start);
}

/**
 * The same for a piece and those identical to it; units with something promised are counted on their own.
 * @param promised of any piece; only this one's matter
 */
export function stripsOfAll(
  piece: Piece,
  shop: Shop,
  length: number,
  way: Way,
  promised: readonly PromisedRange[],
): number {
  const taken = promised.filter((r) => r.pieceId === piece.id);
  const touched = new Set(taken.map((r) => r.unit));
  const free = piece.count - touched.size;
  const whole = free > 0 ? free * stripsFrom(piece, shop, length, way) : 0;
  return [...touched].reduce(
    (sum, unit) =>
      sum +
      stripsFrom(
        piece,
        shop,
        length,
        way,
        taken.filter((r) => r.unit === unit),
      ),
    whole,
  );
}

function blankLanesThickness(geometry: UnitGeometry, length: number, way: Way): number | null {
  if (geometry.end - geometry.start < length - LENGTH_TOLERANCE_MM) return null;
  const { piece } = geometry;
  const thickest =
    Math.max(piece.thickness, piece.farEnd?.thickness ?? 0) - orderFor(geometry, length, way.rip).loss.total;
  return thickest < way.thickness - LENGTH_TOLERANCE_MM ? null : thickest;
}

/** A rectangle on a piece, mm: along from the marked end, across from the near edge. */
export interface Zone {
  from: number;
  to: number;
  near: number;
  far: number;
}

/**
 * The largest clear rectangles of a piece: none lies inside another, and each is clear of end trims, edges, and defects that must be cut out.
 * Largest first.
 */
export function usableZones(piece: Piece, shop: Shop): Zone[] {
  const geometry = unitGeometry(piece, shop, []);
  const cut = geometry.defects.filter((d) => d.treatment === 'cut');
  const starts = [geometry.start, ...cut.map((d) => d.from + d.length)].filter(
    (x) => x >= geometry.start && x < geometry.end,
  );
  const ends = [geometry.end, ...cut.map((d) => d.from)].filter((x) => x > geometry.start && x <= geometry.end);
  const zones: Zone[] = [];
  for (const from of new Set(starts)) {
    for (const to of new Set(ends)) {
      if (to - from < LENGTH_TOLERANCE_MM) continue;
      const space = blankSpace(geometry, from, to - from);
      if (!space) continue;
      for (const gap of clearAcross(space.near, space.far, space.cut)) {
        const at = geometry.mirrored ? piece.length - to : from;
        zones.push({ from: at, to: at + (to - from), near: gap.from, far: gap.to });
      }
    }
  }
  const inside = (a: Zone, b: Zone) =>
    a !== b && a.from >= b.from && a.to <= b.to && a.near >= b.near && a.far <= b.far;
  const same = (a: Zone, b: Zone) => inside(a, b) && inside(b, a);
  return zones
    .filter((z, i) => !zones.some((other, j) => inside(z, other) && (!same(z, other) || j < i)))
    .sort((a, b) => (b.to - b.from) * (b.far - b.near) - (a.to - a.from) * (a.far - a.near) || a.from - b.from);
}

function clearAcross(near: number, far: number, cut: readonly Range[]): Range[] {
  const gaps: Range[] = [];
  let at = near;
  for (const r of [...cut, { from: far, to: far }]) {
    if (r.from > at + LENGTH_TOLERANCE_MM) gaps.push({ from: at, to: Math.min(far, r.from) });
    at = Math.max(at, r.to);
  }
  return gaps.filter((g) => g.to > g.from);
}
