import { nth } from '../lists/there.ts';
import { toHandStep } from '../units/length.ts';
import { LEAST_STRIP_WIDTH } from './arrange.ts';
import type { Strip } from './recipe.ts';

/** A width that the rack gives, and whether it is a piece resawn in two. */
export interface OfferedWidth {
  width: number;
  resawn: boolean;
}

/** Why a dragged joint rests where it does; `strip` is the number of the strip it follows. */
export type SnapReason =
  | { kind: 'rack' }
  | { kind: 'resawn' }
  | { kind: 'symmetry'; strip: number }
  | { kind: 'rhythm'; strip: number }
  | { kind: 'fills' }
  | { kind: 'grid' };

export interface Snap {
  width: number;
  reason: SnapReason;
}

interface SnapInput {
  /** Width under the hand, mm. */
  width: number;
  /** Of the strip before the joint. */
  index: number;
  strips: readonly Pick<Strip, 'width' | 'species' | 'stack'>[];
  offered: readonly OfferedWidth[];
  /** How near counts, mm. */
  reach: number;
  /** Width at which the strips together are as wide as wanted, mm. */
  filling: number;
  system: 'metric' | 'inch';
}

/** What wins when two are equally near: what wood there is comes first, then the board's own measure. */
const RANK: Record<SnapReason['kind'], number> = { rack: 0, resawn: 1, fills: 2, symmetry: 3, rhythm: 4, grid: 5 };

/**
 * The width a dragged joint should take: what the rack gives (whole, or resawn in two), what fills the board, the width of the strip's mirror image or
 * of another of its species, whichever is nearest within reach; else the nearest half millimetre or 1/32 in.
 */
export function snapJoint({ width, index, strips, offered, reach, filling, system }: SnapInput): Snap {
  const mirror = strips.length - 1 - index;
  const candidates: Snap[] = [
    ...offered.map((o): Snap => ({ width: o.width, reason: { kind: o.resawn ? 'resawn' : 'rack' } })),
    { width: filling, reason: { kind: 'fills' } },
    ...(mirror !== index
      ? [{ width: nth(strips, mirror).width, reason: { kind: 'symmetry', strip: mirror + 1 } } satisfies Snap]
      : []),
    ...strips.flatMap((s, i): Snap[] =>
      i !== index && i !== mirror && s.species === nth(strips, index).species && s.stack === nth(strips, index).stack
        ? [{ width: s.width, reason: { kind: 'rhythm', strip: i + 1 } }]
        : [],
    ),
  ];
  const near = candidates.filter((c) => c.width >= LEAST_STRIP_WIDTH && Math.abs(c.width - width) <= reach);
  const best = near.sort(
    (a, b) => Math.abs(a.width - width) - Math.abs(b.width - width) || RANK[a.reason.kind] - RANK[b.reason.kind],
  )[0];
  if (best) return best;
  return { width: Math.max(LEAST_STRIP_WIDTH, toHandStep(width, system)), reason: { kind: 'grid' } };
}
