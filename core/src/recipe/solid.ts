/* oxlint-disable typescript/no-non-null-assertion -- faces name corners of their own solid, and clipping is the innermost loop of every plan. */
import { cross, dot, movedBy, onlyShifts, plus, type Motion, type Triple } from './motion.ts';

/** A convex solid, mm. Each face names its corners in order, turning left seen from outside. */
export interface Solid {
  corners: readonly Triple[];
  faces: readonly (readonly number[])[];
  /** Of a box along the axes: its least and its greatest corner. What is cut otherwise has none. */
  span?: readonly [Triple, Triple];
}

/** All points p with normal · p <= offset; `normal` of length 1. */
export interface HalfSpace {
  normal: Triple;
  offset: number;
}

/** Nearer to a plane than this is on it, mm. */
const ON_PLANE = 1e-9;

const BOX_FACES: Solid['faces'] = [
  [0, 3, 2, 1],
  [4, 5, 6, 7],
  [0, 1, 5, 4],
  [2, 3, 7, 6],
  [1, 2, 6, 5],
  [3, 0, 4, 7],
];

/** A box with one corner at the origin. */
export function box(size: Triple): Solid {
  return boxBetween([0, 0, 0], size);
}

/** A box along the axes. Most boxes are cut or moved before anybody asks for their corners: these are made when they are. */
class Box implements Solid {
  readonly faces = BOX_FACES;
  readonly span: readonly [Triple, Triple];

  constructor(least: Triple, greatest: Triple) {
    this.span = [least, greatest];
  }

  get corners(): readonly Triple[] {
    return cornersBetween(...this.span);
  }
}

const boxBetween = (least: Triple, greatest: Triple): Solid => new Box(least, greatest);

function cornersBetween([x, y, z]: Triple, [X, Y, Z]: Triple): Triple[] {
  return [
    [x, y, z],
    [X, y, z],
    [X, Y, z],
    [x, Y, z],
    [x, y, Z],
    [X, y, Z],
    [X, Y, Z],
    [x, Y, Z],
  ];
}

/** Wood in a solid, mm3: the sum of the tetrahedra that its faces make with one corner. */
export function volume(solid: Solid): number {
  const { span } = solid;
  if (span) return (span[1][0] - span[0][0]) * (span[1][1] - span[0][1]) * (span[1][2] - span[0][2]);
  const { corners, faces } = solid;
  const [apex] = corners;
  if (!apex) return 0;
  const from = (i: number): Triple => plus(corners[i]!, apex, -1);
  return faces.reduce((sum, face) => {
    const first = from(face[0]!);
    return (
      sum +
      face.slice(1, -1).reduce((part, corner, k) => part + dot(first, cross(from(corner), from(face[k + 2]!))) / 6, 0)
    );
  }, 0);
}

/** The solid after a motion. */
export function moved(solid: Solid, motion: Motion): Solid {
  const { span } = solid;
  if (onlyShifts(motion)) {
    if (span) return boxBetween(plus(span[0], motion.origin), plus(span[1], motion.origin));
    return { corners: solid.corners.map((c) => plus(c, motion.origin)), faces: solid.faces };
  }
  // A box turned by right angles is a box.
  if (span && isSquare(motion)) {
    const [a, b] = [movedBy(motion, span[0]), movedBy(motion, span[1])];
    return boxBetween(
      [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.min(a[2], b[2])],
      [Math.max(a[0], b[0]), Math.max(a[1], b[1]), Math.max(a[2], b[2])],
    );
  }
  return { corners: solid.corners.map((c) => movedBy(motion, c)), faces: solid.faces };
}

/** Whether a motion turns by right angles alone. */
export const isSquare = ({ along, across }: Pick<Motion, 'along' | 'across'>): boolean =>
  alongAnAxis(along) && alongAnAxis(across);

const alongAnAxis = ([x, y, z]: Triple): boolean => Number(x !== 0) + Number(y !== 0) + Number(z !== 0) === 1;

/** Least and greatest along each axis, mm. */
export function bounds({ corners }: Pick<Solid, 'corners'>): { least: Triple; greatest: Triple } {
  const [least, greatest] = [
    [Infinity, Infinity, Infinity] as [number, number, number],
    [-Infinity, -Infinity, -Infinity] as [number, number, number],
  ];
  for (const corner of corners)
    for (let axis = 0; axis < 3; axis += 1) {
      least[axis] = Math.min(least[axis]!, corner[axis]!);
      greatest[axis] = Math.max(greatest[axis]!, corner[axis]!);
    }
  return { least, greatest };
}

/**
 * What of a solid lies in a half space: every face is cut to it, and one new face closes the cut.
 * @returns null where nothing of it does
 */
