import { proudBy, proudFor } from '../board/allowances.ts';
import { showsOf } from '../board/board.ts';
import { schoolOf } from '../shop/schools.ts';
import { TOOL_NAMES } from '../shop/tools.ts';
import { atLeast, length, say } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { Ladder } from '../ladders/ladder.ts';
import { panelFlat, panelThickness } from '../ladders/gluedThickness.ts';
import { flushTool, proudLine } from './flushing.ts';
import type { StepDraft } from './operation.ts';
import type { Face, InstructionOf } from './instruction.ts';
import { flatteningWays, toolOf, LANE_SHARE, wayTaken, type WayOfWork } from './ways.ts';
import { stripsOf } from '../board/recipe.ts';
import { woodsOf } from '../board/accents.ts';
import { trimStep, endSteps } from './trimSteps.ts';
import { panelsOf, panelWords, stripOfPanel } from './panelThings.ts';

/** Scrap round end grain that goes through a planer is so wide, mm (common practice). */
const GUARD_MM = 20;

/** Every way to flatten the glued panels of a board. */
export function panelFlatteningWays(context: PlanContext, sections: boolean): WayOfWork[] {
  const ways = flatteningWays(panelFaces(context, sections), context.shop, 'panel');
  // Where knives would meet end grain a planer is no way, whoever owns one.
  const { again, shop, panelWidth } = context;
  if (!again?.up) return ways;
  const fits = shop.planer !== null && panelWidth + 2 * GUARD_MM <= shop.planer.width;
  return fits ? ways : ways.filter((w) => w.id !== 'planer');
}

function panelFaces({ allowances, shop, panelWidth, board, species }: PlanContext, sections: boolean): Face[] {
  const woods = stripsOf(board).flatMap((strip) => woodsOf(board, strip));
  const hardness = woods.reduce<number | null>((most, code) => {
    const own = species.find((s) => s.code === code)?.hardness ?? null;
    return own === null ? most : Math.max(most ?? 0, own);
  }, null);
  // Sections were flattened before they were joined: half of the allowance is left for levelling the joints.
  const removal = shop.habits.panelFlatten * (sections ? 0.5 : 1);
  return allowances.panels.map((p) => ({ length: p.length, width: panelWidth, removal, hardness }));
}

/** From the glued panel to boards of finished size. */
export function panelSteps(
  context: PlanContext,
  ladders: { thickness: Ladder; width: Ladder },
  sections: boolean,
): StepDraft[] {
  return [
    ...scrapeStep(context),
    flattenStep(context, sections),
    ...trimStep(context, ladders.width.reached),
    ...endSteps(context, ladders.width.reached),
  ];
}

export function scrapeStep(context: PlanContext): StepDraft[] {
  if (context.shop.schools.squeezeOut !== 'leave') return [];
  return [
    {
      kind: 'scrape',
      ...(context.again ? { about: context.again.how } : {}),
      title: say`Scrape off the hard glue`,
      school: 'squeezeOut',
      instructions: [{ do: 'scrape', parts: panelsOf(context), when: 'hard', from: 0, to: 0 }],
      lines: [say`A sharp scraper, along the grain; not a bead may be left for the knives`],
      why: say`Dry glue chips planer knives and clogs paper.`,
    },
  ];
}

