import { certain, lastOf } from '../lists/there.ts';
import type { Shop } from '../shop/shop.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Blank, CutScore, Leftover, RippedStrip } from './cutPlan.ts';
import type { Unit } from './cutProblem.ts';
import {
  alongPiece,
  blankSpace,
  freeStretches,
  ownVolume,
  stretchVolume,
  type BlankSpace,
  type UnitGeometry,
} from './unitGeometry.ts';

/** A blank on a unit's geometry, before it is told in the piece's own coordinates. */
export interface PlacedBlank {
  x: number;
  length: number;
  lanes: PlacedLane[];
}

export interface PlacedLane {
  y: number;
  width: number;
  strips: RippedStrip[];
}

export interface UsedUnit {
  unit: Unit;
  blanks: PlacedBlank[];
}

/** Width of the offcut beside the last lane of a blank, its kerf gone, mm; 0 when nothing is left. */
export function widthBeside(space: Pick<BlankSpace, 'far'>, lastEnd: number, ripKerf: number): number {
  return Math.max(0, space.far - lastEnd - ripKerf);
}

/** Whether an offcut beside rips goes back to the rack. */
export function sideKept(width: number, length: number, shop: Shop): boolean {
  return (
    width >= shop.cutting.keepWidth - LENGTH_TOLERANCE_MM && length >= shop.habits.keepLength - LENGTH_TOLERANCE_MM
  );
}

/** What an offcut beside rips still counts for. */
export function sideValue(
  unit: Pick<Unit, 'rate'>,
  geometry: UnitGeometry,
  x: number,
  length: number,
  width: number,
): number {
  const share = width * length * (stretchVolume(geometry, x, x + length) / (length * meanWidth(geometry, x, length)));
  return geometry.shop.cutting.sideShare * unit.rate * share;
}

function meanWidth(geometry: UnitGeometry, x: number, length: number): number {
  const { piece } = geometry;
  const far = piece.farEnd?.width ?? piece.width;
  const at = (place: number) =>
    piece.width + ((far - piece.width) * (geometry.mirrored ? piece.length - place : place)) / piece.length;
  return (at(x) + at(x + length)) / 2;
}

export const NO_SCORE: CutScore = { wood: 0, pieces: 0, planks: 0, leftovers: 0, total: 0 };

export function addScores(a: CutScore, b: CutScore): CutScore {
  return {
    wood: a.wood + b.wood,
    pieces: a.pieces + b.pieces,
    planks: a.planks + b.planks,
    leftovers: a.leftovers + b.leftovers,
    total: a.total + b.total,
  };
}

/** Blanks, leftovers and cost of one unit, read off where its blanks lie. Empty lanes and blanks are left out first. */
export function settleUnit(used: UsedUnit): { blanks: Blank[]; leftovers: Leftover[]; score: CutScore } {
  const { unit } = used;
  const { geometry, piece } = unit;
  const { shop } = geometry;
  const crosscut = shop.crosscutSaw.kerf;
  const placed = used.blanks
    .map((b) => ({ ...b, lanes: b.lanes.filter((l) => l.strips.length > 0).sort((a, c) => a.y - c.y) }))
    .filter((b) => b.lanes.length > 0)
    .sort((a, b) => a.x - b.x);
  if (placed.length === 0) return { blanks: [], leftovers: [], score: NO_SCORE };

  const leftovers: Leftover[] = [];
  let back = 0;
  let carrying = 0;
  // Carrying something back never costs more than it is worth.
  const keep = (value: number) => {
    back += value;
    carrying += Math.min(value, shop.cutting.leftoverEach);
  };
  let at = 0;
  for (const next of [
    ...placed.map((b) => ({ from: b.x - crosscut, to: b.x + b.length + crosscut })),
    { from: piece.length, to: piece.length },
  ]) {
    for (const stretch of freeStretches(geometry, at, Math.min(next.from, piece.length))) {
      const length = stretch.to - stretch.from;
      leftovers.push({
        pieceId: piece.id,
        unit: unit.unit,
        from: alongPiece(geometry, stretch.from, length),
        length,
        across: 0,
        width: Math.min(piece.width, piece.farEnd?.width ?? piece.width),
        side: false,
        kept: stretch.kept,
      });
      if (stretch.kept) keep(unit.rate * stretchVolume(geometry, stretch.from, stretch.to));
    }
    at = next.to;
  }

  const blanks = placed.map((b): Blank => {
    const space = certain(blankSpace(geometry, b.x, b.length));
    const last = lastOf(b.lanes);
    const end = last.y + last.width;
    const beside = widthBeside(space, end, shop.saw.kerf);
    const from = alongPiece(geometry, b.x, b.length);
    if (beside > LENGTH_TOLERANCE_MM) {
      const kept = sideKept(beside, b.length, shop);
      leftovers.push({
        pieceId: piece.id,
        unit: unit.unit,
        from,
        length: b.length,
        across: end + shop.saw.kerf,
        width: beside,
        side: true,
        kept,
      });
      if (kept) keep(sideValue(unit, geometry, b.x, b.length, beside));
    }
    return {
      number: 0,
      pieceId: piece.id,
      unit: unit.unit,
      from,
      length: b.length,
      strips: b.lanes.flatMap((l) => l.strips),
      leftoverWidth: beside,
      done: false,
    };
  });
  // Cutting order: from the end that is cut first.
  blanks.forEach((b, i) => (b.number = i + 1));

  const wood = unit.rate * ownVolume(geometry, 0, piece.length) - back;
  const score = { wood, pieces: unit.openPiece, planks: unit.openPlank, leftovers: carrying, total: 0 };
  score.total = score.wood + score.pieces + score.planks + score.leftovers;
  return { blanks, leftovers, score };
}
