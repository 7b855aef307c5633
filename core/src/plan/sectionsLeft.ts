import { entryOf } from '../lists/there.ts';
import { edgeRip, faceRip } from '../board/allowances.ts';
import type { PromisedRange } from '../cutting/cutPlan.ts';
import type { Section } from '../cutting/sections.ts';
import { stripsOfAll } from '../cutting/usable.ts';
import { NOTHING_SAWN, type PlanInput } from '../saw/planInput.ts';
import type { Plan } from './plan.ts';

/** What names a section: equal ones of one piece are the same. */
export function sectionKey({ pieceId, width, resawn }: Pick<Section, 'pieceId' | 'width' | 'resawn'>): string {
  return `${pieceId}/${width}/${resawn}`;
}

/** How many strips of each section are left once this board and those that have wood promised are cut. */
export function sectionsLeft(
  { sections, cutting, allowances }: Pick<Plan, 'sections' | 'cutting' | 'allowances'>,
  { board, rack, shop, saw = NOTHING_SAWN }: PlanInput,
): Map<string, number> {
  const mine: PromisedRange[] = cutting.blanks
    .filter((b) => !b.done)
    .map((b) => ({ pieceId: b.pieceId, unit: b.unit, from: b.from, to: b.from + b.length }));
  const taken = [...saw.promised, ...mine];
  const pieces = new Map(rack.map((p) => [p.id, p]));
  return new Map(
    sections.map((section) => {
      const piece = entryOf(pieces, section.pieceId);
      const way =
        board.construction === 'edge'
          ? { shows: 'edge' as const, rip: edgeRip(allowances, section.width), thickness: section.width }
          : {
              shows: 'face' as const,
              rip: faceRip(allowances, section.width),
              thickness: Math.max(1, allowances.glueThickness - section.tooThinBy),
            };
      return [
        sectionKey(section),
        stripsOfAll(piece, shop, allowances.roughLength, way, taken) * (section.resawn ? 2 : 1),
      ];
    }),
  );
}
