import { nth } from '../lists/there.ts';
import type { GluePlan } from '../gluing/glueUps.ts';
import { cautionsFor } from './cautions.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { Surface } from '../finish/surfaces.ts';
import { finishSteps } from './finishSteps.ts';
import type { Ladder } from '../ladders/ladder.ts';
import { handMinutes } from './handMinutes.ts';
import { recipeSteps, type Known } from './recipeSteps.ts';
import type { Operation, StepDraft } from './operation.ts';
import { resourcesOf } from './resources.ts';
import { panelFlatteningWays, panelSteps } from './panelSteps.ts';
import { toolOf, wayTaken } from './ways.ts';
import type { ToolId } from '../shop/tools.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { engravingStep } from './markSteps.ts';
import { fitSteps, footSteps } from './footSteps.ts';
import { inlaySteps } from './inlaySteps.ts';
import { workingSteps } from './workingSteps.ts';
import { stripsOf } from '../board/recipe.ts';

/**
 * The ordered steps from rough crosscut to the finished board, batched as a maker works: all pieces through one machine at one setting.
 * @returns an empty list while there are no strips
 */
export function operationsFor(
  context: PlanContext,
  ladders: { thickness: Ladder; width: Ladder },
  gluing: GluePlan,
  worked: WorkedBoard,
  surfaces: readonly Surface[],
  stacks: Known['stacks'] = [],
): Operation[] {
  if (stripsOf(context.board).length === 0) return [];
  const made = recipeSteps({ context, ladders, gluing, stacks, worked });
  const sections = made.some((s) => s.kind === 'flattenSections');
  const flattened = toolOf(wayTaken(panelFlatteningWays(context, sections), context.shop.schools.flatten));
  return numbered(
    [
      ...made,
      ...panelSteps(context, ladders, sections),
      ...boardSteps({ context, ladders, worked, surfaces }, flattened),
    ],
    context,
  );
}

/** What is known of boards that are cut to size. */
export interface LastKnown extends Pick<Known, 'context' | 'ladders' | 'worked'> {
  /** The sides of one of them. */
  surfaces: readonly Surface[];
}

/** What is worked into boards once they are cut to size, up to the last coat. @param flattened with what their faces were made flat */
export function boardSteps({ context, ladders, worked, surfaces }: LastKnown, flattened: ToolId): StepDraft[] {
  return [
    ...inlaySteps(context, worked),
    ...workingSteps(context, worked),
    ...finishSteps(context, ladders, engravingStep(context, worked, 'beforeGrain'), flattened, surfaces),
    ...engravingStep(context, worked, 'last'),
    ...fitSteps(context, worked),
    ...footSteps(context, worked),
  ];
}

/** Steps with their ids, what they come after, and everything that is read off their instructions. */
export function numbered(drafts: readonly StepDraft[], context: Pick<PlanContext, 'shop'>): Operation[] {
  const ids = drafts.map(({ kind, about }) => (about === undefined ? kind : `${kind}:${about}`));
  const after = orderOf(drafts, ids);
  return drafts.map(({ taken = null, about: _, ...draft }, i) => ({
    id: nth(ids, i),
    after: nth(after, i),
    resources: resourcesOf(draft.instructions),
    settings: [],
    parts: [],
    passes: null,
    machine: taken?.name ?? null,
    repeats: 1,
    minutes: ((taken?.minutes ?? 0) + handMinutes(draft.instructions, context.shop.pace.work)) / (draft.repeats ?? 1),
    stayMinutes: 0,
    waitMinutes: null,
    waitFor: null,
    glueUp: null,
    joins: [],
    habit: null,
    school: null,
    ways: [],
    cautions: cautionsFor(draft.kind, draft.instructions),
    ...draft,
    number: i + 1,
  }));
}

/** What each step comes after: a glue-up what was done before the first of them, and what it joins; everything else the step before it, or all glue-ups that are still open. */
function orderOf(drafts: readonly StepDraft[], ids: readonly string[]): string[][] {
  let barrier: string[] = [];
  let open: string[] = [];
  return drafts.map(({ glueUp = null, joins = [] }, i) => {
    if (glueUp === null) {
      const before = open.length > 0 ? open : barrier;
      [barrier, open] = [[nth(ids, i)], []];
      return before;
    }
    open = [...open, nth(ids, i)];
    return [...barrier, ...drafts.flatMap((d, k) => (d.glueUp && joins.includes(d.glueUp) ? [nth(ids, k)] : []))];
  });
}
