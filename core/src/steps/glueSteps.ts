import { showsOf } from '../board/board.ts';
import { scrapeWindow } from '../gluing/glueRun.ts';
import type { GluePlan, GlueUp } from '../gluing/glueUps.ts';
import { schoolOf } from '../shop/schools.ts';
import { glueOf } from '../shop/shop.ts';
import { atLeast, length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../plan/context.ts';
import { glueThicknessReached } from '../plan/ladders.ts';
import { stripList } from './numberList.ts';
import type { StepDraft } from './operation.ts';
import { flatteningWays, wayTaken } from './ways.ts';

/** Acetone wiped on an oily face dries off so long before glue, minutes (common practice). */
export const ACETONE_MINUTES = 5;

/** Laying out, rehearsing, gluing in groups and joining them. */
export function glueSteps(context: PlanContext, gluing: GluePlan): StepDraft[] {
  const { board, shop, allowances } = context;
  const work = shop.pace.work;
  const copies = allowances.panels.length;
  const each = board.count > 1 ? say` (${board.count} boards${copies < board.count ? ` from ${copies} ${copies === 1 ? 'panel' : 'panels'}` : ''})` : say``;
  const marks = schoolOf(shop.schools, 'edgeMarks');
  const steps: StepDraft[] = [{
    kind: 'layOut', title: say`Lay out and mark`, minutes: (10 + board.strips.length * copies) * work, school: 'edgeMarks',
    lines: [
      say`Strips 1 to ${board.strips.length} in order, best side up, grain arrows as drawn${each}`,
      ...howTheyLie(board),
      say`Number the strips, draw a triangle across them, mark the edges: ${marks.name.toLowerCase()}`,
    ],
    why: say`Once glue is on there is no time to think; the triangle shows at a glance that nothing turned.`,
  }];
  if (gluing.glueUps.length === 0) return steps;
  const most = Math.max(...gluing.glueUps.map((g) => g.clamps.placed.length));
  const wanted = Math.max(...gluing.glueUps.map((g) => g.clamps.wanted));
  const level = schoolOf(shop.schools, 'level');
  const [open, closed] = [gluing.openMinutes, gluing.usableMinutes].map(minutesWords);
  steps.push({
    kind: 'dryRun', title: most > 0 ? say`Rehearse with every clamp` : say`Rehearse the glue-up`, minutes: (6 + most * 0.5 + gluing.glueUps.length * 2) * work, school: 'level',
    lines: [
      most > 0 ? say`${most} ${most === 1 ? 'clamp' : 'clamps'}, below and above in turn, pads under the jaws; ${level.name.toLowerCase()} to keep strips level${most < wanted ? ` (${wanted} were better: the shop has no more that fit)` : ''}`
        : say`Wedges against a stop, or clamps that are borrowed: ${wanted} are wanted; ${level.name.toLowerCase()} to keep strips level`,
      say`Open joints, a caul in the way of a clamp, too few hands: found now, not with glue on`,
      ...(board.strips.length > 12 ? [say`Ask somebody to help with so many strips`] : []),
    ],
    why: say`${glueOf(shop).name} leaves ${open!} to close a joint and ${closed!} until all is under pressure, a reserve taken off. ${level.why}`,
  });
  const oily = oilyStrips(context);
  const first = gluing.glueUps.filter((g) => g.level === 1);
  for (const glueUp of first) steps.push(glueStep(context, glueUp, gluing, oily.filter((n) => n >= glueUp.firstStrip && n <= glueUp.lastStrip)));
  const sections = gluing.sectionWidth === null ? [] : first.filter((g) => g.width > 0 && g.parts < board.strips.length);
  if (sections.length > 0) steps.push(flattenSections(context, sections));
  for (const glueUp of gluing.glueUps.filter((g) => g.level > 1)) steps.push(glueStep(context, glueUp, gluing, []));
  return steps;
}

function oilyStrips({ board, species }: PlanContext): number[] {
  const oily = new Set(species.filter((s) => s.oily).map((s) => s.code));
  return board.strips.flatMap((s, i) => (oily.has(s.species) ? [i + 1] : []));
}

/** How strips stand or lie in the panel, those apart that were rolled. */
function howTheyLie({ construction, strips }: PlanContext['board']): Phrase[] {
  const rolled = strips.flatMap((s, i) => (showsOf(construction, s) !== construction ? [i + 1] : []));
  const stand = { edge: say`Each strip stands on edge: its planed faces meet its neighbours`, face: say`Each strip lies flat: its jointed edges meet its neighbours` };
  const other = { edge: say`Rolled: ${stripList(rolled)} with the broad face up`, face: say`Rolled: ${stripList(rolled)} with the edge up` };
  return rolled.length > 0 ? [stand[construction], other[construction]] : [stand[construction]];
}

function glueStep({ board, shop, allowances }: PlanContext, glueUp: GlueUp, gluing: GluePlan, oily: number[]): StepDraft {
  const kind = glueUp.level === 1 ? 'glue' : 'join';
  const range = say`strips ${glueUp.firstStrip} to ${glueUp.lastStrip}`;
  const copies = allowances.panels.length;
  const squeeze = schoolOf(shop.schools, 'squeezeOut');
  const { clamps } = glueUp;
  const wiping = oily.length > 0 ? ACETONE_MINUTES + 2 : 0;
  // Scraped from when it has skinned, counted from the first glue.
  const stay = shop.schools.squeezeOut === 'scrape' ? Math.max(0, scrapeWindow(shop).from - glueUp.assemblyMinutes) : 0;
  return {
    kind, title: kind === 'glue' ? say`Glue ${range}` : say`Join ${glueUp.parts} pieces into ${range}`, glueUp: glueUp.id, joins: glueUp.joins, school: 'squeezeOut',
    minutes: (4 + wiping) * shop.pace.work + glueUp.assemblyMinutes + (shop.schools.squeezeOut === 'wipe' ? 3 : 5), repeats: copies, clamps: Math.min(clamps.wanted, Math.max(clamps.owned, 0)),
    lines: [
      ...(oily.length > 0 ? [say`Wipe the glue faces of ${stripList(oily)} with acetone, gloves on and air moving; glue ${ACETONE_MINUTES} min later, before the oil comes back`] : []),
      say`${Math.ceil(glueUp.grams)} g of glue with a roller or card, every face to the edges: ${glueUp.parts} pieces, ${glueUp.joints} ${glueUp.joints === 1 ? 'joint' : 'joints'}`,
      say`${clamps.placed.length > 0 ? `${clamps.placed.length} ${clamps.placed.length === 1 ? 'clamp' : 'clamps'}` : 'Wedges or borrowed clamps'}: ready in ${minutesWords(glueUp.assemblyMinutes)} of ${minutesWords(gluing.usableMinutes)}. Snug one after the other, level the strips, then tighten in turn`,
      ...(clamps.placed.some((c) => c.kind === 'pipe' || c.kind === 'bar') ? [say`Paper or tape between bars and wood: wet glue on iron leaves black marks, darkest on oak, walnut and cherry`] : []),
      squeezeLine(shop),
      ...(copies > 1 ? [say`The same for each of the ${copies} panels`] : []),
    ],
    stayMinutes: stay, waitMinutes: glueUp.waitMinutes, waitFor: 'the glue',
    why: kind === 'glue' ? say`At most ${gluing.mostParts} pieces close before the glue skins over${board.gluing.helper ? ', with a second pair of hands' : ''}. ${squeeze.why}` : say`Groups are flat and few, so the last joints close in time too.`,
  };
}

function squeezeLine(shop: PlanContext['shop']): Phrase {
  if (shop.schools.squeezeOut === 'wipe') return say`Wipe squeezed-out glue at once with a wet rag, rinsed often`;
  if (shop.schools.squeezeOut === 'leave') return say`Leave the squeezed-out glue; it is scraped off when hard`;
  const { from, to } = scrapeWindow(shop);
  return say`Scrape the squeezed-out glue ${Math.round(from)} to ${Math.round(to)} min after it was spread, when it has skinned`;
}

/** Sections that fit the machine are made flat before they are joined: the panel will be too wide for it. */
function flattenSections(context: PlanContext, sections: readonly GlueUp[]): StepDraft {
  const { shop, allowances } = context;
  const glued = glueThicknessReached(context);
  const levelled = Math.max(0, glued - shop.habits.panelFlatten / 2);
  const faces = sections.map((g) => ({ length: allowances.panels[0]!.length, width: g.width, removal: shop.habits.panelFlatten / 2, hardness: null }));
  const ways = flatteningWays(faces, shop, 'panel');
  const taken = wayTaken(ways, shop.schools.flatten);
  return {
    kind: 'flattenSections', title: sections.length > 1 ? say`Flatten the sections` : say`Flatten the section`, machine: taken.name, minutes: taken.minutes * allowances.panels.length, passes: taken.passes, habit: 'panelFlatten', school: 'flatten', ways,
    settings: taken.id === 'planer' ? [{ label: 'Planer', value: atLeast(levelled) }] : [],
    lines: [
      say`Scrape off the glue, then both faces, ${sections.length > 1 ? `all ${sections.length} sections` : 'the section'} at one setting: ${length(glued)} to ${length(levelled)}`,
      say`Joint the edges that will be joined, marked like the strips`,
    ],
    why: say`The whole panel is wider than the machine; what it is joined from is not. Joined with care, only a light levelling is left.`,
  };
}

export function minutesWords(value: number): string {
  return `${Math.round(value * 10) / 10} min`;
}
