import type { Inset } from '../board/inset.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from './context.ts';
import { asTheyAre, buildLadder, startOf, type Dimension, type Ladder, type RungSpec } from './ladder.ts';
import { sandedOff } from './gluedThickness.ts';
import { faceRungs } from './measuredRungs.ts';

/**
 * The ladders of a board that strips are put into: those of its first panel, with what is put in, and what the block takes.
 * @param last what is shared from the parts on @param first ladders of the first panel
 */
export function insetLadders(
  last: PlanContext,
  inset: Inset,
  first: Record<Dimension, Ladder>,
): Record<Dimension, Ladder> {
  const { board, wished } = last;
  const count = inset.inserts.length;
  const thickness: RungSpec[] = [
    ...asTheyAre(first.thickness),
    ...faceRungs(
      last,
      {
        id: 'flatten-panel',
        label: say`Flatten the block`,
        taken: inset.flatten,
        habit: 'panelFlatten',
        why: say`What was put in stands over the parts, and parts never lie quite level; both faces are flattened.`,
      },
      {
        id: 'sand',
        label: say`Sand both faces`,
        taken: sandedOff(last),
        habit: 'sanding',
        why: say`Sanding marks go, half off each face.`,
      },
    ),
  ];
  const width: RungSpec[] = [
    ...asTheyAre(first.width),
    {
      id: 'steps',
      label: say`Jogged parts`,
      taken: inset.trueWidth - inset.block.width,
      source: 'sizes',
      why: say`Parts that step beside each other lose the step at both edges.`,
    },
    {
      id: 'trim-edges',
      label: say`Trim both long edges`,
      taken: inset.block.width - board.width,
      ...(inset.block.width - board.width > 2 * inset.rowTrim + 1e-6 ? {} : { habit: 'panelEdgeTrim' as const }),
      why: say`What was put in reaches over the edges, and parts slide: at least ${length(inset.rowTrim)} a side makes them straight again.`,
    },
  ];
  const longer = inset.panelLength - inset.block.length;
  const put: RungSpec = {
    id: 'insert',
    label: say`Saw through and put ${count === 1 ? say`a strip` : say`${count} strips`} in`,
    taken: longer,
    source: 'sizes',
    why: say`Each is as wide as it is, and each cut takes its kerf: ${length(Math.abs(longer))} ${longer < 0 ? 'longer' : 'shorter'} all together.`,
  };
  // The panel is sawn through before its ends are trimmed.
  const along = asTheyAre(first.length);
  const ends = along.findIndex((r) => r.id === 'panel-first-end');
  const length_ = ends < 0 ? [...along, put] : [...along.slice(0, ends), put, ...along.slice(ends)];
  return {
    thickness: buildLadder(
      'thickness',
      startOf(first.thickness),
      wished.thickness,
      thickness,
      first.thickness.limiting,
    ),
    width: buildLadder('width', startOf(first.width), wished.width, width, first.width.limiting),
    length: buildLadder('length', startOf(first.length), wished.length, length_, first.length.limiting),
  };
}
