import { gritRun } from './grits.ts';
import { schoolOf } from '../shop/schools.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../plan/context.ts';
import type { Ladder } from '../plan/ladder.ts';
import { glueThicknessReached } from '../plan/ladders.ts';
import type { StepDraft } from './operation.ts';
import { sandingWays } from './toolWays.ts';

/** Sanding and finish, as the shop's habits have them. @param beforeGrain steps that come before the grain is raised */
export function finishSteps(context: PlanContext, { thickness, width }: { thickness: Ladder; width: Ladder }, beforeGrain: readonly StepDraft[]): StepDraft[] {
  const { board, shop: { habits, schools, pace } } = context;
  const flat = Math.max(0, glueThicknessReached(context) - habits.panelFlatten);
  const boards = board.count;
  const area = (2 * board.length * width.reached + 2 * (board.length + width.reached) * thickness.reached) / 1e6;
  // Off the planer the first grits are spared; saw and router marks want coarse paper first.
  const grits = gritRun(schools.flatten === 'planer' || schools.flatten === 'handPlanes' ? 120 : 80, Number(schools.lastGrit));
  const raise = schoolOf(schools, 'raiseGrain');
  const oil = schoolOf(schools, 'oil');
  const top = schoolOf(schools, 'topCoat');
  const work = boards * pace.work;
  const last = grits.at(-1)!;
  const sanding = sandingWays(context.shop, area * boards, width.reached, grits.length);
  const raising = sandingWays(context.shop, area * boards, width.reached, schools.raiseGrain === 'every' ? grits.length / 2 : 0.5).taken;
  return [
    {
      kind: 'sand', title: say`Sand to thickness`, habit: 'sanding', school: 'lastGrit', machine: sanding.taken.name, ways: sanding.ways, minutes: sanding.taken.minutes,
      parts: [{ part: boards > 1 ? `${boards} boards` : 'the board', dimension: 'thickness', before: flat, after: thickness.reached, passes: null }],
      lines: [say`${length(flat)} to ${length(thickness.reached)}: ${length(habits.sanding)} in all, half off each face`, say`Grits ${grits.join(', ')}: pencil lines over the face, gone before the next grit`],
      why: say`The coarse grit must reach the bottom of the deepest pit; a step to less than half its grain leaves the last scratches.`,
    },
    ...beforeGrain,
    {
      kind: 'raiseGrain', title: say`Raise the grain`, school: 'raiseGrain', machine: raising.name, minutes: raising.minutes, waitMinutes: 60, waitFor: 'the wood to dry',
      lines: [schools.raiseGrain === 'every' ? say`Wet it after every grit, let it dry, and go on; after the last, ${last} once more by hand` : say`Wet all faces, let them dry, then ${last} once more, lightly`],
      why: say`${raise.why} Otherwise the board feels furry after its first wash.`,
    },
    {
      kind: 'oil', title: say`Oil: ${oil.name.toLowerCase()}`, school: 'oil', minutes: 12 * work, ...OIL_WAITS[schools.oil], lines: [OIL_LINES[schools.oil]], why: say`${oil.why} Food-grade mineral oil; ends drink several times as much as faces.`,
    },
    ...(schools.topCoat === 'none' ? [] : [{
      kind: 'topCoat' as const, title: say`Top coat: ${top.name.toLowerCase()}`, school: 'topCoat' as const, minutes: 12 * work,
      ...(schools.topCoat === 'wax' ? { waitMinutes: 720, waitFor: 'the wax' } : { waitMinutes: 4 * 1440, waitFor: 'the oil to cure' }),
      lines: [schools.topCoat === 'wax' ? say`A thin coat over everything, left overnight, buffed` : say`Thin, wiped dry; a second coat a day later`], why: say`${top.why}`,
    }]),
  ];
}

const OIL_LINES: Record<'flood' | 'bath' | 'coats', Phrase> = {
  flood: say`Flood it, keep it wet 5 min, wipe dry`, bath: say`20 min a side in the bath, then on edge over it to drip; the oil is kept`, coats: say`A coat, wiped, overnight; rub back and coat again, two or three times`,
};
/** Common practice: overnight after flooding, overnight to drip, a night for each of three coats. */
const OIL_WAITS: Record<'flood' | 'bath' | 'coats', { waitMinutes: number; waitFor: string }> = {
  flood: { waitMinutes: 720, waitFor: 'the oil' }, bath: { waitMinutes: 720, waitFor: 'the oil to drip' }, coats: { waitMinutes: 3 * 1440, waitFor: 'three coats of oil' },
};
