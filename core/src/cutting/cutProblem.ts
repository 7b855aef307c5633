import type { Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { pricePerMm3 } from '../stock/shape.ts';
import { MM3_PER_M3 } from '../units/volume.ts';
import type { Species } from '../wood/species.ts';
import type { PromisedRange, StripDemand } from './cutPlan.ts';
import { unitGeometry, type UnitGeometry } from './unitGeometry.ts';

/** What is to be cut from what. */
export interface CutProblem {
  demands: readonly StripDemand[];
  rack: readonly Piece[];
  /** Wood promised to boards that are not part of this. */
  promised: readonly PromisedRange[];
  /** Pieces to leave alone. */
  banned: ReadonlySet<string>;
  shop: Shop;
  species: readonly Species[];
}

/** One piece, or one of identical pieces, with what it is worth to the plan. */
export interface Unit {
  piece: Piece;
  unit: number;
  geometry: UnitGeometry;
  /** Currency for a cubic millimetre. */
  rate: number;
  /** Set-up fees for using it at all. */
  openPiece: number;
  openPlank: number;
}

/** Every piece that may be cut, unit by unit, in an order that does not depend on the order of the rack. */
export function unitsOf(problem: CutProblem): Unit[] {
  const { shop } = problem;
  const densities = new Map(problem.species.map((s) => [s.code, s.density]));
  const wanted = new Set(problem.demands.map((d) => d.species));
  const promised = new Map<string, PromisedRange[]>();
  for (const range of problem.promised) {
    const key = `${range.pieceId}/${range.unit}`;
    promised.set(key, [...(promised.get(key) ?? []), range]);
  }
  const units: Unit[] = [];
  for (const piece of problem.rack) {
    if (!wanted.has(piece.species) || problem.banned.has(piece.id)) continue;
    const rate = pricePerMm3(piece, densities.get(piece.species) ?? null) ?? shop.cutting.unpricedPerM3 / MM3_PER_M3;
    const openPlank = piece.origin.kind === 'bought' ? shop.cutting.openPlank : 0;
    for (let unit = 0; unit < piece.count; unit += 1) {
      const geometry = unitGeometry(piece, shop, promised.get(`${piece.id}/${unit}`) ?? []);
      units.push({ piece, unit, geometry, rate, openPiece: shop.cutting.openPiece, openPlank });
    }
  }
  return units.sort(
    (a, b) => compareText(a.piece.species, b.piece.species) || compareText(a.piece.id, b.piece.id) || a.unit - b.unit,
  );
}

function compareText(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
