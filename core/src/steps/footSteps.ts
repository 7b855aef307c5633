import type { FeatureOf } from '../features/feature.ts';
import { schoolOf } from '../shop/schools.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { StepDraft } from './operation.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { boardsOf, cutsOf } from './boardWork.ts';

/** Handles and loops go on after the finish: oil would not get beneath them. */
export function fitSteps({ board }: PlanContext, worked: WorkedBoard): StepDraft[] {
  return worked.features
    .filter((f) => f.kind === 'handle')
    .map((f) => {
      const loop = f.bores === 1;
      // One at each end, or along each edge.
      const all = 2 * board.count;
      return {
        kind: 'fit',
        about: f.id,
        title: loop ? say`Tie the loops` : say`Bolt on the handles`,
        instructions: [
          {
            do: 'fit',
            parts: boardsOf(board.count),
            feature: f.id,
            what: loop ? 'loop' : 'handle',
            count: 2,
            bore: f.bore,
          },
        ],
        lines: [
          loop
            ? say`${all} loops: rope through the bores of ${length(f.bore)}, a knot that does not slip through, ends sealed`
            : say`${all} handles, their bolts from below${f.sinkBottom > 0 ? ', heads in their counterbores' : ''}; by hand, until they just hold: tighter crushes the wood`,
        ],
        why: say`On before the finish, it would stay bare beneath them, and they would be in the way of every paper.`,
      };
    });
}

/** Feet come last of all: after oil and wax. */
export function footSteps({ board, shop }: PlanContext, worked: WorkedBoard): StepDraft[] {
  return worked.features
    .filter((f) => f.kind === 'feet')
    .map((f) => ({
      kind: 'feet',
      about: f.id,
      title: say`Screw on the feet`,
      ...askedFeet(board, f),
      instructions: [
        {
          do: 'feet',
          parts: boardsOf(board.count),
          cuts: cutsOf(worked, f.id),
          count: f.count,
          screw: f.screw,
          depth: f.screwDepth,
        },
      ],
      lines: [
        say`${f.count} feet${board.count > 1 ? ` a board, ${f.count * board.count} in all` : ''}, screws of ${length(f.screw)} that go ${length(f.screwDepth)} into the wood, none into a joint; by hand, until they just hold`,
      ],
      why: say`${schoolOf(shop.schools, 'feet').why} Oil creeps under feet that are on already.`,
    }));
}

/** The shop's question decided it only where the board says nothing itself. */
export const askedFeet = ({ worked }: PlanContext['board'], feet: FeatureOf<'feet'>): Pick<StepDraft, 'school'> =>
  worked.features.includes(feet) ? {} : { school: 'feet' };
