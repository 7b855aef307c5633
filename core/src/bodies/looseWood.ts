import type { Insert } from '../board/inset.ts';
import { gluedHeight } from '../ladders/gluedThickness.ts';
import type { PlanContext } from '../ladders/context.ts';
import { firstOf } from '../lists/there.ts';
import { plus } from '../recipe/motion.ts';
import { stripWorkpiece } from '../recipe/stripOperation.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
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
