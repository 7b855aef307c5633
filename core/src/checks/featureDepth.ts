import { FEATURE_NAMES } from '../features/feature.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import { STEP_OF } from './featureRoom.ts';
import type { Found, Rule } from './finding.ts';

/** What a feature leaves of the thickness; a groove that falls must still be a groove where it begins. */
export const featureDepth: Rule = (plan, { shop }) => {
  const {
    size: { thickness },
    features,
    solids,
  } = plan.worked;
  const { leaveBeneath } = shop.habits;
  return features.flatMap((feature): Found[] => {
    const name = FEATURE_NAMES[feature.kind];
    const finding = (severity: Found['severity'], what: Found['what'], waysOut: Found['waysOut']): Found => ({
      rule: severity === 'stop' ? 'feature-through' : 'feature-beneath',
      severity,
      strips: [],
      part: feature.id,
      at: STEP_OF[feature.kind],
      what,
      why: say`Thin wood over a hollow breaks, and moves on its own with the seasons.`,
      waysOut,
    });
    // Slots and through bores are meant to go through.
    const blind = solids.filter(
      (s) =>
        s.feature === feature.id && !(s.from <= 0 && s.to >= thickness && (s.part === 'slot' || s.part === 'bore')),
    );
    const out: Found[] = [];
    const left = Math.min(
      ...blind
        .filter((s) => s.kind !== 'finger' && !(s.kind === 'mark' && s.open))
        .map((s) => (s.from <= LENGTH_TOLERANCE_MM ? thickness - s.to : s.from)),
      Infinity,
    );
    const ways = [say`Make it shallower.`, say`Make the board thicker.`];
    if (left <= LENGTH_TOLERANCE_MM)
      out.push(finding('stop', say`${name}: right through, the board is ${length(thickness)} thick.`, ways));
    else if (left < leaveBeneath - LENGTH_TOLERANCE_MM && feature.kind !== 'mark')
      out.push(
        finding(
          'caution',
          say`${name}: only ${length(left)} of wood is left; ${length(leaveBeneath)} is to stay.`,
          ways,
        ),
      );
    if (feature.kind === 'groove' && feature.spout && feature.fall >= feature.depth)
      out.push(
        finding(
          'stop',
          say`Juice groove: it falls ${length(feature.fall)} but is only ${length(feature.depth)} deep at the spout.`,
          [say`Make it deeper at the spout, or let it fall less.`],
        ),
      );
    if (feature.kind === 'handle' && thickness - feature.sinkTop - feature.sinkBottom <= LENGTH_TOLERANCE_MM)
      out.push(
        finding(
          'stop',
          say`Handles: the counterbores meet; ${length(feature.sinkTop)} and ${length(feature.sinkBottom)} in a board of ${length(thickness)}.`,
          [say`Sink them less.`],
        ),
      );
    if (
      feature.kind === 'finger' &&
      blind.some((s) => s.from < LENGTH_TOLERANCE_MM || s.to > thickness + LENGTH_TOLERANCE_MM) &&
      feature.shape === 'cove'
    ) {
      out.push(
        finding(
          'caution',
          say`Finger holds: a cove of ${length(feature.bit)} with its middle ${length(feature.up)} above the underside opens in a face.`,
          [say`Use a smaller bit.`, say`Move its middle towards the middle of the thickness.`],
        ),
      );
    }
    return out;
  });
};
