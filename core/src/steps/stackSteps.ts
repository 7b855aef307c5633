import { showsOf } from '../board/board.ts';
import type { Stack } from '../board/stack.ts';
import type { GluePlan } from '../gluing/glueUps.ts';
import type { PlanContext } from '../ladders/context.ts';
import { glueThicknessReached } from '../ladders/gluedThickness.ts';
import { firstOf, nth } from '../lists/there.ts';
import { passesOf } from '../shop/machines.ts';
import { hasStop, SAFE_HOLD_MM, TOOL_NAMES } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { atLeast, capitalised, length, say, type Phrase } from '../units/phrase.ts';
import { endCoatLine } from './endCoat.ts';
import { hardestOf } from './hardest.ts';
import { glueStep, meetsGlue, rehearsal, type Glued } from './glueSteps.ts';
import { stripThing, type Face, type InstructionOf, type Thing } from './instruction.ts';
import { howCut } from './layingOut.ts';
import { joined, resawLines, thicknessSettings } from './millingWords.ts';
import { stripList } from './numberList.ts';
import type { StepDraft } from './operation.ts';
import { bringToWidth } from './resawSteps.ts';
import { settingsOf } from './sawSettings.ts';
import { sawnRestOf } from './stockWork.ts';
import { crosscutWays, layeringWays } from './toolWays.ts';
import { flatteningWays, passDepthFor, toolOf, wayTaken } from './ways.ts';

/** A stack with how its bits are glued. */
export interface StackKnown {
  stack: Stack;
  gluing: GluePlan;
}

/** A stack as it is told: which of the board's it is, from 1, and of how many. */
interface Told extends StackKnown {
  context: PlanContext;
  number: number;
  many: number;
}

/** From strips that are milled to accents that lie ready beside the others, stack by stack. */
export function stackSteps(context: PlanContext, stacks: readonly StackKnown[]): StepDraft[] {
  return stacks.flatMap((known, k) => {
    const told: Told = { ...known, context, number: k + 1, many: stacks.length };
    if (known.stack.accents.length === 0) return [];
    return [
      cutBits(told),
      layBits(told),
      ...glueBits(told),
      ...scrapeStack(told),
      ...flattenStack(told),
      squareStack(told),
      resawStack(told),
      ...bringToWidth(context, accentsSawn(told), known.stack.operation.id),
    ].map((step) => ({
      ...step,
      title: told.many > 1 ? joined(step.title, say`, stack ${told.number}`) : step.title,
    }));
  });
}

const copiesOf = ({ context }: Told): number[] => context.allowances.panels.map((_, k) => k + 1);

/** The stack of one panel, and a bit of it by its place from the first end. */
const stackThing = ({ context, number, many }: Told, copy: number): Thing => ({
  id: `stack ${number}/${copy}`,
  label: `${many > 1 ? `stack ${number}` : 'the stack'}${context.allowances.panels.length > 1 ? ` of panel ${copy}` : ''}`,
});
const bitThing = ({ context, number, many }: Told, place: number, copy: number): Thing => ({
  id: `bit ${number}/${place}/${copy}`,
  label: `bit ${place}${many > 1 ? ` of stack ${number}` : ''}${context.allowances.panels.length > 1 ? ` of panel ${copy}` : ''}`,
});

const speciesName = ({ species }: PlanContext, code: string): string =>
  species.find((s) => s.code === code)?.name.toLowerCase() ?? code;

/** How high a stack stands, mm: as the strips that its bits are cut from. */
const heightOf = ({ context }: Told): number => glueThicknessReached(context);

