import type { FeatureOf } from '../features/feature.ts';
import { fenceMark } from '../features/solids.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { length, say } from '../units/phrase.ts';
import { routed, TABLE_MINUTES, TEMPLATE_MINUTES } from './boardWork.ts';
import { routerPasses } from './routerPasses.ts';
import { joined } from './millingWords.ts';
import type { StepDraft } from './operation.ts';

/** Bit that follows the template of a hand hole, mm (common practice). */
const TEMPLATE_BIT = 12;

export function holdSteps(context: PlanContext, worked: WorkedBoard): StepDraft[] {
  return worked.features.flatMap((f) =>
    f.kind === 'finger' ? [fingerStep(context, worked, f)] : f.kind === 'hole' ? [holeStep(context, worked, f)] : [],
  );
}

function fingerStep(context: PlanContext, worked: WorkedBoard, f: FeatureOf<'finger'>): StepDraft {
  const passes = routerPasses(f.bit, f.depth);
  const mark = fenceMark(f, worked.size);
  const up = f.up + worked.sanded;
  const { byRouter, ...cut } = routed(context, worked, {
    what: 'finger',
    feature: f.id,
    travel: 2 * f.length * passes,
    setUp: TABLE_MINUTES,
    byHand: 'gouge',
    byHandName: 'Gouge and rasp',
    passes,
    figures: { bit: f.bit, depth: f.depth, mark, length: f.length, up },
  });
  const height =
    f.shape === 'cove'
      ? say`middle ${length(up)} above the underside as it is before sanding`
      : say`up to ${length(up)} above the underside as it is before sanding`;
  return {
    ...cut,
    kind: 'holds',
    title: say`Finger holds in both ${f.on === 'ends' ? 'ends' : 'long edges'}`,
    settings: [
      { label: f.shape === 'cove' ? 'Cove bit' : 'Chamfer bit', value: length(f.bit) },
      { label: 'Into the edge', value: length(f.depth) },
      { label: 'Marks from the middle of the bit', value: length(mark) },
    ],
    lines: [
      say`${length(f.length)} long, in the middle; ${height}`,
      ...(byRouter
        ? [
            say`Router table: a mark on the fence ${length(mark)} from the middle of the bit on either side. Pivot in with the leading end at the far mark, stop when the trailing end is at the near one, pivot out`,
            say`${passes} ${passes === 1 ? 'pass' : 'passes'}, the fence moved back each time`,
          ]
        : []),
    ],
    why: say`Both stops the same, and both holds come out in the middle.`,
  };
}

function holeStep(context: PlanContext, worked: WorkedBoard, f: FeatureOf<'hole'>): StepDraft {
  const passes = routerPasses(TEMPLATE_BIT, worked.size.thickness + 2 * worked.sanded);
  const slot = f.length > f.width;
  const { byRouter, ...cut } = routed(context, worked, {
    what: 'hole',
    feature: f.id,
    travel: 2 * 2 * (f.length + f.width) * passes,
    setUp: TEMPLATE_MINUTES,
    byHand: 'jigsaw',
    byHandName: 'Jigsaw and rasp',
    passes: null,
    figures: { bores: slot ? 4 : 2, length: f.length, width: f.width, inset: f.inset },
  });
  return {
    ...cut,
    kind: 'holds',
    title: say`Hand holes behind both ${f.on === 'ends' ? 'ends' : 'long edges'}`,
    settings: [
      { label: 'Long', value: length(f.length) },
      { label: 'Wide', value: length(f.width) },
      { label: 'Behind the edge', value: length(f.inset) },
    ],
    lines: [
      say`${length(f.length)} by ${length(f.width)}, in the middle, ${length(f.inset)} behind the edge`,
      joined(
        slot
          ? say`Bore ${length(f.width)} at both ends of each slot, saw out between, `
          : say`Bore ${length(f.width)}, `,
        byRouter ? say`flush to the template with a bearing bit from both faces` : say`rasp to the line`,
      ),
      say`Ease both rims by hand`,
    ],
    why: say`From both faces the rims stay whole.`,
  };
}
