import { firstOf, lastOf, nth } from '../lists/there.ts';
import { boardsOf } from './boardWork.ts';
import { schoolOf, type Schools } from '../shop/schools.ts';
import { flatThickness } from '../ladders/gluedThickness.ts';
import type { Ladder } from '../ladders/ladder.ts';
import type { PlanContext } from '../ladders/context.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { gritRun } from './grits.ts';
import { type InstructionOf, type Instruction, type SandedArea } from './instruction.ts';
import type { StepDraft } from './operation.ts';
import { sandingWays } from './toolWays.ts';
import { toolOf } from './ways.ts';
import type { ToolId } from '../shop/tools.ts';

/** Off knives the first grits are spared; saw, sander and router marks want coarse paper first (common practice). */
const FIRST_GRIT = { knives: 120, marks: 80 } as const;
/** A wetted board is dry again after so long, minutes (common practice). */
const DRYING_MINUTES = 60;

/** Grits a panel is sanded with: the shop's own list, or from what its faces were made flat with to the last grit. @param flattened the tool the panel was made flat with */
export function gritsFor(
  { grits, schools }: Pick<PlanContext['shop'], 'grits' | 'schools'>,
  flattened: ToolId,
): number[] {
  if (grits && grits.length > 0) return [...grits];
  return gritRun(
    flattened === 'planer' || flattened === 'handPlanes' ? FIRST_GRIT.knives : FIRST_GRIT.marks,
    Number(schools.lastGrit),
  );
}

interface Finishing {
  context: PlanContext;
  thickness: Ladder;
  width: Ladder;
  grits: number[];
  area: SandedArea;
}

/** Sanding and finish, as the shop's habits have them. @param beforeGrain steps that come before the grain is raised for the last time @param flattened the tool the panel was made flat with */
export function finishSteps(
  context: PlanContext,
  { thickness, width }: { thickness: Ladder; width: Ladder },
  beforeGrain: readonly StepDraft[],
  flattened: ToolId,
): StepDraft[] {
  const { board, shop } = context;
  const squareMetres =
    (board.count * (2 * board.length * width.reached + 2 * (board.length + width.reached) * thickness.reached)) / 1e6;
  const finishing: Finishing = {
    context,
    thickness,
    width,
    grits: gritsFor(shop, flattened),
    area: { squareMetres, width: width.reached },
  };
  return [
    ...(shop.schools.raiseGrain === 'every'
      ? sandAndWetEach(finishing, beforeGrain)
      : sandAndWetOnce(finishing, beforeGrain)),
    ...oilStep(context),
    ...topCoatStep(context),
  ];
}

const boardWords = (count: number): string => (count > 1 ? `${count} boards` : 'the board');

/** All grits, then the grain raised once and cut off with the last. */
function sandAndWetOnce(f: Finishing, beforeGrain: readonly StepDraft[]): StepDraft[] {
  return [
    sandStep(f, f.grits),
    ...beforeGrain,
    wetStep(
      f,
      `after ${lastOf(f.grits)}`,
      lastOf(f.grits),
      say`Wet all faces, let them dry, then ${lastOf(f.grits)} once more, lightly`,
    ),
  ];
}

/** The grain raised after every grit: the next grit cuts it off, after the last the last once more. */
function sandAndWetEach(f: Finishing, beforeGrain: readonly StepDraft[]): StepDraft[] {
  return f.grits.flatMap((grit, i): StepDraft[] => {
    const last = i === f.grits.length - 1;
    const next = last ? grit : nth(f.grits, i + 1);
    return [
      sandStep(f, [grit], i > 0),
      ...(last ? beforeGrain : []),
      wetStep(
        f,
        `after ${grit}`,
        last ? grit : null,
        last
          ? say`Wet all faces, let them dry, then ${grit} once more by hand`
          : say`Wet all faces and let them dry; ${next} takes off what stands up`,
      ),
    ];
  });
}

function sandStep({ context, thickness, grits: all, area }: Finishing, grits: number[], after = false): StepDraft {
  const { board } = context;
  const flat = flatThickness(context);
  const { ways, taken } = sandingWays(context.shop, area, grits.length);
  const parts = boardsOf(board.count);
  // The first grit takes what the ladder has for sanding; finer ones only its scratches.
  const take = after ? 0 : flat - thickness.reached;
  const instructions: Instruction[] = [
    {
      do: 'sand',
      parts,
      area,
      tool: toolOf(taken),
      grits,
      from: after ? thickness.reached : flat,
      take,
      to: thickness.reached,
    },
  ];
  return {
    kind: 'sand',
    about: grits.join('+'),
    title: grits.length === all.length ? say`Sand to thickness` : say`Sand with ${grits.join(', ')}`,
    habit: 'sanding',
    school: context.shop.grits === null ? 'lastGrit' : null,
    taken,
    ways,
    instructions,
    parts: after
      ? []
      : [
          {
            part: boardWords(board.count),
            dimension: 'thickness',
            before: flat,
            after: thickness.reached,
            passes: null,
          },
        ],
    lines: [
      ...(after
        ? []
        : [say`${length(flat)} to ${length(thickness.reached)}: ${length(take)} in all, half off each face`]),
      grits.length > 1
        ? say`Grits ${grits.join(', ')}: pencil lines over the face, gone before the next grit`
        : say`Grit ${firstOf(grits)}: pencil lines over the face, sanded until they are gone`,
    ],
    why: say`The coarse grit must reach the bottom of the deepest pit; a step to less than half its grain leaves the last scratches.`,
  };
}

