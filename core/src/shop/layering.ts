import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { Shop } from './shop.ts';

/** How a thick ripping is sawn into thin strips. Lengths in mm. */
export interface Layering {
  by: 'bandSaw' | 'tableSaw';
  kerf: number;
  /** Taken off each sawn face afterwards. */
  clean: number;
  /** Tallest ripping the blade passes through. */
  reach: number;
}

export const LAYERING_NAMES: Readonly<Record<Layering['by'], string>> = {
  bandSaw: 'Band saw',
  tableSaw: 'Table saw, tall fence',
};

type LayeringShop = Pick<Shop, 'bandSaw' | 'saw' | 'habits' | 'schools'>;

/**
 * How this shop resaws: on the saw its school names, or where it has none such, on the other one. A table saw cuts a clean face that only wants
 * what any edge is jointed by; it takes a wider kerf and reaches no higher than its blade (common practice).
 * @returns null when nothing can be resawn: a circular saw or a hand saw does not do it truly
 */
export function layeringOf({ bandSaw, saw, habits, schools }: LayeringShop): Layering | null {
  const onBandSaw: Layering | null = bandSaw && {
    by: 'bandSaw',
    kerf: bandSaw.kerf,
    clean: bandSaw.clean,
    reach: bandSaw.resawHeight,
  };
  const onTableSaw: Layering | null =
    saw.kind === 'table' ? { by: 'tableSaw', kerf: saw.kerf, clean: habits.glueEdgeJoint, reach: saw.cutDepth } : null;
  return schools.thin === 'thinRip' ? (onTableSaw ?? onBandSaw) : (onBandSaw ?? onTableSaw);
}

/** What one more layer of a ripping costs beside its own thickness: the kerf and both sawn faces cleaned, mm; null when it cannot be resawn. */
export function layerGap(shop: LayeringShop, rip: number): number | null {
  const layering = layeringOf(shop);
  return layering && rip <= layering.reach + LENGTH_TOLERANCE_MM ? layering.kerf + 2 * layering.clean : null;
}

/** How far a thin strip that is left fat stands over its neighbours when it is glued (common practice: 1/16 in). */
const PROUD_MM = 1.6;

/** Strips that are left fat, to be made flush with the panel: those as thin as `below`, ripped `by` taller, mm; `by` is 0 where that is not the habit. */
export function leftFat({ schools, cutting }: Pick<Shop, 'schools' | 'cutting'>): { below: number; by: number } {
  return { below: cutting.spareBelow, by: schools.thin === 'fat' ? PROUD_MM : 0 };
}
