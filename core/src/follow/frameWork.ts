import type { InstructionOf, Thing } from '../steps/instruction.ts';
import type { Around, Laid, Made, Panel } from './bench.ts';
import { woodOfBack } from './backWork.ts';
import { FINE, TOLERANCE, type Bench } from './makersBench.ts';
import { inTime, laidFrom, pressed } from './panelWork.ts';
import { woodOfPart } from './partWork.ts';
import { edgesOf, woodAt } from './rowWork.ts';

type Point = readonly [number, number, number];

export function layFrame(bench: Bench, i: InstructionOf<'layFrame'>): void {
  if (!bench.boards.has(i.part.id) && !bench.panels.has(i.part.id)) bench.fail('missingPart', i, i.part);
  for (const strip of i.strips) {
    bench.laid.set(strip.part.id, strip);
    bench.around.set(strip.part.id, strip);
  }
}

/** Whether strips are glued round a thing. */
export function isOfFrame(bench: Bench, { parts }: InstructionOf<'glue'>): boolean {
  return parts.some((p) => bench.around.has(p.id));
}

const isLong = (side: Around['side']): boolean => side === 'far' || side === 'near';

/** A strip against the thing it goes round: as it lies, and the joint it covers. */
function stripRound(bench: Bench, i: InstructionOf<'glue'>, thing: Thing, inside: Panel | Made): Around | null {
  const how = bench.around.get(thing.id);
  const wood = how && bench.wood(thing, i);
  if (!wood || !how) return null;
  bench.used.add(thing.id);
  if (!wood.flat) bench.fail('notFlat', i, thing);
  if (bench.isOily(wood) && !wood.wiped) bench.fail('oilyFace', i, thing);
  const long = wood.x.to - wood.x.from;
  const joint = isLong(how.side) ? inside.length : inside.width;
  const over = (long - joint) / 2;
  if (over < -FINE) bench.fail('notEnoughLength', i, thing, { is: long, limit: joint });
  else if (Math.abs(over - how.over) > TOLERANCE) bench.fail('sizes', i, thing, { is: over, limit: how.over });
  return { side: how.side, over: Math.max(0, over), laid: laidFrom(wood, how) };
}

export function glueFrame(bench: Bench, i: InstructionOf<'glue'>): void {
  inTime(bench, i);
  const inner = i.parts.find((p) => !bench.around.has(p.id));
  const inside = inner && !bench.used.has(inner.id) && (bench.panels.get(inner.id) ?? bench.boards.get(inner.id));
  if (!inner || !inside) return bench.fail('missingPart', i, inner ?? i.makes);
  bench.used.add(inner.id);
  const before = 'panel' in inside ? inside.panel : inside;
  const half = halfOfPair(bench, i, before);
  // Ends that reach over stand in the way of what covers them, not of what goes on the other side.
  if (!half && (before.over ?? 0) > TOLERANCE) bench.fail('notFlat', i, inner);
  const within = half?.inside ?? inside;
  // What was glued on opposite lies at no joint of this one.
  const faces = 'panel' in within ? within.panel : within;
  const isWiped = bench.wiped.has(inner.id) || bench.wiped.has(within.thing.id);
  if (faces.strips.some(({ wood }) => bench.isOily(wood)) && !isWiped) bench.fail('oilyFace', i, inner);
  const added = i.parts.flatMap((p) => (p === inner ? [] : (stripRound(bench, i, p, within) ?? [])));
  glueRound(bench, i, within, [...added, ...(half?.strips ?? [])].sort(asInPair));
}

/** The first strip of a pair that is glued on one after the other: what it is round, and itself; null for anything else. */
function halfOfPair(bench: Bench, { parts }: InstructionOf<'glue'>, before: Panel): Panel['frame'] | null {
  const { frame } = before;
  const [on] = frame?.strips ?? [];
  if (!frame || !on || frame.strips.length > 1) return null;
  const to = parts.flatMap((p) => bench.around.get(p.id) ?? []);
  return to.every(({ side }) => side !== on.side && isLong(side) === isLong(on.side)) ? frame : null;
}

/** The far one before the near one, the left one before the right one. */
const asInPair = (a: Around, b: Around): number => PAIR_ORDER.indexOf(a.side) - PAIR_ORDER.indexOf(b.side);
const PAIR_ORDER: readonly Around['side'][] = ['far', 'near', 'left', 'right'];

