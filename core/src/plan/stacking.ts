import type { Stack } from '../board/stack.ts';
import { STACKS } from '../gluing/glueRun.ts';
import { planGlueUps } from '../gluing/glueUps.ts';
import type { PlanContext } from '../ladders/context.ts';
import { glueThicknessReached } from '../ladders/gluedThickness.ts';
import { hardestOf } from '../steps/hardest.ts';
import type { StackKnown } from '../steps/stackSteps.ts';

/** How the bits of each stack are glued, end to end: joints as large as a bit is across, pressed along the stack. */
export function stacksGlued(context: PlanContext): StackKnown[] {
  return context.stacks.map((stack, k) => ({ stack, gluing: bitsGlued(context, stack, k + 1) }));
}

function bitsGlued(context: PlanContext, stack: Stack, number: number): StackKnown['gluing'] {
  const { board, shop } = context;
  const plan = planGlueUps(
    {
      widths: stack.bits.map((b) => b.length),
      ids: stack.bits.map((_, i) => `${stack.operation.id}/${i + 1}`),
      symmetrical: false,
      length: stack.depth,
      height: glueThicknessReached(context),
      hardness: hardestOf(
        context,
        stack.sticks.map((s) => s.strip),
      ),
      helper: board.gluing.helper,
      groups: null,
      flattens: Infinity,
    },
    shop,
  );
  return { ...plan, glueUps: plan.glueUps.map((g) => ({ ...g, name: `${STACKS}${number}.${g.name.slice(1)}` })) };
}
