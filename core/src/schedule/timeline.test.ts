import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { gritRun, GRAIN_MICRONS } from '../shop/grits.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';
import { criticalPath, type NetworkTask } from './schedule.ts';
import { meanwhileOf, timelineOf, type TimelineTask } from './timeline.ts';

describe('criticalPath', () => {
  it('finds the 44 weeks and the critical path of the plant project of a textbook (Hillier and Lieberman, Introduction to Operations Research, chapter on project management; from memory)', () => {
    const project: [string, number, string][] = [
      ['A', 2, ''],
      ['B', 4, 'A'],
      ['C', 10, 'B'],
      ['D', 6, 'C'],
      ['E', 4, 'C'],
      ['F', 5, 'E'],
      ['I', 7, 'C'],
      ['G', 7, 'D'],
      ['H', 9, 'EG'],
      ['J', 8, 'FI'],
      ['K', 4, 'J'],
      ['L', 5, 'J'],
      ['M', 2, 'H'],
      ['N', 6, 'KL'],
    ];
    const tasks: NetworkTask[] = project.map(([id, minutes, after]) => ({ id, minutes, after: [...after] }));
    const times = criticalPath(tasks);
    expect(Math.max(...tasks.map((t) => times.get(t.id)!.earliest + t.minutes))).toBe(44);
    expect(tasks.filter((t) => times.get(t.id)!.slack === 0).map((t) => t.id)).toEqual([
      'A',
      'B',
      'C',
      'E',
      'F',
      'J',
      'L',
      'N',
    ]);
    expect(['D', 'G', 'H', 'I', 'K', 'M'].map((id) => times.get(id)!.slack)).toEqual([4, 4, 4, 2, 1, 4]);
  });
});

describe('meanwhileOf', () => {
  it('names what hands are on while glue sets, and the shop time that is left (by hand)', () => {
    const at = (id: string, from: number, to: number, until: number): TimelineTask => ({
      id,
      step: 1,
      copy: 1,
      kind: 'glue',
      title: [],
      machine: null,
      hands: [{ from, to }],
      until,
      waitFor: null,
      clamps: 0,
      slack: 0,
      critical: false,
    });
    // Monday: glued 16:30 to 17:00, in clamps until 19:00; another step 17:30 to 18:00. The shop closes at 18:00.
    const [glue, other, later] = [at('a', 990, 1020, 1140), at('b', 1050, 1080, 1080), at('c', 1980, 2000, 2000)];
    const found = meanwhileOf([glue, other, later], glue, DEFAULT_SHOP)!;
    expect(found.tasks).toEqual([other]);
    expect(found.freeMinutes).toBeCloseTo(30, 9);
    expect(meanwhileOf([glue, other, later], other, DEFAULT_SHOP)).toBeNull();
  });
});

describe('glue that is scraped', () => {
  it('is spread while somebody can still be there to scrape it, and not late in the evening', () => {
    const hours = Array(7).fill({ from: '18:00', to: '21:00' }) as typeof DEFAULT_SHOP.hours;
    const shop = { ...DEFAULT_SHOP, hours };
    const { operations } = makePlan(planInput(plainBoard(), [plainPiece()], shop));
    let later = 0;
    for (let start = 0; start < 1440; start += 7) {
      for (const task of timelineOf(operations, shop, start).tasks.filter(
        (t) => t.kind === 'glue' || t.kind === 'join',
      )) {
        const { stayMinutes } = operations.find((o) => o.number === task.step)!;
        expect(stayMinutes).toBeGreaterThan(0);
        const end = task.hands.at(-1)!.to;
        expect((end + stayMinutes) % 1440).toBeLessThanOrEqual(21 * 60 + 1e-6);
        if (end % 1440 > 20 * 60) later += 1;
      }
    }
    // It is not simply put off to the next day whenever the evening has begun.
    expect(later).toBeGreaterThan(0);
    const wiped = makePlan(
      planInput(plainBoard(), [plainPiece()], { ...shop, schools: { ...shop.schools, squeezeOut: 'wipe' } }),
    );
    expect(wiped.operations.every((o) => o.stayMinutes === 0)).toBe(true);
  });
});

