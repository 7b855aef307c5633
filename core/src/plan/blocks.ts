import type { Board } from '../board/board.ts';
import type { Recut } from '../board/recut.ts';
import { stripsOf } from '../board/recipe.ts';
import type { Made } from '../facts/made.ts';
import { ROWS } from '../gluing/glueRun.ts';
import { planGlueUps, type GluePlan } from '../gluing/glueUps.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { Shop } from '../shop/shop.ts';
import { trimLayout, type Block } from '../trim/trimLayout.ts';
import { hardestOf, widestFlattened } from './gluingOf.ts';

/** Deeper passes tear fibres off the far edge of end grain, mm (common practice). */
const END_GRAIN_PASS_MM = 0.5;

/** A shop as it works a block of rows: what makes it flat takes, and no planer where knives meet end grain. */
function shopOfRows(shop: Shop, { up, flatten }: Recut): Shop {
  const { planer, schools } = shop;
  const guarded = schools.endGrain === 'guarded' && planer?.head === 'helical';
  return {
    ...shop,
    habits: { ...shop.habits, panelFlatten: flatten },
    planer:
      !up || planer === null
        ? planer
        : guarded
          ? { ...planer, passDepth: Math.min(planer.passDepth, END_GRAIN_PASS_MM) }
          : null,
    // Its outer faces are ends and edges of slices that are trimmed: nothing is branded before.
    schools: schools.engraving === 'outerStrip' ? { ...schools, engraving: 'beforeGrain' } : schools,
  };
}

/** The block that a board is trimmed from: what goes off the ends of its rows, and of where they are stacked nothing that must. */
export function blockToTrim({ block, rowTrim, last }: Recut): Block {
  const across = last.runs === 'across';
  return { ...block, side: across ? rowTrim : 0, end: across ? 0 : rowTrim };
}

/** What the plan shares from the rows on: one block for each board, and the board as large as its rows let it be. */
export function blocksOf(
  first: PlanContext,
  { board, shop, recut }: { board: Board; shop: Shop; recut: Recut },
  made: Made,
): PlanContext {
  const { block } = recut;
  const { end: endTrim, side: sideTrim } = blockToTrim(recut);
  const reached: Board = {
    ...board,
    length: Math.max(0, Math.min(board.length, block.length - 2 * endTrim)),
    width: Math.max(0, Math.min(board.width, block.width - 2 * sideTrim)),
    perPanel: 1,
  };
  const own = shopOfRows(shop, recut);
  const allowances = {
    ...first.allowances,
    panels: Array.from({ length: board.count }, () => ({ boards: 1, length: block.length })),
    spareLength: 0,
    endTrim: 0,
    glueThickness: block.height,
  };
  return {
    ...first,
    board: reached,
    shop: own,
    made,
    allowances,
    panelWidth: block.width,
    trim: trimLayout(reached, allowances, own, made, blockToTrim(recut)),
    rows: recut,
    wished: board,
  };
}

/** The glue-ups of the rows of one board. */
export function rowGluing(context: PlanContext, recut: Recut): GluePlan {
  const { board, shop } = context;
  const rows = recut.all.filter((r) => r.board === 1);
  if (stripsOf(board).length === 0) return planGlueUps({ ...NO_ROWS, height: recut.block.height }, shop);
  const plan = planGlueUps(
    {
      widths: rows.map(() => recut.row),
      ids: rows.map((r) => `${recut.slice.id}/${r.number}`),
      symmetrical: true,
      length: recut.trueWidth / Math.cos((recut.angle * Math.PI) / 180),
      height: recut.block.height,
      hardness: hardestOf(context),
      helper: board.gluing.helper,
      groups: null,
      flattens: widestFlattened(shop),
    },
    shop,
  );
  return { ...plan, glueUps: plan.glueUps.map((g) => ({ ...g, name: `${ROWS}${g.name.slice(1)}` })) };
}

const NO_ROWS = {
  widths: [],
  ids: [],
  symmetrical: true,
  length: 0,
  hardness: null,
  helper: false,
  groups: null,
  flattens: Infinity,
};