function cutBits(told: Told): StepDraft {
  const { context, stack } = told;
  const copies = copiesOf(told);
  const sticks = stack.sticks.filter((s) => s.count > 0);
  const instructions = copies.flatMap((copy) =>
    stack.sticks.flatMap((stick, k): InstructionOf<'cutBits'>[] =>
      stick.count === 0
        ? []
        : [
            {
              do: 'cutBits',
              part: stripThing({ strip: stick.number, copy, spare: 0 }, copies.length),
              end: stick.strip.endForEnd ? 'far' : 'marked',
              saw: stack.saw,
              first: stick.first,
              each: stick.bit,
              hold: SAFE_HOLD_MM,
              bits: stack.bits.flatMap((bit, i) => (bit.stick === k ? [bitThing(told, i + 1, copy)] : [])),
            },
          ],
    ),
  );
  const { ways, taken } = crosscutWays(
    context.shop,
    instructions.map((i) => ({ cuts: i.bits.map((part) => ({ part, at: 0, length: i.each, gap: 0 })) })),
  );
  const stop = hasStop(stack.saw);
  return {
    kind: 'cutBits',
    about: stack.operation.id,
    title: say`Crosscut the bits`,
    ways,
    taken,
    instructions,
    settings: [...new Set(sticks.map((s) => s.bit))].map((bit) => ({
      label: stop ? 'Stop' : 'Mark',
      value: atLeast(bit),
    })),
    lines: [
      ...sticks.map(
        (s) =>
          say`${capitalised(stripList([s.number]))}, ${speciesName(context, s.strip.species)}: its ${s.strip.endForEnd ? 'far' : 'marked'} end sawn square, then ${s.count} ${s.count === 1 ? 'bit' : 'bits'} of ${atLeast(s.bit)}`,
      ),
      stop
        ? say`A stop block on the fence that ends well before the blade, or a bit is caught: each falls free`
        : say`Each marked from the last cut with a square, and sawn on the waste side`,
      say`Number them as they fall, arrows the way the strip ran; the last ${length(SAFE_HOLD_MM)} of each strip are there to hold it by, and are left`,
      ...(copies.length > 1 ? [say`The same for each of ${copies.length} panels`] : []),
    ],
    why: say`Bits are cut from strips that are milled already: nothing so short goes over a machine. Every bit of a strip is as long as the others, so one setting serves them all.`,
  };
}

function layBits(told: Told): StepDraft {
  const { context, stack } = told;
  const shown = howCut(context.cutting);
  const order = stack.sticks.flatMap((s) =>
    s.count === 0 ? [] : [say`${speciesName(context, s.strip.species)} from strip ${s.number}`],
  );
  return {
    kind: 'layBits',
    about: stack.operation.id,
    title: say`Lay out the bits`,
    instructions: copiesOf(told).map((copy): InstructionOf<'layBits'> => ({
      do: 'layBits',
      stack: stackThing(told, copy),
      length: stack.glued,
      bits: stack.bits.map((bit, i) => {
        const { strip } = nth(stack.sticks, bit.stick);
        return {
          part: bitThing(told, i + 1, copy),
          up: shown(strip.id, copy) ?? showsOf(context.board.construction, strip),
        };
      }),
    })),
    lines: [
      joined(
        say`End to end in one line, ${stack.bits.length} of them, in turn: `,
        ...order.flatMap((one, i) => (i === 0 ? [one] : [say`, `, one])),
      ),
      say`Each as it came from its strip, arrows to one end; together they are ${length(stack.glued)} long`,
      say`Between two straight boards faced with tape, sides level`,
    ],
    why: say`End grain on end grain holds badly: it only has to hold until the accents are buried between long strips.`,
  };
}

const HAND_TIGHT = say`Pressed end to end between the ends of two clamps, hand tight: joints so small want little, and starve under a clamp's whole force`;

function glueBits(told: Told): StepDraft[] {
  const { context, stack, gluing } = told;
  if (gluing.glueUps.length === 0) return [];
  const glued: Glued = {
    word: 'bit',
    whole: 'stack',
    about: stack.operation.id,
    count: stack.bits.length,
    single: (place, copy) => bitThing(told, place, copy),
    made: (copy) => stackThing(told, copy),
  };
  const oily = new Set(context.species.filter((s) => s.oily).map((s) => s.code));
  const wiped = stack.bits.flatMap((bit, i) => (oily.has(nth(stack.sticks, bit.stick).strip.species) ? [i + 1] : []));
  return [
    rehearsal(context, gluing, glued),
    ...gluing.glueUps.map((g) => {
      const step = glueStep(
        context,
        g,
        gluing,
        wiped.filter((n) => n >= g.firstStrip && n <= g.lastStrip && meetsGlue(n, g, gluing)),
        glued,
      );
      return { ...step, lines: [endCoatLine(context.shop, 'every end'), HAND_TIGHT, ...step.lines] };
    }),
  ];
}

