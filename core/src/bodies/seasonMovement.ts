import { nth } from '../lists/there.ts';
import { equilibriumMoisture, MOVEMENT_HOLDS, type Seasons } from '../wood/moisture.ts';
import { changeCoefficient, movementOf, strainAngles } from '../wood/movement.ts';
import type { PlanInput } from '../saw/planInput.ts';
import type { PlannedStrip } from './strips.ts';
import type { StripBody } from './stripBody.ts';

/** How a strip moves from the dry month to the damp one, mm; null for a species without coefficients. */
export interface StripMovement {
  number: number;
  /** In its width across the board. */
  across: number | null;
  /** In the board's thickness. */
  up: number | null;
  /** Across, if the strip lay the other way (flat instead of on edge, or the other way round). */
  otherWay: number | null;
}

/** The board through the seasons. */
export interface SeasonMovement {
  seasons: Seasons;
  /** Whether the board has seasons of its own rather than the shop's. */
  own: boolean;
  /** Moisture that the wood comes to in the dry and in the damp month, percent. */
  dryMoisture: number;
  dampMoisture: number;
  /** Both lie where the coefficients hold. */
  holds: boolean;
  strips: StripMovement[];
  /** How much longer the board is in the damp month, mm: nothing where all grain runs along it. */
  along: number;
  /** How much wider the board is in the damp month, mm; strips without coefficients not counted. */
  across: number;
  /** The same with every strip lying the other way. */
  otherWay: number;
  /** Species whose movement nobody knows. */
  unknown: string[];
}

/** Rings are taken as the stock piece says; a strip that has no piece yet counts as flat-sawn, the usual stock. */
export function seasonMovement(
  { board, shop, species }: Pick<PlanInput, 'board' | 'shop' | 'species'>,
  strips: readonly PlannedStrip[],
  bodies: readonly StripBody[],
  thickness: number,
): SeasonMovement {
  const seasons = board.seasons ?? shop.seasons;
  const [dry, damp] = [equilibriumMoisture(seasons.dry), equilibriumMoisture(seasons.damp)];
  const bySpecies = new Map(species.map((s) => [s.code, s]));
  const moved = strips.map((strip, i): StripMovement => {
    const wood = bySpecies.get(strip.species);
    const { shows, piece } = nth(bodies, i);
    const rings = piece?.rings ?? 'flat';
    const along = (side: 'edge' | 'face', which: 'across' | 'up', size: number): number | null => {
      const coefficient = wood ? changeCoefficient(wood, strainAngles(rings, side)[which]) : null;
      return coefficient === null ? null : movementOf(size, coefficient, dry, damp);
    };
    const width = strip.finished.width;
    return {
      number: strip.number,
      across: along(shows, 'across', width),
      up: along(shows, 'up', thickness),
      otherWay: along(shows === 'edge' ? 'face' : 'edge', 'across', width),
    };
  });
  const total = (values: (number | null)[]) => values.reduce<number>((sum, v) => sum + (v ?? 0), 0);
  const holds = [dry, damp].every((m) => m >= MOVEMENT_HOLDS.least && m <= MOVEMENT_HOLDS.greatest);
  return {
    seasons,
    own: board.seasons !== null,
    dryMoisture: dry,
    dampMoisture: damp,
    holds,
    strips: moved,
    along: 0,
    across: total(moved.map((m) => m.across)),
    otherWay: total(moved.map((m) => m.otherWay)),
    unknown: [...new Set(strips.filter((_, i) => nth(moved, i).across === null).map((s) => s.species))],
  };
}
