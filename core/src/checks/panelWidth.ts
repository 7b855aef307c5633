import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';

/** More than this beyond the trims is wood thrown away on purpose (common practice: up to a saw kerf or two a side). */
const GENEROUS_TRIM = 10;

/** The strips together against the width that is wanted, trims included. */
export const panelWidthRule: Rule = (plan, { board, shop }) => {
  if (stripsOf(board).length === 0) return [];
  const difference = plan.panelWidth - plan.allowances.wantedPanelWidth;
  if (difference < -LENGTH_TOLERANCE_MM) {
    const reached = plan.ladders.width.reached;
    return [
      {
        rule: 'panel-width',
        severity: 'stop',
        strips: [],
        what: say`The strips add up to ${length(plan.panelWidth)}; ${length(plan.allowances.wantedPanelWidth)} is needed, ${length(-difference)} more.`,
        why: say`After ${length(shop.habits.panelEdgeTrim)} off each long edge the board is ${length(reached)} wide, not ${length(board.width)}.`,
        waysOut: [say`Add or widen strips by ${length(-difference)}.`, say`Make the board ${length(reached)} wide.`],
      },
    ];
  }
  if (difference > GENEROUS_TRIM) {
    return [
      {
        rule: 'panel-width',
        severity: 'note',
        strips: [],
        what: say`The panel is ${length(difference)} wider than it needs to be.`,
        why: say`It is trimmed away from the two outer strips, so they show narrower than drawn in the panel.`,
        waysOut: [say`Narrow or remove a strip.`, say`Make the board ${length(board.width + difference)} wide.`],
      },
    ];
  }
  return [];
};
