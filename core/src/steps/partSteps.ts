import type { Inset, Insert } from '../board/inset.ts';
import { crossings } from '../board/inset.ts';
import { showsOf } from '../board/board.ts';
import { stripsOf } from '../board/recipe.ts';
import { woodsOf } from '../board/accents.ts';
import { endCoatLine } from './endCoat.ts';
import { slicingSaw } from '../board/recut.ts';
import type { GluePlan } from '../gluing/glueUps.ts';
import type { PlanContext } from '../ladders/context.ts';
import { firstOf } from '../lists/there.ts';
import { TOOL_NAMES } from '../shop/tools.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { glueStep, rehearsal, type Glued } from './glueSteps.ts';
import { blockThing, panelThing, partThing, stripThing, type InstructionOf } from './instruction.ts';
import { howCut } from './layingOut.ts';
import { joined } from './millingWords.ts';
import { listNumbers } from './numberList.ts';
import type { StepDraft } from './operation.ts';

/** Parts of the panels and the strips between them, numbered from the left. */
function piecesGlued({ allowances }: PlanContext, { inserts }: Inset): Glued {
  const blocks = allowances.panels.length;
  return {
    word: 'piece',
    whole: 'block',
    about: 'parts',
    count: 2 * inserts.length + 1,
    single: (piece, copy) => {
      const insert = inserts[piece / 2 - 1];
      return insert
        ? stripThing({ strip: insert.number, copy, spare: 0 }, blocks)
        : partThing((piece + 1) / 2, copy, blocks);
    },
    made: (copy) => blockThing(copy, blocks),
  };
}

/** Where each first panel is sawn through, from its left. */
function cutsThrough(first: PlanContext, inset: Inset): InstructionOf<'sawApart'>[] {
  const panels = first.allowances.panels.length;
  return first.allowances.panels.flatMap((_, k) =>
    inset.inserts.map((insert, i): InstructionOf<'sawApart'> => ({
      do: 'sawApart',
      part: panelThing(k + 1),
      saw: slicingSaw(first.shop, inset.panelWidth, insert.angle),
      angle: insert.angle,
      ...crossings(insert, inset),
      makes: partThing(i + 1, k + 1, panels),
      rest: i === inset.inserts.length - 1 ? partThing(i + 2, k + 1, panels) : null,
    })),
  );
}

/** A cut in words: where it begins along both edges, or once where it is square. */
function cutLine({ angle, far, near }: InstructionOf<'sawApart'>, number: number, many: boolean): Phrase {
  const name = many ? say`Line ${number}: ` : say``;
  return angle === 0
    ? joined(name, say`${length(far)} from the left end, square to the far edge`)
    : joined(
        name,
        say`from ${length(far)} along the far edge to ${length(near)} along the near edge, both from the left end: ${Math.abs(angle)}° from square`,
      );
}

/** From flat panels to parts. */
export function sawApartStep(first: PlanContext, inset: Inset): StepDraft {
  const instructions = cutsThrough(first, inset);
  const panels = first.allowances.panels.length;
  const own = instructions.slice(0, inset.inserts.length);
  const { saw } = firstOf(own);
  const many = own.length > 1;
  const kerfs = [...new Set(own.map((i) => i.saw.kerf))];
  return {
    kind: 'sawApart',
    title: say`Saw the ${panels > 1 ? 'panels' : 'panel'} through${many ? say` at ${own.length} lines` : say``}`,
    machine: TOOL_NAMES[saw.tool],
    instructions,
    lines: [
      say`Two pencil lines along the whole ${panels > 1 ? 'of each panel' : 'panel'} first, not alike far from the edges: every part finds its place again`,
      ...own.map((i, k) => cutLine(i, k + 1, many)),
      joined(
        say`Draw ${many ? 'all lines' : 'the line'} before the first cut; the blade runs behind ${many ? 'each' : 'it'}, away from the left end: `,
        ...kerfs.map((kerf, i) => say`${i > 0 ? ' or ' : ''}${length(kerf)} of kerf`),
      ),
      say`Number the parts from the left as they fall: ${own.map((_, i) => i + 1).join(', ')} and ${own.length + 1}${panels > 1 ? ', panel by panel' : ''}`,
    ],
    why: say`Where the lines lie decides the picture: what is put in is as wide as it is, and everything behind it moves.`,
  };
}

