import type { Frame, FrameSide, FrameStrip } from '../board/frame.ts';
import { overOf } from '../board/frame.ts';
import { showsOf } from '../board/board.ts';
import { cutStripsOf } from '../board/recipe.ts';
import type { GluePlan, GlueUp } from '../gluing/glueUps.ts';
import type { PlanContext } from '../ladders/context.ts';
import { nth } from '../lists/there.ts';
import { panelSaw, TOOL_NAMES } from '../shop/tools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { endCoatLine } from './endCoat.ts';
import { glueStep, rehearsal, type Glued } from './glueSteps.ts';
import { flushTool, proudLine } from './flushing.ts';
import { fieldThing, framedThing, stripThing, type InstructionOf, type Thing } from './instruction.ts';
import { howCut } from './layingOut.ts';
import { joined } from './millingWords.ts';
import type { StepDraft } from './operation.ts';
import { panelsOf } from './panelThings.ts';
import { scrapeStep } from './panelSteps.ts';

/** Two strips of a frame that are glued on at once, and how. */
export interface PairGlued {
  ring: number;
  pair: 0 | 1;
  strips: FrameStrip[];
  gluing: GluePlan;
}

/** What is known of a frame when its steps are written. */
export interface FrameKnown {
  frame: Frame;
  pairs: readonly PairGlued[];
  /** How far its strips stand over what they go round. */
  proud: number;
}

const OF_BOARD = { of: 'board', before: 0 } as const;

const SIDE_WORDS: Readonly<Record<FrameSide, string>> = {
  far: 'far side',
  near: 'near side',
  left: 'left end',
  right: 'right end',
};

/** From fields cut to size to boards with their frame on, level. */
export function frameSteps(context: PlanContext, first: PlanContext, { frame, pairs, proud }: FrameKnown): StepDraft[] {
  return [
    ...pairs.flatMap((pair, k) => pairSteps(context, first, frame, pair, k === pairs.length - 1)),
    ...flushFaces(context, frame, proud),
  ];
}

/** What is there before a pair is glued on, and after. The field is the first, what has its frame on the last. */
function thingsOf({ ring, pair }: PairGlued, last: boolean, boards: number) {
  const between = (board: number, n: number): Thing => ({
    id: `field ${board} with ${n}`,
    label: fieldThing(board, boards).label,
  });
  const n = 2 * ring + pair;
  return {
    before: (board: number) => (n === 0 ? fieldThing(board, boards) : between(board, n)),
    after: (board: number) => (last ? framedThing(board, boards) : between(board, n + 1)),
  };
}

function pairSteps(
  context: PlanContext,
  first: PlanContext,
  frame: Frame,
  pair: PairGlued,
  last: boolean,
): StepDraft[] {
  const boards = context.board.count;
  const { before, after } = thingsOf(pair, last, boards);
  const { ring, strips, gluing } = pair;
  const about = `${nth(frame.rings, ring).operation.id}/${pair.pair}`;
  const glued: Glued = {
    word: 'piece',
    whole: 'framed board',
    about,
    count: 3,
    single: (piece, board) =>
      piece === 2
        ? before(board)
        : stripThing({ strip: nth(strips, piece === 1 ? 0 : 1).number, copy: board, spare: 0 }, boards, OF_BOARD),
    made: after,
  };
  const oily = oilyPieces(context, frame, pair);
  return [
    layPair(context, first, pair, about, before),
    ...(gluing.glueUps.length > 0 && pair.pair === 0 ? [rehearsal(context, gluing, glued)] : []),
    ...gluing.glueUps.map((glueUp) => {
      const within = oily.filter((n) => n >= glueUp.firstStrip && n <= glueUp.lastStrip);
      const step = glueStep(context, glueUp, gluing, within, glued);
      return { ...step, title: gluedOn(glueUp, pair, gluing), lines: [...drinks(context, pair), ...step.lines] };
    }),
    ...scraped(context, about, after),
    ...flushEnds(context, frame, pair, about, after),
  ];
}

