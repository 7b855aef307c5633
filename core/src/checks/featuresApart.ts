import { entryOf } from '../lists/there.ts';
import { apart } from '../features/apart.ts';
import { FEATURE_NAMES } from '../features/feature.ts';
import type { Solid } from '../features/solids.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import { STEP_OF } from './featureRoom.ts';
import type { Found, Rule } from './finding.ts';

/** Features keep clear of each other: beside each other on one face, and above each other from both. */
export const featuresApart: Rule = (plan, { shop }) => {
  const { solids } = plan.worked;
  const { leaveBeside, leaveBeneath } = shop.habits;
  const worst = new Map<string, Found>();
  solids.forEach((a, i) =>
    solids.slice(i + 1).forEach((b) => {
      if (a.feature === b.feature) return;
      const between = gap(a, b);
      const clear = Math.max(leaveBeside, leaveBeneath);
      if (between >= leaveBeneath - LENGTH_TOLERANCE_MM) return;
      const beside = apart(a.outlines, b.outlines, clear);
      const meets = beside <= LENGTH_TOLERANCE_MM && between <= LENGTH_TOLERANCE_MM;
      const tooNear =
        between <= LENGTH_TOLERANCE_MM ? beside < leaveBeside - LENGTH_TOLERANCE_MM : beside <= LENGTH_TOLERANCE_MM;
      if (!meets && !tooNear) return;
      const key = [a.feature, b.feature].sort().join(' ');
      if (worst.has(key) && (entryOf(worst, key).severity === 'stop' || !meets)) return;
      const names = [FEATURE_NAMES[a.kind], FEATURE_NAMES[b.kind].toLowerCase()] as const;
      worst.set(key, {
        rule: meets ? 'features-meet' : 'features-near',
        severity: meets ? 'stop' : 'caution',
        strips: [],
        part: key,
        at: STEP_OF[a.kind],
        what: meets
          ? say`${names[0]} and ${names[1]} run into each other.`
          : between <= LENGTH_TOLERANCE_MM
            ? say`${names[0]} and ${names[1]} are ${length(beside)} apart; ${length(leaveBeside)} is to stay.`
            : say`Between ${names[0].toLowerCase()} and ${names[1]} only ${length(between)} of thickness is left; ${length(leaveBeneath)} is to stay.`,
        why: say`One cut would break into the other.`,
        waysOut: [say`Move one of them.`, say`Make one of them smaller or shallower.`],
      });
    }),
  );
  return [...worst.values()];
};

/** Thickness of wood between two depths; 0 where they overlap, mm. */
const gap = (a: Pick<Solid, 'from' | 'to'>, b: Pick<Solid, 'from' | 'to'>): number =>
  Math.max(0, a.from - b.to, b.from - a.to);
