import type { Board } from '../board/board.ts';
import type { Made } from '../facts/made.ts';
import type { GlueUp } from '../gluing/glueUps.ts';
import { trimLayout, type TrimLayout } from '../trim/trimLayout.ts';
import type { Plan } from './plan.ts';

/** Where boards lie on what they are trimmed from, placed anew while bad places are moved. @param worked what comes out of the panel beside them */
export function trimAgain({ lastly, allowances, shop }: Plan, board: Board, made: Made): TrimLayout {
  if (!lastly) return trimLayout(board, allowances, shop, made);
  return trimLayout({ ...lastly.board, worked: board.worked }, lastly.allowances, lastly.shop, made, lastly.block);
}

/** Every glue-up of a board, of bits, of strips, of rows and of parts, and of its frame. */
export function glueUpsOf({
  gluing,
  stacks,
  again,
  frame,
  back,
}: Pick<Plan, 'gluing' | 'stacks' | 'again' | 'frame' | 'back'>): GlueUp[] {
  return [
    ...stacks.flatMap((s) => s.gluing.glueUps),
    ...(again
      ? [...again.panelGluing.glueUps, ...again.otherPanels.flatMap((p) => p.gluing.glueUps), ...again.gluing.glueUps]
      : gluing.glueUps),
    ...(frame?.pairs ?? []).flatMap((p) => p.gluing.glueUps),
    ...(back ? [...back.panel.gluing.glueUps, ...(back.gluing?.glueUps ?? [])] : []),
  ];
}
