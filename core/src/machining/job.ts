import { artOutlines } from '../features/art.ts';
import { depthAt, grooveLines, type BoardSize } from '../features/groove.ts';
import { FEATURE_NAMES, type Feature } from '../features/feature.ts';
import { outlinePoints, rectangle, type Outline } from '../features/outline.ts';
import { solidsOfFeature } from '../features/solids.ts';
import type { WorkedBoard } from '../plan/workedBoard.ts';

/** A place of the tool: x from the left end, y from the near edge upward, z above the face that lies up; mm. */
export interface ToolPoint {
  x: number;
  y: number;
  z: number;
}

/** What a machine is to do on one face of a board. */
export interface Job {
  /** Of the feature. */
  id: string;
  name: string;
  machine: 'router' | 'engraver';
  tool: string;
  /** Width of what the tool cuts at full depth, mm. */
  bit: number;
  face: 'top' | 'bottom';
  size: BoardSize;
  /** Each line is cut from its first point to its last; several passes are several lines. */
  lines: ToolPoint[][];
}

/** Greatest depth of one pass of a bit, mm, and no more than half of the bit; the straight bit slots are cut with (common practice). */
const PASS = 3;
const SLOT_BIT = 6;
/** Straights that follow an arc or an incline, mm. */
const SPACING = 2;

/** Everything on a board that a machine could cut from a file; empty where there is nothing. */
export function jobsOf({ features, size }: Pick<WorkedBoard, 'features' | 'size'>): Job[] {
  return features.flatMap((f) => jobOf(f, size) ?? []);
}

function jobOf(feature: Feature, size: BoardSize): Job | null {
  const base = { id: feature.id, size };
  if (feature.kind === 'groove') {
    const lines = grooveLines(feature, size).map((o) => closed(outlinePoints(o, SPACING)));
    const passes = passDepths(feature.depth, feature.bit);
    if (lines.length === 0) return null;
    return {
      ...base, name: FEATURE_NAMES.groove, machine: 'router', tool: `Round-nose bit ${round(feature.bit)} mm`, bit: feature.bit, face: feature.face,
      lines: lines.flatMap((line) => passes.map((depth) => line.map((p) => toTool(p, Math.min(depth, depthAt(feature, size, p.x)), feature.face, size)))),
    };
  }
  if (feature.kind === 'hole') {
    const bit = Math.min(SLOT_BIT, feature.width);
    const passes = passDepths(size.thickness, bit);
    const slots = solidsOfFeature(feature, size).map((s) => inward(s.outlines[0]!, bit / 2));
    return { ...base, name: FEATURE_NAMES.hole, machine: 'router', tool: `Straight bit ${round(bit)} mm`, bit, face: 'top', lines: slots.flatMap((o) => passes.map((depth) => closed(outlinePoints(o, SPACING)).map((p) => toTool(p, depth, 'top', size)))) };
  }
  if (feature.kind === 'mark' && feature.art && feature.method !== 'brand') {
    const laser = feature.method === 'laser';
    const passes = laser ? [feature.depth] : passDepths(feature.depth, Math.max(1, feature.bit));
    return {
      ...base, name: feature.name, machine: laser ? 'engraver' : 'router', tool: laser ? `Line of ${round(feature.bit)} mm` : feature.method === 'inlay' ? `V-bit ${feature.angle} degrees` : `Bit ${round(feature.bit)} mm`, bit: feature.method === 'inlay' ? 0 : feature.bit, face: feature.face,
      lines: artOutlines(feature, feature.art).flatMap((o) => passes.map((depth) => (o.closed ? closed(outlinePoints(o)) : outlinePoints(o)).map((p) => toTool(p, laser ? 0 : depth, feature.face, size)))),
    };
  }
  return null;
}

const round = (mm: number) => Number(mm.toFixed(3));
const closed = <T>(points: T[]): T[] => [...points, points[0]!];

/** From the board to a machine that has the face up: seen from above the underside is turned over about its length. */
function toTool({ x, y }: { x: number; y: number }, depth: number, face: 'top' | 'bottom', { width }: BoardSize): ToolPoint {
  return { x, y: face === 'top' ? width - y : y, z: -depth };
}

/** Depths of passes to a depth, all alike. */
function passDepths(depth: number, bit: number): number[] {
  const count = Math.max(1, Math.ceil(depth / Math.min(PASS, bit / 2) - 1e-9));
  return Array.from({ length: count }, (_, i) => (depth * (i + 1)) / count);
}

/** A slot made smaller on every side. */
function inward(outline: Outline, by: number): Outline {
  const [xs, ys] = [outlinePoints(outline).map((p) => p.x), outlinePoints(outline).map((p) => p.y)];
  const [left, right, far, near] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  return rectangle(left + by, far + by, right - left - 2 * by, near - far - 2 * by, Math.min(right - left, near - far) / 2 - by);
}
