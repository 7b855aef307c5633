import fc from 'fast-check';
import { expect, it } from 'vitest';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { clampCount, groupSizes, planGlueUps } from './glueUps.ts';

it('25 strips of a 16 to 18 in board make five groups of five and one join; five clamps (common practice)', () => {
  for (const inches of [16, 17, 18]) {
    const { glueUps } = planGlueUps(25, inches * 25.4, 40, DEFAULT_SHOP);
    expect(glueUps.map((g) => g.parts)).toEqual([5, 5, 5, 5, 5, 5]);
    expect(glueUps.at(-1)).toMatchObject({ level: 2, joins: ['G1.1', 'G1.2', 'G1.3', 'G1.4', 'G1.5'], firstStrip: 1, lastStrip: 25 });
    expect(clampCount(inches * 25.4, DEFAULT_SHOP)).toBe(5);
  }
});

it('glues every joint once, in time, and joins only what was glued before', () => {
  fc.assert(fc.property(fc.integer({ min: 0, max: 120 }), fc.integer({ min: 200, max: 900 }), fc.integer({ min: 10, max: 60 }), (strips, length, height) => {
    const plan = planGlueUps(strips, length, height, DEFAULT_SHOP);
    expect(plan.glueUps.reduce((sum, g) => sum + g.joints, 0)).toBe(Math.max(0, strips - 1));
    const made = new Set<string>();
    for (const g of plan.glueUps) {
      for (const id of g.joins) expect(made.has(id)).toBe(true);
      made.add(g.id);
      if (plan.mostParts > 2) expect(g.assemblyMinutes).toBeLessThanOrEqual(plan.usableMinutes + 1e-9);
    }
  }));
});

it('groups are even and symmetrical where they can be', () => {
  expect(groupSizes(11, 5)).toEqual([4, 3, 4]);
  fc.assert(fc.property(fc.integer({ min: 1, max: 200 }), fc.integer({ min: 2, max: 9 }), (count, most) => {
    const sizes = groupSizes(count, most);
    expect(sizes.reduce((a, b) => a + b, 0)).toBe(count);
    expect(sizes).toHaveLength(Math.ceil(count / most));
    expect(Math.max(...sizes)).toBeLessThanOrEqual(most);
    expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
    if (sizes.length % 2 === 1) expect(sizes).toEqual([...sizes].reverse());
  }));
});
