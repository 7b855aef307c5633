import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { criticalPath, type NetworkTask } from './schedule.ts';

const networks: fc.Arbitrary<NetworkTask[]> = fc
  .array(
    fc.record({
      minutes: fc.integer({ min: 0, max: 90 }),
      links: fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 3 }),
    }),
    { minLength: 1, maxLength: 9 },
  )
  .map((tasks) =>
    tasks.map(({ minutes, links }, i) => ({
      id: `t${i}`,
      minutes,
      after: i === 0 ? [] : [...new Set(links.map((l) => `t${Math.min(i - 1, Math.floor(l * i))}`))],
    })),
  );

/** Every way through a network, from a task with nothing before it to one with nothing after it. */
function ways(tasks: readonly NetworkTask[], id: string): NetworkTask[][] {
  const task = tasks.find((t) => t.id === id)!;
  return task.after.length === 0
    ? [[task]]
    : task.after.flatMap((before) => ways(tasks, before).map((way) => [...way, task]));
}
const long = (way: readonly NetworkTask[]) => way.reduce((sum, t) => sum + t.minutes, 0);

describe('the critical path', () => {
  it('a worked example of the method (activities A to G, finish at 24; common practice of the textbooks)', () => {
    const tasks: NetworkTask[] = [
      { id: 'A', minutes: 4, after: [] },
      { id: 'B', minutes: 6, after: [] },
      { id: 'C', minutes: 5, after: ['A'] },
      { id: 'D', minutes: 7, after: ['A', 'B'] },
      { id: 'E', minutes: 8, after: ['C', 'D'] },
      { id: 'F', minutes: 2, after: ['D'] },
      { id: 'G', minutes: 3, after: ['E', 'F'] },
    ];
    const times = criticalPath(tasks);
    // B, D, E, G: 6 + 7 + 8 + 3.
    expect([...times].filter(([, t]) => t.slack === 0).map(([id]) => id)).toEqual(['B', 'D', 'E', 'G']);
    expect(times.get('G')!.earliest + 3).toBe(24);
    expect([times.get('A')!.slack, times.get('C')!.slack, times.get('F')!.slack]).toEqual([2, 4, 6]);
  });

  it('a task begins as early as the longest way to it lets it, looked for way by way', () => {
    fc.assert(
      fc.property(networks, (tasks) => {
        const times = criticalPath(tasks);
        for (const task of tasks)
          expect(times.get(task.id)!.earliest).toBe(Math.max(...ways(tasks, task.id).map(long)) - task.minutes);
      }),
    );
  });

  it('as late as it may, everything still ends in time; a minute later, it does not', () => {
    fc.assert(
      fc.property(networks, (tasks) => {
        const times = criticalPath(tasks);
        const end = (list: readonly NetworkTask[]) =>
          Math.max(...list.map((t) => criticalPath(list).get(t.id)!.earliest + t.minutes));
        const whole = end(tasks);
        for (const task of tasks) {
          const { slack } = times.get(task.id)!;
          expect(slack).toBeGreaterThanOrEqual(0);
          const delayed = (by: number) => tasks.map((t) => (t.id === task.id ? { ...t, minutes: t.minutes + by } : t));
          expect(end(delayed(slack))).toBe(whole);
          expect(end(delayed(slack + 1))).toBe(whole + 1);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('a task before what it depends on is a mistake that names both', () => {
    expect(() =>
      criticalPath([
        { id: 'oil', minutes: 1, after: ['sand'] },
        { id: 'sand', minutes: 1, after: [] },
      ]),
    ).toThrow('oil comes before sand');
  });
});
