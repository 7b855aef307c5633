import { firstOf } from '../lists/there.ts';
import type { GluePlan } from '../gluing/glueUps.ts';
import { say } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { StepDraft } from './operation.ts';
import { stripOfPanel } from './panelThings.ts';
import { stripsOf } from '../board/recipe.ts';
import { schoolPhrase } from './glueWords.ts';

/** A slot or a bore for a key every so much joint, mm (common practice). */
const KEY_SPACING_MM = 150;

export function keyStep(context: PlanContext, gluing: GluePlan): StepDraft {
  const { allowances, shop, board, before } = context;
  const joints = gluing.glueUps.reduce((sum, g) => sum + g.joints, 0);
  const each = Math.max(2, Math.floor(firstOf(allowances.panels).length / KEY_SPACING_MM));
  const copies = allowances.panels.length;
  return {
    kind: 'keys',
    title: say`Cut the joints for dowels, tenons or biscuits`,
    school: 'level',
    machine: 'Drill or slot cutter',
    instructions: [
      {
        do: 'keys',
        parts: allowances.panels.flatMap((_, k) =>
          stripsOf(board).map((_s, i) => stripOfPanel(context, before.strips + i + 1, k + 1)),
        ),
        joints,
        each,
        copies,
      },
    ],
    lines: [
      say`${each} in each of ${joints} ${joints === 1 ? 'joint' : 'joints'}${copies > 1 ? ` of each of ${copies} panels` : ''}, both strips marked together across the joint, all cut from the marked face`,
      say`Clear of the ends that are trimmed off, and in the middle of the thickness`,
    ],
    why: schoolPhrase(shop, 'level'),
  };
}
