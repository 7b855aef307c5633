import { firstOf } from '../lists/there.ts';
import ClipperLib, { type Path, type Paths } from 'clipper-lib';
import { outlinePoints, type Outline, type Point } from '../features/outline.ts';

/** Whole numbers to a millimetre inside the library. */
const SCALE = 10_000;
/** Each round of a pocket lies this share of the bit further in: the rest overlaps (common practice: 40 %). */
const STEP_SHARE = 0.4;
/** Chords of rounded corners leave the arc by no more, mm. */
const ARC_ERROR = 0.01;
/** More rounds than this a pocket never has. */
const MOST_ROUNDS = 2000;

/** Shapes as regions: a point is inside when an odd number of lines lies round it. */
export function regionOf(outlines: readonly Outline[]): Paths {
  const paths = outlines
    .filter((o) => o.closed)
    .map((o): Path => outlinePoints(o).map((p) => ({ X: Math.round(p.x * SCALE), Y: Math.round(p.y * SCALE) })));
  return ClipperLib.Clipper.SimplifyPolygons(paths, ClipperLib.PolyFillType.pftEvenOdd);
}

/** A region made larger on every side, or smaller with a negative distance, mm; corners rounded. */
export function grown(region: Paths, by: number): Paths {
  const offset = new ClipperLib.ClipperOffset(2, ARC_ERROR * SCALE);
  offset.AddPaths(region, ClipperLib.JoinType.jtRound, ClipperLib.EndType.etClosedPolygon);
  const out: Paths = [];
  offset.Execute(out, by * SCALE);
  return out;
}

/** What of one region lies outside another. */
export function without(region: Paths, hole: Paths): Paths {
  const clipper = new ClipperLib.Clipper();
  clipper.AddPaths(region, ClipperLib.PolyType.ptSubject, true);
  clipper.AddPaths(hole, ClipperLib.PolyType.ptClip, true);
  const out: Paths = [];
  clipper.Execute(
    ClipperLib.ClipType.ctDifference,
    out,
    ClipperLib.PolyFillType.pftNonZero,
    ClipperLib.PolyFillType.pftNonZero,
  );
  return out;
}

/** Area of a region, holes taken off, mm2. */
export function regionArea(region: Paths): number {
  return Math.abs(region.reduce((sum, path) => sum + ClipperLib.Clipper.Area(path), 0)) / SCALE ** 2;
}

/** The lines of a region, closed, mm. */
export function linesOf(region: Paths): Point[][] {
  return region
    .filter((path) => path.length > 2)
    .map((path) => [...path, firstOf(path)].map((p) => ({ x: p.X / SCALE, y: p.Y / SCALE })));
}

/** Ways of the middle of a bit that clear a region, from its wall inward, round by round; empty where the bit does not fit in. */
export function clearing(region: Paths, bit: number): Point[][] {
  const lines: Point[][] = [];
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const next = grown(region, -(bit / 2 + round * bit * STEP_SHARE));
    if (next.length === 0) break;
    lines.push(...linesOf(next));
  }
  return lines;
}
