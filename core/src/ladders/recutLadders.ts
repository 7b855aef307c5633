import type { Recut } from '../board/recut.ts';
import { length, say } from '../units/phrase.ts';
import type { PlanContext } from './context.ts';
import { asTheyAre, buildLadder, startOf, type Dimension, type Ladder, type RungSpec } from './ladder.ts';
import { sandedOff } from './gluedThickness.ts';
import { faceRungs } from './measuredRungs.ts';

/**
 * The ladders of a board that is cut again: each dimension runs through the first panel, the slices and the rows to the board. Which dimension of the panel becomes which of the board follows from how
 * slices are turned and laid: a slice turned up is as high as it was sawn and adds the panel's thickness to the board's length.
 * @param last what is shared from the rows on @param first ladders of the first panel
 */
export function recutLadders(
  last: PlanContext,
  recut: Recut,
  first: Record<Dimension, Ladder>,
): Record<Dimension, Ladder> {
  const { board } = last;
  const across = recut.last.runs === 'across';
  const { pitch, kerf, rows, row, up, angle, slices } = recut;
  const flat = faceRungs(
    last,
    {
      id: 'flatten-panel',
      label: up ? say`Flatten the end grain` : say`Flatten the rows`,
      taken: recut.flatten,
      habit: up ? 'endGrainFlatten' : 'panelFlatten',
      why: up
        ? say`Rows never lie level, and end grain is worked slowly: more goes off than of long grain, both faces together.`
        : say`Rows never lie quite level; both faces are flattened.`,
    },
    {
      id: 'sand',
      label: say`Sand both faces`,
      taken: sandedOff(last),
      habit: 'sanding',
      why: say`Sanding marks go, half off each face.`,
    },
  );
  // Of the panel's length each slice takes its own; the rest of it is other slices.
  const sliced: RungSpec = {
    id: 'slice',
    label: say`Saw ${slices.reduce((a, b) => a + b, 0)} slices of ${length(pitch)}`,
    taken: startOf(first.length) - first.length.rungs.reduce((sum, r) => sum + r.taken, 0) - pitch,
    source: 'machine',
    why: say`Each slice and its kerf of ${length(kerf)} come off the panel one after the other; this is what is left of its length for one.`,
  };
  const stacked = (size: number): RungSpec => ({
    id: 'rows',
    label: say`Glue ${rows} rows side by side`,
    taken: size - rows * row,
    why: say`Every row adds ${length(row)}.`,
  });
  const trim = (id: string, from: number, to: number, why: RungSpec['why']): RungSpec => ({
    id,
    label: id === 'trim-edges' ? say`Trim both long edges` : say`Trim both ends`,
    taken: from - to,
    ...(from - to > 2 * recut.rowTrim + 1e-6 ? {} : { habit: 'panelEdgeTrim' as const }),
    why,
  });
  const rowWhy = say`Rows creep and never end in one line: at least ${length(recut.rowTrim)} goes off each end of them.`;
  const stackWhy = say`The outer faces of the outer rows are clean; what is more than the board wants comes off.`;
  const leaning: RungSpec = {
    id: 'slant',
    label: angle === 0 ? say`Shifted rows` : say`Cut at ${Math.abs(angle)}°`,
    taken: recut.trueWidth - recut.rowLength,
    source: 'sizes',
    why:
      angle === 0
        ? say`Rows that are shifted lose their shift at the ends.`
        : say`A slice runs slanted over the panel, and is longer for it; its slanted ends are trimmed away.`,
  };
  const thick = first.thickness.reached;
  const height: RungSpec[] = up
    ? [...asTheyAre(first.length), sliced, ...flat]
    : [...asTheyAre(first.thickness), ...flat];
  const stackStart = up ? first.thickness : first.length;
  const stack: RungSpec[] = up
    ? [...asTheyAre(first.thickness), stacked(thick)]
    : [...asTheyAre(first.length), sliced, stacked(pitch)];
  const rowsLong: RungSpec[] = [...asTheyAre(first.width), leaning];
  const size = { stack: rows * row, row: recut.rowLength };
  const [long, wide] = across
    ? ([
        [stackStart, [...stack, trim('first-end', size.stack, board.length, stackWhy)]],
        [first.width, [...rowsLong, trim('trim-edges', size.row, board.width, rowWhy)]],
      ] as const)
    : ([
        [first.width, [...rowsLong, trim('first-end', size.row, board.length, rowWhy)]],
        [stackStart, [...stack, trim('trim-edges', size.stack, board.width, stackWhy)]],
      ] as const);
  const wished = last.wished;
  return {
    thickness: buildLadder(
      'thickness',
      startOf(up ? first.length : first.thickness),
      wished.thickness,
      height,
      first[up ? 'length' : 'thickness'].limiting,
    ),
    width: buildLadder('width', startOf(wide[0]), wished.width, [...wide[1]], wide[0].limiting),
    length: buildLadder('length', startOf(long[0]), wished.length, [...long[1]], long[0].limiting),
  };
}
