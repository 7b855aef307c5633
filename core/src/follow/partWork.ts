import { MITRE_REACH_MM } from '../shop/tools.ts';
import type { InstructionOf, Thing } from '../steps/instruction.ts';
import type { Joint, Laid, Made, Panel, Part } from './bench.ts';
import { FINE, TOLERANCE, type Bench } from './makersBench.ts';
import { asMeasured, inTime, laidFrom, pressed } from './panelWork.ts';
import { edgesOf } from './rowWork.ts';

type Point = readonly [number, number];

export function sawApart(bench: Bench, i: InstructionOf<'sawApart'>): void {
  const panel = bench.panels.get(i.part.id);
  if (!panel) return bench.fail('missingPart', i, i.part);
  bench.used.add(i.part.id);
  bench.tool(i.saw.tool, i, i.part);
  if (!panel.flat) bench.fail('notFlat', i, i.part);
  const deep = Math.hypot(panel.width, i.near - i.far);
  if (i.saw.tool === 'mitreSaw' && deep > MITRE_REACH_MM + FINE)
    bench.fail('tooWideForMachine', i, i.part, { is: deep, limit: MITRE_REACH_MM });
  const last = [...bench.parts.values()].filter((p) => p.panel === panel).at(-1);
  const from = last?.behind ?? { far: 0, near: 0, kerf: 0 };
  // He saws behind his line: the part before it must be there at both edges, and so must something behind it.
  const along = i.saw.kerf / Math.cos(slantOf(i, panel));
  const taken = from.kerf / Math.cos(slantOf(from, panel));
  const before = Math.min(i.far - from.far, i.near - from.near) - (last ? taken : 0);
  const behindIt = panel.length - Math.max(i.far, i.near);
  if (before < -FINE) bench.fail('notEnoughLength', i, i.makes, { is: 0, limit: -before });
  if (behindIt < along - FINE) bench.fail('notEnoughLength', i, i.makes, { is: Math.max(0, behindIt), limit: along });
  const behind = { far: i.far, near: i.near, kerf: i.saw.kerf };
  const number = (last?.number ?? 0) + 1;
  bench.parts.set(i.makes.id, { panel, number, behind, wiped: false });
  if (i.rest) bench.parts.set(i.rest.id, { panel, number: number + 1, behind: null, wiped: false });
}

/** How far a cut leans from square, radians. */
const slantOf = ({ far, near }: { far: number; near: number }, panel: Panel): number =>
  Math.atan2(far - near, panel.width);

export function layParts(bench: Bench, i: InstructionOf<'layParts'>): void {
  for (const piece of i.pieces) {
    if (!piece.strip) {
      if (!bench.parts.has(piece.part.id)) bench.fail('missingPart', i, piece.part);
      continue;
    }
    bench.laid.set(piece.part.id, piece);
    bench.steps.set(piece.part.id, piece.step);
  }
}

/** Whether parts of a panel are glued. */
export function isOfParts(bench: Bench, { parts }: InstructionOf<'glue'>): boolean {
  return parts.some((p) => bench.parts.has(p.id) || bench.pieces.has(p.id));
}

const isPart = (piece: Part | Laid): piece is Part => 'panel' in piece;

export function glueParts(bench: Bench, i: InstructionOf<'glue'>): void {
  inTime(bench, i);
  const pieces = i.parts.flatMap((thing): (Part | Laid)[] => {
    if (bench.used.has(thing.id)) bench.fail('missingPart', i, thing);
    const group = bench.pieces.get(thing.id);
    const piece = group ?? bench.parts.get(thing.id) ?? looseOf(bench, i, thing);
    bench.used.add(thing.id);
    if (!piece) return [];
    if (Array.isArray(piece)) return piece;
    const oily = isPart(piece) ? piece.panel.strips.some(({ wood }) => bench.isOily(wood)) : bench.isOily(piece.wood);
    if (oily && !(isPart(piece) ? piece.wiped : piece.wood.wiped)) bench.fail('oilyFace', i, thing);
    return [piece];
  });
  bench.pieces.set(i.makes.id, pieces);
  const [first] = pieces.filter(isPart);
  if (!first) return;
  // The joints run across: what is pressed is as long as they are, and clamps open as far as the pieces reach.
  const joints = laidOf(pieces);
  const clamped: Panel = {
    thing: i.makes,
    strips: [...first.panel.strips, ...joints],
    length: Math.max(0, ...joints.map((p) => p.wood.x.to - p.wood.x.from)),
    width: spanOf(pieces),
    trimmedFar: 0,
    trimmedNear: 0,
    thickness: Math.min(first.panel.thickness, ...joints.map((p) => p.height)),
    proud: 0,
    flat: false,
    hardGlue: true,
  };
  bench.panels.set(i.makes.id, blockOf(bench, i, pieces) ?? clamped);
  if (clamped.length > FINE && clamped.thickness > FINE) pressed(bench, i, clamped);
}

const laidOf = (pieces: readonly (Part | Laid)[]): Laid[] => pieces.flatMap((p) => (isPart(p) ? [] : [p]));

/** From the first piece to the last in the middle of the panel, mm. */
function spanOf(pieces: readonly (Part | Laid)[]): number {
  const middle = ({ far, near }: { far: number; near: number }) => (far + near) / 2;
  return pieces.reduce((sum, piece, k) => {
    if (!isPart(piece)) return sum + piece.width;
    const before = pieces[k - 2];
    const from =
      before && isPart(before) && before.behind
        ? middle(before.behind) + before.behind.kerf / Math.cos(slantOf(before.behind, before.panel))
        : piece.number === 1
          ? 0
          : null;
    const to = piece.behind ? middle(piece.behind) : piece.panel.length;
    return from === null ? sum : sum + Math.max(0, to - from);
  }, 0);
}

