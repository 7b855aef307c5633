import { showsOf } from '../board/board.ts';
import { scrapeWindow } from '../gluing/glueRun.ts';
import type { GluePlan, GlueUp } from '../gluing/glueUps.ts';
import { schoolOf } from '../shop/schools.ts';
import { glueOf } from '../shop/shop.ts';
import { capitalised, length, say, type Phrase } from '../units/phrase.ts';
import { amount } from '../units/quantity.ts';
import type { PlanContext } from '../plan/context.ts';
import { glueThicknessReached } from '../plan/ladders.ts';
import { turnedOver } from '../plan/stripBody.ts';
import { stripList } from './numberList.ts';
import type { StepDraft } from './operation.ts';
import {
  groupThing,
  ofKind,
  panelThing,
  stripThing,
  type ClampUse,
  type Face,
  type Instruction,
  type InstructionOf,
  type Thing,
} from './instruction.ts';
import { thicknessSettings } from './millingWords.ts';
import { flatteningWays, toolOf, wayTaken } from './ways.ts';
import { stripsOf } from '../board/recipe.ts';

/** Acetone wiped on an oily face dries off so long before glue, minutes (common practice). */
export const ACETONE_MINUTES = 5;

/** A slot or a bore for a key every so much joint, mm (common practice). */
const KEY_SPACING_MM = 150;

/** Laying out, rehearsing, gluing in groups and joining them. */
export function glueSteps(context: PlanContext, gluing: GluePlan): StepDraft[] {
  const { board, shop, allowances } = context;
  const copies = allowances.panels.length;
  const each =
    board.count > 1
      ? say` (${board.count} boards${copies < board.count ? ` from ${copies} ${copies === 1 ? 'panel' : 'panels'}` : ''})`
      : say``;
  const marks = schoolOf(shop.schools, 'edgeMarks');
  const laid = layOuts(context);
  const steps: StepDraft[] = [
    {
      kind: 'layOut',
      title: say`Lay out and mark`,
      school: 'edgeMarks',
      instructions: laid,
      lines: [
        say`Strips 1 to ${stripsOf(board).length} in order, best side up, grain arrows as drawn${each}`,
        ...howTheyLie(context),
        ...turnedLines(laid),
        say`Number the strips, draw a triangle across them, mark the edges: ${marks.name.toLowerCase()}`,
      ],
      why: say`Once glue is on there is no time to think; the triangle shows at a glance that nothing turned.`,
    },
  ];
  if (gluing.glueUps.length === 0) return steps;
  if (shop.schools.level === 'keys') steps.push(keyStep(context, gluing));
  steps.push(rehearsal(context, gluing));
  const oily = oilyStrips(context);
  const first = gluing.glueUps.filter((g) => g.level === 1);
  const wiped = (g: GlueUp) => oily.filter((n) => n >= g.firstStrip && n <= g.lastStrip && meetsGlue(n, g, gluing));
  for (const glueUp of first) steps.push(glueStep(context, glueUp, gluing, wiped(glueUp)));
  const sections = gluing.sectionWidth === null ? [] : first.filter((g) => g.parts < stripsOf(board).length);
  if (sections.length > 0)
    steps.push(
      flattenSections(
        context,
        sections,
        singlesOf(first, stripsOf(board).length).filter(
          (n) => stripsOf(board)[n - 1]!.width >= (shop.planer?.leastWidth ?? 0),
        ),
      ),
    );
  for (const glueUp of gluing.glueUps.filter((g) => g.level > 1))
    steps.push(glueStep(context, glueUp, gluing, wiped(glueUp)));
  return steps;
}

/** Whether a joint of a glue-up lies at a strip: its faces in the joints that were closed before are covered. */
function meetsGlue(strip: number, glueUp: GlueUp, { glueUps }: GluePlan): boolean {
  const inner = glueUps.filter((g) => glueUp.joins.includes(g.id));
  const own = inner.find((g) => strip >= g.firstStrip && strip <= g.lastStrip);
  if (!own) return true;
  return (
    (strip === own.firstStrip && strip > glueUp.firstStrip) || (strip === own.lastStrip && strip < glueUp.lastStrip)
  );
}

function layOuts({ board, allowances, cutting, turnedOver: over }: PlanContext): InstructionOf<'layOut'>[] {
  const panels = allowances.panels.length;
  const lies = new Map(
    cutting.blanks.flatMap((b) =>
      b.strips.filter((s) => s.demand.spare === 0).map((s) => [`${s.demand.stripId}/${s.demand.copy}`, s.way.shows]),
    ),
  );
  return allowances.panels.map((_, k) => ({
    do: 'layOut',
    panel: panelThing(k + 1),
    strips: turnedOver(stripsOf(board), over[k]).map((strip, i) => ({
      part: stripThing({ strip: i + 1, copy: k + 1, spare: 0 }, panels),
      up: lies.get(`${strip.id}/${k + 1}`) ?? showsOf(board.construction, strip),
      turned: strip.turned,
      endForEnd: strip.endForEnd,
    })),
  }));
}

