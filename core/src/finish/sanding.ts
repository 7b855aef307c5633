import type { ToolId } from '../shop/tools.ts';
import type { Shop } from '../shop/shop.ts';
import { gritsOver, papersFor, pitRun, type GritRun } from '../shop/grits.ts';
import { SIDES, type Side } from './surfaces.ts';

/** What a side of a board comes off before it is sanded. */
export type Origin = 'knives' | 'helical' | 'drum' | 'sled' | 'belt' | 'handPlane' | 'steps' | 'saw' | 'router';

/** What is sanded: the sides, the shapes along their edges, and grooves. */
export type Sanded = Side | 'edges' | 'groove';

interface OriginKnown {
  name: string;
  /** How deep its marks go, mm (common practice). */
  marks: number;
  /** The finest paper that such a side is begun with (common practice). */
  usual: number;
}

/** Common practice: knives leave ripples that 120 takes at once, a planed face may be begun with 220, sawn ends with 180; sanders leave the scratches of their 80, glue steps that only an orbital sander met are half a step of a strip. */
export const ORIGINS: Readonly<Record<Origin, OriginKnown>> = {
  knives: { name: 'planer, straight knives', marks: 0.13, usual: 120 },
  helical: { name: 'planer, helical head', marks: 0.1, usual: 120 },
  drum: { name: 'drum sander, 80', marks: 0.2, usual: 80 },
  sled: { name: 'router sled', marks: 0.3, usual: 80 },
  belt: { name: 'belt sander, 80', marks: 0.2, usual: 80 },
  handPlane: { name: 'hand plane', marks: 0.04, usual: 220 },
  steps: { name: 'as it was glued', marks: 0.4, usual: 80 },
  saw: { name: 'saw', marks: 0.16, usual: 180 },
  router: { name: 'router', marks: 0.16, usual: 150 },
};

/** What faces come off that a tool made flat. */
export function originOf(flattened: ToolId, shop: Pick<Shop, 'planer'>): Origin {
  if (flattened === 'planer') return shop.planer?.head === 'helical' ? 'helical' : 'knives';
  const others: Partial<Record<ToolId, Origin>> = {
    drumSander: 'drum',
    routerSled: 'sled',
    beltSander: 'belt',
    handPlanes: 'handPlane',
  };
  return others[flattened] ?? 'steps';
}

/** How one side is sanded. */
export interface SidePlan {
  side: Sanded;
  /** Where no machine reaches. */
  byHand: boolean;
  origin: Origin;
  /** Its deepest place, mm: the marks of its tool, or a pit that was found. */
  deepest: number;
  pit: number | null;
  run: GritRun;
}

/** The grits of a shop for what comes off a tool: its own list, or the papers it has from the first that is needed. */
export function gritsOf(
  { grits, papers, schools }: Pick<Shop, 'grits' | 'papers' | 'schools'>,
  origin: Origin,
): number[] {
  if (grits && grits.length > 0) return [...grits];
  return papersFor(ORIGINS[origin].marks, ORIGINS[origin].usual, Number(schools.lastGrit), papers);
}

/** The grits for both faces, by what they were made flat with; a face with a pit has coarser ones before them. */
export const faceGrits = (shop: Pick<Shop, 'grits' | 'papers' | 'schools' | 'planer'>, flattened: ToolId): number[] =>
  gritsOf(shop, originOf(flattened, shop));

/** How every side of a board is sanded. @param flattened with what its faces were made flat @param pits the deepest place that was found of each side, mm @param worked what else is worked into it: grooves, and with what its edges are shaped */
export function sidesToSand(
  shop: Pick<Shop, 'grits' | 'papers' | 'schools' | 'planer' | 'handTools'>,
  flattened: ToolId,
  pits: Partial<Record<Side, number>>,
  worked: { groove: boolean; edges: 'router' | 'saw' | null },
): SidePlan[] {
  const all: Sanded[] = [
    ...SIDES,
    ...(worked.edges ? ['edges' as const] : []),
    ...(worked.groove ? ['groove' as const] : []),
  ];
  return all.map((side): SidePlan => {
    const isFace = side === 'top' || side === 'bottom';
    const origin = isFace
      ? originOf(flattened, shop)
      : side === 'groove'
        ? 'router'
        : side === 'edges'
          ? (worked.edges ?? 'saw')
          : 'saw';
    const pit = side === 'edges' || side === 'groove' ? null : (pits[side] ?? null);
    const { marks } = ORIGINS[origin];
    const run = pit !== null && pit > marks ? pitRun(shop, pit) : gritsOver(marks, gritsOf(shop, origin));
    const byHand = side === 'groove' || side === 'edges' || (!isFace && !shop.handTools.orbitalSander);
    return { side, byHand, origin, deepest: Math.max(marks, pit ?? 0), pit, run };
  });
}

/** What sanding takes off both faces together, mm. */
export function facesTake(sides: readonly SidePlan[]): number {
  return sides.filter((s) => s.side === 'top' || s.side === 'bottom').reduce((sum, s) => sum + s.run.takes, 0);
}
