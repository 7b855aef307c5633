import { certain, firstOf } from '../lists/there.ts';
import type { StripDemand } from './cutPlan.ts';
import { unitsOf, type CutProblem, type Unit } from './cutProblem.ts';
import { firstFitUnits } from './firstFit.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { blankSpace, laneKind, nextLane, orderFor } from './unitGeometry.ts';

/** More thicknesses than this are not tried. */
const MOST_LEVELS = 8;

/**
 * Strips that lie flat take their thickness from the stock. When no piece of a species is thick enough, they are asked for as thick as the rack can
 * give all of them, so that the ladder can tell what thickness is possible. Other demands stay as they are.
 */
export function demandsAsThickAsCanBe(problem: CutProblem): StripDemand[] {
  const flat = problem.demands.filter((d) => firstOf(d.ways).shows === 'face');
  if (flat.length === 0) return [...problem.demands];
  const units = unitsOf(problem);
  const kerf = problem.shop.saw.kerf;
  const known = new Map<string, number>();
  /** Planed thickness that one piece can give a strip of a size; 0 when the size itself does not fit. */
  const reach = ({ piece, unit, geometry }: Unit, { length, ways }: StripDemand): number => {
    const { rip } = firstOf(ways);
    const key = `${piece.id}/${unit}/${length}/${rip}`;
    let thickness = known.get(key);
    if (thickness === undefined) {
      const spaces = geometry.breakpoints
        .map((x) => blankSpace(geometry, x, length))
        .filter((s) => s !== null && nextLane(s, laneKind([firstOf(ways)], kerf), 0) !== null);
      thickness = Math.max(0, ...spaces.map((s) => certain(s).thickness - orderFor(geometry, length, rip).loss.total));
      known.set(key, thickness);
    }
    return thickness;
  };
  const short = new Set<string>();
  const bySpecies = new Map<string, Unit[]>();
  for (const u of units) {
    const list = bySpecies.get(u.piece.species);
    if (list) list.push(u);
    else bySpecies.set(u.piece.species, [u]);
  }
  // A batch asks for the same few sizes again and again.
  const distinct = new Map(
    flat.map((d) => [`${d.species}/${d.length}/${firstOf(d.ways).rip}/${firstOf(d.ways).thickness}`, d]),
  );
  for (const d of distinct.values()) {
    if (short.has(d.species)) continue;
    const best = (bySpecies.get(d.species) ?? []).reduce((most, u) => Math.max(most, reach(u, d)), 0);
    if (best > 0 && best < firstOf(d.ways).thickness - LENGTH_TOLERANCE_MM) short.add(d.species);
  }

  let demands = [...problem.demands];
  for (const species of short) {
    const mine = demands.filter((d) => d.species === species);
    const wanted = Math.max(...mine.map((d) => firstOf(d.ways).thickness));
    const sizes = [...new Map(mine.map((d) => [`${d.length}/${firstOf(d.ways).rip}`, d])).values()];
    const all = (bySpecies.get(species) ?? []).flatMap((u) => sizes.map((d) => Math.min(wanted, reach(u, d))));
    const levels = [...new Set(all)]
      .filter((t) => t > 0)
      .sort((x, y) => y - x)
      .slice(0, MOST_LEVELS);
    const at = (level: number) =>
      mine.map((d) => ({
        ...d,
        ways: d.ways.map((w) => (w.shows === 'face' ? { ...w, thickness: Math.min(w.thickness, level) } : w)),
      }));
    const level = levels.find((l) => firstFitUnits({ ...problem, demands: at(l) }).unmet.length === 0) ?? levels.at(-1);
    if (level !== undefined) demands = [...demands.filter((d) => d.species !== species), ...at(level)];
  }
  return demands;
}