/** A strip that is put in, as it lies. */
function looseOf(bench: Bench, i: InstructionOf<'glue'>, thing: Thing): Laid | null {
  const wood = bench.wood(thing, i);
  if (!wood) return null;
  if (!wood.flat) bench.fail('notFlat', i, thing);
  return asMeasured(bench, laidFrom(wood, bench.laid.get(thing.id) ?? { up: 'face', turned: false, endForEnd: false }));
}

/** Parts and strips as they come out of the clamps, as far as all of them reach; null while parts of the panel are missing. */
function blockOf(bench: Bench, i: InstructionOf<'glue'>, pieces: readonly (Part | Laid)[]): Panel | null {
  const parts = pieces.filter(isPart);
  const [first] = parts;
  if (!first || first.number !== 1 || parts.at(-1)?.behind !== null) return null;
  const { panel } = first;
  const joints = pieces.flatMap((piece, k): Joint[] => {
    if (isPart(piece)) return [];
    const before = pieces[k - 1];
    const behind = before && isPart(before) ? before.behind : null;
    if (!behind) return [];
    // It covers its joint from edge to edge.
    const along = Math.hypot(panel.width, behind.near - behind.far);
    if (piece.wood.x.to - piece.wood.x.from < along - FINE)
      bench.fail('notEnoughLength', i, piece.wood.thing, { is: piece.wood.x.to - piece.wood.x.from, limit: along });
    return [{ ...behind, strip: piece, step: bench.steps.get(piece.wood.thing.id) ?? 0 }];
  });
  const lies = liesOf(joints, panel).map((l) => l.moved);
  const across = lies.map(([, y]) => y);
  const heights = [panel.thickness, ...joints.map((j) => j.strip.height)];
  const least = Math.min(...heights);
  return {
    thing: i.makes,
    // What stands proud is told by its strip.
    strips: [...panel.strips.map((s) => ({ ...s, height: panel.thickness })), ...joints.map((j) => j.strip)],
    length: panel.length + (lies.at(-1)?.[0] ?? 0),
    width: Math.max(0, panel.width - Math.max(...across) + Math.min(...across)),
    trimmedFar: 0,
    trimmedNear: 0,
    thickness: least,
    proud: Math.max(...heights) - least,
    flat: false,
    hardGlue: true,
    parts: { panel, joints },
  };
}

interface Lie {
  /** How far what lies before the joint was moved, and what lies behind it. */
  before: Point;
  moved: Point;
  /** Square to the cut, and along it. */
  square: Point;
  along: Point;
}

/** Where parts lie, from the left: each pressed on the strip before it, and slid along until it steps as it shall. The first entry is the first part. */
function liesOf(joints: readonly Joint[], panel: Panel): Lie[] {
  const still: Point = [0, 0];
  const list: Lie[] = [{ before: still, moved: still, square: [1, 0], along: [0, 1] }];
  for (const joint of joints) {
    const before = list.at(-1)?.moved ?? still;
    const slant = slantOf(joint, panel);
    const [c, s] = [Math.cos(slant), Math.sin(slant)];
    // On the line through the far corner of the cut moved square to it: so far along it that the step is right.
    const apart = joint.strip.width - joint.kerf;
    const x = (apart - joint.step * s) / c;
    list.push({ before, moved: [before[0] + x, before[1] + joint.step], square: [c, s], along: [-s, c] });
  }
  return list;
}

/**
 * Which strip a point of a board of parts was, and where along its piece: every joint undone, the last first.
 * @param at mm from the board's left end, its far edge and its underside
 */
export function woodOfPart(board: Made, at: readonly [number, number, number]): { strip: Laid; along: number } | null {
  const { parts } = board.panel;
  if (!parts) return null;
  const { panel, joints } = parts;
  const lies = liesOf(joints, panel);
  const top = Math.max(...lies.map((l) => l.moved[1]));
  let [x, y] = [at[0] + board.x, at[1] + board.y + top];
  for (let k = joints.length - 1; k >= 0; k -= 1) {
    const joint = joints[k];
    const lie = lies[k + 1];
    if (!joint || !lie) continue;
    const { square, along, before, moved } = lie;
    // The far end of the cut on the part before it, as that part lies.
    const [cx, cy] = [joint.far + before[0], before[1]];
    const deep = (x - cx) * square[0] + (y - cy) * square[1];
    if (deep > joint.strip.width) {
      [x, y] = [x - moved[0] + before[0], y - moved[1] + before[1]];
      continue;
    }
    if (deep > 0) {
      // Its middle lies half way between the middles of both faces it is glued to.
      const half = panel.width / 2;
      const face = (joint.far + joint.near) / 2;
      const behind = face + joint.kerf / Math.cos(slantOf(joint, panel));
      const middle: Point = [(face + before[0] + behind + moved[0]) / 2, (half + before[1] + half + moved[1]) / 2];
      const from = (x - middle[0]) * along[0] + (y - middle[1]) * along[1];
      const { wood, endForEnd } = joint.strip;
      const own = from + (wood.x.to - wood.x.from) / 2;
      return { strip: joint.strip, along: endForEnd ? wood.x.to - own : wood.x.from + own };
    }
  }
  const [px, py] = [x, y];
  const found = edgesOf(panel).find(({ from, to }) => py >= from - TOLERANCE && py < to);
  if (!found) return null;
  const { strip } = found;
  return { strip, along: strip.endForEnd ? strip.wood.x.to - px : strip.wood.x.from + px };
}
