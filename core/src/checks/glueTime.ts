import type { GluePlan } from '../gluing/glueUps.ts';
import { glueOf, type Shop } from '../shop/shop.ts';
import { say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** A glue so quick, or a panel so long, that not even two pieces close in time; or groups of the maker's own that do not. */
export const glueTime: Rule = ({ gluing }, { shop }) => {
  const late = gluing.glueUps.find((g) => g.assemblyMinutes > gluing.usableMinutes + 1e-9);
  if (!late) return openTooLong(gluing, shop);
  return [
    {
      rule: 'glue-time',
      severity: 'stop',
      strips: [],
      at: 'glue',
      what: say`Gluing ${late.parts} pieces takes ${late.assemblyMinutes.toFixed(1)} min; ${glueOf(shop).name} leaves ${gluing.usableMinutes.toFixed(1)} min.`,
      why: say`The glue skins over before the last clamp is closed, and the joint is weak.`,
      waysOut: [
        ...(gluing.byHand && late.parts > gluing.mostParts
          ? [say`Group fewer strips at once, at most ${gluing.mostParts}, or let Cadenza choose the groups.`]
          : []),
        say`Use a glue with a longer open time.`,
        say`Get a helper: a second pair of hands spreads and places.`,
      ],
    },
  ];
};

/** Every joint closes before its glue skins: the open time is shorter than the time until all is under pressure. */
function openTooLong(gluing: GluePlan, shop: Shop): Found[] {
  const open = gluing.glueUps.find((g) => g.layingMinutes > gluing.skinMinutes + 1e-9);
  if (!open) return [];
  return [
    {
      rule: 'open-time',
      severity: 'caution',
      strips: [],
      at: 'glue',
      what: say`Laying ${open.parts} pieces together takes ${open.layingMinutes.toFixed(1)} min; ${glueOf(shop).name} stays open for ${gluing.skinMinutes.toFixed(1)} min in this room.`,
      why: say`The first joint has skinned before the last one is closed.`,
      waysOut: [
        say`Spread one joint, close it, then the next.`,
        say`Use a glue with a longer open time, or get a helper.`,
      ],
    },
  ];
}
