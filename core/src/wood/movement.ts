import type { RingOrientation } from './rings.ts';
import type { Species } from './species.ts';

/**
 * Dimensional change coefficient of a measure across the grain.
 * @param angle between the measure and the radial direction, radians: 0 for the face width of quartered stock, a right angle for flat-sawn
 * @returns share of the measure per percent of moisture; null for a species without coefficients
 */
export function changeCoefficient(species: Pick<Species, 'radial' | 'tangential'>, angle: number): number | null {
  if (species.radial === null || species.tangential === null) return null;
  return species.radial * Math.cos(angle) ** 2 + species.tangential * Math.sin(angle) ** 2;
}

/**
 * How much a measure across the grain grows.
 * Source: *Wood Handbook*, FPL-GTR-282 (2021), chapter 13: dD = D C dM, for 6 to 14 % moisture (from memory).
 * @param size mm @param coefficient per percent @param fromMoisture, toMoisture percent
 * @returns mm; negative when it shrinks
 */
export function movementOf(size: number, coefficient: number, fromMoisture: number, toMoisture: number): number {
  return size * coefficient * (toMoisture - fromMoisture);
}

/** Angle between the face width of a piece and the radial direction, as its rings are sorted: flat, rift, quarter. */
const FACE_ANGLE: Readonly<Record<RingOrientation, number>> = { flat: Math.PI / 2, rift: Math.PI / 4, quarter: 0 };

/** Angles to the radial direction of a strip's width in the board and of its thickness. @param shows which side of the stock lies up */
export function strainAngles(rings: RingOrientation, shows: 'edge' | 'face'): { across: number; up: number } {
  const face = FACE_ANGLE[rings];
  const thickness = Math.PI / 2 - face;
  return shows === 'face' ? { across: face, up: thickness } : { across: thickness, up: face };
}
