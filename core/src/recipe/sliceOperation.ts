import { after, back, movedBy, type Motion, shift, type Triple } from './motion.ts';
import { bounds, clip, isSquare, type HalfSpace } from './solid.ts';
import { carried, type Cell, type Workpiece } from './workpiece.ts';

/** How a panel is cut again. */
export interface Slicing {
  /** Between the cut and a square crosscut, degrees, 0 up to 60: positive where the cut runs away from the marked end as it comes nearer. */
  angle: number;
  /** Thickness of a slice between its two cut faces, mm. */
  pitch: number;
  /** Of the saw, mm. */
  kerf: number;
  /** Where the first slice begins: from the corner of the panel that the saw meets first, square to the cuts, mm. */
  first: number;
  /** How many are asked for; null for as many as there are. */
  count: number | null;
}

/** What comes of slicing: the slices in order, each with axes of its own, and what is sawn to dust or left over. */
export interface Sliced {
  slices: Workpiece[];
  waste: Cell[];
}

/** A slice that still lies where it was sawn, and the motion that puts it on axes of its own, which begin at its least corner. */
export interface LyingSlice extends Workpiece {
  home: Motion;
}

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** From the first corner to the last one of a panel, square to its cuts, mm. */
export function sliceable([length, width]: Triple, { angle }: Pick<Slicing, 'angle'>): number {
  return length * Math.cos(radians(angle)) + width * Math.abs(Math.sin(radians(angle)));
}

/** How many slices of full thickness a panel gives, no more than are asked for. @param size of the panel, mm */
export function sliceCount(size: Triple, slicing: Slicing): number {
  const { pitch, kerf, first, count } = slicing;
  const most = Math.max(0, Math.floor((sliceable(size, slicing) - first + kerf + 1e-9) / (pitch + kerf)));
  return count === null ? most : Math.min(most, count);
}

/**
 * What a panel must measure along for so many square slices, mm: each with its kerf, the last one too, because what is behind it is sawn off.
 * Check: 14 slices of 35 with a kerf of 3 are 490 of wood and 532 with kerfs (common practice).
 */
export function sliceBackward(
  count: number,
  { pitch, kerf, first }: Pick<Slicing, 'pitch' | 'kerf' | 'first'>,
): number {
  return first + count * (pitch + kerf);
}

/**
 * The slices of a panel, cut through all its cells. A slice lies as the saw leaves it: `along` runs with the cut, `across` from its first cut face to its second, `up` as in the panel.
 * At an angle a slice is as long as the width over the cosine of the angle, its ends as slanted as the cut.
 */
export function sliceWorkpiece(panel: Workpiece, slicing: Slicing): Sliced {
  const { slices, waste } = slicesIn(panel, slicing, true);
  return { slices: slices.map(({ size, cells, home }) => ({ size, cells: carried(cells, home) })), waste };
}

/** Slices that still lie in their panel: what lays them elsewhere moves their cells once. @param keepsWaste whether dust and ends are told as well */
export function slicesIn(
  panel: Workpiece,
  slicing: Slicing,
  keepsWaste = false,
): { slices: LyingSlice[]; waste: Cell[] } {
  const [a, { pitch, kerf, first }] = [radians(slicing.angle), slicing];
  const normal: Triple = [Math.cos(a), Math.sin(a), 0];
  const against: Triple = [-normal[0], -normal[1], 0];
  // For a cut that leans the other way the saw meets the near corner of the marked end first.
  const corner = Math.min(0, panel.size[1] * normal[1]);
  const before = (offset: number): HalfSpace => ({ normal, offset: corner + offset });
  const behind = (offset: number): HalfSpace => ({ normal: against, offset: -corner - offset });
  const cut = (cells: readonly Cell[], plane: HalfSpace): Cell[] =>
    cells.flatMap((cell) => {
      const solid = clip(cell.solid, plane);
      return solid ? [solid === cell.solid ? cell : { ...cell, solid }] : [];
    });
  // Axes of a slice as they lie in the panel.
  const axes: Motion = { origin: [0, 0, 0], along: [normal[1], -normal[0], 0], across: normal, up: [0, 0, 1] };
  const own = back(axes);
  const slices: LyingSlice[] = [];
  const waste: Cell[] = first > 0 ? cut(panel.cells, before(first)) : [];
  let rest = cut(panel.cells, behind(first));
  for (let i = 0, from = first; i < sliceCount(panel.size, slicing); i += 1, from += pitch + kerf) {
    const cells = cut(rest, before(from + pitch));
    slices.push({ cells, ...homeOf(cells, own) });
    if (keepsWaste) waste.push(...cut(cut(rest, behind(from + pitch)), before(from + pitch + kerf)));
    rest = cut(rest, behind(from + pitch + kerf));
  }
  return { slices, waste: [...waste, ...rest] };
}

/** Cells put into axes of their own, which begin at their least corner. @param motion into the directions of those axes */
export function onItsOwn(cells: readonly Cell[], motion: Motion): Workpiece {
  const { size, home } = homeOf(cells, motion);
  return { size, cells: carried(cells, home) };
}

/** The motion that puts cells onto axes of their own, and their size on those. @param motion into the directions of those axes */
function homeOf(cells: readonly Cell[], motion: Motion): { size: Triple; home: Motion } {
  if (cells.length === 0) return { size: [0, 0, 0], home: motion };
  const square = isSquare(motion);
  const { least, greatest } = bounds({
    corners: cells.flatMap(({ solid }) =>
      (square && solid.span ? solid.span : solid.corners).map((corner) => movedBy(motion, corner)),
    ),
  });
  return {
    size: [greatest[0] - least[0], greatest[1] - least[1], greatest[2] - least[2]],
    home: after(shift([-least[0], -least[1], -least[2]]), motion),
  };
}

/** The grain of a cell: which way in the thing the length of its piece runs. */
export function grainOf({ inPiece }: Pick<Cell, 'inPiece'>): Triple {
  const { along, across, up } = inPiece;
  return [along[0], across[0], up[0]];
}