/** Hard glue comes off each pair before its ends are cut. */
function scraped(context: PlanContext, about: string, after: (board: number) => Thing): StepDraft[] {
  return scrapeStep(context).map((step) => ({
    ...step,
    about,
    instructions: [
      { do: 'scrape', parts: panelsOf(context).map((_, k) => after(k + 1)), when: 'hard', from: 0, to: 0 },
    ],
  }));
}

/** @param gluing of the pair: a strip that was glued on before is not named again */
function gluedOn(glueUp: GlueUp, { strips, ring }: PairGlued, { glueUps }: GluePlan): Phrase {
  const lies = (n: number, g: GlueUp) => n >= g.firstStrip && n <= g.lastStrip;
  const on = [1, 3].filter((n) => lies(n, glueUp) && !glueUps.some((g) => glueUp.joins.includes(g.id) && lies(n, g)));
  const numbers = on.map((n) => nth(strips, n === 1 ? 0 : 1).number);
  const what = `${numbers.length === 1 ? 'strip' : 'strips'} ${numbers.join(' and ')}`;
  return say`Glue ${what} on${ring > 0 ? ', round the frame' : ''}`;
}

/** Sawn ends drink the glue: those of the field where they are end grain. */
function drinks({ again, shop }: PlanContext, { strips }: PairGlued): Phrase[] {
  const atEnds = strips.some((s) => s.side === 'left');
  return atEnds || again?.up ? [endCoatLine(shop, 'the end grain')] : [];
}

/** Pieces of a pair with oily wood at a joint, of strip, inside and strip. */
function oilyPieces({ board, species }: PlanContext, frame: Frame, { ring, pair, strips }: PairGlued): number[] {
  const oily = new Set(species.filter((s) => s.oily).map((s) => s.code));
  // What is on already is all but this ring's strips and those of the rings after it; of this ring the pair before.
  const [one] = nth(frame.rings, ring).pairs;
  const toCome = new Set(
    frame.rings
      .slice(ring)
      .flatMap((r) => r.pairs.flat().flatMap((s) => (pair === 1 && one.includes(s) ? [] : s.strip.id))),
  );
  const inside = cutStripsOf(board).some((s) => !toCome.has(s.id) && oily.has(s.species));
  return [1, 2, 3].filter((n) => (n === 2 ? inside : oily.has(nth(strips, n === 1 ? 0 : 1).strip.species)));
}

function layPair(
  { board }: PlanContext,
  first: PlanContext,
  { strips, pair }: PairGlued,
  about: string,
  before: (board: number) => Thing,
): StepDraft {
  const boards = board.count;
  const shown = howCut(first.cutting);
  const instructions = Array.from({ length: boards }, (_, k): InstructionOf<'layFrame'> => ({
    do: 'layFrame',
    part: before(k + 1),
    strips: strips.map((s) => ({
      part: stripThing({ strip: s.number, copy: k + 1, spare: 0 }, boards, OF_BOARD),
      side: s.side,
      up: shown(s.strip.id, k + 1) ?? showsOf(first.board.construction, s.strip),
      turned: s.strip.turned,
      endForEnd: s.strip.endForEnd,
      over: overOf(s),
    })),
  }));
  const told = nth(instructions, 0).strips;
  const long = nth(strips, 0).side === 'far';
  const that = (which: (s: (typeof told)[number]) => boolean, words: string): Phrase[] => {
    const numbers = strips.flatMap((s, i) => (which(nth(told, i)) ? [s.number] : []));
    return numbers.length > 0
      ? [say`${numbers.length === 1 ? 'Strip' : 'Strips'} ${numbers.join(' and ')} ${words}`]
      : [];
  };
  return {
    kind: 'layFrame',
    about,
    title: say`Lay the ${long ? 'sides' : 'ends'} of the frame`,
    instructions,
    lines: [
      joined(
        ...strips.map((s, i) => say`${i > 0 ? ', strip' : 'Strip'} ${s.number} along the ${SIDE_WORDS[s.side]}`),
        say`${boards > 1 ? `, the same for each of ${boards} boards` : ''}`,
      ),
      long
        ? say`The end of each that lay nearest the marked end of its piece to the left`
        : say`The end of each that lay nearest the marked end of its piece to the far edge`,
      ...that((s) => s.up === 'edge', 'on edge, a planed face to the joint'),
      ...that((s) => s.up === 'face', 'lying flat, a jointed edge to the joint'),
      ...that((s) => s.endForEnd, 'end for end, the other way'),
      ...that((s) => s.turned, 'turned over'),
      reachLine(strips),
      ...(pair === 1 ? [say`They cover the ends of the strips that are on already`] : []),
      say`Dry first, with light behind each joint: what it goes round must be straight and square`,
    ],
    why: say`A frame shows every corner that is not square: now it can still be trimmed.`,
  };
}

