import { firstOf, lastOf, nth } from '../lists/there.ts';
import { boardsOf } from './boardWork.ts';
import { coatMinutes, dryingMinutes, finishesOf } from '../finish/coats.ts';
import { faceGrits } from '../finish/sanding.ts';
import { amountOf, tellGrams, type Amount, type Surface } from '../finish/surfaces.ts';
import { WANTS_BARE_WOOD, type Finish } from '../shop/finishes.ts';
import { pitRun } from '../shop/grits.ts';
import { schoolOf } from '../shop/schools.ts';
import { flatThickness } from '../ladders/gluedThickness.ts';
import type { Ladder } from '../ladders/ladder.ts';
import type { PlanContext } from '../ladders/context.ts';
import { atLeast, atMost, length, say, type Phrase } from '../units/phrase.ts';
import { type Instruction, type SandedArea } from './instruction.ts';
import type { StepDraft } from './operation.ts';
import { sandingWays } from './toolWays.ts';
import { toolOf } from './ways.ts';
import type { ToolId } from '../shop/tools.ts';

interface Finishing {
  context: PlanContext;
  thickness: Ladder;
  width: Ladder;
  grits: number[];
  area: SandedArea;
}

/** Sanding and finish, as the shop's habits have them. @param beforeGrain steps that come before the grain is raised for the last time @param flattened the tool the panel was made flat with @param surfaces of one board */
export function finishSteps(
  context: PlanContext,
  { thickness, width }: { thickness: Ladder; width: Ladder },
  beforeGrain: readonly StepDraft[],
  flattened: ToolId,
  surfaces: readonly Surface[],
): StepDraft[] {
  const { board, shop } = context;
  const squareMetres =
    (board.count * (2 * board.length * width.reached + 2 * (board.length + width.reached) * thickness.reached)) / 1e6;
  const finishing: Finishing = {
    context,
    thickness,
    width,
    grits: faceGrits(shop, flattened),
    area: { squareMetres, width: width.reached },
  };
  return [
    ...(shop.schools.raiseGrain === 'every'
      ? sandAndWetEach(finishing, beforeGrain)
      : sandAndWetOnce(finishing, beforeGrain)),
    ...coatSteps(context, surfaces),
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
  const first = after ? [] : pitLines(context, grits.length === all.length);
  // One face of two is gone over with each of those.
  const { ways, taken } = sandingWays(
    context.shop,
    area,
    grits.length + first.reduce((sum, p) => sum + p.papers / 2, 0),
  );
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
      ...(first.length > 0 ? { pits: Object.values(context.made.pits) } : {}),
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
        : [
            say`${length(flat)} to ${atLeast(thickness.reached)}: ${atMost(take)} in all, ${first.length > 0 ? 'most of it off the side with the pit' : 'half off each face'}`,
            ...first.map((p) => p.line),
            ...(context.made.filled > 0
              ? [
                  say`Fill first what is to be filled (${context.made.filled}): thin super glue, clear on pale wood, brown or black on dark; half a minute until it is hard, then flush`,
                ]
              : []),
          ]),
      grits.length > 1
        ? say`${first.length > 0 ? 'Elsewhere grits' : 'Grits'} ${grits.join(', ')}: pencil lines over the face, gone before the next grit`
        : say`${first.length > 0 ? 'Elsewhere grit' : 'Grit'} ${firstOf(grits)}: pencil lines over the face, sanded until they are gone`,
    ],
    why: say`The coarse grit must reach the bottom of the deepest pit; a step to less than half its grain leaves the last scratches.`,
  };
}

/** Sides in which a place was found: the papers that go over them instead of those of the whole board. @param whole up to the last grit, too */
function pitLines({ shop, made: { pits } }: PlanContext, whole: boolean): { line: Phrase; papers: number }[] {
  return (['top', 'bottom'] as const).flatMap((side) => {
    const pit = pits[side];
    if (pit === undefined) return [];
    // Where every grit has a step of its own the last one is gone over with the rest.
    const run = pitRun(shop, pit).steps;
    const own = whole ? run : run.slice(0, -1);
    return own.length === 0
      ? []
      : [
          {
            line: say`The ${side === 'top' ? 'show side' : 'underside'} with ${own.map((s) => s.grit).join(', ')}: to the bottom of its pit`,
            papers: own.reduce((sum, s) => sum + s.rounds, 0),
          },
        ];
  });
}

