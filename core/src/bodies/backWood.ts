import type { Back } from '../board/back.ts';
import type { PlanContext } from '../ladders/context.ts';
import { glueWorkpiece } from '../recipe/glueOperation.ts';
import { after, shift, type Motion } from '../recipe/motion.ts';
import { carried, cellsWithin, type Workpiece } from '../recipe/workpiece.ts';
import { looseInCells } from './looseWood.ts';

/** How a back whose strips lie across lies under a board: its first end at the far edge, its first side to the right. @param right where that is, mm */
const acrossAt = (right: number): Motion => ({
  origin: [right, 0, 0],
  along: [0, 1, 0],
  across: [-1, 0, 0],
  up: [0, 0, 1],
});

/** What is above a back with the back under it, in cells. @param first the context of the first panels, whose cut plan has the strips @param board from 1 */
export function backedInCells(first: PlanContext, back: Back, top: Workpiece, board: number): Workpiece {
  const { thickness, operation, length } = back;
  const [l, w, t] = top.size;
  const panel = glueWorkpiece(
    back.strips.map(({ strip }) => looseInCells(first, { strip, length, width: strip.width }, board)),
  );
  const [long, wide, high] = panel.size;
  // What is planed off comes off both faces alike.
  const planed = Math.max(0, high - thickness) / 2;
  const lie =
    operation.runs === 'along'
      ? shift([(l - long) / 2, (w - wide) / 2, -planed])
      : after(shift([0, (w - long) / 2, -planed]), acrossAt((l + wide) / 2));
  const clipped = cellsWithin(carried(panel.cells, lie), [0, 0, 0], [l, w, thickness]);
  const above = shift([0, 0, thickness]);
  return { size: [l, w, t + thickness], cells: [...clipped, ...carried(top.cells, above)] };
}
