import { length, say, type Phrase } from '../units/phrase.ts';
import type { Found } from './finding.ts';

/** Seasons part cross-grain joints from about so much difference on, mm (common practice, from memory: a joint as long as a hand takes half a millimetre; a board's width does not take more than one). */
const OPENS_MM = 1;

/** Wood whose grain runs across what it is glued to: nothing while the difference between the dry and the damp month is less than joints take. @param apart that difference along the joint, mm */
export function crossGrain(
  about: Pick<Found, 'strips' | 'part' | 'at'>,
  apart: number,
  what: Phrase,
  waysOut: Phrase[],
): Found[] {
  if (apart <= OPENS_MM) return [];
  return [
    {
      ...about,
      rule: 'cross-grain',
      severity: 'caution',
      what,
      why: say`Its grain runs along the joint, theirs across it: over a board's width joints are known to open from about ${length(OPENS_MM)} on, or the board bows.`,
      waysOut,
      source: 'common practice',
    },
  ];
}

/** Ends of long grain in a joint. */
export const endGrainJoint = (
  about: Pick<Found, 'strips' | 'part' | 'at'>,
  what: Phrase,
  otherWay: Phrase[],
): Found => ({
  ...about,
  rule: 'end-grain-joint',
  severity: 'caution',
  what,
  why: say`End grain drinks the glue and holds a fraction of what long grain does.`,
  waysOut: [
    say`Two thin coats of glue on the ends before the joint is closed.`,
    say`Dowels or loose tongues across the joint.`,
    ...otherWay,
  ],
  source: 'common practice',
});
