import { nth } from '../lists/there.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { faceReach } from '../bodies/workedBoard.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';

/** The two outer strips must still be there once the long edges are trimmed and have their chamfer or round-over. */
export const outerStrips: Rule = (plan, { board }) => {
  const outer = stripsOf(board).length > 1 ? [0, stripsOf(board).length - 1] : [];
  return outer.flatMap((i): Found[] => {
    const left = nth(plan.strips, i).finished.width;
    const side = i === 0 ? 'far' : 'near';
    const reach = Math.max(faceReach(plan.worked, 'top')[side], faceReach(plan.worked, 'bottom')[side]);
    if (left >= reach - LENGTH_TOLERANCE_MM) return [];
    return [
      {
        rule: 'outer-strip-edge',
        severity: left <= LENGTH_TOLERANCE_MM ? 'stop' : 'caution',
        strips: [i + 1],
        what:
          left <= LENGTH_TOLERANCE_MM
            ? say`Strip ${i + 1} is trimmed away with the edge.`
            : say`Strip ${i + 1} keeps ${length(left)} after the edge is trimmed; the edge treatment reaches in ${length(reach)}.`,
        why: say`The treatment would run across the glue line and take the strip's corner with it.`,
        waysOut: [say`Make the outer strip wider.`, say`Choose a smaller edge treatment at Trim.`],
      },
    ];
  });
};
