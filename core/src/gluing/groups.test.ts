import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chooseGroups, groupSizes, levelMinutes, type GroupingTask } from './groups.ts';

/** Every way to divide a row of n into neighbours. */
function compositions(n: number): number[][] {
  if (n === 0) return [[]];
  return Array.from({ length: n }, (_, i) => i + 1).flatMap((first) =>
    compositions(n - first).map((rest) => [first, ...rest]),
  );
}

/** The fewest minutes of all ways there are, looked for one by one: the check of the search. */
function fewestMinutes(task: GroupingTask): number {
  const upward = (count: number, level: number): number => {
    if (count === 1) return 0;
    let best = Infinity;
    for (const sizes of compositions(count)) {
      if (sizes.length === count || sizes.some((s) => s > task.mostParts)) continue;
      if (level === 1 && !allowed(sizes, task)) continue;
      const last = sizes.length === 1;
      const wait = last ? task.lastMinutes : level === 1 ? task.groupMinutes : task.joinMinutes;
      best = Math.min(best, levelMinutes(sizes, wait, task) + upward(sizes.length, level + 1));
    }
    return best;
  };
  // All at once may also be the first and last glue-up; and no first groups at all, where all close in time.
  return upward(task.widths.length, 1);
}

/** Whether first groups are narrow enough to be flattened; a single strip may be wider. */
function allowed(sizes: readonly number[], { widths, sectionWidth }: GroupingTask): boolean {
  if (sectionWidth === null) return true;
  let at = 0;
  return sizes.every((size) => {
    const width = widths.slice(at, at + size).reduce((a, b) => a + b, 0);
    at += size;
    return size === 1 || width <= sectionWidth + 1e-6;
  });
}

const tasks: fc.Arbitrary<GroupingTask> = fc
  .record({
    widths: fc.array(fc.integer({ min: 15, max: 60 }), { minLength: 2, maxLength: 8 }),
    mostParts: fc.integer({ min: 2, max: 6 }),
    sideBySide: fc.integer({ min: 1, max: 3 }),
    groupMinutes: fc.integer({ min: 20, max: 60 }),
    joinMinutes: fc.integer({ min: 20, max: 90 }),
    lastMinutes: fc.integer({ min: 60, max: 180 }),
    each: fc.integer({ min: 1, max: 5 }),
    symmetrical: fc.boolean(),
  })
  .map(({ each, ...task }) => ({
    ...task,
    sectionWidth: null,
    groups: null,
    handsMinutes: (parts: number) => 3 + each * parts,
  }));

describe('groups for gluing', () => {
  it('take no more minutes than the best of all ways there are, looked for one by one', () => {
    fc.assert(
      fc.property(tasks, (task) => {
        expect(chooseGroups(task).minutes).toBeCloseTo(fewestMinutes(task), 9);
      }),
      { numRuns: 120 },
    );
  });

  it('with sections no wider than what flattens them too, wherever there is a way', () => {
    fc.assert(
      fc.property(tasks, fc.integer({ min: 60, max: 160 }), (task, sectionWidth) => {
        const symmetrical = task.widths.join() === [...task.widths].reverse().join();
        const narrow = { ...task, sectionWidth, symmetrical };
        const best = fewestMinutes(narrow);
        if (!Number.isFinite(best)) return;
        const { levels, minutes } = chooseGroups(narrow);
        expect(minutes).toBeGreaterThanOrEqual(best - 1e-9);
        if (levels.length > 1) expect(allowed(levels[0]!, narrow)).toBe(true);
      }),
      { numRuns: 120 },
    );
  });

  it('every level takes up what the one below it gives, none more than close in time, and the last is one', () => {
    fc.assert(
      fc.property(tasks, (task) => {
        const { levels } = chooseGroups(task);
        let count = task.widths.length;
        for (const sizes of levels) {
          expect(sizes.reduce((a, b) => a + b, 0)).toBe(count);
          for (const size of sizes) expect(size).toBeLessThanOrEqual(task.mostParts);
          count = sizes.length;
        }
        expect(count).toBe(1);
      }),
    );
  });

  it('groups that are given stand; what follows from them is the best way up', () => {
    const task: GroupingTask = {
      widths: [30, 30, 30, 30, 30, 30],
      mostParts: 4,
      sideBySide: 1,
      groupMinutes: 30,
      joinMinutes: 30,
      lastMinutes: 120,
      symmetrical: true,
      sectionWidth: null,
      handsMinutes: () => 10,
      groups: [1, 4, 1],
    };
    // One group of four (30 and 10), then three things (120 and 10).
    expect(chooseGroups(task)).toEqual({ levels: [[1, 4, 1], [3]], minutes: 30 + 10 + 120 + 10 });
    expect(chooseGroups({ ...task, widths: [30] })).toEqual({ levels: [], minutes: 0 });
  });

  it('rounds under the clamps: three groups with clamps for two take two rounds', () => {
    expect(levelMinutes([3, 3, 1, 2], 40, { sideBySide: 2, handsMinutes: (parts) => parts })).toBe(2 * 40 + 8);
    expect(levelMinutes([1, 1], 40, { sideBySide: 2, handsMinutes: (parts) => parts })).toBe(0);
  });

  it('sizes are as even as they can be, the same from both ends where the count allows', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 20 }), (count, groups) => {
        fc.pre(groups <= count);
        const sizes = groupSizes(count, groups);
        expect(sizes.reduce((a, b) => a + b, 0)).toBe(count);
        expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
        if (count % groups === 0 || (count % groups) % 2 === 0 || groups % 2 === 1)
          expect(sizes).toEqual([...sizes].reverse());
      }),
    );
  });
});
