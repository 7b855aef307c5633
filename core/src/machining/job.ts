import { firstOf, nth } from '../lists/there.ts';
import { artOutlines } from '../features/artPlace.ts';
import { isEnd, isSide, type Side } from '../features/edge.ts';
import { depthAt, grooveLines, spoutLine, type BoardSize } from '../features/groove.ts';
import { FEATURE_NAMES, type Feature, type FeatureOf } from '../features/feature.ts';
import { mapOutline, outlinePoints, rectangle, type Outline, type Point } from '../features/outline.ts';
import { passDepths, ROUTER_PASS } from '../features/routerPass.ts';
import { solidsOfFeature } from '../features/solids.ts';
import type { WorkedBoard } from '../bodies/workedBoard.ts';
import type { Drawing } from '../templates/drawing.ts';
import { numberTwins } from '../units/numberTwins.ts';
import { length, say, type Phrase } from '../units/phrase.ts';
import { clearing, grown, linesOf, regionOf, without } from './pocket.ts';

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
  tool: Phrase;
  /** Width of what the tool cuts at full depth, mm. */
  bit: number;
  face: 'top' | 'bottom' | Side;
  /** What lies on the machine: the board, on its side where a side is marked, or the blank of a plug. */
  size: BoardSize;
  /** Each line is cut from its first point to its last; several passes are several lines. */
  lines: ToolPoint[][];
}

/** The straight bit slots are cut with, mm (common practice). */
const SLOT_BIT = 6;
/** Straights that follow an arc or an incline, mm. */
const SPACING = 2;

/** Everything on a board that a machine could cut from a file; empty where there is nothing. */
export function jobsOf({ features, size, sanded }: Pick<WorkedBoard, 'features' | 'size' | 'sanded'>): Job[] {
  const jobs = features.flatMap((f) => (f.kind === 'mark' ? markJobs(f, size) : (jobOf(f, size, sanded) ?? [])));
  const names = numberTwins(jobs.map((j) => j.name));
  return jobs.map((job, i) => ({ ...job, name: nth(names, i) }));
}

/** The ways of a job as a drawing of what lies on the machine, seen from above; several passes over one line are one line. */
export function jobDrawing({ name, size, lines }: Job): Drawing {
  const seen = new Set<string>();
  const ways = lines.filter((line) => {
    const key = line.map((p) => `${p.x.toFixed(3)} ${p.y.toFixed(3)}`).join();
    return !seen.has(key) && seen.add(key);
  });
  return {
    title: name,
    words: [],
    lines: [
      { layer: 'guide', outline: rectangle(0, 0, size.length, size.width) },
      ...ways.map((line) => ({
        layer: 'mark' as const,
        outline: { closed: false, vertices: line.map((p) => ({ x: p.x, y: size.width - p.y, bulge: 0 })) },
      })),
    ],
  };
}

function jobOf(feature: Exclude<Feature, { kind: 'mark' }>, size: BoardSize, sanded: number): Job | null {
  // Routed before it is sanded: the board is thicker by what sanding takes, and a cut is deeper by what goes off its face.
  const base = { id: feature.id, size: { ...size, thickness: size.thickness + 2 * sanded } };
  if (feature.kind === 'groove') {
    const lines = grooveLines(feature, size).map((o) => closed(outlinePoints(o, SPACING)));
    const passes = passDepths(feature.depth + sanded, feature.bit);
    if (lines.length === 0) return null;
    const spout = spoutLine(feature, size);
    return {
      ...base,
      name: FEATURE_NAMES.groove,
      machine: 'router',
      tool: say`Round-nose bit ${length(feature.bit)}`,
      bit: feature.bit,
      face: feature.face,
      lines: [
        ...lines.flatMap((line) =>
          passes.map((depth) =>
            line.map((p) => toTool(p, Math.min(depth, depthAt(feature, size, p.x) + sanded), feature.face, size)),
          ),
        ),
        // The channel of the spout, out over the edge.
        ...(spout
          ? passes.map((depth) => [spout.from, spout.to].map((p) => toTool(p, depth, feature.face, size)))
          : []),
      ],
    };
  }
  if (feature.kind === 'hole') {
    const bit = Math.min(SLOT_BIT, feature.width);
    const passes = passDepths(base.size.thickness, bit);
    const slots = solidsOfFeature(feature, size).map((s) => inward(firstOf(s.outlines), bit / 2));
    return {
      ...base,
      name: FEATURE_NAMES.hole,
      machine: 'router',
      tool: say`Straight bit ${length(bit)}`,
      bit,
      face: 'top',
      lines: slots.flatMap((o) =>
        passes.map((depth) => closed(outlinePoints(o, SPACING)).map((p) => toTool(p, depth, 'top', size))),
      ),
    };
  }
  return null;
}

const closed = <T>(points: readonly T[]): T[] => [...points, firstOf(points)];

