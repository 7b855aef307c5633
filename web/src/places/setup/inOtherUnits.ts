import type { StartingAnswers } from '#core/shop/startingShop.ts';
import { usualFigures } from '#core/shop/usualFigures.ts';

/** The same answers for a shop that reads its rules in other units: what is still as it usually is becomes what is usual there; what somebody said stays. */
export function inOtherUnits(answers: StartingAnswers, system: StartingAnswers['system']): StartingAnswers {
  const [before, after] = [usualFigures(answers.system), usualFigures(system)];
  const width = (machine: 'jointer' | 'planer' | 'drumSander') =>
    answers[machine] === before.machines[machine].width ? after.machines[machine].width : answers[machine];
  return {
    ...answers,
    system,
    jointer: width('jointer'),
    planer: width('planer'),
    drumSander: width('drumSander'),
    clamps: answers.clamps.map((c) =>
      c.opening === before.clamp.opening ? { ...c, opening: after.clamp.opening } : c,
    ),
  };
}
