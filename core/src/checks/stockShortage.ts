import { listNumbers } from '../steps/numberList.ts';
import type { Shortage } from '../cutting/cutPlan.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { gluedStrips, isGlued } from '../plan/gluedStrips.ts';
import type { Rule } from './finding.ts';

/** Strips that the rack cannot give, with what each would need. */
export const stockShortage: Rule = (plan, { species, board, facts }) => {
  const glued = gluedStrips(plan, facts);
  const missing = plan.cutting.shortages.filter((shortage) => !isGlued(shortage, glued));
  return missing.map((shortage) => {
    const name = species.find((s) => s.code === shortage.species)?.name ?? shortage.species;
    const parts = shortage.parts === 1 ? '1 strip' : `${shortage.parts} strips`;
    return {
      rule: 'stock-shortage',
      severity: 'stop',
      strips: shortage.strips,
      what: say`${name}: ${parts} missing (number ${listNumbers(shortage.strips)}${board.count > 1 ? ', all copies together' : ''}). ${shortage.say}`,
      why: say`Each needs stock that gives ${length(shortage.length)} long, ${length(shortage.rip)} wide, ${length(shortage.thickness)} thick after planing.`,
      waysOut: [
        shortage.reason === 'usedUp' || shortage.reason === 'defects'
          ? say`Make fewer boards, or take some strips from another species.`
          : say`Choose a section the rack offers.`,
        say`Buy ${buyWords(shortage)}: the least that yards sell for it.`,
      ],
    };
  });
};

/** What to ask for at the yard. */
export function buyWords({ buy }: Pick<Shortage, 'buy'>): Phrase {
  return say`${buy.pieces} × ${buy.quarters} (${length(buy.thickness)}) rough, ${length(buy.width)} wide, ${length(buy.length)} long`;
}