describe('timelineOf', () => {
  it('what is glued is not done again, nor what came before it; the rest waits for its clamps', () => {
    let later = 0;
    fc.assert(
      fc.property(planInputArbitrary, fc.integer({ min: 0, max: 20_000 }), fc.nat(), (input, start, pick) => {
        const { operations, shop } = makePlan(input);
        const whole = timelineOf(operations, shop, start);
        const gluing = operations.filter((o) => o.glueUp !== null);
        if (gluing.length === 0) return;
        const { glueUp, number } = gluing[pick % gluing.length]!;
        const until = start + 600;
        const rest = timelineOf(operations, shop, start, [{ glueUp: glueUp!, copy: 1, from: start - 60, until }]);
        expect(rest.tasks.every((t) => t.kind === 'glue' || t.kind === 'join' || t.step > gluing[0]!.number)).toBe(
          true,
        );
        const [mine] = rest.tasks.filter((t) => t.step === number && t.copy === 1);
        expect([mine!.hands[0]!.from, mine!.until]).toEqual([start - 60, until]);
        for (const t of rest.tasks)
          if (t.step > gluing.at(-1)!.number) expect(t.hands[0]!.from).toBeGreaterThanOrEqual(until - 1e-6);
        expect(rest.handsMinutes).toBeLessThan(whole.handsMinutes);
        if (rest.tasks.length > 1) later += 1;
      }),
      { numRuns: 60 },
    );
    expect(later).toBeGreaterThan(10);
  });

  it("keeps to the shop's hours, the order of the steps, one pair of hands and the clamps there are", () => {
    fc.assert(
      fc.property(
        planInputArbitrary,
        fc.integer({ min: 0, max: 9 }),
        fc.integer({ min: 0, max: 20_000 }),
        (input, count, start) => {
          const shop = { ...DEFAULT_SHOP, clamps: [{ ...DEFAULT_SHOP.clamps[0]!, count }] };
          const { operations } = makePlan({ ...input, shop: { ...shop, saw: input.shop.saw } });
          const { tasks, clamps } = timelineOf(operations, shop, start);
          expect(tasks).toHaveLength(operations.reduce((sum, o) => sum + o.repeats, 0));
          const hands = tasks.flatMap((t) => t.hands).sort((a, b) => a.from - b.from);
          for (const [i, { from, to }] of hands.entries()) {
            const open = shop.hours[Math.floor(from / 1440) % 7];
            const clock = (text: string) => Number(text.slice(0, 2)) * 60 + Number(text.slice(3));
            expect(open && from % 1440 >= clock(open.from) - 1e-6 && (to - 1e-9) % 1440 <= clock(open.to) + 1e-6).toBe(
              true,
            );
            expect(from).toBeGreaterThanOrEqual(Math.max(start, hands[i - 1]?.to ?? 0) - 1e-6);
          }
          for (const t of tasks) {
            const at = t.hands[0]!.from;
            const held = tasks
              .filter((o) => o.hands[0]!.from <= at && o.until > at)
              .reduce((sum, o) => sum + o.clamps, 0);
            expect(held).toBeLessThanOrEqual(clamps);
            const operation = operations[t.step - 1]!;
            for (const id of operation.joins) {
              const made = tasks.find((o) => operations[o.step - 1]!.glueUp === id && o.copy === t.copy)!;
              expect(made.until).toBeLessThanOrEqual(at + 1e-6);
            }
            if (t.kind === 'flattenPanel')
              for (const o of tasks)
                if (o.kind === 'glue' || o.kind === 'join') expect(o.until).toBeLessThanOrEqual(at + 1e-6);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('glues groups side by side where clamps allow: five clamps on each of two groups want ten', () => {
    const six = makePlan(planInput(plainBoard({ gluing: { groups: [3, 3], helper: false } }), [plainPiece()]));
    const ends = (count: number) => {
      const { tasks } = timelineOf(six.operations, {
        ...DEFAULT_SHOP,
        clamps: [{ ...DEFAULT_SHOP.clamps[0]!, count }],
      });
      const groups = tasks.filter((t) => t.kind === 'glue');
      return groups[1]!.hands[0]!.from - groups[0]!.until;
    };
    expect(ends(10)).toBeLessThan(0);
    expect(ends(8)).toBeGreaterThanOrEqual(0);
  });
});

it('grits step by about half of the grain at most, and begin and end as asked (FEPA sizes)', () => {
  expect(gritRun(80, 220)).toEqual([80, 150, 220]);
  for (const first of [40, 80, 120]) {
    for (const last of [150, 220, 320, 400, 600]) {
      const run = gritRun(first, last);
      expect([run[0], run.at(-1)]).toEqual([first, last]);
      run.slice(1).forEach((g, i) => expect(GRAIN_MICRONS[run[i]!]! / GRAIN_MICRONS[g]!).toBeLessThanOrEqual(2.05));
    }
  }
});
