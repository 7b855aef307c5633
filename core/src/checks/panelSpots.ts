import { trimLayout } from '../trim/trimLayout.ts';
import { apart } from '../features/apart.ts';
import { FEATURE_NAMES } from '../features/feature.ts';
import { rectangle } from '../features/outline.ts';
import { length, say } from '../units/phrase.ts';
import { STEP_OF } from './featureRoom.ts';
import type { Finding, Rule } from './finding.ts';

/** Bad places of the panel: whether all boards still come out clear of them, and whether a feature of one runs into a place beside it. */
export const panelSpots: Rule = (plan, { board, shop }) => {
  if (board.worked.spots.length === 0) return [];
  const { missing, instead, boards } = trimLayout(board, plan.allowances, shop);
  const out: Finding[] = [];
  if (missing > 0 && instead) {
    out.push({
      rule: 'panel-spots', severity: 'stop', strips: [], at: 'trimEnds',
      what: boards.length === 0 ? say`The bad places leave no room for a board of ${length(board.length)} by ${length(plan.worked.size.width)}.` : say`The bad places leave room for ${boards.length} of ${boards.length + missing} boards.`,
      why: say`A gap, a knot or a bad end inside a board is there for good.`,
      waysOut: [
        ...(instead.length > 0 ? [say`Make ${boards.length + missing === 1 ? 'it' : 'all of them'} ${length(instead.length)} long.`] : []), ...(instead.width > 0 ? [say`Make ${boards.length + missing === 1 ? 'it' : 'all of them'} ${length(instead.width)} wide.`] : []),
        say`Keep the place and take it off the list.`,
      ],
    });
  }
  for (const solid of plan.worked.solids) {
    const hit = boards.flatMap((b) => board.worked.spots.filter((s) => apart(solid.outlines, [rectangle(s.x - b.x, s.y - b.y, s.length, s.width)], 1) === 0))[0];
    if (hit && !out.some((f) => f.at === STEP_OF[solid.kind])) {
      out.push({ rule: 'feature-spot', severity: 'caution', strips: [], at: STEP_OF[solid.kind], what: say`${FEATURE_NAMES[solid.kind]} runs into a bad place: ${hit.what}.`, why: say`A bit tears loose wood out, and a gap holds juice.`, waysOut: [say`Move the feature.`, say`Fill the place before it is cut.`] });
    }
  }
  return out;
};
