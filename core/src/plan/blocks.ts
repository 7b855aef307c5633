import type { Again } from '../board/again.ts';
import type { Board } from '../board/board.ts';
import { crossings, type Inset } from '../board/inset.ts';
import type { Recut } from '../board/recut.ts';
import { cutStripsOf, stripsOf } from '../board/recipe.ts';
import type { Made } from '../facts/made.ts';
import { PARTS, ROWS } from '../gluing/glueRun.ts';
import { planGlueUps, type GluePlan } from '../gluing/glueUps.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { Shop } from '../shop/shop.ts';
import { trimLayout, type Block } from '../trim/trimLayout.ts';
import { hardestOf } from '../steps/hardest.ts';
import { widestFlattened } from './gluingOf.ts';

/** Deeper passes tear fibres off the far edge of end grain, mm (common practice). */
const END_GRAIN_PASS_MM = 0.5;

/** A shop as it works a block of rows or parts: what makes it flat takes, and no planer where knives meet end grain. */
function shopOfBlock(shop: Shop, { up, flatten }: Again): Shop {
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

/** A shop for what is trimmed once more when it is glued: nothing is branded into its edges before. */
export const withoutBranding = (shop: Shop): Shop =>
  shop.schools.engraving === 'outerStrip' ? { ...shop, schools: { ...shop.schools, engraving: 'beforeGrain' } } : shop;

/** The block that a board is trimmed from: what goes off the ends of its rows, and of where they are stacked nothing that must; of parts both edges, and their ends as of any panel. */
export function blockToTrim(again: Again): Block {
  const { block, rowTrim } = again;
  if (again.how === 'parts') return { ...block, side: rowTrim, end: again.end };
  const across = again.last.runs === 'across';
  return { ...block, side: across ? rowTrim : 0, end: across ? 0 : rowTrim };
}

/** What the plan shares of what is trimmed once more when it is glued: one block for each board, and the board as large as its block lets it be. @param field what becomes of it, where it is not a board yet */
export function blockContext(
  before: PlanContext,
  block: Block,
  { board, shop, made, field }: { board: Board; shop: Shop; made: Made; field: PlanContext['field'] },
): PlanContext {
  const reached = asLargeAsLeft(board, block);
  const allowances = {
    ...before.allowances,
    panels: Array.from({ length: board.count }, () => ({ boards: 1, length: block.length })),
    spareLength: 0,
    endTrim: 0,
  };
  return {
    ...before,
    board: reached,
    shop,
    made,
    allowances,
    panelWidth: block.width,
    trim: trimLayout(reached, allowances, shop, made, block),
    field,
    wished: board,
  };
}

/** What the plan shares from the second glue-up on. */
export function blocksOf(
  first: PlanContext,
  { board, shop, again, field }: { board: Board; shop: Shop; again: Again; field: PlanContext['field'] },
  made: Made,
): PlanContext {
  const own = shopOfBlock(shop, again);
  const context = blockContext(first, blockToTrim(again), { board, shop: own, made, field });
  return { ...context, allowances: { ...context.allowances, glueThickness: again.block.height }, again };
}

/** The board as large as what it is trimmed from lets it be, one from each. */
const asLargeAsLeft = (board: Board, { length, width, side, end }: Block): Board => ({
  ...board,
  length: Math.max(0, Math.min(board.length, length - 2 * end)),
  width: Math.max(0, Math.min(board.width, width - 2 * side)),
  perPanel: 1,
});

/** The glue-ups of the rows or parts of one board. */
export function blockGluing(context: PlanContext, again: Again): GluePlan {
  const plan = again.how === 'rows' ? rowGluing(context, again) : partGluing(context, again);
  const sign = again.how === 'rows' ? ROWS : PARTS;
  return { ...plan, glueUps: plan.glueUps.map((g) => ({ ...g, name: `${sign}${g.name.slice(1)}` })) };
}

/** Parts and what is put between them, one behind the other: their joints run across the panel. */
function partGluing(context: PlanContext, inset: Inset): GluePlan {
  const { board, shop } = context;
  if (stripsOf(board).length === 0) return planGlueUps({ ...NO_ROWS, height: inset.block.height }, shop);
  const pieces = glueOrder(inset);
  return planGlueUps(
    {
      widths: pieces.map((p) => p.along),
      ids: pieces.map((p) => p.id),
      symmetrical: false,
      length: Math.max(...inset.inserts.map((i) => i.length)),
      height: inset.block.height,
      hardness: hardestOf(context, cutStripsOf(board)),
      helper: board.gluing.helper,
      groups: null,
      // It is no wider for the machines than its panel was, however long it gets.
      flattens: Infinity,
    },
    shop,
  );
}

/** What is glued of a panel that was sawn apart, in order: parts, and between two of them a strip; `along` in the middle of the panel, mm. */
export function glueOrder(inset: Inset): { id: string; insert: Inset['inserts'][number] | null; along: number }[] {
  const middle = (i: Inset['inserts'][number], side: 'before' | 'behind') => {
    const { far, near } = crossings(i, inset, side);
    return (far + near) / 2;
  };
  let from = 0;
  const list = inset.inserts.flatMap((insert, k) => {
    const part = {
      id: `${inset.panel.id}/${k + 1}`,
      insert: null,
      along: Math.max(0, middle(insert, 'before') - from),
    };
    from = middle(insert, 'behind');
    return [part, { id: insert.strip.id, insert, along: insert.width }];
  });
  const last = {
    id: `${inset.panel.id}/${inset.inserts.length + 1}`,
    insert: null,
    along: Math.max(0, inset.panelLength - from),
  };
  return [...list, last];
}

function rowGluing(context: PlanContext, recut: Recut): GluePlan {
  const { board, shop } = context;
  const rows = recut.all.filter((r) => r.board === 1);
  if (stripsOf(board).length === 0) return planGlueUps({ ...NO_ROWS, height: recut.block.height }, shop);
  return planGlueUps(
    {
      widths: rows.map(() => recut.row),
      ids: rows.map((r) => `${recut.slice.id}/${r.number}`),
      symmetrical: true,
      length: Math.max(...recut.kinds.map((k) => k.trueWidth)) / Math.cos((recut.angle * Math.PI) / 180),
      height: recut.block.height,
      hardness: hardestOf(context),
      helper: board.gluing.helper,
      groups: null,
      flattens: widestFlattened(shop),
    },
    shop,
  );
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
