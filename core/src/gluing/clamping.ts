import { nth } from '../lists/there.ts';
import { clampCount } from '../shop/gluing.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Clamp } from '../shop/gluing.ts';
import type { Shop } from '../shop/shop.ts';

/** A clamp on the panel. */
export interface PlacedClamp {
  kind: Clamp['kind'];
  /** Along the panel from its first end, mm. */
  at: number;
  side: 'below' | 'above';
}

/** Clamps and cauls of one glue-up, and what is missing. */
export interface ClampSet {
  /** Clamps it asks for: by spacing, or by pressure where that is more. */
  wanted: number;
  bySpacing: number;
  byPressure: number;
  /** Clamps of the shop that are long enough and reach the middle of the panel. */
  owned: number;
  /** Why others cannot serve. */
  tooShort: number;
  tooShallow: number;
  placed: PlacedClamp[];
  /** Middles of the cauls along the panel, mm; each is a pair, above and below. */
  cauls: number[];
  /** Pressure on the joints with the clamps placed, MPa. */
  pressure: number;
  /** Pressure that the wood asks for, MPa. */
  wantedPressure: number;
}

/** Pads between jaws and wood, both sides together, mm (common practice: half-inch offcuts). */
const PADS_MM = 26;
/** A clamp's bar and a caul, as wide as they are along the panel, mm. */
export const CLAMP_BAR_MM = 30;
export const CAUL_MM = 40;
/** One caul for so much length, mm; at least two where they fit (common practice). */
const CAUL_SPACING_MM = 220;

/**
 * Pressure for a glue line, MPa: 1.2 for dense hardwoods (of the 1.2 to 1.7 that adhesive makers usually advise, from memory), 0.7 for soft ones (100 psi, common practice).
 * @param hardness side hardness, N; null counts as dense
 */
export function wantedPressure(hardness: number | null): number {
  return hardness !== null && hardness < 3000 ? 0.7 : 1.2;
}

/** Whether a clamp opens wide enough for a panel with pads beside it. Lengths in mm. */
export function opensFor(clamp: Pick<Clamp, 'opening'>, width: number): boolean {
  return clamp.opening >= width + PADS_MM - LENGTH_TOLERANCE_MM;
}

/** Whether its jaws reach the middle of a panel's thickness, mm. */
export function reachesMiddle(clamp: Pick<Clamp, 'reach'>, height: number): boolean {
  return clamp.reach >= height / 2 - LENGTH_TOLERANCE_MM;
}

/**
 * Which clamps a glue-up gets and where they stand: evenly from inset to inset, below and above in turn; cauls only in gaps that hold them, so that no clamp and no caul ever meet.
 * @param panel length and height of the joints, width across them, mm
 */
export function clampsFor(
  panel: { length: number; height: number; width: number; joints: number; hardness: number | null; battens?: boolean },
  { clamps, pace, schools }: Pick<Shop, 'clamps' | 'pace' | 'schools'>,
): ClampSet {
  const { length, height, width, hardness, battens = false } = panel;
  const fits = (c: Clamp) => opensFor(c, width);
  const reaches = (c: Clamp) => battens || reachesMiddle(c, height);
  const total = clampCount;
  const usable = clamps.filter((c) => fits(c) && reaches(c)).sort((a, b) => b.force - a.force || a.opening - b.opening);
  const owned = total(usable);
  const pressureWanted = wantedPressure(hardness);
  // Every joint of a panel is pressed by the same clamps: the force goes through all of them.
  const force = (pressureWanted * length * height) / 1000;
  const bySpacing = Math.max(2, Math.ceil(length / pace.clampSpacing));
  const byPressure =
    clampsForForce(force, usable.length > 0 ? usable : [...clamps].sort((a, b) => b.force - a.force)) ?? bySpacing;
  // Clamps wider than the room between them cannot stand side by side.
  const most = Math.max(2, 2 * Math.floor(length / CLAMP_BAR_MM));
  const wanted = Math.min(most, Math.max(bySpacing, byPressure));

  const taken = usable.flatMap((c) => Array<Clamp>(c.count).fill(c)).slice(0, wanted);
  const inset = Math.min(pace.clampInset, length / 4);
  const step = taken.length > 1 ? (length - 2 * inset) / (taken.length - 1) : 0;
  const placed = taken.map((c, i): PlacedClamp => ({
    kind: c.kind,
    at: taken.length === 1 ? length / 2 : inset + i * step,
    side: i % 2 === 0 ? 'below' : 'above',
  }));
  return {
    wanted,
    bySpacing,
    byPressure,
    owned,
    tooShort: total(clamps.filter((c) => !fits(c))),
    tooShallow: total(clamps.filter((c) => fits(c) && !reaches(c))),
    placed,
    cauls: schools.level === 'cauls' ? caulsBetween(placed, length) : [],
    pressure: (taken.reduce((sum, c) => sum + c.force, 0) * 1000) / Math.max(1, length * height),
    wantedPressure: pressureWanted,
  };
}

/**
 * How many clamps press with a force, the strongest first; where all there are do not, with more like the last of them.
 * @param force kN
 * @returns null without any clamp that presses
 */
function clampsForForce(force: number, strongestFirst: readonly Clamp[]): number | null {
  let [left, count] = [force - 1e-9, 0];
  for (const clamp of strongestFirst) {
    if (clamp.force <= 0) continue;
    const enough = Math.max(0, Math.ceil(left / clamp.force));
    if (enough <= clamp.count) return count + enough;
    count += clamp.count;
    left -= clamp.count * clamp.force;
  }
  const weakest = strongestFirst.filter((c) => c.force > 0 && c.count > 0).at(-1);
  return weakest ? count + Math.ceil(left / weakest.force) : null;
}

/** Middles of cauls in the gaps between clamps that are wide enough, nearest to where they are wanted; each gap holds one. */
function caulsBetween(placed: readonly PlacedClamp[], length: number): number[] {
  const edges = [-CLAMP_BAR_MM / 2, ...placed.map((c) => c.at), length + CLAMP_BAR_MM / 2];
  const gaps = edges.slice(1).flatMap((to, i) => {
    const from = nth(edges, i) + CLAMP_BAR_MM / 2;
    const end = to - CLAMP_BAR_MM / 2;
    return end - from >= CAUL_MM ? [(from + end) / 2] : [];
  });
  const wanted = Math.max(2, Math.round(length / CAUL_SPACING_MM));
  const ideal = Array.from({ length: wanted }, (_, i) => (length * (i + 0.5)) / wanted);
  const chosen: number[] = [];
  for (const place of ideal) {
    const nearest = gaps
      .filter((g) => !chosen.includes(g))
      .sort((a, b) => Math.abs(a - place) - Math.abs(b - place))[0];
    if (nearest !== undefined) chosen.push(nearest);
  }
  return chosen.sort((a, b) => a - b);
}
