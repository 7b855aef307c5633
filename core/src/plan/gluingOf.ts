import { proudBy, proudFor } from '../board/allowances.ts';
import { showsOf } from '../board/board.ts';
import { firstOf, nth } from '../lists/there.ts';
import { planGlueUps, type GluePlan } from '../gluing/glueUps.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import type { Shop } from '../shop/shop.ts';
import type { PlanContext } from '../ladders/context.ts';
import { stripsOf, type StripOperation } from '../board/recipe.ts';
import { hardestOf } from '../steps/hardest.ts';
import { howCut } from '../steps/layingOut.ts';

/** The widest panel that something in the shop makes flat in one piece, mm; infinite where hands can. */
export function widestFlattened(shop: Shop): number {
  const {
    schools: { flatten },
    drumSander,
    routerSled,
  } = shop;
  if (flatten === 'drum' && drumSander) return drumSander.width;
  if (flatten === 'routerSled' && routerSled) return routerSled.width;
  if (flatten !== 'planer') return Infinity;
  return Math.max(flattenerLimits(shop).width, drumSander?.width ?? 0, routerSled?.width ?? 0);
}

/** The glue-ups of a board's panel, longest panel first in a batch. */
export function gluingOf(context: PlanContext): GluePlan {
  const { allowances, board, cutting, shop, before } = context;
  const shown = howCut(cutting);
  const strips = stripsOf(board);
  // One that lies flat in one of the panels is left no higher there.
  const standsOnEdge = (s: StripOperation) =>
    allowances.panels.every((_, k) => (shown(s.id, k + 1) ?? showsOf(board.construction, s)) === 'edge');
  const like = (i: number) => `${nth(strips, i).stack ?? nth(strips, i).species}/${nth(strips, i).width}`;
  const plan = planGlueUps(
    {
      widths: strips.map((s) => s.width),
      ids: strips.map((s) => s.id),
      symmetrical: strips.every((_, i) => like(i) === like(strips.length - 1 - i)),
      length: firstOf(allowances.panels).length,
      height: allowances.glueThickness,
      proud: strips.map((s) => (standsOnEdge(s) ? proudBy(proudFor(allowances, board, s), s.width) : 0)),
      hardness: hardestOf(context),
      helper: board.gluing.helper,
      groups: board.gluing.groups,
      flattens: widestFlattened(shop),
    },
    shop,
  );
  if (before.strips === 0) return plan;
  const glueUps = plan.glueUps.map((g) => ({
    ...g,
    firstStrip: g.firstStrip + before.strips,
    lastStrip: g.lastStrip + before.strips,
  }));
  return { ...plan, glueUps };
}
