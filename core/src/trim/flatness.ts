import { thicknessLost } from '../cutting/flattening.ts';

/** What feelers find under a board on a flat table, mm. */
export interface FlatnessReading {
  /** Under one corner while the opposite one is held down: it rocks by this. */
  rock: number;
  /** Under a straight edge across the board, and along it, in the middle. */
  across: number;
  along: number;
}

/**
 * What making it flat again takes off, and what is left.
 * @param thickness now @param wanted finished @returns mm; `shortBy` is 0 when enough is left
 */
export function flatteningAgain(
  { rock, across, along }: FlatnessReading,
  thickness: number,
  wanted: number,
): { loss: number; left: number; shortBy: number } {
  const loss = thicknessLost({ bow: along, cup: across, crook: 0, twist: rock });
  const left = Math.max(0, thickness - loss);
  return { loss, left, shortBy: Math.max(0, wanted - left) };
}
