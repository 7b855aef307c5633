import { say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';

/** Strips whose grain runs against the strip before them tear out when the panel is planed. */
export const grainDirection: Rule = (_plan, { board }) => {
  const against = board.strips.flatMap((strip, i) => (i > 0 && strip.endForEnd !== board.strips[i - 1]!.endForEnd ? [i + 1] : []));
  if (against.length === 0) return [];
  return [{
    rule: 'grain-direction', severity: 'caution', strips: against,
    what: against.length === 1 ? say`Strip ${against[0]!} runs against its neighbour's grain.` : say`Strips ${against.join(', ')} run against their neighbour's grain.`,
    why: say`A planer or hand plane that lifts no fibre on one strip tears out the next.`,
    waysOut: [say`Turn strips end for end until all arrows point one way.`, say`Flatten that panel with abrasives only.`],
  }];
};
