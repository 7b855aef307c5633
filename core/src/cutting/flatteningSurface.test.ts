import fc from 'fast-check';
import { expect, it } from 'vitest';
import { formOfPart, thicknessLost } from './flattening.ts';

/**
 * A surface as a straight edge and a feeler find it: bow and cup as shallow arcs (parabolas: a sagitta goes with the square of its chord), twist as a ruled surface whose
 * fourth corner is lifted. Heights in mm over the corner at the origin.
 */
function surface({ bow, cup, twist }: { bow: number; cup: number; twist: number }, length: number, width: number) {
  return (x: number, y: number) =>
    4 * bow * (x / length) * (1 - x / length) +
    4 * cup * (y / width) * (1 - y / width) +
    twist * (x / length) * (y / width);
}

/** Cuts a part out of the surface and measures how far it is from flat: the least slab between two parallel planes, over all tilts, by sampling. */
function leastSlab(
  z: (x: number, y: number) => number,
  at: { x: number; y: number },
  part: { length: number; width: number },
): number {
  const points = Array.from({ length: 21 }, (_, i) =>
    Array.from({ length: 21 }, (_, j) => {
      const [x, y] = [(part.length * i) / 20, (part.width * j) / 20];
      return [x, y, z(at.x + x, at.y + y)] as const;
    }),
  ).flat();
  const thickness = (a: number, b: number) => {
    let [least, most] = [Infinity, -Infinity];
    for (const [x, y, h] of points) {
      const height = h - a * x - b * y;
      if (height < least) least = height;
      if (height > most) most = height;
    }
    return most - least;
  };
  // The slab is convex in both tilts: a search that closes in finds its least.
  const best = (f: (v: number) => number, from: number, to: number) => {
    let [low, high] = [from, to];
    for (let i = 0; i < 36; i += 1) {
      const [m1, m2] = [low + (high - low) / 3, high - (high - low) / 3];
      if (f(m1) <= f(m2)) high = m2;
      else low = m1;
    }
    return f((low + high) / 2);
  };
  const steep = 0.2;
  return best((a) => best((b) => thickness(a, b), -steep, steep), -steep, steep);
}

const shape = fc.record({
  length: fc.integer({ min: 600, max: 2400 }),
  width: fc.integer({ min: 80, max: 260 }),
  share: fc.double({ min: 0.15, max: 1, noNaN: true }),
  across: fc.double({ min: 0.3, max: 1, noNaN: true }),
  bow: fc.double({ min: 0, max: 12, noNaN: true }),
  cup: fc.double({ min: 0, max: 3, noNaN: true }),
  twist: fc.double({ min: 0, max: 5, noNaN: true }),
});

it('bow and cup cost exactly what a numerical surface says; twist half of its lift; together never less than the surface', () => {
  fc.assert(
    fc.property(shape, ({ length, width, share, across, bow, cup, twist }) => {
      const whole = { length, width, farEnd: null };
      const part = { length: length * share, width: width * across };
      const at = { x: (length - part.length) / 2, y: (width - part.width) / 2 };
      const slab = (form: { bow: number; cup: number; twist: number }) =>
        leastSlab(surface(form, length, width), at, part);
      const lost = (form: { bow: number; cup: number; twist: number }) =>
        thicknessLost(formOfPart({ ...form, crook: 0 }, whole, part));
      expect(slab({ bow, cup: 0, twist: 0 })).toBeCloseTo(lost({ bow, cup: 0, twist: 0 }), 1);
      expect(slab({ bow: 0, cup, twist: 0 })).toBeCloseTo(lost({ bow: 0, cup, twist: 0 }), 1);
      expect(slab({ bow: 0, cup: 0, twist })).toBeCloseTo(lost({ bow: 0, cup: 0, twist }), 1);
      // Added up they are on the safe side, and not by more than the twist.
      const [measured, formula] = [slab({ bow, cup, twist }), lost({ bow, cup, twist })];
      expect(formula).toBeGreaterThanOrEqual(measured - 0.02);
      expect(formula - measured).toBeLessThanOrEqual(lost({ bow: 0, cup: 0, twist }) + 0.02);
    }),
    { numRuns: 8 },
  );
}, 60_000);
