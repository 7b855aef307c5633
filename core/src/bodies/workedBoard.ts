import { edgesFor, featuresFor } from '../board/workedByHabit.ts';
import { edgeReach, type Corners, type Edges } from '../features/edge.ts';
import type { Feature } from '../features/feature.ts';
import type { BoardSize } from '../features/groove.ts';
import { rectangle, type Outline } from '../features/outline.ts';
import { solidsOf, type Solid } from '../features/solids.ts';
import type { PlanContext } from '../ladders/context.ts';
import type { Ladder } from '../ladders/ladder.ts';

/** A finished board with all that is worked into it. Lengths in mm. */
export interface WorkedBoard {
  size: BoardSize;
  edges: Edges;
  features: Feature[];
  /** Its outline from above, corners rounded or clipped. */
  outline: Outline;
  solids: Solid[];
  /** Where its first long edge lies on the panel, from the panel's far edge. */
  shift: number;
  /** What sanding takes off each face after it was worked. */
  sanded: number;
}

/** @param ladders what the board comes out at */
export function workedBoardOf(
  { board, shop, trim }: PlanContext,
  ladders: { thickness: Ladder; width: Ladder },
): WorkedBoard {
  const size = { length: board.length, width: ladders.width.reached, thickness: ladders.thickness.reached };
  const features = featuresFor(board, shop);
  return {
    size,
    edges: edgesFor(board, shop),
    features,
    solids: solidsOf({ features }, size),
    shift: trim.far,
    sanded: shop.habits.sanding / 2,
    outline: outlineOf(size, board.worked.corners),
  };
}

/** The outline of a board from above, its corners rounded or clipped. */
export function outlineOf({ length, width }: Pick<BoardSize, 'length' | 'width'>, corners: Corners): Outline {
  return rectangle(
    0,
    0,
    length,
    width,
    corners.kind === 'square' ? 0 : corners.size,
    corners.kind === 'clip' ? 'clip' : 'round',
  );
}

/** How far the edges of a face reach in, by the side; mm. */
export function faceReach({ edges, size }: Pick<WorkedBoard, 'edges' | 'size'>, face: 'top' | 'bottom') {
  return {
    far: edgeReach(edges.far[face], size.thickness).reach,
    right: edgeReach(edges.right[face], size.thickness).reach,
    near: edgeReach(edges.near[face], size.thickness).reach,
    left: edgeReach(edges.left[face], size.thickness).reach,
  };
}

/** The flat of a face inside its edges, mm; null where the edges meet. */
export function flatOf(
  worked: Pick<WorkedBoard, 'edges' | 'size'>,
  face: 'top' | 'bottom',
  corners: Corners,
): Outline | null {
  const { far, right, near, left } = faceReach(worked, face);
  const { length, width } = worked.size;
  if (left + right >= length || far + near >= width) return null;
  return rectangle(
    left,
    far,
    length - left - right,
    width - far - near,
    corners.kind === 'square' ? 0 : Math.max(0, corners.size - Math.max(far, right, near, left)),
    corners.kind === 'clip' ? 'clip' : 'round',
  );
}
