import { defectsOn } from '../plan/stripBody.ts';
import { say } from '../units/phrase.ts';
import type { Finding, Rule } from './finding.ts';

/** Strips that show what should lie underneath: the clean side is down, or there is none. */
export const showSide: Rule = (plan, { board }) => board.strips.flatMap((_strip, i): Finding[] => {
  const body = plan.bodies[i];
  if (!body?.piece) return [];
  const seen = (side: 'top' | 'under') => defectsOn(body, side).filter((d) => d.treatment !== 'harmless');
  const [top, under] = [seen('top'), seen('under')];
  if (top.length === 0) return [];
  const kinds = [...new Set(top.map((d) => d.kind))].join(' and ');
  const base = { severity: 'caution' as const, strips: [i + 1], why: say`What is on the show side stays in sight for as long as the board is used.` };
  return under.length === 0
    ? [{ ...base, rule: 'clean-side-down', what: say`Strip ${i + 1} from ${body.piece.mark} shows its ${kinds}; its clean side is down.`, waysOut: [say`Turn the strip over.`] }]
    : [{
        ...base, rule: 'no-clean-side', what: say`Strip ${i + 1} from ${body.piece.mark} shows its ${kinds}, and its other side is not clean either.`,
        waysOut: [say`Move it to another place on the piece in Cuts, or take another piece.`, say`Mark the place as harmless if you like the look of it.`],
      }];
});
