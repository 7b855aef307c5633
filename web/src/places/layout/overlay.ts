import { nth } from '#core/lists/there.ts';
import { grainArrow, type StripBody } from '#core/bodies/stripBody.ts';
import type { OpenBoard } from '../../data/openBoard.tsx';
import { type Strip, stripsOf } from '#core/board/recipe.ts';

/** What a drawing can show over the wood instead of leaving it bare. */
export const OVERLAYS = ['none', 'grain', 'rings', 'movement', 'pieces', 'reserved'] as const;
export type Overlay = (typeof OVERLAYS)[number];

export const OVERLAY_WORDS: Readonly<Record<Overlay, string>> = {
  none: 'Bare wood',
  grain: 'Grain direction',
  rings: 'Growth rings',
  movement: 'Movement',
  pieces: 'Source piece',
  reserved: 'Promised or cut',
};

/** A strip under an overlay: a hatch that tells kinds apart without colour, and a word. */
export interface OverlayMark {
  /** Which of the hatches, 0 none. */
  hatch: number;
  label: string;
}

export const HATCH_COUNT = 6;

const RING_WORDS = { flat: 'flat-sawn', rift: 'rift', quarter: 'quartered' } as const;

/** Marks by strip id. */
export function overlayMarks(
  overlay: Overlay,
  { plan, board }: Pick<OpenBoard, 'plan' | 'board'>,
  length: (mm: number) => string,
): Map<string, OverlayMark> {
  if (overlay === 'none') return new Map();
  const strips = new Map(stripsOf(board).map((s) => [s.id, s]));
  const marks = plan.strips.map(
    (planned, i) => [planned.id, markOf(overlay, strips.get(planned.id), nth(plan.bodies, i), i)] as const,
  );
  return new Map(marks);

  function markOf(kind: Exclude<Overlay, 'none'>, strip: Strip | undefined, body: StripBody, i: number): OverlayMark {
    switch (kind) {
      case 'grain': {
        const arrow = grainArrow(strip ?? { endForEnd: false }, body);
        return {
          hatch: arrow.forward ? 0 : 1,
          label: `${arrow.forward ? 'towards the last end' : 'towards the first end'}, ${arrow.known ? 'as noted on the piece' : 'as it was laid'}`,
        };
      }
      case 'rings': {
        const { piece, shows } = body;
        return piece
          ? {
              hatch: { flat: 2, rift: 3, quarter: 4 }[piece.rings],
              label: `${RING_WORDS[piece.rings]}, ${shows === 'edge' ? 'edge up' : 'face up'}`,
            }
          : { hatch: 0, label: 'no piece yet' };
      }
      case 'movement': {
        const { across } = nth(plan.movement.strips, i);
        if (across === null) return { hatch: 0, label: 'not known' };
        const share = across / Math.max(1e-6, nth(plan.strips, i).finished.width);
        const most = Math.max(
          1e-6,
          ...plan.movement.strips.map((m, k) => (m.across ?? 0) / Math.max(1e-6, nth(plan.strips, k).finished.width)),
        );
        return {
          hatch: nth([0, 1, 3, 5], Math.min(3, Math.floor((share / most) * 3.999))),
          label: `+${length(across)}`,
        };
      }
      case 'pieces': {
        const marks = [...new Set(plan.strips.flatMap((s) => s.sources.slice(0, 1).map((source) => source.mark)))];
        const mark = nth(plan.strips, i).sources[0]?.mark;
        return mark === undefined
          ? { hatch: 0, label: 'no piece' }
          : { hatch: (marks.indexOf(mark) % HATCH_COUNT) + 1, label: mark };
      }
      case 'reserved': {
        const { sources } = nth(plan.strips, i);
        if (sources.length === 0) return { hatch: 5, label: 'no piece' };
        if (sources.every((s) => s.done)) return { hatch: 4, label: 'cut' };
        return plan.cutting.method === 'kept'
          ? { hatch: 1, label: 'promised to this board' }
          : { hatch: 0, label: 'free in the rack' };
      }
    }
  }
}