/** @param again the grit that follows the drying, in this step */
function wetStep({ context, area }: Finishing, about: string, again: number | null, line: Phrase): StepDraft {
  const { board, shop } = context;
  const raise = schoolOf(shop.schools, 'raiseGrain');
  const { taken } = sandingWays(shop, area, 0.5);
  const parts = boardsOf(board.count);
  return {
    kind: 'raiseGrain',
    about,
    title: say`Raise the grain`,
    school: 'raiseGrain',
    taken: again === null ? null : taken,
    // With the grit that follows in this step, hands are needed again when it is dry.
    waitMinutes: DRYING_MINUTES,
    waitFor: 'the wood to dry',
    instructions: [
      { do: 'wet', parts, minutes: DRYING_MINUTES },
      ...(again === null ? [] : [{ do: 'resand' as const, parts, area, grit: again }]),
    ],
    lines: [line],
    why: say`${raise.why} Otherwise the board feels furry after its first wash.`,
  };
}

/** A finish as it goes on: how many coats, how long until the next thing, and what to do. */
interface Coating {
  finish: InstructionOf<'coat'>['finish'];
  coats: number;
  waitMinutes: number;
  waitFor: string;
  line: Phrase;
}

/** Mineral oil by school: overnight after flooding, overnight to drip, a night for each of three coats (common practice). */
const OILS: Readonly<Record<Exclude<Schools['oil'], 'none'>, Coating>> = {
  flood: {
    finish: 'mineralOil',
    coats: 1,
    waitMinutes: 720,
    waitFor: 'the oil',
    line: say`Flood it, keep it wet 5 min, wipe dry`,
  },
  bath: {
    finish: 'mineralOil',
    coats: 1,
    waitMinutes: 720,
    waitFor: 'the oil to drip',
    line: say`20 min a side in the bath, then on edge over it to drip; the oil is kept`,
  },
  coats: {
    finish: 'mineralOil',
    coats: 3,
    waitMinutes: 3 * 1440,
    waitFor: 'three coats of oil',
    line: say`A coat, wiped, overnight; rub back and coat again, two or three times`,
  },
};

/** What goes over it, by school (common practice). */
const TOP_COATS: Readonly<Record<Exclude<Schools['topCoat'], 'none'>, Coating & { why: Phrase }>> = {
  wax: {
    finish: 'wax',
    coats: 1,
    waitMinutes: 720,
    waitFor: 'the wax',
    line: say`A thin coat over everything, left overnight, buffed`,
    why: say``,
  },
  hardWax: {
    finish: 'hardWaxOil',
    coats: 2,
    waitMinutes: 4 * 1440,
    waitFor: 'the oil to cure',
    line: say`On bare wood, no other oil before it: thin, wiped dry; a second coat a day later`,
    why: say` It holds in bare wood; over mineral oil it stays soft.`,
  },
};

/** A finish on every board of the batch. */
function coatOf({ board }: PlanContext, { finish, coats, waitMinutes }: Coating): InstructionOf<'coat'> {
  return { do: 'coat', parts: boardsOf(board.count), finish, coats, minutes: waitMinutes };
}

/** Mineral oil, unless the shop wants none, or what follows wants bare wood. */
function oilStep(context: PlanContext): StepDraft[] {
  const { schools } = context.shop;
  if (schools.oil === 'none' || schools.topCoat === 'hardWax') return [];
  const school = schoolOf(schools, 'oil');
  const oil = OILS[schools.oil];
  return [
    {
      kind: 'oil',
      title: say`Oil: ${school.name.toLowerCase()}`,
      school: 'oil',
      waitMinutes: oil.waitMinutes,
      waitFor: oil.waitFor,
      instructions: [coatOf(context, oil)],
      lines: [oil.line],
      why: say`${school.why} Food-grade mineral oil; ends drink several times as much as faces.`,
    },
  ];
}

function topCoatStep(context: PlanContext): StepDraft[] {
  const { schools } = context.shop;
  if (schools.topCoat === 'none') return [];
  const school = schoolOf(schools, 'topCoat');
  const coat = TOP_COATS[schools.topCoat];
  return [
    {
      kind: 'topCoat',
      title: say`Top coat: ${school.name.toLowerCase()}`,
      school: 'topCoat',
      waitMinutes: coat.waitMinutes,
      waitFor: coat.waitFor,
      instructions: [coatOf(context, coat)],
      lines: [coat.line],
      why: say`${school.why}${coat.why}`,
    },
  ];
}