/** From the board to a machine that has the face up: the underside turned over about its length, a side seen from outside with the show side away from the maker. */
function toTool(
  { x, y }: { x: number; y: number },
  depth: number,
  face: Job['face'],
  { length, width }: BoardSize,
): ToolPoint {
  return { x: face === 'far' || face === 'right' ? length - x : x, y: face === 'bottom' ? y : width - y, z: -depth };
}

/** A slot made smaller on every side. */
function inward(outline: Outline, by: number): Outline {
  const [xs, ys] = [outlinePoints(outline).map((p) => p.x), outlinePoints(outline).map((p) => p.y)];
  const [left, right, far, near] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  return rectangle(
    left + by,
    far + by,
    right - left - 2 * by,
    near - far - 2 * by,
    Math.min(right - left, near - far) / 2 - by,
  );
}

/** Wood of a plug left round its drawing, and under it, mm. */
const PLUG_RIM = 8;
const PLUG_REST = 6;

/** What the machines do for a mark: its lines, its shapes cleared, or for an inlay both parts, wall and floor each with its own bit. */
function markJobs(mark: FeatureOf<'mark'>, size: BoardSize): Job[] {
  const { art, face, bit, depth } = mark;
  if (!art || mark.method === 'brand') return [];
  // A board that lies on its side: as long as that side, as wide as it is thick.
  const lying = isSide(face)
    ? isEnd(face)
      ? { length: size.width, width: size.thickness, thickness: size.length }
      : { length: size.length, width: size.thickness, thickness: size.width }
    : size;
  const outlines = artOutlines(mark, art);
  if (mark.method === 'inlay') return inlayJobs(mark, outlines, lying);
  const laser = mark.method === 'laser';
  const passes = laser ? [0] : passDepths(depth, Math.max(1, bit));
  // Open lines have nothing to be cleared: they are followed.
  const ways = mark.filled
    ? [...clearing(regionOf(outlines), bit), ...outlines.filter((o) => !o.closed).map((o) => [...outlinePoints(o)])]
    : outlines.map((o) => (o.closed ? closed(outlinePoints(o)) : [...outlinePoints(o)]));
  return [
    {
      id: mark.id,
      name: mark.name,
      machine: laser ? 'engraver' : 'router',
      tool: laser ? say`Line of ${length(bit)}` : say`Bit ${length(bit)}`,
      bit,
      face,
      size: lying,
      lines: ways.flatMap((way) => passes.map((at) => way.map((p) => toTool(p, at, face, lying)))),
    },
  ];
}

/** Pocket and plug from one drawing. The tip of the V-bit runs inside the pocket's mouth by what its wall leans, and outside the plug's outline by as much. */
function inlayJobs(mark: FeatureOf<'mark'>, outlines: readonly Outline[], size: BoardSize): Job[] {
  const lean = Math.tan((mark.angle / 2) * (Math.PI / 180));
  const mouth = regionOf(outlines);
  const job = (
    part: string,
    name: string,
    v: boolean,
    ways: Point[][],
    depth: number,
    on: Pick<Job, 'face' | 'size'>,
  ): Job => ({
    id: `${mark.id}-${part}`,
    name: `${mark.name}: ${name}`,
    machine: 'router',
    tool: v ? say`V-bit ${mark.angle} degrees` : say`Straight bit ${length(mark.bit)}`,
    bit: v ? 0 : mark.bit,
    ...on,
    lines: ways.flatMap((way) =>
      passDepths(depth, v ? 2 * ROUTER_PASS : mark.bit).map((at) => way.map((p) => toTool(p, at, on.face, on.size))),
    ),
  });
  const floor = grown(mouth, -mark.depth * lean);
  // The plug is cut mirrored in the middle of a blank of its own.
  const blank = {
    length: mark.length + 2 * PLUG_RIM,
    width: mark.width + 2 * PLUG_RIM,
    thickness: mark.plugStart + mark.plugDepth + PLUG_REST,
  };
  const plug = regionOf(
    outlines.map((o) =>
      mapOutline(o, (p) => ({ x: blank.length / 2 - (p.x - mark.x), y: blank.width / 2 + (p.y - mark.y) }), true),
    ),
  );
  const foot = grown(plug, mark.plugDepth * lean);
  const around = without(regionOf([rectangle(0, 0, blank.length, blank.width)]), foot);
  const onBoard = { face: mark.face, size };
  const onBlank = { face: 'top' as const, size: blank };
  return [
    job('pocket-wall', 'pocket, wall', true, linesOf(floor), mark.depth, onBoard),
    job('pocket-floor', 'pocket, floor', false, clearing(floor, mark.bit), mark.depth, onBoard),
    job('plug-wall', 'plug, wall', true, linesOf(foot), mark.plugStart + mark.plugDepth, onBlank),
    job('plug-floor', 'plug, floor', false, clearing(around, mark.bit), mark.plugStart + mark.plugDepth, onBlank),
  ].filter((j) => j.lines.length > 0);
}
