import { LENGTH_TOLERANCE_MM } from '../units/length.ts';

/**
 * How many parts of one size come out of a length with a kerf between neighbours: floor((U + s) / (w + s)).
 * The same count serves rips from a width and crosscuts from a length.
 *
 * @param usable what there is to cut, mm, after edge or end allowances
 * @param size of each part, mm, above 0
 * @param kerf mm
 * Check: a 2 3/4 in offcut rips into two strips just under 1 1/4 in with a 1/8 in kerf (common practice).
 */
export function partsAcross(usable: number, size: number, kerf: number): number {
  return Math.max(0, Math.floor((usable + kerf + LENGTH_TOLERANCE_MM) / (size + kerf)));
}

/** The widest equal parts when a length gives `count` of them: the inverse of `partsAcross`, mm; negative when it cannot. */
export function widestPart(usable: number, count: number, kerf: number): number {
  return (usable + kerf) / count - kerf;
}
