import { madeFor } from '../board/madeFor.ts';
import { length, say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';

/** Whether all boards come out of the panel, clear of its bad places, and the other ones too. */
export const panelSpots: Rule = (plan, { board, facts }) => {
  const { others: wanted } = board.worked;
  const { spots, panelLength } = madeFor(board, facts);
  if (spots.length + wanted.length === 0 && panelLength === null) return [];
  const { length: panel, missing, instead, boards, missingOthers } = plan.trim;
  const others: Found[] =
    missingOthers === 0
      ? []
      : [
          {
            rule: 'others-missing',
            severity: 'caution',
            strips: [],
            at: 'cutApart',
            what: say`${missingOthers} of ${wanted.length} other boards ${missingOthers === 1 ? 'has' : 'have'} no room on the panel.`,
            why: say`They lie behind the boards, clear of bad places and no wider than the panel.`,
            waysOut: [
              say`Make ${missingOthers === 1 ? 'it' : 'them'} smaller.`,
              say`Cut ${missingOthers === 1 ? 'it' : 'them'} from another panel.`,
            ],
          },
        ];
  if (missing === 0 || !instead) return others;
  const them = boards.length + missing === 1 ? 'it' : 'all of them';
  return [
    ...others,
    {
      rule: 'panel-spots',
      severity: 'stop',
      strips: [],
      at: 'trimEnds',
      what:
        spots.length === 0
          ? say`The panel is ${length(panel)} long: too short for ${boards.length + missing === 1 ? say`a board` : say`${boards.length + missing} boards`} of ${length(board.length)} with what is trimmed off.`
          : boards.length === 0
            ? say`The bad places leave no room for a board of ${length(board.length)} by ${length(plan.worked.size.width)}.`
            : say`The bad places leave room for ${boards.length} of ${boards.length + missing} boards.`,
      why:
        spots.length === 0
          ? say`It was glued for shorter boards.`
          : say`A gap, a knot or a bad end inside a board is there for good.`,
      waysOut: [
        ...(instead.length > 0 ? [say`Make ${them} ${length(instead.length)} long.`] : []),
        ...(instead.width > 0 ? [say`Make ${them} ${length(instead.width)} wide.`] : []),
        spots.length === 0 ? say`Glue another panel.` : say`Keep the place and take it off the list.`,
      ],
    },
  ];
};
