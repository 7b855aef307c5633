import { fenceMark } from '../features/solids.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from '../ladders/context.ts';
import { joined } from './millingWords.ts';
import type { StepDraft } from './operation.ts';
import { routedWays } from './toolWays.ts';
import { toolOf } from './ways.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { routerPasses } from './grooveSteps.ts';
import { boardsOf, TABLE_MINUTES, work, cutsOf, TEMPLATE_MINUTES } from './boardWork.ts';

export function holdSteps({ board, shop }: PlanContext, worked: WorkedBoard): StepDraft[] {
  const { size, features, sanded } = worked;
  return features.flatMap((f): StepDraft[] => {
    if (f.kind === 'finger') {
      const passes = routerPasses(f.bit, f.depth);
      const travel = 2 * f.length * passes;
      const { ways, taken } = routedWays(
        shop,
        { parts: boardsOf(board.count), figures: { travel } },
        TABLE_MINUTES,
        'gouge',
        'Gouge and rasp',
      );
      const mark = fenceMark(f, size);
      return [
        {
          kind: 'holds',
          about: f.id,
          title: say`Finger holds in both ${f.on === 'ends' ? 'ends' : 'long edges'}`,
          taken,
          ways,
          passes: toolOf(taken) === 'router' ? passes : null,
          instructions: [
            work(
              board.count,
              'finger',
              f.id,
              cutsOf(worked, f.id),
              toolOf(taken),
              toolOf(taken) === 'router' ? passes : null,
              { travel, bit: f.bit, depth: f.depth, mark, length: f.length, up: f.up + sanded },
            ),
          ],
          settings: [
            { label: f.shape === 'cove' ? 'Cove bit' : 'Chamfer bit', value: length(f.bit) },
            { label: 'Into the edge', value: length(f.depth) },
            { label: 'Marks from the middle of the bit', value: length(mark) },
          ],
          lines: [
            say`${length(f.length)} long, in the middle; ${f.shape === 'cove' ? joined(say`middle ${length(f.up + sanded)} above the underside as it is before sanding`) : joined(say`up to ${length(f.up + sanded)} above the underside as it is before sanding`)}`,
            ...(toolOf(taken) === 'router'
              ? [
                  say`Router table: a mark on the fence ${length(mark)} from the middle of the bit on either side. Pivot in with the leading end at the far mark, stop when the trailing end is at the near one, pivot out`,
                  say`${passes} ${passes === 1 ? 'pass' : 'passes'}, the fence moved back each time`,
                ]
              : []),
          ],
          why: say`Both stops the same, and both holds come out in the middle.`,
        },
      ];
    }
    if (f.kind === 'hole') {
      const passes = routerPasses(12, size.thickness + 2 * sanded);
      const travel = 2 * 2 * (f.length + f.width) * passes;
      const { ways, taken } = routedWays(
        shop,
        { parts: boardsOf(board.count), figures: { travel } },
        TEMPLATE_MINUTES,
        'jigsaw',
        'Jigsaw and rasp',
      );
      return [
        {
          kind: 'holds',
          about: f.id,
          title: say`Hand holes behind both ${f.on === 'ends' ? 'ends' : 'long edges'}`,
          taken,
          ways,
          instructions: [
            work(board.count, 'hole', f.id, cutsOf(worked, f.id), toolOf(taken), null, {
              travel,
              bores: f.length > f.width ? 4 : 2,
              length: f.length,
              width: f.width,
              inset: f.inset,
            }),
          ],
          settings: [
            { label: 'Long', value: length(f.length) },
            { label: 'Wide', value: length(f.width) },
            { label: 'Behind the edge', value: length(f.inset) },
          ],
          lines: [
            say`${length(f.length)} by ${length(f.width)}, in the middle, ${length(f.inset)} behind the edge`,
            joined(
              f.length > f.width
                ? say`Bore ${length(f.width)} at both ends of each slot, saw out between, `
                : say`Bore ${length(f.width)}, `,
              say`${toolOf(taken) === 'router' ? 'flush to the template with a bearing bit from both faces' : 'rasp to the line'}`,
            ),
            say`Ease both rims by hand`,
          ],
          why: say`From both faces the rims stay whole.`,
        },
      ];
    }
    return [];
  });
}
