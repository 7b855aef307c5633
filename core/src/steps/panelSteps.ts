import { proudBy } from '../board/allowances.ts';
import { showsOf } from '../board/board.ts';
import { schoolOf } from '../shop/schools.ts';
import { trimLayout } from '../trim/trimLayout.ts';
import { atLeast, length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../plan/context.ts';
import type { Ladder } from '../plan/ladder.ts';
import { glueThicknessReached } from '../plan/ladders.ts';
import { stripList } from './numberList.ts';
import type { StepDraft } from './operation.ts';
import { CROSSCUT_NAMES, RIP_NAMES } from './toolWays.ts';
import { flatteningWays, LANE_SHARE, wayTaken, type WayOfWork } from './ways.ts';

/** Every way to flatten the glued panels of a board. */
export function panelFlatteningWays({ allowances, shop, panelWidth, board, species }: PlanContext, sections: boolean): WayOfWork[] {
  const hardness = board.strips.reduce<number | null>((most, strip) => {
    const own = species.find((s) => s.code === strip.species)?.hardness ?? null;
    return own === null ? most : Math.max(most ?? 0, own);
  }, null);
  // Sections were flattened before they were joined: half of the allowance is left for levelling the joints.
  const removal = shop.habits.panelFlatten * (sections ? 0.5 : 1);
  return flatteningWays(allowances.panels.map((p) => ({ length: p.length, width: panelWidth, removal, hardness })), shop, 'panel');
}

/** From the glued panel to boards of finished size. */
export function panelSteps(context: PlanContext, ladders: { thickness: Ladder; width: Ladder }, sections: boolean): StepDraft[] {
  const { allowances, board, shop, panelWidth } = context;
  const { habits, planer, saw, crosscutSaw, routerSled } = shop;
  const glued = glueThicknessReached(context);
  // Of stock that is hopelessly thin nothing is left; the thickness ladder says so.
  const start = Math.max(0, sections ? glued - habits.panelFlatten / 2 : glued);
  const flat = Math.max(0, glued - habits.panelFlatten);
  const ways = panelFlatteningWays(context, sections);
  const taken = wayTaken(ways, shop.schools.flatten);
  const trimEach = (panelWidth - ladders.width.reached) / 2;
  const many = allowances.panels.length;
  const work = shop.pace.work;
  const panels = many > 1 ? `${many} panels` : 'the panel';
  const longest = allowances.panels[0]!;
  // Strips crept either way: half of that at each end.
  const inward = allowances.endTrim + habits.creep / 2;
  // Round bad places boards lie where they can: what is cut off first is told from there.
  const placed = board.worked.spots.length > 0 ? trimLayout(board, allowances, shop).boards[0] : undefined;
  const firstCut = placed ? placed.x - crosscutSaw.kerf : inward;
  const snipe = schoolOf(shop.schools, 'snipe');
  const proud = board.strips.flatMap((s, i) => (showsOf(board.construction, s) === 'edge' && proudBy(allowances, s.width) > 0 ? [i + 1] : []));
  return [
    ...(shop.schools.squeezeOut === 'leave' ? [{
      kind: 'scrape' as const, title: say`Scrape off the hard glue`, minutes: 6 * many * work, school: 'squeezeOut' as const,
      lines: [say`A sharp scraper, along the grain; not a bead may be left for the knives`], why: say`Dry glue chips planer knives and clogs paper.`,
    }] : []),
    {
      kind: 'flattenPanel', title: say`Flatten the panel`, habit: 'panelFlatten', school: 'flatten', passes: taken.passes, machine: taken.name, minutes: taken.minutes, ways,
      settings: taken.id === 'planer' ? [{ label: 'Planer', value: atLeast(flat) }] : [],
      parts: [{ part: panels, dimension: 'thickness', before: start, after: flat, passes: taken.passes }],
      lines: [
        ...(proud.length > 0 ? [say`${stripList(proud)} ${proud.length === 1 ? 'stands' : 'stand'} ${length(allowances.proud.by)} proud: take ${proud.length === 1 ? 'it' : 'them'} down flush with the rest first, by hand plane or in the lightest passes`] : []),
        say`${length(start)} to ${length(flat)}, cleanest side down first, turning it over between passes, the last pass light`,
        ...(taken.id === 'planer' ? [] : [say`${taken.name}: ${Math.round(taken.minutes)} min, honestly`]),
        ...(taken.id === 'routerSled' && routerSled ? [say`Bit of ${length(routerSled.bit)}: each lane ${length(routerSled.bit * LANE_SHARE)} on, so that lanes overlap; ${length(taken.extra)} of ridges are left to sand`] : []),
        ...(taken.id === 'planer' && shop.schools.snipe === 'runners' ? [say`Hot-glue two runners along the edges, longer than the panel: they take the snipe`] : []),
        ...(board.strips.length > 0 && planer && panelWidth > planer.width ? [say`The panel is ${length(panelWidth)} wide, the planer ${length(planer.width)}`] : []),
      ],
      why: say`Strips never lie quite level; the thinnest place decides what is left. Snipe: ${snipe.name.toLowerCase()}.`,
    },
    {
      kind: 'trimEdges', title: say`Trim both long edges`, habit: 'panelEdgeTrim', machine: RIP_NAMES[saw.kind], minutes: 6 * many * work,
      settings: [{ label: 'Fence, first edge', value: atLeast(placed ? panelWidth - placed.y : ladders.width.reached + trimEach) }, { label: 'Fence, second edge', value: atLeast(ladders.width.reached) }],
      parts: [{ part: panels, dimension: 'width', before: panelWidth, after: ladders.width.reached, passes: null }],
      lines: [placed ? say`${length(placed.y)} off the far side, ${length(panelWidth - placed.y - placed.width)} off the near one, clear of bad places; kerf within the waste; the first cut edge is the reference` : say`${length(trimEach)} off each side, kerf within the waste; the first cut edge is the reference`],
      why: say`One straight long edge squares everything after it.`,
    },
    ...(longest.boards + board.worked.others.length > 1 ? [{
      kind: 'cutApart' as const, title: say`Cut the boards apart`, machine: CROSSCUT_NAMES[shop.crosscutSaw.kind], minutes: 3 * (board.count + board.worked.others.length) * work,
      settings: [{ label: 'Stop', value: atLeast(board.length) }, ...board.worked.others.map((o) => ({ label: `Stop, ${o.name}`, value: atLeast(o.length) }))],
      parts: [{ part: longest.boards === 1 ? 'the board' : `each of ${longest.boards} boards`, dimension: 'length' as const, before: longest.length, after: board.length, passes: null }],
      lines: [say`Square one end ${length(firstCut)} in, then ${longest.boards === 1 ? say`one board` : say`${longest.boards} boards`} of ${atLeast(board.length)}, the same long edge to the fence, ${length(crosscutSaw.kerf)} for each cut`, ...board.worked.others.map((o) => say`${o.name}: ${atLeast(o.length)} by ${atLeast(o.width)}${o.width < ladders.width.reached ? say`, ripped to its width once it is cut off` : say``}; edges and finish as the others`), ...holding(longest.length)],
      why: say`Creep, snipe and trim are lost at the ends of a panel once, not once for each board.`,
    }] : [{
      kind: 'trimEnds' as const, title: say`Trim both ends`, habit: allowances.endTrim > habits.panelEndTrim ? null : ('panelEndTrim' as const), school: 'snipe' as const, machine: CROSSCUT_NAMES[shop.crosscutSaw.kind], minutes: 6 * board.count * work,
      settings: [{ label: 'Stop, first try', value: atLeast(board.length + SNEAK) }, { label: 'Stop', value: atLeast(board.length) }],
      parts: [{ part: panels, dimension: 'length' as const, before: longest.length, after: board.length, passes: null }],
      lines: [
        say`Cut one end ${length(firstCut)} in, turn end for end keeping the same long edge to the fence, cut the other to ${atLeast(board.length)}`,
        say`Each cut takes ${length(crosscutSaw.kerf)} more for its kerf. Sneak up on the last: ${length(SNEAK)} long first, measure both sides, then to size`,
        ...holding(longest.length),
      ],
      why: say`The same edge to the fence makes both ends square to it, even if the fence is not perfect.`,
    }]),
  ];
}

/** Left on the last cut until it has been measured, mm (common practice). */
const SNEAK = 1;
/** Panels longer than this are not held by one pair of hands at a saw, mm (common practice). */
const ONE_PAIR_OF_HANDS = 1000;

/** Who holds a long panel. */
function holding(panel: number): Phrase[] {
  return panel > ONE_PAIR_OF_HANDS ? [say`The panel is ${length(panel)} long: a second pair of hands or a stand holds its far end, level with the table, and lets it go with the cut`] : [];
}