/** Strips that lie otherwise than they came from the saw; panel by panel where they are turned in different ways. */
function turnedLines(laid: readonly InstructionOf<'layOut'>[]): Phrase[] {
  const numbers = (one: InstructionOf<'layOut'>, of: (s: InstructionOf<'layOut'>['strips'][number]) => boolean) =>
    one.strips.flatMap((s, i) => (of(s) ? [i + 1] : []));
  const lines = (one: InstructionOf<'layOut'>, panel: string): Phrase[] => {
    const [over, round] = [numbers(one, (s) => s.turned), numbers(one, (s) => s.endForEnd)];
    return [
      ...(over.length > 0 ? [say`${panel}Turned over: ${stripList(over)}`] : []),
      ...(round.length > 0 ? [say`${panel}End for end: ${stripList(round)}`] : []),
    ];
  };
  const alike = laid.every((one) => one.strips.every((s, i) => s.turned === laid[0]!.strips[i]!.turned));
  return alike ? lines(laid[0]!, '') : laid.flatMap((one) => lines(one, `${one.panel.label}: `));
}

function keyStep({ allowances, shop, board }: PlanContext, gluing: GluePlan): StepDraft {
  const joints = gluing.glueUps.reduce((sum, g) => sum + g.joints, 0);
  const each = Math.max(2, Math.floor(allowances.panels[0]!.length / KEY_SPACING_MM));
  const copies = allowances.panels.length;
  return {
    kind: 'keys',
    title: say`Cut the joints for dowels, tenons or biscuits`,
    school: 'level',
    machine: 'Drill or slot cutter',
    instructions: [
      {
        do: 'keys',
        parts: allowances.panels.flatMap((_, k) =>
          stripsOf(board).map((_s, i) => stripThing({ strip: i + 1, copy: k + 1, spare: 0 }, copies)),
        ),
        joints,
        each,
        copies,
      },
    ],
    lines: [
      say`${each} in each of ${joints} ${joints === 1 ? 'joint' : 'joints'}${copies > 1 ? ` of each of ${copies} panels` : ''}, both strips marked together across the joint, all cut from the marked face`,
      say`Clear of the ends that are trimmed off, and in the middle of the thickness`,
    ],
    why: schoolPhrase(shop, 'level'),
  };
}

function rehearsal({ board, shop }: PlanContext, gluing: GluePlan): StepDraft {
  const most = gluing.glueUps.reduce((a, b) => (b.clamps.placed.length > a.clamps.placed.length ? b : a));
  const wanted = Math.max(...gluing.glueUps.map((g) => g.clamps.wanted));
  const placed = most.clamps.placed.length;
  const level = schoolOf(shop.schools, 'level');
  const [open, closed] = [gluing.openMinutes, gluing.usableMinutes].map(minutesWords);
  const cauls = most.clamps.cauls.length;
  return {
    kind: 'dryRun',
    title: placed > 0 ? say`Rehearse with every clamp` : say`Rehearse the glue-up`,
    school: 'level',
    instructions: [{ do: 'rehearse', glueUps: gluing.glueUps.length, clamps: clampUses(most), cauls, wanted }],
    lines: [
      placed > 0
        ? say`${clampWords(clampUses(most))}, below and above in turn, pads under the jaws; ${levelWords(shop, cauls)} to keep strips level${placed < wanted ? ` (${wanted} were better: the shop has no more that fit)` : ''}`
        : say`Wedges against a stop, or clamps that are borrowed: ${wanted} are wanted; ${levelWords(shop, cauls)} to keep strips level`,
      say`Open joints, a caul in the way of a clamp, too few hands: found now, not with glue on`,
      ...(stripsOf(board).length > 12 ? [say`Ask somebody to help with so many strips`] : []),
    ],
    why: say`${glueOf(shop).name} leaves ${open!} to close a joint and ${closed!} until all is under pressure, a reserve taken off. ${level.why}`,
  };
}

/** What keeps strips level, with the cauls that really stand between the clamps. */
function levelWords(shop: PlanContext['shop'], cauls: number): string {
  if (shop.schools.level === 'cauls')
    return cauls > 0
      ? `${cauls} ${cauls === 1 ? 'pair' : 'pairs'} of cauls`
      : 'a straight edge and a mallet (no caul fits between the clamps)';
  return schoolOf(shop.schools, 'level').name.toLowerCase();
}

