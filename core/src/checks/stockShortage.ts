import { listNumbers } from '../plan/numberList.ts';
import { length, say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';

/** Strips that the rack cannot give, with what each would need. */
export const stockShortage: Rule = (plan, { species, board }) => plan.cutting.shortages.map((shortage) => {
  const name = species.find((s) => s.code === shortage.species)?.name ?? shortage.species;
  const parts = shortage.parts === 1 ? '1 strip' : `${shortage.parts} strips`;
  return {
    rule: 'stock-shortage', severity: 'stop', strips: shortage.strips,
    what: say`${name}: ${parts} missing (number ${listNumbers(shortage.strips)}${board.count > 1 ? ', all copies together' : ''}). ${shortage.say}`,
    why: say`Each needs stock that gives ${length(shortage.length)} long, ${length(shortage.rip)} wide, ${length(shortage.thickness)} thick after planing.`,
    waysOut: [
      shortage.reason === 'usedUp' ? say`Make fewer boards, or take some strips from another species.` : say`Choose a section the rack offers.`,
      say`Add stock of at least that size to the rack.`,
    ],
  };
});
