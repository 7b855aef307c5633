import { slowness } from '../shop/gluing.ts';
import { glueOf } from '../shop/shop.ts';
import { say } from '../units/phrase.ts';
import { temperature as warmth } from '../units/quantity.ts';
import type { Rule } from './finding.ts';

/** The room against the coldest a glue may be, and how much longer it takes in the cold. */
export const glueClimate: Rule = ({ gluing }, { shop }) => {
  if (gluing.glueUps.length === 0) return [];
  const glue = glueOf(shop);
  const { temperature } = shop.room;
  if (temperature < glue.leastTemperature) {
    return [
      {
        rule: 'too-cold-for-glue',
        severity: 'stop',
        strips: [],
        at: 'glue',
        what: say`The room is at ${warmth(temperature)}; ${glue.name} wants at least ${warmth(glue.leastTemperature)}.`,
        why: say`Below that the film turns to chalk instead of closing, and the joint lets go later.`,
        waysOut: [
          say`Bring wood, glue and clamps into a warm room the day before, and leave the panel there.`,
          say`Choose a glue for the cold.`,
        ],
        source: 'The bottle decides; usual figures from memory',
      },
    ];
  }
  const slow = slowness(temperature);
  if (slow < 1.25) return [];
  return [
    {
      rule: 'cold-room',
      severity: 'note',
      strips: [],
      at: 'glue',
      what: say`At ${warmth(temperature)} the glue takes ${slow.toFixed(1)} times as long as on its bottle; the times here reckon with that.`,
      why: say`Clamps taken off too soon leave a joint that creeps.`,
      waysOut: [say`Warm the room and the wood, and set the figure in Shop.`],
      source: 'Common rule of thumb: twice as fast for every 15 °C',
    },
  ];
};
