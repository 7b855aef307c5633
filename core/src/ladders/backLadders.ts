import type { Back } from '../board/back.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from './context.ts';
import { asTheyAre, buildLadder, startOf, type Dimension, type Ladder, type RungSpec } from './ladder.ts';

/**
 * The ladders of a backed board: those of what is above the back, with the back, and what is trimmed off both together.
 * @param last what is shared once the back is on @param top ladders of what is above it
 */
export function backLadders(last: PlanContext, back: Back, top: Record<Dimension, Ladder>): Record<Dimension, Ladder> {
  const { board, wished } = last;
  const under: RungSpec = {
    id: 'back',
    label: say`Glue the back under`,
    taken: -back.thickness,
    source: 'sizes',
    why: say`It is ${length(back.thickness)} thick once flat; what is above it is thinner by as much.`,
  };
  const ladder = (side: 'length' | 'width') =>
    buildLadder(
      side,
      startOf(top[side]),
      wished[side],
      [
        ...asTheyAre(top[side]),
        {
          id: side === 'length' ? 'first-end' : 'trim-edges',
          label: side === 'length' ? say`Trim both ends` : say`Trim both long edges`,
          taken: top[side].reached - board[side],
          habit: 'panelEdgeTrim',
          why: say`The back reaches over and is cut off with what it is glued under.`,
        },
      ],
      top[side].limiting,
    );
  return {
    thickness: buildLadder(
      'thickness',
      startOf(top.thickness),
      wished.thickness,
      [...asTheyAre(top.thickness), under],
      top.thickness.limiting,
    ),
    width: ladder('width'),
    length: ladder('length'),
  };
}
