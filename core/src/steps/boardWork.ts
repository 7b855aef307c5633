import type { Cut } from '../features/edgeCuts.ts';
import type { ToolId } from '../shop/tools.ts';

import { boardThing, type InstructionOf, type Thing, type WorkKind } from './instruction.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';

/** Minutes (common practice): to make a template, and to set up a table for holds. */
export const TEMPLATE_MINUTES = 15;
export const TABLE_MINUTES = 12;

export const boardsOf = (count: number): Thing[] => Array.from({ length: count }, (_, i) => boardThing(i + 1));

/** One feature worked into every board. @param figures what the step says of it, mm */
export function work(
  count: number,
  what: WorkKind,
  feature: string,
  cuts: Cut[],
  tool: ToolId,
  passes: number | null,
  figures: Record<string, number>,
): InstructionOf<'work'> {
  return { do: 'work', parts: boardsOf(count), cuts, what, feature, place: '', tool, passes, figures };
}

/** What a feature takes out of the finished board. */
export function cutsOf({ solids }: WorkedBoard, feature: string): Cut[] {
  return solids.filter((s) => s.feature === feature).map(({ outlines, from, to }) => ({ outlines, from, to }));
}