export function clip(solid: Solid, { normal, offset }: HalfSpace): Solid | null {
  if (solid.span && alongAnAxis(normal)) return clippedBox(solid, solid.span, normal, offset);
  const { corners: old, faces: oldFaces } = solid;
  const count = old.length;
  const beyond = new Array<number>(count);
  let [least, greatest] = [Infinity, -Infinity];
  for (let i = 0; i < count; i += 1) {
    const d = dot(normal, old[i]!) - offset;
    beyond[i] = d;
    if (d < least) least = d;
    if (d > greatest) greatest = d;
  }
  if (greatest <= ON_PLANE) return solid;
  if (least >= -ON_PLANE) return null;
  const corners: Triple[] = [];
  /** Which corners lie in the plane: those it makes, and those it goes through. */
  const inPlane: boolean[] = [];
  /** New numbers of old corners that stay, and of those that edges make, each edge by both of its ends: its two faces share them. */
  const whole = new Array<number>(count).fill(-1);
  const edges: number[] = [];
  const onEdge: number[] = [];
  const next: (number | undefined)[] = [];
  const faces: number[][] = [];
  for (const face of oldFaces) {
    const cut: number[] = [];
    let onlyInPlane = true;
    for (let n = 0; n < face.length; n += 1) {
      const [i, k] = [face[n]!, face[n + 1 === face.length ? 0 : n + 1]!];
      const [here, there] = [beyond[i]!, beyond[k]!];
      if (here <= ON_PLANE) {
        let at = whole[i]!;
        if (at < 0) {
          whole[i] = at = corners.push(old[i]!) - 1;
          inPlane.push(here >= -ON_PLANE);
        }
        cut.push(at);
        if (!inPlane[at]) onlyInPlane = false;
      }
      if ((here < -ON_PLANE && there > ON_PLANE) || (there < -ON_PLANE && here > ON_PLANE)) {
        const [from, to] = i < k ? [i, k] : [k, i];
        const edge = edges.indexOf(from * count + to);
        let at = edge < 0 ? -1 : onEdge[edge]!;
        if (at < 0) {
          const [a, share] = [old[from]!, beyond[from]! / (beyond[from]! - beyond[to]!)];
          at = corners.push(plus(a, plus(old[to]!, a, -1), share)) - 1;
          edges.push(from * count + to);
          onEdge.push(at);
          inPlane.push(true);
        }
        cut.push(at);
      }
    }
    // A face that lies in the plane is the new one.
    if (cut.length < 3 || onlyInPlane) continue;
    faces.push(cut);
    // The new face runs along the cut edge of each old one, the other way.
    for (let n = 0; n < cut.length; n += 1) {
      const [from, to] = [cut[n]!, cut[n + 1 === cut.length ? 0 : n + 1]!];
      if (inPlane[from] && inPlane[to]) next[to] = from;
    }
  }
  const lid = ring(next);
  return { corners, faces: lid.length >= 3 ? [...faces, lid] : faces };
}

/** What of a box lies in a half space that begins square to one of its sides. */
function clippedBox(
  box: Solid,
  [least, greatest]: readonly [Triple, Triple],
  normal: Triple,
  offset: number,
): Solid | null {
  const axis = normal[0] !== 0 ? 0 : normal[1] !== 0 ? 1 : 2;
  const forward = normal[axis] > 0;
  const at = forward ? offset : -offset;
  const [inside, outside] = forward ? [at - least[axis], at - greatest[axis]] : [greatest[axis] - at, least[axis] - at];
  if (outside >= -ON_PLANE) return box;
  if (inside <= ON_PLANE) return null;
  const edge = (corner: Triple): Triple => [
    axis === 0 ? at : corner[0],
    axis === 1 ? at : corner[1],
    axis === 2 ? at : corner[2],
  ];
  return forward ? boxBetween(least, edge(greatest)) : boxBetween(edge(least), greatest);
}

/** What of a solid lies in a box along the axes, from its least corner to its greatest one. @returns null where nothing of it does */
export function within(solid: Solid, from: Triple, to: Triple): Solid | null {
  if (solid.span) {
    const [a, b] = solid.span;
    const least: Triple = [Math.max(a[0], from[0]), Math.max(a[1], from[1]), Math.max(a[2], from[2])];
    const greatest: Triple = [Math.min(b[0], to[0]), Math.min(b[1], to[1]), Math.min(b[2], to[2])];
    const none =
      greatest[0] - least[0] <= ON_PLANE || greatest[1] - least[1] <= ON_PLANE || greatest[2] - least[2] <= ON_PLANE;
    return none ? null : boxBetween(least, greatest);
  }
  return sidesOf(from, to).reduce<Solid | null>((left, side) => left && clip(left, side), solid);
}

/** Half spaces that a box from one corner to the other lies in. */
function sidesOf(from: Triple, to: Triple): HalfSpace[] {
  return ([0, 1, 2] as const).flatMap((axis): HalfSpace[] => {
    const normal = [0, 0, 0].map((_, i) => (i === axis ? 1 : 0)) as unknown as Triple;
    return [
      { normal, offset: to[axis] },
      { normal: normal.map((n) => -n) as unknown as Triple, offset: -from[axis] },
    ];
  });
}

/** Corners one behind the other, each once. */
function ring(next: readonly (number | undefined)[]): number[] {
  const first = next.findIndex((to) => to !== undefined);
  const corners: number[] = [];
  for (let at: number | undefined = first; at !== undefined && at >= 0 && !corners.includes(at); at = next[at])
    corners.push(at);
  return corners;
}

/** What is left on either side of a kerf: a slab that begins at `offset` and is `kerf` thick. */
export function saw(solid: Solid, { normal, offset }: HalfSpace, kerf: number): [Solid | null, Solid | null] {
  return [
    clip(solid, { normal, offset }),
    clip(solid, { normal: [-normal[0], -normal[1], -normal[2]], offset: -offset - kerf }),
  ];
}
