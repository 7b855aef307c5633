import { cross, dot, movedBy, plus, type Motion, type Triple } from './motion.ts';

/** A convex solid, mm. Each face names its corners in order, turning left seen from outside. */
export interface Solid {
  corners: readonly Triple[];
  faces: readonly (readonly number[])[];
}

/** All points p with normal · p <= offset; `normal` of length 1. */
export interface HalfSpace {
  normal: Triple;
  offset: number;
}

/** Nearer to a plane than this is on it, mm. */
const ON_PLANE = 1e-9;

/** A box with one corner at the origin. */
export function box([length, width, height]: Triple): Solid {
  return {
    corners: [
      [0, 0, 0],
      [length, 0, 0],
      [length, width, 0],
      [0, width, 0],
      [0, 0, height],
      [length, 0, height],
      [length, width, height],
      [0, width, height],
    ],
    faces: [
      [0, 3, 2, 1],
      [4, 5, 6, 7],
      [0, 1, 5, 4],
      [2, 3, 7, 6],
      [1, 2, 6, 5],
      [3, 0, 4, 7],
    ],
  };
}

/** Wood in a solid, mm3: the sum of the tetrahedra that its faces make with one corner. */
export function volume({ corners, faces }: Solid): number {
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
export function moved({ corners, faces }: Solid, motion: Motion): Solid {
  return { corners: corners.map((c) => movedBy(motion, c)), faces };
}

/** Least and greatest along each axis, mm. */
export function bounds({ corners }: Solid): { least: Triple; greatest: Triple } {
  const of = (pick: (...all: number[]) => number): Triple => [
    pick(...corners.map((c) => c[0])),
    pick(...corners.map((c) => c[1])),
    pick(...corners.map((c) => c[2])),
  ];
  return { least: of(Math.min), greatest: of(Math.max) };
}

/**
 * What of a solid lies in a half space: every face is cut to it, and one new face closes the cut.
 * @returns null where nothing of it does
 */
export function clip(solid: Solid, { normal, offset }: HalfSpace): Solid | null {
  const beyond = solid.corners.map((c) => dot(normal, c) - offset);
  if (beyond.every((d) => d <= ON_PLANE)) return solid;
  if (beyond.every((d) => d >= -ON_PLANE)) return null;
  const corners: Triple[] = [];
  /** Which corners lie in the plane: those it makes, and those it goes through. */
  const inPlane: boolean[] = [];
  const kept = new Map<string, number>();
  const keep = (key: string, on: boolean, make: () => Triple): number => {
    const known = kept.get(key);
    if (known !== undefined) return known;
    kept.set(key, corners.length);
    inPlane.push(on);
    return corners.push(make()) - 1;
  };
  const whole = (i: number) => keep(`${i}`, beyond[i]! >= -ON_PLANE, () => solid.corners[i]!);
  /** Where the edge between two corners meets the plane, the same whichever of its two faces asks. */
  const crossing = (i: number, k: number) => {
    const [a, b] = i < k ? [i, k] : [k, i];
    return keep(`${a} ${b}`, true, () =>
      plus(solid.corners[a]!, plus(solid.corners[b]!, solid.corners[a]!, -1), beyond[a]! / (beyond[a]! - beyond[b]!)),
    );
  };
  const next = new Map<number, number>();
  const faces: number[][] = [];
  for (const face of solid.faces) {
    const cut: number[] = [];
    face.forEach((i, n) => {
      const k = face[(n + 1) % face.length]!;
      if (beyond[i]! <= ON_PLANE) cut.push(whole(i));
      if (Math.min(beyond[i]!, beyond[k]!) < -ON_PLANE && Math.max(beyond[i]!, beyond[k]!) > ON_PLANE)
        cut.push(crossing(i, k));
    });
    // A face that lies in the plane is the new one.
    if (cut.length < 3 || cut.every((i) => inPlane[i])) continue;
    faces.push(cut);
    // The new face runs along the cut edge of each old one, the other way.
    cut.forEach((from, n) => {
      const to = cut[(n + 1) % cut.length]!;
      if (inPlane[from] && inPlane[to]) next.set(to, from);
    });
  }
  const lid = ring(next);
  return { corners, faces: lid.length >= 3 ? [...faces, lid] : faces };
}

/** Corners one behind the other, each once. */
function ring(next: ReadonlyMap<number, number>): number[] {
  const [first] = next.keys();
  const corners: number[] = [];
  for (let at = first; at !== undefined && !corners.includes(at); at = next.get(at)) corners.push(at);
  return corners;
}

/** What is left on either side of a kerf: a slab that begins at `offset` and is `kerf` thick. */
export function saw(solid: Solid, { normal, offset }: HalfSpace, kerf: number): [Solid | null, Solid | null] {
  return [
    clip(solid, { normal, offset }),
    clip(solid, { normal: [-normal[0], -normal[1], -normal[2]], offset: -offset - kerf }),
  ];
}
