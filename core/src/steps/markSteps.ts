import { firstOf } from '../lists/there.ts';
import { isEnd, isSide, SIDE_NAMES } from '../features/edge.ts';
import type { FeatureOf } from '../features/feature.ts';
import type { ToolId } from '../shop/tools.ts';
import { schoolOf } from '../shop/schools.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import { joined } from './millingWords.ts';
import type { StepDraft } from './operation.ts';
import { stripThing, type Instruction } from './instruction.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { stripsOf } from '../board/recipe.ts';
import { boardsOf, cutsOf } from './boardWork.ts';

const MARK_TOOLS: Readonly<Record<FeatureOf<'mark'>['method'], ToolId>> = {
  laser: 'engraver',
  brand: 'brandingIron',
  router: 'router',
  inlay: 'router',
};
const MARK_WORDS: Readonly<Record<FeatureOf<'mark'>['method'], string>> = {
  laser: 'Engraver',
  brand: 'Branding iron',
  router: 'Router',
  inlay: 'Router',
};

/** When a mark is made: with the habit, or where the habit would lose it to a later step, before the grain is raised. */
export function markTime(
  mark: FeatureOf<'mark'>,
  shop: PlanContext['shop'],
  trim: { far: number; near: number },
): 'outerStrip' | 'beforeGrain' | 'last' {
  if (shop.schools.engraving !== 'outerStrip') return shop.schools.engraving;
  // A face is flattened and an end is cut off; only a long edge that is not trimmed keeps what was burnt into its strip.
  const kept =
    mark.face === 'far' ? trim.far < LENGTH_TOLERANCE_MM : mark.face === 'near' && trim.near < LENGTH_TOLERANCE_MM;
  return kept ? 'outerStrip' : 'beforeGrain';
}

/** Engraving and branding. @param when only the marks that are made then */
export function engravingStep(
  context: PlanContext,
  worked: WorkedBoard,
  when: 'outerStrip' | 'beforeGrain' | 'last',
): StepDraft[] {
  const { board, shop, allowances } = context;
  const { size, features } = worked;
  const layout = context.trim;
  const trim = { far: layout.boards[0]?.y ?? 0, near: layout.width - (layout.boards[0]?.y ?? 0) - size.width };
  const marks = features
    .filter((f) => f.kind === 'mark')
    .filter((m) => m.method !== 'inlay' && markTime(m, shop, trim) === when);
  if (marks.length === 0) return [];
  const school = schoolOf(shop.schools, 'engraving');
  const early = when === 'outerStrip';
  const panels = allowances.panels.length;
  // What flattening and sanding take off the show side before the mark is looked at.
  const above = early ? (allowances.glueThickness - size.thickness) / 2 : 0;
  const starts = early ? layout.boards.map((b) => b.x) : [0];
  const instructions = marks.map((m): Instruction => {
    const strip = m.face === 'far' ? 1 : stripsOf(board).length;
    const parts = early
      ? allowances.panels.map((_, k) => stripThing({ strip, copy: k + 1, spare: 0 }, panels))
      : boardsOf(board.count);
    return {
      do: 'work',
      parts,
      cuts: cutsOf(worked, m.id),
      what: 'mark',
      feature: m.id,
      place: m.face,
      tool: MARK_TOOLS[m.method],
      passes: null,
      figures: {
        times: starts.length,
        length: m.length,
        width: m.width,
        depth: m.depth,
        ...markFigures(m, size, above),
        ...Object.fromEntries(starts.map((x, i) => [`x${i + 1}`, x + m.x])),
      },
    };
  });
  return [
    {
      kind: 'engrave',
      about: when,
      title: marks.length === 1 ? say`Mark: ${firstOf(marks).name}` : say`${marks.length} marks`,
      school: 'engraving',
      machine: MARK_WORDS[firstOf(marks).method],
      instructions,
      lines: [
        ...marks.map((m) =>
          joined(
            say`${m.name}, ${MARK_WORDS[m.method].toLowerCase()}, ${early ? say`on the outer face of strip ${m.face === 'far' ? 1 : stripsOf(board).length}` : say`${MARK_PLACES[m.face]}`}: ${length(m.length)} by ${length(m.width)}, ${length(m.depth)} deep, its middle `,
            early
              ? joined(
                  ...starts.map((x, i) => joined(say`${i > 0 ? ' and ' : ''}`, say`${length(x + m.x)}`)),
                  say` from the strip's left end and ${length(m.y + above)} below what will be the show side`,
                )
              : markPlace(m, size),
          ),
        ),
        ...(shop.schools.engraving === 'outerStrip' && !early
          ? [say`The habit is an outer strip before the glue-up: there this mark would be planed or trimmed away`]
          : []),
      ],
      why: say`${school.why}`,
    },
  ];
}

export const MARK_PLACES: Readonly<Record<FeatureOf<'mark'>['face'], string>> = {
  top: 'show side',
  bottom: 'underside',
  ...SIDE_NAMES,
};

/** Where the middle of a mark is, measured from where a maker would. */
function markPlace(mark: FeatureOf<'mark'>, { width }: WorkedBoard['size']): Phrase {
  if (isSide(mark.face))
    return say`${length(mark.x)} from the ${isEnd(mark.face) ? 'far edge' : 'left end'} and ${length(mark.y)} below the show side`;
  return say`${length(mark.x)} from the left end and ${length(Math.min(mark.y, width - mark.y))} from the ${mark.y * 2 <= width ? 'far' : 'near'} edge`;
}

/** The figures that place a mark. */
export function markFigures(
  mark: FeatureOf<'mark'>,
  { width }: Pick<WorkedBoard['size'], 'width'>,
  above: number,
): Record<string, number> {
  return {
    x: mark.x,
    y: mark.y + above,
    across: isSide(mark.face) || !Number.isFinite(width) ? mark.y : Math.min(mark.y, width - mark.y),
  };
}
