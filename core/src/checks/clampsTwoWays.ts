import { opensFor } from '../gluing/clamping.ts';
import { clampCount } from '../shop/gluing.ts';
import { length, say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';

/** So many hold slanted joints from sliding, one toward each end of them (common practice). */
const SIDEWAYS = 2;

/** Slanted joints slide under pressure: beside the clamps across them some must hold the rows, or the parts, the other way. */
export const clampsTwoWays: Rule = ({ again }, { shop }) => {
  if (!again) return [];
  const slanted = again.how === 'rows' ? !again.up && again.angle !== 0 : again.inserts.some((i) => i.angle !== 0);
  const { glueUps } = again.gluing;
  if (!slanted || glueUps.length === 0) return [];
  // Along the rows, or across the panel: the way in which the joints run.
  const wide = again.how === 'rows' ? again.rowLength : again.trueWidth;
  const across = Math.max(...glueUps.map((g) => g.clamps.placed.length));
  const left = Math.max(0, clampCount(shop.clamps) - across);
  const fitting = clampCount(shop.clamps.filter((c) => opensFor(c, wide)));
  const have = Math.min(left, fitting);
  if (have >= SIDEWAYS || across === 0) return [];
  return [
    {
      rule: 'clamps-two-ways',
      severity: 'caution',
      strips: [],
      at: again.how === 'rows' ? 'layRows' : 'layParts',
      what: say`Slanted joints slide: beside ${across} clamps across them ${SIDEWAYS} are wanted that open ${length(wide)} the other way; the shop has ${have === 0 ? 'none' : String(have)} left.`,
      why: say`As the glue is pressed the ${again.how === 'rows' ? 'rows' : 'parts'} creep along the cut, and the pattern does not meet.`,
      waysOut: [
        say`Screw stops to the bench on both sides instead, wax paper between.`,
        say`Pins through the waste at both ends of each joint.`,
        say`Borrow clamps that open ${length(wide)}.`,
      ],
      source: 'common practice',
    },
  ];
};