/** What strips make of the thing they go round. */
function glueRound(bench: Bench, i: InstructionOf<'glue'>, inside: Panel | Made, strips: Around[]): void {
  const before = 'panel' in inside ? inside.panel : inside;
  const adds = (long: boolean) =>
    strips.filter((s) => isLong(s.side) === long).reduce((sum, s) => sum + s.laid.width, 0);
  const heights = [inside.thickness, ...strips.map((s) => s.laid.height)];
  const least = Math.min(...heights);
  const size = { length: inside.length + adds(false), width: inside.width + adds(true) };
  const framed: Panel = {
    thing: i.makes,
    strips: [
      // What it goes round is level: it was made so.
      ...before.strips.map((s) => ({ ...s, height: 'panel' in inside ? inside.thickness : s.height })),
      ...strips.map((s) => s.laid),
    ],
    ...size,
    trimmedFar: 0,
    trimmedNear: 0,
    thickness: least,
    proud: Math.max(...heights, before.proud + least) - least,
    flat: Math.max(...heights) - least <= TOLERANCE && before.flat,
    hardGlue: true,
    over: Math.max(0, ...strips.map((s) => s.over)),
    frame: {
      inside,
      x: widthOf(strips, 'left'),
      y: widthOf(strips, 'far'),
      strips,
    },
  };
  bench.panels.set(i.makes.id, framed);
  const long = strips.some((s) => isLong(s.side));
  // Its joints run along the strips: what is pressed is as long as they are.
  const [joint, across] = long ? [inside.length, size.width] : [inside.width, size.length];
  if (joint > FINE && least > FINE) pressed(bench, i, { ...framed, length: joint, width: across });
}

const widthOf = (strips: readonly Around[], side: Around['side']): number =>
  strips.find((s) => s.side === side)?.laid.width ?? 0;

export function flushEnds(bench: Bench, i: InstructionOf<'flushEnds'>): void {
  for (const thing of i.parts) {
    const panel = bench.panels.get(thing.id);
    if (!panel?.frame) {
      bench.fail('missingPart', i, thing);
      continue;
    }
    bench.tool(i.saw.tool, i, thing);
    const told = new Map(i.strips.map((s) => [s.part.id, s.off]));
    const left = panel.frame.strips.map((s) => s.over - (told.get(s.laid.wood.thing.id) ?? 0));
    panel.over = Math.max(0, ...left);
    if (left.some((over) => Math.abs(over) > TOLERANCE)) bench.fail('sizes', i, thing, { is: panel.over, limit: 0 });
    else panel.over = 0;
  }
}

/** Which strip a point of a board was, and where along its piece: whatever was done to it undone, the last first. @param at mm from its left end, its far edge and its underside */
export function woodOf(board: Made, at: Point): { strip: Laid; along: number } | null {
  const { panel } = board;
  if (panel.frame)
    return woodOfFrame(panel, [at[0] + board.x, at[1] + board.y, at[2] + (panel.thickness - board.thickness) / 2]);
  if (panel.back) {
    const up = at[2] + (panel.thickness - board.thickness) / 2;
    const [x, y] = [at[0] + board.x, at[1] + board.y];
    const { back } = panel;
    return up < back.panel.thickness ? woodOfBack(back, [x, y]) : woodOf(back.top, [x, y, up - back.panel.thickness]);
  }
  if (panel.parts) return woodOfPart(board, at);
  if (panel.rows) return woodAt(board, at);
  const found = edgesOf(panel).find(({ from, to }) => at[1] >= from - TOLERANCE && at[1] < to);
  if (!found) return null;
  const { strip } = found;
  const along = at[0] + board.x;
  return { strip, along: strip.endForEnd ? strip.wood.x.to - along : strip.wood.x.from + along };
}

function woodOfFrame({ frame, length, width }: Panel, [x, y, z]: Point): { strip: Laid; along: number } | null {
  if (!frame) return null;
  const { inside, strips } = frame;
  const of = strips.find(({ side, laid }) =>
    side === 'far'
      ? y < laid.width
      : side === 'near'
        ? y > width - laid.width
        : side === 'left'
          ? x < laid.width
          : x > length - laid.width,
  );
  if (of) {
    const { laid, over, side } = of;
    // Along it from where it was cut off flush: with only one pair on, that is where the thing begins.
    const own = (isLong(side) ? x : y) + over;
    return { strip: laid, along: laid.endForEnd ? laid.wood.x.to - own : laid.wood.x.from + own };
  }
  const within: Point = [x - frame.x, y - frame.y, z];
  return 'panel' in inside ? woodOf(inside, within) : woodOfFrame(inside, within);
}
