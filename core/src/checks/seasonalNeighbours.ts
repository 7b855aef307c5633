import { firstOf } from '../lists/there.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** A fingertip feels a ridge of about this, mm (common practice). */
const FELT_RIDGE = 0.1;

/**
 * Neighbours whose thickness moves differently from the dry month to the damp one: a ridge comes and goes along the joint. (In width they only move each
 * other along.)
 */
export const seasonalNeighbours: Rule = (plan) => {
  const { strips, seasons } = plan.movement;
  const ridges = strips.flatMap(({ up, number }, i) => {
    const before = strips[i - 1]?.up;
    return up === null || before === null || before === undefined || Math.abs(up - before) < FELT_RIDGE
      ? []
      : [{ number, ridge: Math.abs(up - before) }];
  });
  if (ridges.length === 0) return [];
  const worst = Math.max(...ridges.map((r) => r.ridge));
  const numbers = ridges.map((r) => r.number);
  return [
    {
      rule: 'seasonal-ridge',
      severity: 'note',
      strips: numbers,
      source: 'Wood Handbook, chapter 13 (from memory); a ridge of 0.1 mm is felt, common practice',
      what:
        numbers.length === 1
          ? say`The joint before strip ${firstOf(numbers)} opens a ridge of ${length(worst)} through the year.`
          : say`The joints before strips ${numbers.join(', ')} open ridges of up to ${length(worst)} through the year.`,
      why: say`Between ${seasons.dry.humidity} and ${seasons.damp.humidity} % humidity one strip swells more in thickness than its neighbour: other rings, or another species.`,
      waysOut: [
        say`Put strips side by side whose rings stand alike.`,
        say`Sand once more after a season, or let it be felt.`,
      ],
    },
  ] satisfies Found[];
};
