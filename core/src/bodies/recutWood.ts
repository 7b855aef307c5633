import { ofKind, type Recut, type Row } from '../board/recut.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { Dimension, Ladder } from '../ladders/ladder.ts';
import { panelThickness } from '../ladders/gluedThickness.ts';
import { firstOf, nth } from '../lists/there.ts';
import { flattenerLimits } from '../shop/flattener.ts';
import { blockOf, slicesOf } from '../recipe/rows.ts';
import type { LyingSlice } from '../recipe/sliceOperation.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import { boardInCells, bodiesOfPanel, panelInCells } from './cells.ts';
import { gramsIn, type PlannedStrip } from './strips.ts';

/** From the end of a first panel's strips to where they are all whole and sound: creep, and what is trimmed. */
export function soundEnd({ shop: { habits }, shop }: Pick<PlanContext, 'shop'>): number {
  return habits.creep / 2 + Math.max(habits.panelEndTrim, flattenerLimits(shop).snipe);
}

/** The slices of one first panel in cells, in the order they are sawn. @param contexts of the panels that rows come from in turn @param number which panel of all, from 1 */
function slicesInCells(contexts: readonly PlanContext[], all: Recut, number: number): LyingSlice[] {
  const kind = all.kinds.findLastIndex((k) => number > k.before.panels);
  const [first, recut] = [nth(contexts, kind), ofKind(all, kind)];
  const copy = number - recut.before.panels;
  const panel = panelInCells(first, bodiesOfPanel(first, copy), copy);
  if (!panel) return [];
  const planed = Math.max(0, panelThickness(first) - recut.thickness) / 2;
  const edge = (panel.size[1] - recut.trueWidth) / 2;
  return slicesOf(recut, { panel, edge, planed }, recut.slices[copy - 1] ?? 0);
}

/** The rows of a board glued together, in cells; null while there are no strips. */
export function blockInCells(contexts: readonly PlanContext[], recut: Recut, rows: readonly Row[]): Workpiece | null {
  if (recut.kinds.some((k) => k.widths.length === 0) || recut.rowLength <= 0) return null;
  const panels = new Set(rows.map((r) => r.panel));
  return blockOf(
    recut,
    rows,
    recut.kinds
      .flatMap((kind) => kind.slices.map((_, k) => kind.before.panels + k + 1))
      .map((number) => (panels.has(number) ? slicesInCells(contexts, recut, number) : [])),
  );
}

/** All the wood of the first board's block, and of the board itself before edges and features; null while there are no strips. */
export function boardOfBlock(
  last: PlanContext,
  panel: Workpiece | null,
  ladders: Record<Dimension, Ladder>,
): { panel: Workpiece; board: Workpiece } | null {
  const place = last.trim.boards[0] ?? firstOf(last.trim.panels)[0];
  if (!panel || !place) return null;
  return { panel, board: boardInCells(panel, place, ladders.thickness.reached) };
}

/** Strips of the first panel with what of them is in the board: what each weighs there. */
export function stripsInBoard(
  strips: readonly PlannedStrip[],
  board: Workpiece | undefined,
  { species }: Pick<PlanContext, 'species'>,
): PlannedStrip[] {
  const grams = gramsIn(board, strips, species);
  return strips.map((strip) => ({ ...strip, grams: grams(strip) }));
}
