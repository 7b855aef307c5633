import type { Insert, Inset } from '../board/inset.ts';
import { gluedHeight } from '../ladders/gluedThickness.ts';
import type { PlanContext } from '../ladders/context.ts';
import { firstOf } from '../lists/there.ts';
import { insertWorkpiece } from '../recipe/insertOperation.ts';
import { plus, shift } from '../recipe/motion.ts';
import { within } from '../recipe/solid.ts';
import { stripWorkpiece } from '../recipe/stripOperation.ts';
import { carried, type Cell, type Workpiece } from '../recipe/workpiece.ts';
import { bodiesOfPanel, panelInCells } from './cells.ts';
import { stripBodies } from './stripBody.ts';

/** A strip that is cut beside those of the panels, as it was milled: its wood, and where that lies in its piece. @param copy of which panel or board, from 1 */
export function looseInCells(
  first: PlanContext,
  { strip, length, width }: Pick<Insert, 'strip' | 'length' | 'width'>,
  copy: number,
): Workpiece {
  const height = gluedHeight(first, strip.id);
  const share = { length, thickness: height, start: 0 };
  const bodies = stripBodies(first.board, first.cutting, first.pieces, share, copy, [strip]);
  const { origin, along, across, up, size, piece, unit } = firstOf(bodies);
  return stripWorkpiece(strip, [length, width, height], {
    piece,
    unit,
    inPiece: { origin: plus(origin, up, (size[2] - height) / 2), along, across, up },
  });
}

/**
 * The parts of a panel with strips between them, glued together, as far as all of them reach: in cells; null while there are no strips.
 * @param first the context of the first panels @param copy which of them, from 1
 */
export function insetInCells(first: PlanContext, inset: Inset, copy: number): Workpiece | null {
  const panel = panelInCells(first, bodiesOfPanel(first, copy), copy);
  const { length, width, height } = inset.block;
  if (!panel || width <= 0 || length <= 0) return null;
  const edge = first.shop.habits.panelEdgeTrim;
  const planed = Math.max(0, panel.size[2] - inset.thickness) / 2;
  const cut = (cell: Cell, from: [number, number, number], to: [number, number, number]): Cell[] => {
    const solid = within(cell.solid, from, to);
    return solid ? [carried({ ...cell, solid }, shift([-from[0], -from[1], -from[2]]))] : [];
  };
  const trued: Workpiece = {
    size: [panel.size[0], inset.trueWidth, inset.thickness],
    cells: panel.cells.flatMap((c) =>
      cut(c, [0, edge, planed], [panel.size[0], edge + inset.trueWidth, planed + inset.thickness]),
    ),
  };
  const glued = inset.inserts.reduce(
    (thing, insert) => insertWorkpiece(thing, looseInCells(first, insert, copy), insert, inset.trueWidth),
    trued,
  );
  return {
    size: [length, width, height],
    cells: glued.cells.flatMap((c) => cut(c, [0, inset.top, 0], [length, inset.top + width, height])),
  };
}
