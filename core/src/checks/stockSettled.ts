import { SETTLED } from '../plan/stockMoisture.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

const percent = (value: number) => `${Math.round(value * 10) / 10} %`;

/** Stock at another moisture than the room goes on moving after it was milled flat. */
export const stockSettled: Rule = ({ moisture }) =>
  moisture
    .filter((m) => Math.abs(m.measured - m.room) > SETTLED)
    .map((m): Found => {
      const wetter = m.measured > m.room;
      const moves =
        m.change === null
          ? say``
          : say`: a strip of it ${wetter ? 'shrinks' : 'swells'} by ${length(Math.abs(m.change))} across`;
      return {
        rule: 'unsettled-stock',
        severity: Math.abs(m.measured - m.room) > 2 * SETTLED ? 'caution' : 'note',
        strips: [],
        at: 'flatten',
        what: say`${m.mark} is at ${percent(m.measured)} moisture and the room brings wood to ${percent(m.room)}${moves}.`,
        why: say`Milled now, it bows and opens its joints while it comes to the room.`,
        waysOut: [
          say`Let it lie on stickers in the shop: reckon a week or two for planks of this thickness, and measure again.`,
          say`Go on, mill it fat, let it rest and mill it again.`,
        ],
        source: 'Wood Handbook, FPL-GTR-282 (2021), equation 4-5 and table 13-5, from memory',
      };
    });
