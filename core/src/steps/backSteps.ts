import type { Back } from '../board/back.ts';
import { cutStripsOf } from '../board/recipe.ts';
import type { GluePlan } from '../gluing/glueUps.ts';
import type { PlanContext } from '../ladders/context.ts';
import { length, say } from '../units/phrase.ts';
import { glueStep, glueSteps, rehearsal, type Glued } from './glueSteps.ts';
import { topThing, type InstructionOf } from './instruction.ts';
import type { StepDraft } from './operation.ts';
import { panelOf, panelsOf } from './panelThings.ts';
import { flattenStep, scrapeStep } from './panelSteps.ts';
import { joined } from './millingWords.ts';

/** What is known of a back when its steps are written. */
export interface BackKnown {
  back: Back;
  /** Its own panels of strips, and how those are glued. */
  panels: PlanContext;
  panelGluing: GluePlan;
  gluing: GluePlan | null;
  /** How large what it is glued under was cut, mm. */
  size: { length: number; width: number };
}

/** From strips and tops cut to size to boards with their back under them. */
export function backSteps(context: PlanContext, known: BackKnown): StepDraft[] {
  const { back, panels, panelGluing, gluing } = known;
  if (!gluing) return [];
  const boards = context.board.count;
  const glued: Glued = {
    word: 'piece',
    whole: 'backed board',
    about: 'back',
    count: 2,
    single: (piece, board) => (piece === 1 ? topThing(board, boards) : panelOf(panels, board)),
    made: (board) => panelsOf(context)[board - 1] ?? topThing(board, boards),
  };
  const oily = new Set(context.species.filter((s) => s.oily).map((s) => s.code));
  const own = new Set(back.strips.map((s) => s.strip.id));
  const isOily = (ofBack: boolean) =>
    cutStripsOf(context.board).some((s) => own.has(s.id) === ofBack && oily.has(s.species));
  const wiped = [...(isOily(false) ? [1] : []), ...(isOily(true) ? [2] : [])];
  return [
    ...ownPanels(panels, panelGluing),
    layBack(context, known),
    rehearsal(context, gluing, glued),
    ...gluing.glueUps.map((glueUp) => {
      const step = glueStep(context, glueUp, gluing, wiped, glued);
      return { ...step, title: say`Glue the back under`, lines: [BATTENS, ...step.lines] };
    }),
    ...scrapeStep(context).map((step) => ({ ...step, about: 'back' })),
  ];
}

const BATTENS = say`Battens across above and below, planed a little hollow toward the ends, a pair of clamps at the ends of each, from the middle outward: no jaw reaches the middle of the board`;

/** The back is glued of strips and made flat like any panel. */
function ownPanels(panels: PlanContext, gluing: GluePlan): StepDraft[] {
  const glued = glueSteps(panels, gluing);
  const sections = glued.some((s) => s.kind === 'flattenSections');
  return [...glued, ...scrapeStep(panels), flattenStep(panels, sections)].map((step) => ({
    ...step,
    about: step.about === undefined ? 'back panel' : `${step.about} of the back`,
    title: joined(step.title, say`, back`),
  }));
}

function layBack({ board }: PlanContext, { back, panels, size }: BackKnown): StepDraft {
  const along = back.operation.runs === 'along';
  const over = {
    along: Math.max(0, ((along ? back.length : back.width) - size.length) / 2),
    across: Math.max(0, ((along ? back.width : back.length) - size.width) / 2),
  };
  const instructions = Array.from({ length: board.count }, (_, k): InstructionOf<'layBack'> => ({
    do: 'layBack',
    part: topThing(k + 1, board.count),
    back: panelOf(panels, k + 1),
    runs: back.operation.runs,
    over,
  }));
  const first = back.strips[0]?.number ?? 0;
  return {
    kind: 'layBack',
    title: say`Lay the back under`,
    instructions,
    lines: [
      along
        ? say`Its strips along the board, strip ${first} at the far edge, marked ends to the left`
        : say`Its strips across the board, strip ${first} at the right end, marked ends to the far edge`,
      say`It reaches ${length(over.along)} over each end and ${length(over.across)} over each edge`,
      say`The cleaner side down; both faces that meet free of dust, and dry first with light behind: they must touch everywhere`,
    ],
    why: say`A face joint hides what is wrong in it: only flat on flat closes under the pressure that clamps give.`,
  };
}
