import { defectsOn } from '../bodies/stripBody.ts';
import { say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';

/** Strips that show what should lie underneath: their only clean side is down. (The cut plan takes no strip that has no clean side at all.) */
export const showSide: Rule = (plan, { board }) =>
  stripsOf(board).flatMap((_strip, i): Found[] => {
    const body = plan.bodies[i];
    const seen = body?.piece ? defectsOn(body, 'top').filter((d) => d.treatment !== 'harmless') : [];
    if (!body?.piece || seen.length === 0) return [];
    const kinds = [...new Set(seen.map((d) => d.kind))].join(' and ');
    return [
      {
        rule: 'clean-side-down',
        severity: 'caution',
        strips: [i + 1],
        what: say`Strip ${i + 1} from ${body.piece.mark} shows its ${kinds}; its clean side is down.`,
        why: say`What is on the show side stays in sight for as long as the board is used.`,
        waysOut: [say`Turn the strip over.`, say`Mark the place as harmless if you like the look of it.`],
      },
    ];
  });