function scrapeStack(told: Told): StepDraft[] {
  const { context, stack } = told;
  if (context.shop.schools.squeezeOut !== 'leave') return [];
  return [
    {
      kind: 'scrape',
      about: stack.operation.id,
      title: say`Scrape off the hard glue`,
      school: 'squeezeOut',
      instructions: [
        { do: 'scrape', parts: copiesOf(told).map((copy) => stackThing(told, copy)), when: 'hard', from: 0, to: 0 },
      ],
      lines: [say`A sharp scraper, with the stack lying in its boards: a knock opens its joints`],
      why: say`Dry glue chips planer knives and clogs paper.`,
    },
  ];
}

/** Both sides that are sawn, made flat: bits never lie quite level. */
function flattenStack(told: Told): StepDraft[] {
  const { context, stack } = told;
  const { shop } = context;
  if (stack.flatten <= LENGTH_TOLERANCE_MM || stack.depth <= stack.trued) return [];
  const parts = copiesOf(told).map((copy) => stackThing(told, copy));
  const face: Face = {
    length: stack.glued,
    width: heightOf(told),
    removal: stack.flatten,
    hardness: hardestOf(
      context,
      stack.sticks.map((s) => s.strip),
    ),
  };
  const faces = parts.map(() => face);
  const ways = flatteningWays(faces, shop, 'strip', stack.trued);
  const taken = wayTaken(ways, 'planer');
  const tool = toolOf(taken);
  const instruction: InstructionOf<'thickness'> = {
    do: 'thickness',
    parts,
    faces,
    from: stack.depth,
    to: stack.trued,
    passes: tool === 'planer' && shop.planer ? passesOf(passDepthFor(shop.planer, face), stack.flatten) : null,
    tool,
    carrier:
      tool === 'planer' && shop.planer !== null && stack.trued < shop.planer.leastThickness - LENGTH_TOLERANCE_MM,
    strips: [],
  };
  return [
    {
      kind: 'flattenStack',
      about: stack.operation.id,
      title: say`Make both sides of the stack flat`,
      habit: 'panelFlatten',
      taken,
      ways,
      passes: instruction.passes,
      instructions: [instruction],
      settings: thicknessSettings([instruction]),
      parts: [
        {
          part: parts.length > 1 ? `${parts.length} stacks` : 'the stack',
          dimension: 'thickness',
          before: stack.depth,
          after: stack.trued,
          passes: instruction.passes,
        },
      ],
      lines: [
        say`${length(stack.depth)} to ${length(stack.trued)}, the same off both sides, light passes: the joints are weak`,
        ...(instruction.carrier ? [say`On a flat carrier board`] : []),
      ],
      why: say`The saw runs along these sides, and they are glue faces of the outer accents.`,
    },
  ];
}

/** As long as the strips of its panel, as much off both ends. */
function squareStack(told: Told): StepDraft {
  const { context, stack } = told;
  const instructions = copiesOf(told).map((copy): InstructionOf<'cutStack'> => {
    const long = nth(context.allowances.panels, copy - 1).length;
    return {
      do: 'cutStack',
      part: stackThing(told, copy),
      saw: stack.saw,
      off: (stack.glued - long) / 2,
      length: long,
    };
  });
  const nothing = instructions.every((i) => i.off <= LENGTH_TOLERANCE_MM);
  const lengths = [...new Map(instructions.map((i) => [i.length.toFixed(3), i])).values()];
  return {
    kind: 'cutStack',
    about: stack.operation.id,
    title: nothing ? say`The stack is as long as it must be` : say`Cut the stack to length`,
    machine: nothing ? null : TOOL_NAMES[stack.saw.tool],
    instructions,
    lines: nothing
      ? [say`Nothing is cut off: its bits end with the strips of the panel`]
      : lengths.map(
          (i) =>
            say`${length(i.off)} off each end, ${length(i.length)} are left${lengths.length > 1 ? `, ${i.part.label}` : ''}: the middle of the pattern lies in the middle of the board`,
        ),
    why: say`Its ends lie with those of the other strips, so that the panel is measured from one line.`,
  };
}

