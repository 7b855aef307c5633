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
export function flattenerLimits({ planer, jointer, schools }: Pick<Shop, 'planer' | 'jointer' | 'schools'>): FlattenerLimits {
  if (!planer) return BY_HAND;
  const { width, leastLength, leastWidth, leastThickness, snipe } = planer;
  return { width, leastLength: Math.max(leastLength, jointer?.leastLength ?? 0), leastWidth, leastThickness, snipe: schools.snipe === 'trim' ? snipe : 0 };
}
