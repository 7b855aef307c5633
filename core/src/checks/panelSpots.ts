import { trimLayout } from '../trim/trimLayout.ts';
import { length, say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';

/** Bad places of the panel: whether all boards still come out clear of them. */
export const panelSpots: Rule = (plan, { board, shop }) => {
  if (board.worked.spots.length === 0) return [];
  const { missing, instead, boards } = trimLayout(board, plan.allowances, shop);
  if (missing === 0 || !instead) return [];
  const them = boards.length + missing === 1 ? 'it' : 'all of them';
  return [{
    rule: 'panel-spots', severity: 'stop', strips: [], at: 'trimEnds',
    what: boards.length === 0 ? say`The bad places leave no room for a board of ${length(board.length)} by ${length(plan.worked.size.width)}.` : say`The bad places leave room for ${boards.length} of ${boards.length + missing} boards.`,
    why: say`A gap, a knot or a bad end inside a board is there for good.`,
    waysOut: [
      ...(instead.length > 0 ? [say`Make ${them} ${length(instead.length)} long.`] : []), ...(instead.width > 0 ? [say`Make ${them} ${length(instead.width)} wide.`] : []),
      say`Keep the place and take it off the list.`,
    ],
  }];
};
