import type { Inset } from '../board/inset.ts';
import type { PlanContext } from '../ladders/context.ts';
import { insertWorkpiece } from '../recipe/insertOperation.ts';
import { cutOut, type Workpiece } from '../recipe/workpiece.ts';
import { bodiesOfPanel, panelInCells } from './cells.ts';
import { looseInCells } from './looseWood.ts';

/**
 * The parts of a panel with strips between them, glued together, as far as all of them reach: in cells; null while there are no strips.
 * @param first the context of the first panels @param copy which of them, from 1
 */
export function insetInCells(first: PlanContext, inset: Inset, copy: number): Workpiece | null {
  const panel = panelInCells(first, bodiesOfPanel(first, copy), copy);
  const { length, width, height } = inset.block;
  if (!panel || width <= 0 || length <= 0) return null;
  const edge = (panel.size[1] - inset.trueWidth) / 2;
  const planed = Math.max(0, panel.size[2] - inset.thickness) / 2;
  const trued = cutOut(panel, [0, edge, planed], [panel.size[0], edge + inset.trueWidth, planed + inset.thickness]);
  const glued = inset.inserts.reduce(
    (thing, insert) => insertWorkpiece(thing, looseInCells(first, insert, copy), insert, inset.trueWidth),
    trued,
  );
  return cutOut(glued, [0, inset.top, 0], [length, inset.top + width, height]);
}