function clampUses({ clamps }: GlueUp): ClampUse[] {
  const counts = new Map<string, number>();
  for (const { kind } of clamps.placed) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  return [...counts].map(([kind, count]) => ({ kind, count }));
}

const CLAMP_WORDS: Readonly<Record<string, string>> = { pipe: 'pipe', bar: 'bar', parallel: 'parallel', f: 'F' };

/** Clamps by their kind: 4 pipe clamps, 2 bar clamps. */
function clampWords(uses: readonly ClampUse[]): string {
  return uses
    .map(({ kind, count }) => `${count} ${CLAMP_WORDS[kind] ?? kind} ${count === 1 ? 'clamp' : 'clamps'}`)
    .join(', ');
}

function schoolPhrase(shop: PlanContext['shop'], q: 'level'): Phrase {
  return say`${schoolOf(shop.schools, q).why}`;
}

function oilyStrips({ board, species }: PlanContext): number[] {
  const oily = new Set(species.filter((s) => s.oily).map((s) => s.code));
  return stripsOf(board).flatMap((s, i) => (oily.has(s.species) ? [i + 1] : []));
}

/** How strips stand or lie in the panel, those apart that lie the other way. */
function howTheyLie(context: PlanContext): Phrase[] {
  const { construction } = context.board;
  const rolled = layOuts(context)[0]!.strips.flatMap((s, i) => (s.up !== construction ? [i + 1] : []));
  const stand = {
    edge: say`Each strip stands on edge: its planed faces meet its neighbours`,
    face: say`Each strip lies flat: its jointed edges meet its neighbours`,
  };
  const other = {
    edge: say`Rolled: ${stripList(rolled)} with the broad face up`,
    face: say`Rolled: ${stripList(rolled)} with the edge up`,
  };
  return rolled.length > 0 ? [stand[construction], other[construction]] : [stand[construction]];
}

