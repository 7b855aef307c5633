import { demandsFor } from '../saw/demands.ts';
import { listNumbers } from '../steps/numberList.ts';
import { say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';

/** Spares that are wished for and that the rack does not give. */
export const sparesShort: Rule = (plan, { board, shop }) => {
  const wished = demandsFor(board, plan.allowances, shop).filter((d) => d.spare > 0);
  const had = new Set(
    plan.cutting.blanks
      .flatMap((b) => b.strips)
      .filter((s) => s.demand.spare > 0)
      .map(({ demand }) => `${demand.strip}/${demand.spare}`),
  );
  const short = wished.filter((d) => !had.has(`${d.strip}/${d.spare}`));
  if (short.length === 0) return [];
  const strips = [...new Set(short.map((d) => d.strip))].sort((a, b) => a - b);
  return [
    {
      rule: 'spares-short',
      severity: 'note',
      strips,
      at: 'rip',
      what: say`${short.length} of ${wished.length} spares cannot be had from the rack (for strips like number ${listNumbers(strips)}).`,
      why: say`A blade wanders, and a thin strip that fails then has to be cut from new wood. Spares never take the wood of a strip.`,
      waysOut: [
        say`Go on without: mark a strip that fails, and it is planned again from what is left.`,
        say`Ask for fewer spares in Cuts.`,
      ],
    },
  ];
};
