import { firstOf, lastOf } from '../lists/there.ts';
import { LENGTH_TOLERANCE_MM } from '../units/length.ts';
import type { InstructionOf } from '../steps/instruction.ts';
import type { Wood } from './bench.ts';
import { FINE, TOLERANCE, type Bench } from './makersBench.ts';
import { inTime, laidFrom, pressed } from './panelWork.ts';

/** Bits off a strip: the end squared, then one after the other; what is too short to hold is not sawn. */
export function cutBits(bench: Bench, i: InstructionOf<'cutBits'>): void {
  const stick = bench.wood(i.part, i);
  if (!stick) return;
  bench.tool(i.saw.tool, i, i.part);
  if (!stick.flat) bench.fail('notFlat', i, i.part);
  const long = stick.x.to - stick.x.from;
  i.bits.forEach((part, k) => {
    const at = i.first + k * (i.each + i.saw.kerf);
    if (at + i.each > long + FINE) bench.fail('notEnoughLength', i, part, { is: long, limit: at + i.each });
    // Before the last cut there is so much left in the hand.
    if (long - at - i.each < i.hold - TOLERANCE)
      bench.fail('partTooShort', i, i.part, { is: long - at - i.each, limit: i.hold });
    const from = i.end === 'far' ? stick.x.to - at - i.each : stick.x.from + at;
    bench.things.set(part.id, {
      ...stick,
      thing: part,
      x: { from, to: from + i.each },
      wiped: false,
      farFirst: i.end === 'far',
    });
  });
  bench.used.add(i.part.id);
}

export function layBits(bench: Bench, i: InstructionOf<'layBits'>): void {
  for (const { part, up } of i.bits) {
    if (!bench.things.has(part.id)) bench.fail('missingPart', i, part);
    bench.bits.set(part.id, up);
  }
  const woods = i.bits.flatMap(({ part }) => bench.things.get(part.id) ?? []);
  const long = woods.reduce((sum, { x }) => sum + x.to - x.from, 0);
  if (woods.length === i.bits.length && Math.abs(long - i.length) > TOLERANCE + FINE)
    bench.fail('sizes', i, i.stack, { is: long, limit: i.length });
}

/** Whether bits are glued, or what was glued of some before. */
export const isOfBits = (bench: Bench, { parts }: InstructionOf<'glue'>): boolean =>
  parts.some((p) => bench.bits.has(p.id));

/** End to end: as long as they are together, as high and as deep as the least of them. */
export function glueBits(bench: Bench, i: InstructionOf<'glue'>): void {
  inTime(bench, i);
  let at = 0;
  const parts = i.parts.flatMap((thing) => {
    const wood = bench.wood(thing, i);
    if (!wood) return [];
    bench.used.add(thing.id);
    return [wood];
  });
  // A line with a gap in it is not glued.
  if (parts.length < i.parts.length) return;
  const bits = parts.flatMap((wood) => {
    const from = at;
    at += wood.bits ? lastOf(wood.bits).to : wood.x.to - wood.x.from;
    return wood.bits
      ? wood.bits.map((b) => ({ ...b, from: b.from + from, to: b.to + from }))
      : [{ wood, from, to: at }];
  });
  // What meets glue now was wiped for it: the ends of bits, and of what was glued of some before.
  parts.forEach((part, k) => {
    const ends = part.bits ? [firstOf(part.bits).wood, lastOf(part.bits).wood] : [part, part];
    const met = [...(k > 0 ? [firstOf(ends)] : []), ...(k < parts.length - 1 ? [lastOf(ends)] : [])];
    for (const wood of met) if (bench.isOily(wood) && !wood.wiped) bench.fail('oilyFace', i, wood.thing);
  });
  for (const { wood } of bits) wood.wiped = false;
  const laid = bits.map(({ wood }) => laidFrom(wood, { up: upOf(bench, wood), turned: false, endForEnd: false }));
  const depth = Math.min(...laid.map((l) => l.width));
  const high = Math.min(...laid.map((l) => l.height));
  const uneven = [laid.map((l) => l.width), laid.map((l) => l.height)].some(
    (sizes) => Math.max(...sizes) - Math.min(...sizes) > TOLERANCE,
  );
  if (uneven) bench.fail('sizes', i, i.makes, { is: depth, limit: Math.max(...laid.map((l) => l.width)) });
  // What was glued of some goes on as a longer bit.
  bench.bits.set(i.makes.id, 'edge');
  bench.things.set(i.makes.id, {
    ...firstOf(parts),
    thing: i.makes,
    x: { from: 0, to: at },
    y: { from: 0, to: high },
    thickness: depth,
    thickest: depth,
    flat: true,
    near: 'straight',
    far: 'straight',
    wiped: false,
    bits,
    hardGlue: true,
  });
  pressed(bench, i, {
    thing: i.makes,
    strips: laid,
    length: depth,
    width: at,
    trimmedFar: 0,
    trimmedNear: 0,
    thickness: high,
    proud: 0,
    flat: true,
    hardGlue: true,
  });
}

/** A strip that shows its edge in the panel was planed to its width; one that shows its face was ripped to it. */
const upOf = (bench: Bench, wood: Wood): 'edge' | 'face' => bench.bits.get(wood.thing.id) ?? 'edge';

export function cutStack(bench: Bench, i: InstructionOf<'cutStack'>): void {
  const stack = bench.wood(i.part, i);
  if (!stack?.bits) return;
  const long = stack.x.to - stack.x.from - 2 * i.off;
  if (Math.abs(long - i.length) > TOLERANCE + FINE) bench.fail('sizes', i, i.part, { is: long, limit: i.length });
  if (i.off <= LENGTH_TOLERANCE_MM) return;
  bench.tool(i.saw.tool, i, i.part);
  if (stack.hardGlue) bench.fail('stillWet', i, i.part);
  stack.x = { from: 0, to: long };
  stack.bits = stack.bits.flatMap(({ wood, from, to }) => {
    const [a, b] = [Math.max(from, i.off), Math.min(to, i.off + long)];
    if (b <= a) return [];
    const [before, behind] = wood.farFirst ? [to - b, a - from] : [a - from, to - b];
    const x = { from: wood.x.from + before, to: wood.x.to - behind };
    return [{ wood: { ...wood, x }, from: a - i.off, to: b - i.off }];
  });
}

/** Of an accent the bit at a place, and where along its piece that is; of any other wood itself. @param along from the first end that it was glued with, mm */
export function bitAt(wood: Wood, along: number): { wood: Wood; along: number } | null {
  if (!wood.bits) return { wood, along };
  const found = wood.bits.find((b) => along >= b.from - TOLERANCE && along < b.to);
  if (!found) return null;
  const { x, farFirst } = found.wood;
  const on = along - found.from;
  return { wood: found.wood, along: farFirst ? x.to - on : x.from + on };
}