/** @param again the grit that follows the drying, in this step */
function wetStep({ context, area }: Finishing, about: string, again: number | null, line: Phrase): StepDraft {
  const { board, shop } = context;
  const raise = schoolOf(shop.schools, 'raiseGrain');
  const { taken } = sandingWays(shop, area, 0.5);
  const drying = dryingMinutes(shop.room);
  const parts = boardsOf(board.count);
  return {
    kind: 'raiseGrain',
    about,
    title: say`Raise the grain`,
    school: 'raiseGrain',
    taken: again === null ? null : taken,
    // With the grit that follows in this step, hands are needed again when it is dry.
    waitMinutes: drying,
    waitFor: 'the wood to dry',
    instructions: [
      { do: 'wet', parts, minutes: drying },
      ...(again === null ? [] : [{ do: 'resand' as const, parts, area, grit: again }]),
    ],
    lines: [line],
    why: say`${raise.why} Otherwise the board feels furry after its first wash.`,
  };
}

/** How a finish goes on, in words. */
const PUT_ON: Readonly<Record<Finish['method'], (finish: Finish) => Phrase>> = {
  flood: ({ soakMinutes }) => say`Flood it, keep it wet ${soakMinutes} min, wipe dry`,
  bath: ({ soakMinutes }) => say`${soakMinutes} min a side in the bath, then on edge over it to drip; the oil is kept`,
  wipe: ({ soakMinutes }) =>
    soakMinutes > 0
      ? say`Put it on with a cloth, leave it ${soakMinutes} min, wipe off all that stands on the wood`
      : say`Thin, with a cloth, all faces; what stands on the wood is wiped off`,
  brush: () => say`Thin, with a brush, one face after the other, along the grain`,
};

/** What a wait of a finish is for. */
const waitWords = ({ kind, cureDays, coats, method }: Finish): string =>
  cureDays > 0
    ? `${KIND_WORDS[kind]} to cure`
    : method === 'bath'
      ? `${KIND_WORDS[kind]} to drip`
      : coats > 1
        ? `${coats} coats of ${KIND_WORDS[kind].replace('the ', '')}`
        : KIND_WORDS[kind];

const KIND_WORDS: Readonly<Record<Finish['kind'], string>> = {
  mineralOil: 'the oil',
  waxOil: 'the wax',
  hardWaxOil: 'the oil',
  dryingOil: 'the oil',
  film: 'the film',
};

/** How much of it goes on, and where. */
function amountLine(amount: Amount, { density, coats }: Finish, boards: number): Phrase {
  const grams = (g: number) => `${tellGrams(g)} g`;
  const all = amount.total * boards;
  return say`About ${grams(all)} (${Math.round(all / density)} ml)${coats > 1 ? ` in ${coats} coats` : ''}${boards > 1 ? `, ${grams(amount.total)} a board` : ''}: faces ${grams(amount.faces * boards)}, edges ${grams(amount.edges * boards)}, ends ${grams(amount.ends * boards)}${amount.intoEndGrain > amount.total / 20 ? '; end grain first, it drinks longest' : ''}`;
}

/** What goes on the wood, one finish after the other. */
function coatSteps({ board, shop }: PlanContext, surfaces: readonly Surface[]): StepDraft[] {
  const asked = board.finish !== null;
  let topCoats = 0;
  let oils = 0;
  return finishesOf(board, shop).map((finish): StepDraft => {
    const isOil = finish.kind === 'mineralOil';
    const first = isOil ? oils++ === 0 : topCoats++ === 0;
    const amount = amountOf(finish, surfaces);
    const minutes = coatMinutes(finish);
    const school = isOil ? 'oil' : 'topCoat';
    const { name, why } = schoolOf(shop.schools, school);
    return {
      kind: school,
      ...(first ? {} : { about: finish.id }),
      title: say`${isOil ? 'Oil' : 'Top coat'}: ${(asked ? finish.name : name).toLowerCase()}`,
      school: asked ? null : school,
      waitMinutes: minutes.used,
      waitFor: waitWords(finish),
      instructions: [
        {
          do: 'coat',
          parts: boardsOf(board.count),
          finish: finish.kind,
          coats: finish.coats,
          minutes: minutes.used,
          grams: amount.total * board.count,
          ignites: finish.ignites,
        },
      ],
      lines: [
        ...(WANTS_BARE_WOOD.has(finish.kind) ? [say`On bare wood: no other oil before it`] : []),
        PUT_ON[finish.method](finish),
        ...(finish.coats > 1
          ? [
              say`${finish.coats} coats, ${finish.dryHours} h between them${finish.rubBack ? '; rub back lightly before each' : ''}`,
            ]
          : []),
        say`Both faces alike, or it cups`,
        amountLine(amount, finish, board.count),
      ],
      why: isOil
        ? say`${asked ? '' : `${why} `}Food-grade mineral oil; ends drink several times as much as faces.`
        : say`${asked ? '' : why}${WANTS_BARE_WOOD.has(finish.kind) ? ' It holds in bare wood; over mineral oil it stays soft.' : ''}`,
    };
  });
}
