import { usualAnswers, type StartingAnswers } from '#core/shop/startingShop.ts';

/** The same answers for a shop that reads its rules in other units: what is still as it usually is becomes what is usual there; what somebody said stays. */
export function inOtherUnits(answers: StartingAnswers, system: StartingAnswers['system']): StartingAnswers {
  const [before, after] = [usualAnswers(answers.system), usualAnswers(system)];
  return {
    ...answers,
    system,
    planer: answers.planer === before.planer ? after.planer : answers.planer,
    clamps: answers.clamps.map((c) =>
      c.opening === before.clamps[0]!.opening ? { ...c, opening: after.clamps[0]!.opening } : c,
    ),
  };
}
