import type { Shop } from '../shop/shop.ts';

/** One glue-up: what is put together at once. Strip numbers are 1-based and contiguous. */
export interface GlueUp {
  id: string;
  /** 1 for groups of strips; higher levels join what lower levels made. */
  level: number;
  firstStrip: number;
  lastStrip: number;
  /** Ids of the glue-ups joined here; empty when single strips are. */
  joins: string[];
  /** Pieces laid side by side, and the joints between them. */
  parts: number;
  joints: number;
  /** From first glue to last clamp, minutes. */
  assemblyMinutes: number;
  clamps: number;
}

export interface GluePlan {
  /** The glue's assembly time less the reserve, minutes. */
  usableMinutes: number;
  /** Most pieces one glue-up can take in that time. */
  mostParts: number;
  /** In working order: groups first, joins after what they join. */
  glueUps: GlueUp[];
  clampMinutesEach: number;
}

/** Clamps for a panel: one for every spacing of length, ends included, at least two. */
export function clampCount(panelLength: number, shop: Shop): number {
  return Math.max(2, Math.ceil(panelLength / shop.pace.clampSpacing));
}

/**
 * Minutes from the first glue to the last clamp when `parts` pieces are glued in one go.
 * @param length of the joints, mm
 * @param height of the joints (thickness of the panel when glued), mm
 */
export function assemblyMinutes(parts: number, length: number, height: number, shop: Shop): number {
  const jointArea = (length * height) / 1e6;
  return (parts - 1) * jointArea * shop.pace.spreadMinutesPerM2 + parts * shop.pace.placeMinutes
    + clampCount(length, shop) * shop.pace.clampMinutes;
}

/**
 * Splits strips into contiguous glue-ups that close in time, as even and as symmetrical as can be, then joins the groups, again
 * in time, until one panel is left. Two parts can always be glued: a glue too quick for that is a finding, not an endless tree.
 * Check: 25 strips of a 16 to 18 in board make five groups of five and one join (common practice).
 *
 * @param stripCount strips across the panel
 * @param length rough length of the strips, mm
 * @param height thickness of the strips when glued, mm
 */
export function planGlueUps(stripCount: number, length: number, height: number, shop: Shop): GluePlan {
  const usableMinutes = shop.glue.assemblyMinutes * shop.pace.reserve;
  let mostParts = 2;
  while (mostParts < stripCount && assemblyMinutes(mostParts + 1, length, height, shop) <= usableMinutes + 1e-9) mostParts += 1;

  const glueUps: GlueUp[] = [];
  let units = Array.from({ length: stripCount }, (_, i) => ({ first: i + 1, last: i + 1, id: '' }));
  for (let level = 1; units.length > 1; level += 1) {
    let start = 0;
    units = groupSizes(units.length, mostParts).map((size, i) => {
      const members = units.slice(start, start + size);
      start += size;
      const first = members[0]!;
      const last = members.at(-1)!;
      if (size === 1) return first;
      const id = `G${level}.${i + 1}`;
      glueUps.push({
        id, level, firstStrip: first.first, lastStrip: last.last, joins: members.map((m) => m.id).filter((m) => m !== ''),
        parts: size, joints: size - 1, assemblyMinutes: assemblyMinutes(size, length, height, shop), clamps: clampCount(length, shop),
      });
      return { first: first.first, last: last.last, id };
    });
  }
  return { usableMinutes, mostParts, glueUps, clampMinutesEach: shop.glue.clampMinutes };
}

/** Even, symmetrical sizes of the fewest groups of at most `most`: 11 in groups of 5 gives 4, 3, 4. */
export function groupSizes(count: number, most: number): number[] {
  const groups = Math.ceil(count / most);
  const sizes = Array<number>(groups).fill(Math.floor(count / groups));
  let extra = count % groups;
  // Extras go to mirrored pairs from the outside in; an odd one to the middle.
  for (let i = 0; extra > 1 && i < Math.floor(groups / 2); i += 1, extra -= 2) {
    sizes[i]! += 1;
    sizes[groups - 1 - i]! += 1;
  }
  if (extra === 1) sizes[Math.floor(groups / 2)]! += 1;
  return sizes;
}
