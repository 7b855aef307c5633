import { entryOf, nth } from '../lists/there.ts';
import { panelRecipe, withStrips, stripsOf } from '../board/recipe.ts';
import { readBackward, readForward } from '../recipe/evaluate.ts';
import { plus } from '../recipe/motion.ts';
import { stripWorkpiece } from '../recipe/stripOperation.ts';
import { cutOut, type Workpiece } from '../recipe/workpiece.ts';
import type { PanelRect } from '../trim/trimLayout.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { Ladder } from '../ladders/ladder.ts';
import { panelThickness } from '../ladders/gluedThickness.ts';
import { accentInCells } from './stackWood.ts';
import { furtherAlong, shareOf, stripBodies, turnedOver, type StripBody } from './stripBody.ts';

/** Where the strips of one panel lie in their pieces, those turned over that the plan turns. @param copy which panel, from 1 */
export function bodiesOfPanel(context: PlanContext, copy: number): StripBody[] {
  const { board, cutting, pieces, allowances, trim, turnedOver: over } = context;
  const size = shareOf(board, allowances, trim);
  return stripBodies(withStrips(board, turnedOver(stripsOf(board), over[copy - 1])), cutting, pieces, size, copy);
}

/** A panel as it comes out of the clamps and is level: all its wood in cells, each knowing where it lay in its piece. Null while there are no strips. @param copy which panel, from 1 */
export function panelInCells(context: PlanContext, bodies: readonly StripBody[], copy: number): Workpiece | null {
  const { board, allowances, trim } = context;
  const height = panelThickness(context);
  const ends = nth(trim.panels, copy - 1).map((b) => b.x + b.length);
  const recipe = panelRecipe(board.recipe);
  const milled = readBackward(recipe, {
    length: Math.max(nth(allowances.panels, copy - 1).length, ...ends),
    height,
  });
  const { start } = shareOf(board, allowances, trim);
  const ofStrip = new Map(stripsOf(board).map((strip, i) => [strip.id, nth(bodies, i)]));
  return readForward(recipe, (strip) => {
    const stack = context.stacks.find((s) => s.operation.id === strip.stack);
    if (stack) return accentInCells(context, stack, strip, entryOf(milled, strip.id), copy);
    const body = entryOf(ofStrip, strip.id);
    const { origin, along, across, up } = furtherAlong(body, -start);
    // What is planed off both sides of the strip comes off alike.
    return stripWorkpiece(strip, entryOf(milled, strip.id), {
      piece: body.piece,
      unit: body.unit,
      inPiece: { origin: plus(origin, up, (body.size[2] - height) / 2), along, across, up },
    });
  });
}

/** One board of a panel, planed, sanded and cut to size, before edges and features. @param thickness it comes out at, mm */
export function boardInCells(panel: Workpiece, { x, y, length, width }: PanelRect, thickness: number): Workpiece {
  const planed = Math.max(0, panel.size[2] - thickness) / 2;
  return cutOut(panel, [x, y, planed], [x + length, y + width, panel.size[2] - planed]);
}

/** The first panel, and the first board out of it; where bad places leave it no room, as if there were none. */
export function woodOf(
  context: PlanContext,
  bodies: readonly StripBody[],
  ladders: { thickness: Ladder; width: Ladder },
): { panel: Workpiece; board: Workpiece } | null {
  const panel = panelInCells(context, bodies, 1);
  if (!panel) return null;
  const { far, boards } = context.trim;
  const place = boards[0] ?? { x: 0, y: far, length: context.board.length, width: ladders.width.reached };
  return { panel, board: boardInCells(panel, place, ladders.thickness.reached) };
}
