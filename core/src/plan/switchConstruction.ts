import { allowancesFor } from '../board/allowances.ts';
import type { Board, Construction } from '../board/board.ts';
import { madeFor } from '../board/madeFor.ts';
import { sectionsFor, type Section } from '../cutting/sections.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { NOTHING_SAWN, type PlanInput } from '../saw/planInput.ts';
import { makePlan } from './plan.ts';
import { flatRecipe, GREATEST_STRIP_COUNT, type Strip, stripsOf } from '../board/recipe.ts';

export interface SwitchedBoard {
  board: Board;
  /** What changes, a sentence each. */
  changes: Phrase[];
}

const NAMES: Readonly<Record<Construction, string>> = { edge: 'Edge grain', face: 'Face grain' };

/**
 * The board with the same stock in the other construction. To face grain, strips keep their widths, ripped from the broad face, unless no piece is that wide. To
 * edge grain, stock thickness decides: a wide strip becomes several as thick as its piece planes to.
 * @param newId ids for strips that are added
 */
export function switchConstruction(input: PlanInput, construction: Construction, newId: () => string): SwitchedBoard {
  const { board, rack, shop } = input;
  if (board.construction === construction) return { board, changes: [] };
  const before = makePlan(input);
  const bare: Board = { ...board, construction };
  const sections = sectionsFor(
    bare,
    allowancesFor(bare, shop, madeFor(bare, input.facts)),
    rack,
    shop,
    (input.saw ?? NOTHING_SAWN).promised,
  ).filter((s) => !s.resawn);
  const changes: Phrase[] = [];
  const strips = stripsOf(board)
    .flatMap((strip, i): Strip[] => {
      // One that was rolled lies the new way already.
      if (strip.rolled) return [{ ...strip, rolled: false }];
      const section = nearest(sections, strip, before.strips[i]?.sources[0]?.pieceId, construction);
      if (!section) {
        changes.push(
          say`Strip ${i + 1}: no piece of its species gives a strip this way; it keeps ${length(strip.width)}.`,
        );
        return [strip];
      }
      if (construction === 'face') {
        if (section.width >= strip.width - LENGTH_TOLERANCE_MM) return [strip];
        changes.push(
          say`Strip ${i + 1} goes from ${length(strip.width)} to ${length(section.width)}, the widest that rips from ${section.mark}.`,
        );
        return [{ ...strip, width: section.width }];
      }
      const count = Math.max(1, Math.round(strip.width / section.width));
      if (count > 1 || Math.abs(section.width - strip.width) > LENGTH_TOLERANCE_MM) {
        changes.push(
          count > 1
            ? say`Strip ${i + 1} of ${length(strip.width)} becomes ${count} strips of ${length(section.width)} from ${section.mark}.`
            : say`Strip ${i + 1} goes from ${length(strip.width)} to ${length(section.width)}, the thickness of ${section.mark}.`,
        );
      }
      return Array.from({ length: count }, (_, n) => ({
        ...strip,
        id: n === 0 ? strip.id : newId(),
        width: section.width,
      }));
    })
    .slice(0, GREATEST_STRIP_COUNT);
  const after: Board = { ...bare, recipe: flatRecipe(strips) };
  if (strips.length === 0) return { board: after, changes };
  const plan = makePlan({ ...input, board: after });
  const told = (name: string, one: number, two: number) =>
    Math.abs(one - two) > 0.05 ? [say`${name}: ${length(one)} before, ${length(two)} now.`] : [];
  return {
    board: after,
    changes: [
      say`${NAMES[construction]}: ${construction === 'edge' ? "stock thickness shows as width; the rip decides the board's thickness" : "the rip shows as width; the stock decides the board's thickness"}.`,
      ...changes,
      ...(strips.length === stripsOf(board).length
        ? []
        : [say`${stripsOf(board).length} strips before, ${strips.length} now.`]),
      ...told('Panel width', before.panelWidth, plan.panelWidth),
      ...told('Thickness that can be reached', before.ladders.thickness.reached, plan.ladders.thickness.reached),
      ...told('Movement through the year', before.movement.across, plan.movement.across),
    ],
  };
}

/** The section a strip is made from anew: of its own piece where that gives one, else the nearest in width of its species. */
function nearest(
  sections: readonly Section[],
  strip: Strip,
  pieceId: string | undefined,
  construction: Construction,
): Section | undefined {
  const mine = sections.filter((s) => s.species === strip.species);
  const own = mine.filter((s) => s.pieceId === pieceId);
  const choice = own.length > 0 ? own : mine;
  if (construction === 'face')
    return choice.reduce<Section | undefined>((best, s) => (!best || s.width > best.width ? s : best), undefined);
  const remainder = (s: Section) => Math.abs(strip.width - Math.max(1, Math.round(strip.width / s.width)) * s.width);
  return choice.reduce<Section | undefined>(
    (best, s) => (!best || remainder(s) < remainder(best) - LENGTH_TOLERANCE_MM ? s : best),
    undefined,
  );
}
