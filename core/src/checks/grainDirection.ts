import { firstOf, nth } from '../lists/there.ts';
import { grainArrow } from '../bodies/stripBody.ts';
import { say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';

/** Strips whose grain runs against the strip before them tear out when the panel is planed. */
export const grainDirection: Rule = (plan, { board, shop }) => {
  const arrows = stripsOf(board).map((strip, i) => grainArrow(strip, plan.bodies[i]));
  const against = arrows.flatMap((arrow, i) => (i > 0 && arrow.forward !== nth(arrows, i - 1).forward ? [i + 1] : []));
  if (against.length === 0) return [];
  const known = against.some((n) => nth(arrows, n - 1).known || nth(arrows, n - 2).known);
  return [
    {
      // A helical head shears the fibres and tears out far less (common practice).
      rule: 'grain-direction',
      severity: shop.planer?.head === 'helical' ? 'note' : 'caution',
      strips: against,
      what:
        against.length === 1
          ? say`Strip ${firstOf(against)} runs against its neighbour's grain.`
          : say`Strips ${against.join(', ')} run against their neighbour's grain.`,
      why: known
        ? say`A planer or hand plane that lifts no fibre on one strip tears out the next; which way the fibres rise is noted on the piece.`
        : say`A planer or hand plane that lifts no fibre on one strip tears out the next.`,
      waysOut: [
        say`Turn strips end for end until all arrows point one way.`,
        say`Flatten that panel with abrasives only.`,
      ],
    },
  ];
};
