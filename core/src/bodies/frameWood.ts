import { frameStrips, type Frame, type FrameSide } from '../board/frame.ts';
import type { PlanContext } from '../ladders/context.ts';
import { entryOf } from '../lists/there.ts';
import { frameWorkpiece } from '../recipe/frameOperation.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import { looseInCells } from './looseWood.ts';

/** A field with its frame on it, in cells. @param first the context of the first panels, whose cut plan has the strips @param board from 1 */
export function framedInCells(first: PlanContext, frame: Frame, field: Workpiece, board: number): Workpiece {
  const milled = new Map(frameStrips(frame).map((s) => [s.strip.id, looseInCells(first, s, board)]));
  return frame.rings.reduce((inside, ring) => {
    const of = (side: FrameSide) => {
      const strip = ring.pairs.flat().find((s) => s.side === side);
      return entryOf(milled, strip?.strip.id ?? '');
    };
    return frameWorkpiece(inside, ring, {
      far: of('far'),
      near: of('near'),
      left: of('left'),
      right: of('right'),
    });
  }, field);
}
