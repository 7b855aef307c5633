import { certain, lastOf, nth } from '../lists/there.ts';
import { scrapeWindow } from '../gluing/glueRun.ts';
import type { GluePlan, GlueUp } from '../gluing/glueUps.ts';
import { schoolOf } from '../shop/schools.ts';
import { glueOf } from '../shop/shop.ts';
import { say } from '../units/phrase.ts';
import { amount } from '../units/quantity.ts';
import type { PlanContext } from '../ladders/context.ts';
import { listNumbers, stripList } from './numberList.ts';
import type { StepDraft } from './operation.ts';
import { groupThing, type Instruction, type Thing } from './instruction.ts';
import { panelOf, stripOfPanel } from './panelThings.ts';
import { stripsOf } from '../board/recipe.ts';
import { woodsOf } from '../board/accents.ts';
import { aheadLines, layOuts, howTheyLie, turnedLines } from './layingOut.ts';
import { keyStep } from './keySteps.ts';
import { flattenSections, singlesOf } from './sectionSteps.ts';
import { minutesWords, clampUses, clampWords, levelWords, partsOf, scrapeOf, squeezeLine } from './glueWords.ts';

/** What is glued: strips to panels, rows to blocks, or parts of a panel with strips between them. */
export interface Glued {
  word: 'strip' | 'row' | 'piece' | 'bit';
  whole: 'panel' | 'block' | 'framed board' | 'backed board' | 'stack';
  /** What of the board its rehearsal is about; left out for strips of a panel. */
  about?: string;
  count: number;
  /** One of them, by its number in its panel or block, from 1. */
  single: (number: number, copy: number) => Thing;
  made: (copy: number) => Thing;
}

/** Strips of the panels. */
function stripsGlued(context: PlanContext): Glued {
  const { board } = context;
  return {
    word: 'strip',
    whole: 'panel',
    count: stripsOf(board).length,
    single: (strip, copy) => stripOfPanel(context, strip, copy),
    made: (copy) => panelOf(context, copy),
  };
}

/** Acetone wiped on an oily face dries off so long before glue, minutes (common practice). */
export const ACETONE_MINUTES = 5;

/** Laying out, rehearsing, gluing in groups and joining them. */
export function glueSteps(context: PlanContext, gluing: GluePlan): StepDraft[] {
  const { board, shop, allowances, before } = context;
  const copies = allowances.panels.length;
  const each =
    board.count > 1
      ? say` (${board.count} boards${copies < board.count ? ` from ${copies} ${copies === 1 ? 'panel' : 'panels'}` : ''})`
      : say``;
  const marks = schoolOf(shop.schools, 'edgeMarks');
  const glued = stripsGlued(context);
  const laid = layOuts(context);
  const steps: StepDraft[] = [
    {
      kind: 'layOut',
      title: say`Lay out and mark`,
      school: 'edgeMarks',
      instructions: laid,
      lines: [
        say`Strips ${before.strips + 1} to ${before.strips + stripsOf(board).length} in order, best side up, grain arrows as drawn${each}`,
        ...howTheyLie(context),
        ...turnedLines(laid, before.strips),
        ...aheadLines(laid, before.strips),
        say`Number the strips, draw a triangle across them, mark the edges: ${marks.name.toLowerCase()}`,
      ],
      why: say`Once glue is on there is no time to think; the triangle shows at a glance that nothing turned.`,
    },
  ];
  if (gluing.glueUps.length === 0) return steps;
  if (shop.schools.level === 'keys') steps.push(keyStep(context, gluing));
  steps.push(rehearsal(context, gluing, glued));
  const oily = oilyStrips(context);
  const first = gluing.glueUps.filter((g) => g.level === 1);
  const wiped = (g: GlueUp) => oily.filter((n) => n >= g.firstStrip && n <= g.lastStrip && meetsGlue(n, g, gluing));
  for (const glueUp of first) steps.push(glueStep(context, glueUp, gluing, wiped(glueUp), glued));
  const sections = gluing.sectionWidth === null ? [] : first.filter((g) => g.parts < stripsOf(board).length);
  if (sections.length > 0)
    steps.push(
      flattenSections(
        context,
        sections,
        singlesOf(first, context).filter(
          (n) => nth(stripsOf(board), n - before.strips - 1).width >= (shop.planer?.leastWidth ?? 0),
        ),
      ),
    );
  for (const glueUp of gluing.glueUps.filter((g) => g.level > 1))
    steps.push(glueStep(context, glueUp, gluing, wiped(glueUp), glued));
  return steps;
}

/** Whether a joint of a glue-up lies at a strip: its faces in the joints that were closed before are covered. */
export function meetsGlue(strip: number, glueUp: GlueUp, { glueUps }: GluePlan): boolean {
  const inner = glueUps.filter((g) => glueUp.joins.includes(g.id));
  const own = inner.find((g) => strip >= g.firstStrip && strip <= g.lastStrip);
  if (!own) return true;
  return (
    (strip === own.firstStrip && strip > glueUp.firstStrip) || (strip === own.lastStrip && strip < glueUp.lastStrip)
  );
}

