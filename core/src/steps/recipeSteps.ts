import type { WorkedBoard } from '../bodies/workedBoard.ts';
import type { RecipeOperation } from '../board/recipe.ts';
import type { GluePlan } from '../gluing/glueUps.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { Dimension, Ladder } from '../ladders/ladder.ts';
import { glueSteps } from './glueSteps.ts';
import { engravingStep } from './markSteps.ts';
import { millingSteps } from './milling.ts';
import type { StepDraft } from './operation.ts';
import { stackSteps, type StackKnown } from './stackSteps.ts';

/** What is known of a board when its steps are written. */
export interface Known {
  context: PlanContext;
  ladders: Pick<Record<Dimension, Ladder>, 'thickness' | 'width'>;
  gluing: GluePlan;
  /** Of what bits its accents are resawn; none for most boards. */
  stacks: readonly StackKnown[];
  worked: WorkedBoard;
}

/** The steps of all operations of one kind, whose instructions they are made of: a new kind is one more line. What is branded into an outer strip is done while the strip is still on its own. */
const STEPS_OF: { [K in RecipeOperation['kind']]: (known: Known) => StepDraft[] } = {
  strip: ({ context, worked }) => [...millingSteps(context), ...engravingStep(context, worked, 'outerStrip')],
  stack: ({ context, stacks }) => stackSteps(context, stacks),
  glue: ({ context, gluing }) => glueSteps(context, gluing),
  // Slices, rows and parts come after the first panel is flat (`againOperations`).
  slice: () => [],
  turn: () => [],
  insert: () => [],
  frame: () => [],
  back: () => [],
};

/** The steps of a recipe up to its panel, in its order; all that are alike go through together, as a maker works. */
export function recipeSteps(known: Known): StepDraft[] {
  const kinds = new Set(known.context.board.recipe.map((o) => o.kind));
  return [...kinds].flatMap((kind) => STEPS_OF[kind](known));
}
