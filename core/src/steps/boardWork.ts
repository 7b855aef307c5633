import type { Cut } from '../features/edgeCuts.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { ToolId } from '../shop/tools.ts';
import { boardThing, type InstructionOf, type Thing, type WorkKind } from './instruction.ts';
import type { StepDraft } from './operation.ts';
import { routedWays } from './toolWays.ts';
import { toolOf } from './ways.ts';
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

/** A feature that a router cuts, or something slower by hand. */
interface Routed {
  what: WorkKind;
  /** Id of the feature. */
  feature: string;
  /** How far the bit runs on one board, all passes together, mm. */
  travel: number;
  /** Minutes until the first cut. */
  setUp: number;
  byHand: 'gouge' | 'jigsaw';
  byHandName: string;
  /** Of the router; null where they are not told. */
  passes: number | null;
  figures: Record<string, number>;
}

/** Who cuts it, and the one instruction that says so. */
export function routed(
  { board, shop }: Pick<PlanContext, 'board' | 'shop'>,
  worked: WorkedBoard,
  { what, feature, travel, setUp, byHand, byHandName, passes, figures }: Routed,
): Pick<StepDraft, 'about' | 'taken' | 'ways' | 'passes' | 'instructions'> & { byRouter: boolean } {
  const { ways, taken } = routedWays(
    shop,
    { parts: boardsOf(board.count), figures: { travel } },
    setUp,
    byHand,
    byHandName,
  );
  const tool = toolOf(taken);
  const byRouter = tool === 'router';
  const told = byRouter ? passes : null;
  return {
    byRouter,
    about: feature,
    taken,
    ways,
    passes: told,
    instructions: [work(board.count, what, feature, cutsOf(worked, feature), tool, told, { travel, ...figures })],
  };
}
