import { cutAxes, type Insert } from '../board/inset.ts';
import { plus, shift, type Motion, type Triple } from './motion.ts';
import { saw } from './solid.ts';
import { carried, type Cell, type Workpiece } from './workpiece.ts';

/** Where an inserted strip begins along its cut, and the axes it lies along: its first end at the far edge, its first side away from the left end. @param middle along the cut where the middle of the strip lies, mm */
function lieOf({ angle, at, width, length }: Insert, middle: number): Motion {
  const { square, along } = cutAxes(angle);
  const corner = (axis: 0 | 1) => square[axis] * (at + width) + along[axis] * (middle - length / 2);
  return {
    origin: [corner(0), corner(1), 0],
    along: [along[0], along[1], 0],
    across: [-square[0], -square[1], 0],
    up: [0, 0, 1],
  };
}

/**
 * A panel sawn through, what lies behind the cut moved, and a strip put in between; no wood is lost but what the saw takes. The middle of the strip lies half way between
 * the middles of both cut faces.
 * @param panel with its long edges true, as it lies after everything before this one was put in @param width of the panel, mm
 */
export function insertWorkpiece(panel: Workpiece, strip: Workpiece, insert: Insert, width: number): Workpiece {
  const { angle, at, kerf, moved, before, slid } = insert;
  const { square, along } = cutAxes(angle);
  const plane = { normal: [square[0], square[1], 0] as Triple, offset: at };
  const behind: Motion = shift([moved[0], moved[1], 0]);
  const parts = panel.cells.flatMap((cell): Cell[] => {
    const [left, right] = saw(cell.solid, plane, kerf);
    return [
      ...(left ? [{ ...cell, solid: left }] : []),
      ...(right ? carried([{ ...cell, solid: right }], behind) : []),
    ];
  });
  // The middle of the cut on the part before it: half across that part.
  const y = before[1] + width / 2;
  const x = (at - y * square[1]) / square[0];
  const lie = lieOf(insert, x * along[0] + y * along[1] + slid / 2);
  const raised = { ...lie, origin: plus(lie.origin, [0, 0, (panel.size[2] - strip.size[2]) / 2]) };
  return {
    size: [panel.size[0] + moved[0], panel.size[1], panel.size[2]],
    cells: [...parts, ...carried(strip.cells, raised)],
  };
}