/** A panel of strips, or a block of rows, made flat. */
export function flattenStep(context: PlanContext, sections: boolean): StepDraft {
  const { allowances, board, shop, panelWidth, again } = context;
  const word = again ? 'block' : 'panel';
  const { habits, planer, routerSled } = shop;
  const glued = panelThickness(context);
  // Of stock that is hopelessly thin nothing is left; the thickness ladder says so.
  const start = Math.max(0, sections ? glued - habits.panelFlatten / 2 : glued);
  const flat = panelFlat(context);
  const faces = panelFaces(context, sections);
  const ways = panelFlatteningWays(context, sections);
  const taken = wayTaken(ways, shop.schools.flatten);
  const tool = toolOf(taken);
  const many = allowances.panels.length;
  // Strips that are put in are as high as those of the panel were before it was flat.
  const proud =
    again?.how === 'parts'
      ? again.inserts.map((i) => i.number)
      : (again ? [] : stripsOf(board)).flatMap((s, i) =>
          showsOf(board.construction, s) === 'edge' && proudBy(proudFor(allowances, board, s), s.width) > 0
            ? [context.before.strips + i + 1]
            : [],
        );
  const proudOf = again?.how === 'parts' ? again.proud : allowances.proud.by;
  const snipe = schoolOf(shop.schools, 'snipe');
  const parts = panelsOf(context);
  const flush: InstructionOf<'flush'> = {
    do: 'flush',
    parts,
    strips: proud.flatMap((n) => parts.map((_, k) => stripOfPanel(context, n, k + 1))),
    by: proudOf,
    tool: flushTool(shop),
  };
  const guard: InstructionOf<'guard'>[] =
    again?.up && tool === 'planer'
      ? [{ do: 'guard', parts, high: start, wide: GUARD_MM, pass: planer?.passDepth ?? 0 }]
      : [];
  const lane =
    tool === 'routerSled' && routerSled
      ? { bit: routerSled.bit, lane: routerSled.bit * LANE_SHARE, ridges: taken.extra }
      : null;
  return {
    kind: 'flattenPanel',
    ...(again ? { about: again.how } : {}),
    title: again ? say`Flatten the block` : say`Flatten the panel`,
    habit: again?.up ? 'endGrainFlatten' : 'panelFlatten',
    school: again?.up ? 'endGrain' : 'flatten',
    passes: taken.passes,
    taken,
    ways,
    instructions: [
      ...(proud.length > 0 ? [flush] : []),
      ...guard,
      {
        do: 'flatten',
        parts,
        faces,
        from: start,
        to: flat,
        passes: tool === 'planer' ? taken.passes : null,
        tool,
        first: 'asItIs',
      },
      ...(lane ? [{ do: 'lanes' as const, ...lane }] : []),
    ],
    settings: tool === 'planer' || tool === 'drumSander' ? [{ label: TOOL_NAMES[tool], value: atLeast(flat) }] : [],
    parts: [
      { part: panelWords(many, context), dimension: 'thickness', before: start, after: flat, passes: taken.passes },
    ],
    lines: [
      ...(proud.length > 0 ? [proudLine(proud, flush.by, flush.tool)] : []),
      say`${length(start)} to ${length(flat)}, cleanest side down first, turning it over between passes, the last pass light`,
      ...(tool === 'planer' ? [] : [say`${taken.name}: ${Math.round(taken.minutes)} min, honestly`]),
      ...(lane
        ? [
            say`Bit of ${length(lane.bit)}: each lane ${length(lane.lane)} on, so that lanes overlap; ${length(lane.ridges)} of ridges are left to sand`,
          ]
        : []),
      ...(again?.up && tool === 'planer'
        ? [
            say`End grain: scrap ${length(GUARD_MM)} wide and as high as the block, ${length(start)}, hot-glued along all four sides first: it breaks out instead of the rows, and is sawn off again before the edges are trimmed`,
            say`No pass deeper than ${length(planer?.passDepth ?? 0)}, rows across the knives at a slant`,
          ]
        : []),
      ...(again?.up && tool !== 'planer'
        ? [say`End grain is slow and burns: sharp paper or bit, light passes, never standing still`]
        : []),
      ...(tool === 'planer' && shop.schools.snipe === 'runners'
        ? [say`Hot-glue two runners along the edges, longer than the ${word}: they take the snipe`]
        : []),
      ...(stripsOf(board).length > 0 && planer && panelWidth > planer.width
        ? [say`The ${word} is wider than the planer takes`]
        : []),
    ],
    why: say`${again ? (again.how === 'rows' ? 'Rows' : 'Parts') : 'Strips'} never lie quite level; the thinnest place decides what is left. Snipe: ${snipe.name.toLowerCase()}.`,
  };
}
