import { BOARD_SIDES, type BoardSide } from '../facts/fact.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import { outlineArea, outlineLength } from '../features/outline.ts';
import { turnedBy, type Triple } from '../recipe/motion.ts';
import type { Workpiece } from '../recipe/workpiece.ts';
import type { Finish } from '../shop/finishes.ts';

/** The sides of a board as they are sanded and oiled. */
export const SIDES = BOARD_SIDES;
export type Side = BoardSide;

/** A side of the finished board. */
export interface Surface {
  side: Side;
  /** m2. */
  area: number;
  /** How much of it drinks as end grain does, 0 to 1: the square of the cosine between its normal and the grain. */
  endGrain: number;
}

/** Outward normals. */
const NORMALS: Readonly<Record<Side, Triple>> = {
  top: [0, 0, 1],
  bottom: [0, 0, -1],
  far: [0, -1, 0],
  near: [0, 1, 0],
  left: [-1, 0, 0],
  right: [1, 0, 0],
};
/** Nearer to a side than this is on it, mm. */
const ON_SIDE = 1e-6;

/**
 * The six sides of a board with what of each is end grain. Corners and edges that are taken off change what is oiled by a hundredth or two; grooves add their walls and floors to the face they are in.
 * @param wood of the board in cells, before edges and features; null while there are no strips
 */
export function surfacesOf(
  { size, outline, solids }: Pick<WorkedBoard, 'size' | 'outline' | 'solids'>,
  wood: Workpiece | null,
): Surface[] {
  const { length, width, thickness } = size;
  const face = outlineArea(outline) / 1e6;
  // Rounded corners make all four sides shorter alike.
  const around = outlineLength(outline) / (2 * (length + width));
  // The floor of a groove is as large as what it takes of the face; its walls come on top.
  const walls = (side: 'top' | 'bottom') =>
    solids
      .filter((s) => s.kind === 'groove' && (side === 'top' ? s.from === 0 : s.from > 0))
      .reduce((sum, s) => sum + s.outlines.reduce((o, one) => o + outlineLength(one), 0) * Math.abs(s.to - s.from), 0) /
    1e6;
  const shares = endGrainOf(wood);
  const area: Record<Side, number> = {
    top: face + walls('top'),
    bottom: face + walls('bottom'),
    far: (length * thickness * around) / 1e6,
    near: (length * thickness * around) / 1e6,
    left: (width * thickness * around) / 1e6,
    right: (width * thickness * around) / 1e6,
  };
  return SIDES.map((side) => ({ side, area: area[side], endGrain: shares[side] }));
}

/** How much of each side is end grain. */
function endGrainOf(wood: Workpiece | null): Record<Side, number> {
  const sums = Object.fromEntries(SIDES.map((s) => [s, { area: 0, end: 0 }])) as Record<
    Side,
    { area: number; end: number }
  >;
  for (const { solid, inPiece } of wood?.cells ?? []) {
    const at = (side: Side) => sideAt(side, wood?.size ?? [0, 0, 0]);
    for (const corners of solid.faces) {
      const points = corners.map((i) => solid.corners[i] as Triple);
      const side = SIDES.find((s) => {
        const { axis, value } = at(s);
        return points.every((p) => Math.abs(p[axis] - value) <= ON_SIDE);
      });
      if (!side) continue;
      const area = areaOf(points);
      // Its grain runs along its piece.
      const along = turnedBy(inPiece, NORMALS[side])[0];
      sums[side].area += area;
      sums[side].end += area * along * along;
    }
  }
  return Object.fromEntries(SIDES.map((s) => [s, sums[s].area > 0 ? sums[s].end / sums[s].area : 0])) as Record<
    Side,
    number
  >;
}

function sideAt(side: Side, [l, w, t]: Triple): { axis: 0 | 1 | 2; value: number } {
  const places: Record<Side, { axis: 0 | 1 | 2; value: number }> = {
    top: { axis: 2, value: t },
    bottom: { axis: 2, value: 0 },
    far: { axis: 1, value: 0 },
    near: { axis: 1, value: w },
    left: { axis: 0, value: 0 },
    right: { axis: 0, value: l },
  };
  return places[side];
}

/** Of a flat polygon, mm2: half the length of the sum of cross products. */
function areaOf(points: readonly Triple[]): number {
  let [x, y, z] = [0, 0, 0];
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length] as Triple;
    x += p[1] * q[2] - p[2] * q[1];
    y += p[2] * q[0] - p[0] * q[2];
    z += p[0] * q[1] - p[1] * q[0];
  });
  return Math.hypot(x, y, z) / 2;
}

/** What one board takes of a finish, grams, all its coats: by faces, long edges and ends, and how much of that goes into end grain. */
export interface Amount {
  faces: number;
  edges: number;
  ends: number;
  total: number;
  intoEndGrain: number;
}

/** @param surfaces of one board */
export function amountOf(
  { face, edge, end, coats }: Pick<Finish, 'face' | 'edge' | 'end' | 'coats'>,
  surfaces: readonly Surface[],
): Amount {
  const long = (side: Side) => (side === 'top' || side === 'bottom' ? face : edge);
  const of = (sides: readonly Side[]) =>
    surfaces
      .filter((s) => sides.includes(s.side))
      .reduce((sum, s) => sum + s.area * coats * (long(s.side) + (end - long(s.side)) * s.endGrain), 0);
  const [faces, edges, ends] = [of(['top', 'bottom']), of(['far', 'near']), of(['left', 'right'])];
  return {
    faces,
    edges,
    ends,
    total: faces + edges + ends,
    intoEndGrain: surfaces.reduce((sum, s) => sum + s.area * coats * end * s.endGrain, 0),
  };
}

/** Grams as they are told everywhere: whole ones, and tenths of a few. */
export const tellGrams = (grams: number): string => (grams < 9.95 ? grams.toFixed(1) : String(Math.round(grams)));