/** Everything but the glue. */
export function rehearsal(
  { shop }: Pick<PlanContext, 'shop'>,
  gluing: GluePlan,
  { word, count, about }: Glued,
): StepDraft {
  const most = gluing.glueUps.reduce((a, b) => (b.clamps.placed.length > a.clamps.placed.length ? b : a));
  const wanted = Math.max(...gluing.glueUps.map((g) => g.clamps.wanted));
  const placed = most.clamps.placed.length;
  const level = schoolOf(shop.schools, 'level');
  const [open, closed] = [gluing.openMinutes, gluing.usableMinutes].map(minutesWords);
  const cauls = most.clamps.cauls.length;
  return {
    kind: 'dryRun',
    ...(about === undefined ? {} : { about }),
    title: placed > 0 ? say`Rehearse with every clamp` : say`Rehearse the glue-up`,
    school: 'level',
    instructions: [{ do: 'rehearse', glueUps: gluing.glueUps.length, clamps: clampUses(most), cauls, wanted }],
    lines: [
      placed > 0
        ? say`${clampWords(clampUses(most))}, below and above in turn, pads under the jaws; ${levelWords(shop, cauls)} to keep ${word}s level${placed < wanted ? ` (${wanted} were better: the shop has no more that fit)` : ''}`
        : say`Wedges against a stop, or clamps that are borrowed: ${wanted} are wanted; ${levelWords(shop, cauls)} to keep ${word}s level`,
      say`Open joints, a caul in the way of a clamp, too few hands: found now, not with glue on`,
      ...(count > 12 ? [say`Ask somebody to help with so many ${word}s`] : []),
    ],
    why: say`${glueOf(shop).name} leaves ${certain(open)} to close a joint and ${certain(closed)} until all is under pressure, a reserve taken off. ${level.why}`,
  };
}

function oilyStrips({ board, species, before }: PlanContext): number[] {
  const oily = new Set(species.filter((s) => s.oily).map((s) => s.code));
  return stripsOf(board).flatMap((s, i) => (woodsOf(board, s).some((w) => oily.has(w)) ? [before.strips + i + 1] : []));
}

/** One glue-up, the same for every panel or block. @param oily numbers of what is wiped first */
export function glueStep(
  { board, shop, allowances }: PlanContext,
  glueUp: GlueUp,
  gluing: GluePlan,
  oily: number[],
  { word, whole, single, made }: Glued,
): StepDraft {
  const kind = glueUp.level === 1 ? 'glue' : 'join';
  const range = say`${word}s ${glueUp.firstStrip} to ${glueUp.lastStrip}`;
  const copies = allowances.panels.length;
  const squeeze = schoolOf(shop.schools, 'squeezeOut');
  const { clamps } = glueUp;
  // Scraped from when it has skinned, counted from the first glue.
  const stay = shop.schools.squeezeOut === 'scrape' ? Math.max(0, scrapeWindow(shop).from - glueUp.assemblyMinutes) : 0;
  const uses = clampUses(glueUp);
  const grams = Math.ceil(glueUp.grams);
  const instructions = allowances.panels.flatMap((_, k): Instruction[] => {
    const copy = k + 1;
    const parts = partsOf(glueUp, gluing, copy, (n) => single(n, copy));
    const last = lastOf(gluing.glueUps).id === glueUp.id;
    const makes = last ? made(copy) : groupThing(glueUp, copy);
    return [
      ...(oily.length > 0
        ? [
            {
              do: 'wipe' as const,
              parts: oily.map((n) => single(n, copy)),
              minutes: ACETONE_MINUTES,
            },
          ]
        : []),
      {
        do: 'glue',
        makes,
        parts,
        glue: glueOf(shop).id,
        grams,
        clamps: uses,
        wanted: clamps.wanted,
        layingMinutes: glueUp.layingMinutes,
        assemblyMinutes: glueUp.assemblyMinutes,
        usableMinutes: gluing.usableMinutes,
        waitMinutes: glueUp.waitMinutes,
      },
      ...scrapeOf(shop, [makes]),
    ];
  });
  return {
    kind,
    about: glueUp.id,
    title: kind === 'glue' ? say`Glue ${range}` : say`Join ${glueUp.parts} pieces into ${range}`,
    glueUp: glueUp.id,
    joins: glueUp.joins,
    school: 'squeezeOut',
    instructions,
    repeats: copies,
    lines: [
      ...(oily.length > 0
        ? [
            say`Wipe the glue faces of ${word === 'strip' ? stripList(oily) : say`${oily.length === 1 ? word : `${word}s`} ${listNumbers(oily)}`} with acetone, gloves on and air moving; glue ${ACETONE_MINUTES} min later, before the oil comes back`,
          ]
        : []),
      say`${amount(grams)} of glue with a roller or card, every face to the edges: ${glueUp.parts} pieces, ${glueUp.joints} ${glueUp.joints === 1 ? 'joint' : 'joints'}`,
      say`${clamps.placed.length > 0 ? clampWords(uses) : 'Wedges or borrowed clamps'}: ready in ${minutesWords(glueUp.assemblyMinutes)} of ${minutesWords(gluing.usableMinutes)}. Snug one after the other, level the ${word}s, then tighten in turn`,
      ...(clamps.placed.some((c) => c.kind === 'pipe' || c.kind === 'bar')
        ? [
            say`Paper or tape between bars and wood: wet glue on iron leaves black marks, darkest on oak, walnut and cherry`,
          ]
        : []),
      squeezeLine(shop),
      ...(copies > 1 ? [say`The same for each of the ${copies} ${whole}s`] : []),
    ],
    stayMinutes: stay,
    waitMinutes: glueUp.waitMinutes,
    waitFor: 'the glue',
    why:
      kind === 'glue'
        ? say`At most ${gluing.mostParts} pieces close before the glue skins over${board.gluing.helper ? ', with a second pair of hands' : ''}. ${squeeze.why}`
        : say`Groups are flat and few, so the last joints close in time too.`,
  };
}
