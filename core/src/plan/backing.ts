import type { Back } from '../board/back.ts';
import type { Board } from '../board/board.ts';
import { cutStripsOf, flatRecipe, stripsOf } from '../board/recipe.ts';
import type { Made } from '../facts/made.ts';
import { BACKS } from '../gluing/glueRun.ts';
import { planGlueUps, type GluePlan } from '../gluing/glueUps.ts';
import type { PlanContext } from '../ladders/context.ts';
import { flatThickness } from '../ladders/gluedThickness.ts';
import type { Block } from '../trim/trimLayout.ts';
import { blockContext, withoutBranding } from './blocks.ts';
import { hardestOf } from '../steps/hardest.ts';

/** What a backed board is trimmed from. @param top how large what is above the back was cut, mm */
export const backToTrim = ({ side }: Back, top: { length: number; width: number }): Block => ({
  ...top,
  side,
  end: side,
});

/** What the plan shares once the back is on. @param size how large what is above it was cut, mm */
export const backedContext = (
  top: PlanContext,
  back: Back,
  size: { length: number; width: number },
  board: Board,
  made: Made,
): PlanContext => ({
  ...blockContext(top, backToTrim(back, size), { board, shop: withoutBranding(top.shop), made, field: null }),
  back,
});

/** What the plan shares of the backs, each a panel of strips of its own. @param panels how many are numbered before them */
export function backPanels(first: PlanContext, back: Back, board: Board, panels: number): PlanContext {
  const { strips } = back;
  return {
    ...first,
    board: { ...first.board, recipe: flatRecipe(strips.map((s) => s.strip)), count: board.count, perPanel: 1 },
    allowances: {
      ...first.allowances,
      panels: Array.from({ length: board.count }, () => ({ boards: 1, length: back.length })),
      glueThickness: back.height,
    },
    panelWidth: back.width,
    stacks: [],
    turnedOver: [],
    again: null,
    ahead: null,
    field: null,
    before: { panels, strips: (strips[0]?.number ?? 1) - 1 },
  };
}

/** How a back is glued under: two pieces, one joint as large as the board, pressed through battens. */
export function backGluing(top: PlanContext, back: Back, size: { length: number; width: number }): GluePlan | null {
  const { board, shop } = top;
  if (stripsOf(board).length === 0 || back.strips.length === 0) return null;
  const plan = planGlueUps(
    {
      widths: [flatThickness(top), back.thickness],
      ids: [`${back.operation.id}/top`, back.operation.id],
      symmetrical: false,
      length: size.length,
      height: size.width,
      hardness: hardestOf(top, cutStripsOf(board)),
      helper: board.gluing.helper,
      groups: null,
      flattens: Infinity,
      battens: true,
    },
    shop,
  );
  return { ...plan, glueUps: plan.glueUps.map((g, i) => ({ ...g, name: `${BACKS}1.${i + 1}` })) };
}
