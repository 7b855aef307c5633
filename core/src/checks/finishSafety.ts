import { say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';

/** Rags with oils that dry by themselves. */
export const finishSafety: Rule = (_plan, { board, shop }) =>
  shop.schools.topCoat !== 'hardWax' || stripsOf(board).length === 0
    ? []
    : [
        {
          rule: 'rags-ignite',
          severity: 'caution',
          strips: [],
          at: 'topCoat',
          what: say`Rags with hard-wax oil can ignite by themselves within hours.`,
          why: say`The oil warms as it dries; in a heap the warmth stays.`,
          waysOut: [say`Lay every rag flat outdoors until it is hard, or keep it under water in a closed tin.`],
          source: "Makers' sheets of drying oils, from memory",
        },
      ];
