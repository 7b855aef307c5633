import { opensFor } from '../gluing/clamping.ts';
import type { GlueUp } from '../gluing/glueUps.ts';
import { clampCount, type Clamp } from '../shop/gluing.ts';
import type { Shop } from '../shop/shop.ts';
import { TOOL_NAMES } from '../shop/tools.ts';

/** Names of what tasks hold, beside machines: glue-ups in their clamps, boards that dry, the tray. */
export const HELD = { glueUps: 'glue-ups', drying: 'drying', bath: 'bath' } as const;

/** Clamps of a kind that open at least so far. */
const clampResource = (kind: string, opening: number): string => `clamps ${kind} ${opening}`;

/** What a resource is called. */
export function resourceName(resource: string): string {
  const clamps = /^clamps (\w+) ([\d.]+)$/.exec(resource);
  if (clamps) return `${CLAMP_NAMES[clamps[1] as Clamp['kind']]} clamps`;
  return (
    { [HELD.glueUps]: 'Glue-ups', [HELD.drying]: 'Drying places', [HELD.bath]: 'Bath' }[resource] ??
    (TOOL_NAMES as Record<string, string>)[resource] ??
    resource
  );
}
const CLAMP_NAMES: Readonly<Record<Clamp['kind'], string>> = { pipe: 'Pipe', bar: 'Bar', parallel: 'Parallel', f: 'F' };

/** How far clamps of a kind open, each length once, the shortest first. */
const openings = (clamps: readonly Clamp[], kind: string): number[] =>
  [...new Set(clamps.filter((c) => c.kind === kind).map((c) => c.opening))].sort((a, b) => a - b);

/** How much there is of all that tasks hold. */
export function capacitiesOf({ clamps, space, bath }: Pick<Shop, 'clamps' | 'space' | 'bath'>): Map<string, number> {
  const capacities = new Map<string, number>();
  for (const { kind } of clamps)
    for (const least of openings(clamps, kind))
      capacities.set(
        clampResource(kind, least),
        clampCount(clamps.filter((c) => c.kind === kind && c.opening >= least)),
      );
  if (space.glueUps !== null) capacities.set(HELD.glueUps, space.glueUps);
  if (space.drying !== null) capacities.set(HELD.drying, space.drying);
  if (bath) capacities.set(HELD.bath, 1);
  return capacities;
}

/**
 * Clamps that a glue-up holds: of each kind those that open far enough. They also count among all shorter ones, so that short clamps are left for what short ones serve
 * (for nested demands that is exactly when clamps can be given out).
 */
export function clampsHeld(
  { clamps: { placed }, width }: Pick<GlueUp, 'clamps' | 'width'>,
  clamps: readonly Clamp[],
): { resource: string; amount: number }[] {
  return [...new Set(placed.map((p) => p.kind))].flatMap((kind) => {
    const amount = placed.filter((p) => p.kind === kind).length;
    const needed = openings(clamps, kind).find((opening) => opensFor({ opening }, width)) ?? Infinity;
    return openings(clamps, kind).flatMap((opening) =>
      opening <= needed ? [{ resource: clampResource(kind, opening), amount }] : [],
    );
  });
}
