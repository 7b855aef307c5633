import type { PlanInput } from '../saw/planInput.ts';
import { say } from '../units/phrase.ts';
import { equilibriumMoisture } from '../wood/moisture.ts';
import type { FactOf, Mishap } from './mishap.ts';

/** Wood that is so much wetter or drier than the room brings it to moves in the board, percent of its dry weight (common practice). */
const MOISTURE_APART = 2;

/** Strips that are not as the room will have them. */
export function moistureMishap({ shop }: PlanInput, fact: FactOf<'measured'>): Mishap[] {
  const room = equilibriumMoisture(shop.room);
  const apart = fact.value - room;
  if (Math.abs(apart) <= MOISTURE_APART) return [];
  return [
    {
      fact: fact.id,
      says: say`The strips have ${round(fact.value)} % of moisture; the room brings wood to ${round(room)} %: the board will ${apart > 0 ? 'shrink' : 'swell'}.`,
      ways: [
        {
          way: 'again',
          title: say`Let them lie in the room, then measure again`,
          cost: say`Days, stacked with air between them`,
          board: null,
        },
        {
          way: 'goOn',
          title: say`Glue them as they are`,
          cost: apart > 0 ? say`Joints may open at the ends` : say`The board may bow`,
          board: null,
        },
      ],
    },
  ];
}

const round = (percent: number): number => Math.round(percent * 10) / 10;