/** Laying out, rehearsing and gluing parts and strips. */
export function partSteps(context: PlanContext, first: PlanContext, inset: Inset, gluing: GluePlan): StepDraft[] {
  const glued = piecesGlued(context, inset);
  const slanted = inset.inserts.some((i) => i.angle !== 0);
  const oily = oilyPieces(context, inset);
  return [
    layParts(context, first, inset, glued),
    ...(gluing.glueUps.length > 0 ? [rehearsal(context, gluing, glued)] : []),
    ...gluing.glueUps.map((glueUp) => {
      const within = oily.filter((n) => n >= glueUp.firstStrip && n <= glueUp.lastStrip);
      const step = glueStep(context, glueUp, gluing, within, glued);
      return {
        ...step,
        lines: [
          endCoatLine(context.shop, 'every cut face'),
          say`Clamps along the panel`,
          ...step.lines,
          ...(slanted ? [SLIDES] : []),
        ],
      };
    }),
  ];
}

const SLIDES: Phrase = say`Slanted joints slide under pressure: a stop along the far edge, and clamps across it, lightly, before those along the panel are tightened`;

/** Pieces with oily wood at a joint: parts hold every strip of the panel. */
function oilyPieces({ board, species }: PlanContext, { inserts }: Inset): number[] {
  const oily = new Set(species.filter((s) => s.oily).map((s) => s.code));
  const parts = stripsOf(board).some((s) => woodsOf(board, s).some((w) => oily.has(w)));
  return Array.from({ length: 2 * inserts.length + 1 }, (_, i) => i + 1).filter((piece) => {
    const insert = inserts[piece / 2 - 1];
    return insert ? oily.has(insert.strip.species) : parts;
  });
}

/** How far a strip reaches over each edge of the panel where its middle lies in the middle of its joint, mm. */
const overOf = ({ length: long, angle }: Insert, { trueWidth }: Inset): number =>
  Math.max(0, (long * Math.cos((angle * Math.PI) / 180) - trueWidth) / 2);

function layParts(context: PlanContext, first: PlanContext, inset: Inset, { made, single, count }: Glued): StepDraft {
  const { board, allowances } = context;
  const blocks = allowances.panels.length;
  const shown = howCut(first.cutting);
  const instructions = allowances.panels.map((_, k): InstructionOf<'layParts'> => ({
    do: 'layParts',
    block: made(k + 1),
    pieces: Array.from({ length: count }, (__, i) => {
      const part = single(i + 1, k + 1);
      const insert = i % 2 === 1 ? inset.inserts[(i - 1) / 2] : undefined;
      if (!insert) return { part, strip: false as const };
      const { strip } = insert;
      return {
        part,
        strip: true as const,
        up: shown(strip.id, k + 1) ?? showsOf(board.construction, strip),
        turned: strip.turned,
        endForEnd: strip.endForEnd,
        over: overOf(insert, inset),
        step: insert.jog,
      };
    }),
  }));
  const strips = firstOf(instructions).pieces.flatMap((p) => (p.strip ? [p] : []));
  const numbersOf = (which: (s: (typeof strips)[number]) => boolean) =>
    inset.inserts.flatMap((insert, i) => (strips[i] && which(strips[i]) ? [insert.number] : []));
  const told = (numbers: number[], words: string): Phrase[] =>
    numbers.length > 0 ? [say`${numbers.length === 1 ? 'Strip' : 'Strips'} ${listNumbers(numbers)} ${words}`] : [];
  return {
    kind: 'layParts',
    title: say`Lay out the parts`,
    instructions,
    lines: [
      say`From the left: ${firstOf(instructions)
        .pieces.map((p, i) => (p.strip ? `strip ${inset.inserts[(i - 1) / 2]?.number}` : `part ${i / 2 + 1}`))
        .join(', ')}${blocks > 1 ? `, a block for each of ${blocks} boards` : ''}`,
      ...told(
        numbersOf((s) => s.up === 'edge'),
        'on edge, planed faces to the cuts',
      ),
      ...told(
        numbersOf((s) => s.up === 'face'),
        'lying flat, jointed edges to the cuts',
      ),
      say`The end of each strip that lay nearest the marked end of its piece comes to the far edge, its middle to the middle of the joint`,
      ...told(
        numbersOf((s) => s.endForEnd),
        'end for end, the other way',
      ),
      ...told(
        numbersOf((s) => s.turned),
        'turned over',
      ),
      ...inset.inserts.map((insert, i): Phrase => {
        const over = strips[i]?.over ?? 0;
        const reaches = say`${say`Strip ${insert.number} reaches ${length(over)} over each edge; `}`;
        const [before, behind] = [`part ${i + 1}`, `part ${i + 2}`];
        return insert.jog === 0
          ? joined(reaches, say`the far edges of ${before} and ${behind} in line`)
          : joined(
              reaches,
              say`the far edge of ${behind} lies ${length(Math.abs(insert.jog))} ${insert.jog > 0 ? 'nearer' : 'further'} than that of ${before}`,
            );
      }),
      say`Dry first, with light behind each joint; then strike a triangle over all of it`,
    ],
    why: say`What is laid wrong now is glued for good.`,
  };
}
