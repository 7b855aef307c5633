import { markTime } from '../steps/markSteps.ts';
import { say } from '../units/phrase.ts';
import type { Found, Rule } from './finding.ts';
import { stripsOf } from '../board/recipe.ts';

/** A mark made on a loose strip is gone again where the panel is planed, or its edge or end cut off. */
export const markStrip: Rule = (plan, { board, shop }) => {
  if (shop.schools.engraving !== 'outerStrip' || stripsOf(board).length === 0) return [];
  const layout = plan.trim;
  const far = layout.boards[0]?.y ?? 0;
  const trim = { far, near: layout.width - far - plan.worked.size.width };
  return plan.worked.features.flatMap((f): Found[] => {
    if (f.kind !== 'mark' || f.method === 'inlay' || markTime(f, shop, trim) === 'outerStrip') return [];
    return [
      {
        rule: 'mark-strip',
        severity: 'note',
        strips: [],
        at: 'engrave',
        what: say`${f.name} cannot be made on a loose strip: ${f.face === 'top' || f.face === 'bottom' ? 'the faces are planed after the glue-up' : 'that side is cut after the glue-up'}.`,
        why: say`It is made before the grain is raised instead.`,
        waysOut: [
          say`Put it on a long edge, and on one only: that edge is not trimmed then.`,
          say`Engrave the board before its grain is raised, and take that as the habit.`,
        ],
      },
    ];
  });
};
