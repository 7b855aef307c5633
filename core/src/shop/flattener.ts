import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Shop } from './shop.ts';

/** What stock can be flattened with, and what it asks of a piece. Lengths in mm. */
export interface FlattenerLimits {
  /** Widest piece; infinite where hands do it. */
  width: number;
  leastLength: number;
  leastWidth: number;
  leastThickness: number;
  /** At each end of a panel. */
  snipe: number;
}

/** Hands and a router sled take any piece that can be held down. */
const BY_HAND: FlattenerLimits = { width: Infinity, leastLength: 0, leastWidth: 0, leastThickness: 0, snipe: 0 };

/** The machine that planes stock to thickness decides; without one the work is done by hand and nothing forbids a size. */
export function flattenerLimits({
  planer,
  jointer,
  schools,
}: Pick<Shop, 'planer' | 'jointer' | 'schools'>): FlattenerLimits {
  if (!planer) return BY_HAND;
  const { width, leastLength, leastWidth, leastThickness, snipe } = planer;
  return {
    width,
    leastLength: Math.max(leastLength, jointer?.leastLength ?? 0),
    leastWidth,
    leastThickness,
    snipe: schools.snipe === 'trim' ? snipe : 0,
  };
}

/** Whether the first face of a part is planed on a shimmed sled: there is a planer, and no jointer that takes the part. Lengths in mm. */
export function firstFaceOnSled(
  { planer, jointer }: Pick<Shop, 'planer' | 'jointer'>,
  part: { length: number; width: number },
): boolean {
  return (
    planer !== null &&
    !(
      jointer &&
      part.width <= jointer.width + LENGTH_TOLERANCE_MM &&
      part.length >= jointer.leastLength - LENGTH_TOLERANCE_MM
    )
  );
}