/** The accents as they come off the saw, spares last. */
function accentsSawn(told: Told): { thing: Thing; strip: number; face: Face; sawn: number; wanted: number }[] {
  const { context, stack } = told;
  const { layering, gap, trued, accents, spares } = stack;
  const thin = firstOf(accents);
  const all = [
    ...accents.map((a) => ({ ...a, spare: 0 })),
    ...Array.from({ length: spares }, (_, i) => ({ ...thin, spare: i + 1 })),
  ];
  const rest = restOf(told);
  const before = all.slice(0, -1).reduce((sum, a) => sum + a.strip.width + gap, 0);
  const many = context.allowances.panels.length;
  const hardness = hardestOf(
    context,
    stack.sticks.map((s) => s.strip),
  );
  return copiesOf(told).flatMap((copy) =>
    all.map(({ strip, number, spare }, i) => {
      const last = i === all.length - 1 && rest === 0;
      const sawn = last
        ? Math.max(strip.width, trued - before + (i > 0 ? layering.clean : 0))
        : strip.width + layering.clean;
      return {
        thing: stripThing({ strip: number, copy, spare }, many),
        strip: number,
        face: {
          length: nth(context.allowances.panels, copy - 1).length,
          width: heightOf(told),
          removal: sawn - strip.width,
          hardness,
        },
        sawn,
        wanted: strip.width,
      };
    }),
  );
}

function restOf({ stack }: Told): number {
  const { accents, spares, trued, layering } = stack;
  const wood = accents.reduce((sum, a) => sum + a.strip.width, 0) + spares * firstOf(accents).strip.width;
  return sawnRestOf(layering, trued, wood, accents.length + spares);
}

function resawStack(told: Told): StepDraft {
  const { context, stack } = told;
  const { layering } = stack;
  const accents = accentsSawn(told);
  const each = stack.accents.length + stack.spares;
  const instructions = copiesOf(told).map((copy): InstructionOf<'resaw'> => ({
    do: 'resaw',
    part: stackThing(told, copy),
    saw: { tool: layering.by === 'bandSaw' ? 'bandSaw' : 'tableSaw', kerf: layering.kerf },
    guide: layering.by === 'bandSaw' ? 'fence' : 'stop',
    height: heightOf(told),
    from: stack.trued,
    layers: accents
      .slice((copy - 1) * each, copy * each)
      .map((a) => ({ part: a.thing, setting: a.sawn, strip: a.strip })),
    rest: restOf(told),
    clean: layering.clean,
  }));
  const ways = layeringWays(context.shop, instructions);
  const spare: Phrase[] =
    stack.spares > 0
      ? [
          say`${stack.spares} of ${each} ${stack.spares === 1 ? 'is a spare' : 'are spares'}: a joint may open while it is handled`,
        ]
      : [];
  return {
    kind: 'resaw',
    about: stack.operation.id,
    title: say`Resaw the stack into accents`,
    school: 'thin',
    ...(ways ? { ways: ways.ways, taken: ways.taken } : {}),
    instructions,
    settings: settingsOf(instructions),
    lines: [
      ...resawLines(instructions),
      ...spare,
      say`Carry each flat on a board until it is glued in, with a strip of tape along one face: end grain joints open at a knock`,
    ],
    why: say`One glue-up gives all accents, and their bits meet alike.`,
  };
}