/** How far strips reach over their joints: told once where it is the same. */
function reachLine(strips: readonly FrameStrip[]): Phrase {
  const [one, other] = [nth(strips, 0), nth(strips, 1)];
  return Math.abs(overOf(one) - overOf(other)) <= LENGTH_TOLERANCE_MM
    ? say`Both reach ${length(overOf(one))} over each end of their joints`
    : say`Strip ${one.number} reaches ${length(overOf(one))} over each end of its joint, strip ${other.number} ${length(overOf(other))}`;
}

/** What reaches over is cut off before the next pair covers it, or the last trim is measured from it. */
function flushEnds(
  { shop, allowances }: PlanContext,
  frame: Frame,
  { ring, strips }: PairGlued,
  about: string,
  after: (board: number) => Thing,
): StepDraft[] {
  if (strips.every((s) => overOf(s) <= LENGTH_TOLERANCE_MM)) return [];
  const { outer } = nth(frame.rings, ring);
  const long = nth(strips, 0).side === 'far';
  const saw = panelSaw(shop, long ? outer.width : outer.length);
  const boards = allowances.panels.length;
  return [
    {
      kind: 'flushEnds',
      about,
      title: say`Cut the strips off flush`,
      machine: TOOL_NAMES[saw.tool],
      instructions: [
        {
          do: 'flushEnds',
          parts: allowances.panels.map((_, k) => after(k + 1)),
          strips: allowances.panels.flatMap((_, k) =>
            strips.map((s) => ({
              part: stripThing({ strip: s.number, copy: k + 1, spare: 0 }, boards, OF_BOARD),
              off: overOf(s),
            })),
          ),
          saw,
        },
      ],
      lines: [
        joined(
          ...strips.map(
            (s, i) =>
              say`${i > 0 ? ', ' : ''}${i === 0 ? 'Strip' : 'strip'} ${s.number}: ${length(overOf(s))} off each end`,
          ),
          say`, flush with what it is glued to; the kerf lies in what falls off`,
        ),
        say`A square or a straight edge along the side says where: what the next strips cover must lie in one line`,
      ],
      why: say`A strip that is cut to length before it is glued slides; cut off afterwards it fits exactly.`,
    },
  ];
}

/** Frame strips made level with what they go round, both faces. */
function flushFaces(context: PlanContext, frame: Frame, proud: number): StepDraft[] {
  if (proud <= LENGTH_TOLERANCE_MM) return [];
  const boards = context.board.count;
  const numbers = frame.rings.flatMap((r) => r.pairs.flat().map((s) => s.number)).sort((a, b) => a - b);
  const tool = flushTool(context.shop);
  return [
    {
      kind: 'flushFrame',
      title: say`Make the frame level`,
      machine: TOOL_NAMES[tool],
      instructions: [
        {
          do: 'flush',
          parts: panelsOf(context),
          strips: numbers.flatMap((n) =>
            panelsOf(context).map((_, k) => stripThing({ strip: n, copy: k + 1, spare: 0 }, boards, OF_BOARD)),
          ),
          by: proud,
          tool,
        },
      ],
      lines: [
        proudLine(numbers, proud, tool, false),
        say`From the frame inward on long grain; at the corners from both sides, so that nothing breaks out`,
      ],
      why: say`What is inside is flat already: only the frame is worked, until a straight edge rocks nowhere.`,
    },
  ];
}
