/** Greatest depth of one router pass in hardwood, mm; and no more than half of the bit (common practice). */
export const ROUTER_PASS = 3;

/** Depths of the passes to a depth, all alike; one pass at least, none for nothing. @param bit diameter, mm */
export function passDepths(depth: number, bit: number): number[] {
  const count = depth <= 1e-6 ? 0 : Math.ceil(depth / Math.min(ROUTER_PASS, bit / 2) - 1e-9);
  return Array.from({ length: count }, (_, i) => (depth * (i + 1)) / count);
}
