import { length, say } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { StepDraft } from './operation.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { work, cutsOf } from './boardWork.ts';
import { askedFeet } from './footSteps.ts';

export function boreSteps({ board }: PlanContext, worked: WorkedBoard): StepDraft[] {
  const { size, features, sanded } = worked;
  return features.flatMap((f): StepDraft[] => {
    if (f.kind === 'handle') {
      return [
        {
          kind: 'handles',
          about: f.id,
          title: f.bores === 1 ? say`Bores for loops` : say`Bores for handles`,
          machine: 'Drill',
          instructions: [
            work(board.count, 'handle', f.id, cutsOf(worked, f.id), 'drill', null, {
              bores: 2 * f.bores * 2,
              bore: f.bore,
              counterbore: f.counterbore,
              inset: f.inset,
              spacing: f.spacing,
              sinkTop: f.sinkTop > 0 ? f.sinkTop + sanded : 0,
              sinkBottom: f.sinkBottom > 0 ? f.sinkBottom + sanded : 0,
              between: size.thickness - f.sinkTop - f.sinkBottom,
            }),
          ],
          settings: [
            { label: 'Bore', value: length(f.bore) },
            ...(f.sinkTop + f.sinkBottom > 0 ? [{ label: 'Counterbore', value: length(f.counterbore) }] : []),
          ],
          lines: [
            say`${length(f.inset)} in from the ${f.on === 'ends' ? 'ends' : 'long edges'}, ${f.bores === 1 ? say`in the middle` : say`${length(f.spacing)} apart, the middle between them on the board's middle`}`,
            ...(f.sinkTop + f.sinkBottom > 0
              ? [
                  say`Counterbores first: ${length(f.sinkTop > 0 ? f.sinkTop + sanded : 0)} deep above, ${length(f.sinkBottom > 0 ? f.sinkBottom + sanded : 0)} below, with what sanding takes; then through, so that the point of the bit finds the middle`,
                ]
              : [say`Through from both faces`]),
            ...(f.bores === 2
              ? [
                  say`${length(size.thickness - f.sinkTop - f.sinkBottom)} of wood is between head and handle: bolts to suit`,
                ]
              : [say`Ease both rims: a rope wears on a sharp one`]),
          ],
          why: say`A counterbore cannot be drilled where its middle is already gone.`,
        },
      ];
    }
    if (f.kind === 'feet' && f.boreDepth > 0) {
      return [
        {
          kind: 'bores',
          about: f.id,
          title: say`Shallow bores for ${f.count} feet${board.count > 1 ? ` a board, ${f.count * board.count} in all` : ''}`,
          ...askedFeet(board, f),
          machine: 'Drill',
          instructions: [
            work(board.count, 'footBores', f.id, cutsOf(worked, f.id), 'drill', null, {
              bores: f.count,
              bore: f.bore,
              depth: f.boreDepth + sanded,
              inset: f.inset,
              left: f.boreDepth,
            }),
          ],
          settings: [
            { label: 'Bore', value: length(f.bore) },
            { label: 'Depth', value: length(f.boreDepth + sanded) },
          ],
          lines: [
            say`${length(f.inset)} in from both edges, flat-bottomed; ${length(f.boreDepth)} is left once it is sanded; pilot holes for the screws, a stop on the bit`,
          ],
          why: say`Before oil, so that the bores drink too; the feet come last.`,
        },
      ];
    }
    return [];
  });
}
