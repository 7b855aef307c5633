import { grouped } from '../lists/grouped.ts';
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

/** In which order the pieces of a species are gone through: as they are named, or what no plank is opened for first, and then the thinnest or the thickest. */
const ORDERS = {
  named: (a: Unit, b: Unit) => compareText(a.piece.id, b.piece.id) || a.unit - b.unit,
  thinFirst: (a: Unit, b: Unit) => a.openPlank - b.openPlank || a.piece.thickness - b.piece.thickness || shorter(a, b),
  thickFirst: (a: Unit, b: Unit) => a.openPlank - b.openPlank || b.piece.thickness - a.piece.thickness || shorter(a, b),
} as const;
export type UnitOrder = keyof typeof ORDERS;

const shorter = (a: Unit, b: Unit): number => a.piece.length - b.piece.length || ORDERS.named(a, b);

/** Every piece that may be cut, unit by unit, in an order that does not depend on the order of the rack. */
export function unitsOf(problem: CutProblem): Unit[] {
  const bySpecies = unitsBySpecies(problem, 'named');
  return [...bySpecies.keys()].sort(compareText).flatMap((species) => bySpecies.get(species) ?? []);
}

/** The same by species, of those that are asked for. */
export function unitsBySpecies(problem: CutProblem, order: UnitOrder): ReadonlyMap<string, readonly Unit[]> {
  const { demands, banned, shop } = problem;
  const all = unpromised(problem, order);
  const promised = grouped(problem.promised, (range) => `${range.pieceId}/${range.unit}`);
  const asPromised = (units: readonly Unit[]) =>
    units.flatMap((unit): Unit[] => {
      if (banned.has(unit.piece.id)) return [];
      const ranges = promised.get(`${unit.piece.id}/${unit.unit}`);
      return [ranges ? { ...unit, geometry: unitGeometry(unit.piece, shop, ranges) } : unit];
    });
  const isBare = promised.size === 0 && banned.size === 0;
  return new Map(
    [...new Set(demands.map((d) => d.species))].map((species) => {
      const units = all.get(species) ?? [];
      return [species, isBare ? units : asPromised(units)];
    }),
  );
}

type Ordered = Partial<Record<UnitOrder, Map<string, readonly Unit[]>>>;
/** The units of a rack as if nothing were promised: board after board is planned from the same rack. */
const UNPROMISED = new WeakMap<readonly Piece[], { shop: Shop; species: readonly Species[]; ordered: Ordered }>();

function unpromised(problem: CutProblem, order: UnitOrder): ReadonlyMap<string, readonly Unit[]> {
  const { rack, shop, species } = problem;
  const known = UNPROMISED.get(rack);
  const ordered: Ordered = known?.shop === shop && known.species === species ? known.ordered : {};
  if (known?.ordered !== ordered) UNPROMISED.set(rack, { shop, species, ordered });
  const [another] = Object.values(ordered);
  const units = another ?? unitsInRack(problem);
  return (ordered[order] ??= new Map([...units].map(([code, list]) => [code, [...list].sort(ORDERS[order])])));
}

function unitsInRack({ rack, shop, species }: CutProblem): ReadonlyMap<string, readonly Unit[]> {
  const densities = new Map(species.map((s) => [s.code, s.density]));
  const bySpecies = new Map<string, Unit[]>();
  for (const piece of rack) {
    const rate = pricePerMm3(piece, densities.get(piece.species) ?? null) ?? shop.cutting.unpricedPerM3 / MM3_PER_M3;
    const openPlank = piece.origin.kind === 'bought' ? shop.cutting.openPlank : 0;
    const geometry = unitGeometry(piece, shop, []);
    const list = bySpecies.get(piece.species) ?? [];
    bySpecies.set(piece.species, list);
    for (let unit = 0; unit < piece.count; unit += 1)
      list.push({ piece, unit, geometry, rate, openPiece: shop.cutting.openPiece, openPlank });
  }
  return bySpecies;
}

function compareText(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
