import { say } from '../units/phrase.ts';
import type { Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';

/** Nothing is laid out yet. */
export const emptyBoard: Rule = (_plan, { board }) =>
  stripsOf(board).length > 0
    ? []
    : [
        {
          rule: 'empty-board',
          severity: 'note',
          strips: [],
          what: say`No strips are laid out yet.`,
          why: say`A board begins with its first strip.`,
          waysOut: [say`Take a section from the rack in Layout.`],
        },
      ];
