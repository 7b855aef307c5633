import { nth } from '../lists/there.ts';
import { stripTops } from '../board/board.ts';
import { boundsOf } from '../features/outline.ts';
import { FEATURE_NAMES } from '../features/feature.ts';
import { length, say } from '../units/phrase.ts';
import { STEP_OF } from './featureRoom.ts';
import type { Found, Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';

/** A screw or bolt holds badly in a glue line, and opens it: nearer than its own diameter is in it (common practice). */
export const featureJoints: Rule = (plan, { board }) => {
  const { worked } = plan;
  const joints = stripTops(stripsOf(board))
    .slice(1)
    .map((top) => top - worked.shift);
  const found = new Map<string, Found>();
  for (const solid of worked.solids) {
    if (solid.part !== 'screw' && !(solid.kind === 'handle' && solid.part === 'bore')) continue;
    const { far, near } = boundsOf(solid.outlines);
    const middle = (far + near) / 2;
    const joint = joints.findIndex((y) => Math.abs(y - middle) < near - far);
    if (joint < 0 || found.has(solid.feature)) continue;
    const away = near - far - Math.abs(nth(joints, joint) - middle);
    found.set(solid.feature, {
      rule: 'screw-in-joint',
      severity: 'caution',
      part: solid.feature,
      at: STEP_OF[solid.kind],
      strips: [joint + 1, joint + 2],
      what: say`${FEATURE_NAMES[solid.kind]}: a ${solid.part} comes into the joint between strips ${joint + 1} and ${joint + 2}.`,
      why: say`A screw pushes a glue line open and finds little hold in it.`,
      waysOut: [say`Move it ${length(Math.ceil(away))} across the board.`],
    });
  }
  return [...found.values()];
};
