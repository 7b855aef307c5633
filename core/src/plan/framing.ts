import { frameStrips, type Frame, type FrameStrip } from '../board/frame.ts';
import type { Board } from '../board/board.ts';
import { cutStripsOf, stripsOf } from '../board/recipe.ts';
import type { Made } from '../facts/made.ts';
import { FRAMES } from '../gluing/glueRun.ts';
import { planGlueUps, type GluePlan } from '../gluing/glueUps.ts';
import { flatThickness, gluedHeight } from '../ladders/gluedThickness.ts';
import type { PlanContext } from '../ladders/context.ts';
import { nth } from '../lists/there.ts';
import type { Block } from '../trim/trimLayout.ts';
import { blockContext, withoutBranding } from './blocks.ts';
import { hardestOf } from '../steps/hardest.ts';

/** Two strips of a ring that are glued on at once, to what is inside them. */
export interface FramePair {
  /** Which ring, and which pair of it, from 0. */
  ring: number;
  pair: 0 | 1;
  strips: FrameStrip[];
  gluing: GluePlan;
}

/** What a framed board is trimmed from. */
export const frameToTrim = ({ block, side, end }: Frame): Block => ({ ...block, side, end });

/** What the plan shares once the frame is on. */
export const framedContext = (
  inside: PlanContext,
  frame: Frame,
  board: Board,
  made: Made,
  backed: boolean,
): PlanContext => ({
  ...blockContext(inside, frameToTrim(frame), {
    board,
    shop: withoutBranding(inside.shop),
    made,
    field: backed ? 'back' : null,
  }),
  frame,
});

/** How far the highest strip of a frame stands over the field it is glued to, mm. */
export const frameProud = (first: PlanContext, frame: Frame, flat: number): number =>
  Math.max(0, ...frameStrips(frame).map((s) => gluedHeight(first, s.strip.id) - flat));

/** The glue-ups of a frame, a pair of strips at a time: strip, what is inside, strip. */
export function frameGluing(context: PlanContext, frame: Frame): FramePair[] {
  const { board, shop } = context;
  if (stripsOf(board).length === 0) return [];
  return frame.rings.flatMap(({ operation, pairs, inner, outer }, ring) =>
    pairs.map((strips, k): FramePair => {
      const [one, other] = [nth(strips, 0), nth(strips, 1)];
      const long = one.side === 'far';
      const inside = long ? inner.width : inner.length;
      const gluing = planGlueUps(
        {
          widths: [one.width, inside, other.width],
          ids: [one.strip.id, `${operation.id}/${k}`, other.strip.id],
          symmetrical: true,
          length: Math.min(one.covers, long ? outer.length : outer.width),
          height: flatThickness(context),
          hardness: hardestOf(context, cutStripsOf(board)),
          helper: board.gluing.helper,
          groups: null,
          flattens: Infinity,
        },
        shop,
      );
      const number = 2 * ring + k + 1;
      return {
        ring,
        pair: k === 0 ? 0 : 1,
        strips,
        gluing: { ...gluing, glueUps: gluing.glueUps.map((g, i) => ({ ...g, name: `${FRAMES}${number}.${i + 1}` })) },
      };
    }),
  );
}
