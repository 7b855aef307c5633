import type { Board } from '../board/board.ts';
import type { Made } from '../facts/made.ts';
import type { GlueUp } from '../gluing/glueUps.ts';
import { trimLayout, type TrimLayout } from '../trim/trimLayout.ts';
import { blockToTrim } from './blocks.ts';
import type { Plan } from './plan.ts';

/** Where boards lie on their panels, placed anew while bad places are moved. @param worked what comes out of the panel beside them */
export function trimAgain({ again, allowances, shop }: Plan, board: Board, made: Made): TrimLayout {
  if (!again) return trimLayout(board, allowances, shop, made);
  const { lastly } = again;
  return trimLayout(
    { ...lastly.board, worked: board.worked },
    lastly.allowances,
    lastly.shop,
    made,
    blockToTrim(again),
  );
}

/** Every glue-up of a board, of strips, of rows and of parts. */
export function glueUpsOf({ gluing, again }: Pick<Plan, 'gluing' | 'again'>): GlueUp[] {
  return again ? [...again.panelGluing.glueUps, ...again.gluing.glueUps] : gluing.glueUps;
}
