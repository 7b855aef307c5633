import { nth } from '../lists/there.ts';
import type { GlueUp } from '../gluing/glueUps.ts';
import { capitalised, length, say } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import { glueThicknessReached } from '../ladders/gluedThickness.ts';
import { stripList } from './numberList.ts';
import type { StepDraft } from './operation.ts';
import { groupThing, ofKind, type Face, type Instruction } from './instruction.ts';
import { stripOfPanel } from './panelThings.ts';
import { thicknessSettings } from './millingWords.ts';
import { flatteningWays, toolOf, wayTaken } from './ways.ts';
import { stripsOf } from '../board/recipe.ts';

/** Strips that no first group takes. */
export function singlesOf(first: readonly GlueUp[], { board, before }: PlanContext): number[] {
  return Array.from({ length: stripsOf(board).length }, (_, i) => before.strips + i + 1).filter(
    (n) => !first.some((g) => n >= g.firstStrip && n <= g.lastStrip),
  );
}

/** Sections that fit the machine are made flat before they are joined: the panel will be too wide for it. */
export function flattenSections(
  context: PlanContext,
  sections: readonly GlueUp[],
  singles: readonly number[],
): StepDraft {
  const { shop, allowances } = context;
  const glued = glueThicknessReached(context);
  const levelled = Math.max(0, glued - shop.habits.panelFlatten / 2);
  const widths = [
    ...sections.map((g) => g.width),
    ...singles.map((n) => nth(stripsOf(context.board), n - context.before.strips - 1).width),
  ];
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
    ...singles.map((n) => stripOfPanel(context, n, copy)),
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
