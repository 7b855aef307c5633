import type { Board } from '../board/board.ts';
import type { Made } from '../facts/made.ts';
import type { GlueUp } from '../gluing/glueUps.ts';
import { trimLayout, type TrimLayout } from '../trim/trimLayout.ts';
import { blockToTrim } from './blocks.ts';
import type { Plan } from './plan.ts';

/** Where boards lie on their panels, placed anew while bad places are moved. @param worked what comes out of the panel beside them */
export function trimAgain({ recut, allowances, shop }: Plan, board: Board, made: Made): TrimLayout {
  if (!recut) return trimLayout(board, allowances, shop, made);
  const { lastly } = recut;
  return trimLayout(
    { ...lastly.board, worked: board.worked },
    lastly.allowances,
    lastly.shop,
    made,
    blockToTrim(recut),
  );
}

/** Every glue-up of a board, of strips and of rows. */
export function glueUpsOf({ gluing, recut }: Pick<Plan, 'gluing' | 'recut'>): GlueUp[] {
  return recut ? [...recut.panelGluing.glueUps, ...recut.gluing.glueUps] : gluing.glueUps;
}
