import { glueOf } from '../shop/shop.ts';
import { say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';

/** A glue so quick, or a panel so long, that not even two pieces close in time. */
export const glueTime: Rule = ({ gluing }, { shop }) => {
  const late = gluing.glueUps.find((g) => g.assemblyMinutes > gluing.usableMinutes + 1e-9);
  if (!late) return [];
  return [{
    rule: 'glue-time', severity: 'stop', strips: [], at: 'glue',
    what: say`Gluing ${late.parts} pieces takes ${late.assemblyMinutes.toFixed(1)} min; ${glueOf(shop).name} leaves ${gluing.usableMinutes.toFixed(1)} min.`,
    why: say`The glue skins over before the last clamp is closed, and the joint is weak.`,
    waysOut: [say`Use a glue with a longer open time.`, say`Get a helper: a second pair of hands spreads and places.`],
  }];
};
