import type { Frame } from '../board/frame.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from './context.ts';
import { asTheyAre, buildLadder, startOf, type Dimension, type Ladder, type RungSpec } from './ladder.ts';

/**
 * The ladders of a framed board: those of what is inside the frame, with what the frame adds and what is trimmed at the end. Its strips are made level with what they go round: they decide nothing of the thickness.
 * @param last what is shared once the frame is on @param field ladders of what is inside it
 */
export function frameLadders(
  last: PlanContext,
  frame: Frame,
  field: Record<Dimension, Ladder>,
): Record<Dimension, Ladder> {
  const { board, wished } = last;
  const many = frame.rings.length;
  const adds = (side: 'length' | 'width') =>
    frame.rings.reduce((sum, { outer, inner }) => sum + outer[side] - inner[side], 0);
  const put = (side: 'length' | 'width'): RungSpec => ({
    id: 'frame',
    label: say`Glue the ${many === 1 ? 'frame' : `${many} frames`} on`,
    taken: -adds(side),
    source: 'sizes',
    why: say`Its strips ${side === 'length' ? 'at both ends' : 'along both sides'} are ${length(adds(side))} wide together.`,
  });
  const trim = (side: 'length' | 'width'): RungSpec => ({
    id: side === 'length' ? 'first-end' : 'trim-edges',
    label: side === 'length' ? say`Trim both ends` : say`Trim both long edges`,
    taken: frame.block[side] - board[side],
    habit: 'panelEdgeTrim',
    why: say`Once all is glued it is squared once more; the outer strips carry the extra.`,
  });
  const ladder = (side: 'length' | 'width') =>
    buildLadder(
      side,
      startOf(field[side]),
      wished[side],
      [...asTheyAre(field[side]), put(side), trim(side)],
      field[side].limiting,
    );
  return { thickness: field.thickness, width: ladder('width'), length: ladder('length') };
}