function glueStep(
  { board, shop, allowances }: PlanContext,
  glueUp: GlueUp,
  gluing: GluePlan,
  oily: number[],
): StepDraft {
  const kind = glueUp.level === 1 ? 'glue' : 'join';
  const range = say`strips ${glueUp.firstStrip} to ${glueUp.lastStrip}`;
  const copies = allowances.panels.length;
  const squeeze = schoolOf(shop.schools, 'squeezeOut');
  const { clamps } = glueUp;
  // Scraped from when it has skinned, counted from the first glue.
  const stay = shop.schools.squeezeOut === 'scrape' ? Math.max(0, scrapeWindow(shop).from - glueUp.assemblyMinutes) : 0;
  const uses = clampUses(glueUp);
  const grams = Math.ceil(glueUp.grams);
  const instructions = allowances.panels.flatMap((_, k): Instruction[] => {
    const copy = k + 1;
    const parts = partsOf(glueUp, gluing, copy, copies);
    const last = gluing.glueUps.at(-1)!.id === glueUp.id;
    const makes = last ? panelThing(copy) : groupThing(glueUp, copy);
    return [
      ...(oily.length > 0
        ? [
            {
              do: 'wipe' as const,
              parts: oily.map((n) => stripThing({ strip: n, copy, spare: 0 }, copies)),
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
            say`Wipe the glue faces of ${stripList(oily)} with acetone, gloves on and air moving; glue ${ACETONE_MINUTES} min later, before the oil comes back`,
          ]
        : []),
      say`${amount(grams)} of glue with a roller or card, every face to the edges: ${glueUp.parts} pieces, ${glueUp.joints} ${glueUp.joints === 1 ? 'joint' : 'joints'}`,
      say`${clamps.placed.length > 0 ? clampWords(uses) : 'Wedges or borrowed clamps'}: ready in ${minutesWords(glueUp.assemblyMinutes)} of ${minutesWords(gluing.usableMinutes)}. Snug one after the other, level the strips, then tighten in turn`,
      ...(clamps.placed.some((c) => c.kind === 'pipe' || c.kind === 'bar')
        ? [
            say`Paper or tape between bars and wood: wet glue on iron leaves black marks, darkest on oak, walnut and cherry`,
          ]
        : []),
      squeezeLine(shop),
      ...(copies > 1 ? [say`The same for each of the ${copies} panels`] : []),
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

/** What lies side by side in a glue-up: groups that were glued before, and single strips. */
function partsOf(glueUp: GlueUp, { glueUps }: GluePlan, copy: number, panels: number): Thing[] {
  const parts: Thing[] = [];
  for (let n = glueUp.firstStrip; n <= glueUp.lastStrip;) {
    const group = glueUps.find((g) => glueUp.joins.includes(g.id) && g.firstStrip === n);
    parts.push(group ? groupThing(group, copy) : stripThing({ strip: n, copy, spare: 0 }, panels));
    n = group ? group.lastStrip + 1 : n + 1;
  }
  return parts;
}

/** Squeezed-out glue: wiped wet, scraped when it has skinned; or left until it is hard, in a step of its own. */
function scrapeOf(shop: PlanContext['shop'], parts: Thing[]): InstructionOf<'scrape'>[] {
  if (shop.schools.squeezeOut === 'leave') return [];
  if (shop.schools.squeezeOut === 'wipe') return [{ do: 'scrape', parts, when: 'wet', from: 0, to: 0 }];
  const { from, to } = scrapeWindow(shop);
  return [{ do: 'scrape', parts, when: 'skinned', from, to }];
}

function squeezeLine(shop: PlanContext['shop']): Phrase {
  if (shop.schools.squeezeOut === 'wipe') return say`Wipe squeezed-out glue at once with a wet rag, rinsed often`;
  if (shop.schools.squeezeOut === 'leave') return say`Leave the squeezed-out glue; it is scraped off when hard`;
  const { from, to } = scrapeWindow(shop);
  return say`Scrape the squeezed-out glue ${Math.round(from)} to ${Math.round(to)} min after it was spread, when it has skinned`;
}

/** Strips that no first group takes. */
function singlesOf(first: readonly GlueUp[], strips: number): number[] {
  return Array.from({ length: strips }, (_, i) => i + 1).filter(
    (n) => !first.some((g) => n >= g.firstStrip && n <= g.lastStrip),
  );
}

/** Sections that fit the machine are made flat before they are joined: the panel will be too wide for it. */
function flattenSections(context: PlanContext, sections: readonly GlueUp[], singles: readonly number[]): StepDraft {
  const { shop, allowances } = context;
  const glued = glueThicknessReached(context);
  const levelled = Math.max(0, glued - shop.habits.panelFlatten / 2);
  const widths = [...sections.map((g) => g.width), ...singles.map((n) => stripsOf(context.board)[n - 1]!.width)];
  const faces = allowances.panels.flatMap((panel) =>
    widths.map((width): Face => ({
      length: panel.length,
      width,
      removal: shop.habits.panelFlatten / 2,
      hardness: null,
    })),
  );
  const ways = flatteningWays(faces, shop, 'panel');
  const taken = wayTaken(ways, shop.schools.flatten);
  const tool = toolOf(taken);
  const copies = allowances.panels.map((_, k) => k + 1);
  // Wiped wet, or scraped when it had skinned, it is gone by now.
  const hardGlue = shop.schools.squeezeOut === 'leave';
  const things = copies.flatMap((copy) => [
    ...sections.map((g) => groupThing(g, copy)),
    ...singles.map((n) => stripThing({ strip: n, copy, spare: 0 }, copies.length)),
  ]);
  const instructions: Instruction[] = [
    ...(hardGlue
      ? [
          {
            do: 'scrape' as const,
            parts: things.filter((t) => !t.id.startsWith('strip ')),
            when: 'hard' as const,
            from: 0,
            to: 0,
          },
        ]
      : []),
    {
      do: 'flatten',
      parts: things,
      faces,
      from: glued,
      to: levelled,
      passes: tool === 'planer' ? taken.passes : null,
      tool,
      first: 'asItIs',
    },
  ];
  return {
    kind: 'flattenSections',
    title: sections.length > 1 ? say`Flatten the sections` : say`Flatten the section`,
    taken,
    passes: taken.passes,
    habit: 'panelFlatten',
    school: 'flatten',
    ways,
    instructions,
    settings: thicknessSettings(ofKind(instructions, 'flatten')),
    lines: [
      say`${hardGlue ? 'Scrape off the glue, then both faces' : 'Both faces'}, ${sections.length > 1 ? `all ${sections.length} sections` : 'the section'} at one setting: ${length(glued)} to ${length(levelled)}`,
      ...(singles.length > 0 ? [capitalised(say`${stripList(singles)}, not in a section, at the same setting`)] : []),
      say`The edges that will be joined stay as they were milled: clean of glue, not planed again`,
    ],
    why: say`The whole panel is wider than the machine; what it is joined from is not. Joined with care, only a light levelling is left.`,
  };
}

export function minutesWords(value: number): string {
  return `${Math.round(value * 10) / 10} min`;
}
