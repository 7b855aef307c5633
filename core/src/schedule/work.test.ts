import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Board } from '../board/board.ts';
import type { Fact } from '../facts/fact.ts';
import { makePlan } from '../plan/plan.ts';
import { glueUpsOf } from '../plan/trimAgain.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { firstSchedule } from './improve.ts';
import { clampsHeld, capacitiesOf } from './resources.ts';
import { setUpsOf } from './setUps.ts';
import { shopProblem } from './shopProblem.ts';
import { whyLate } from './whyLate.ts';
import { workOf, type BoardWork, type WorkOf } from './work.ts';

const MINUTE = 60_000;
const RACK = [plainPiece({ mark: 'A1', length: 2400, width: 220, thickness: 56, count: 8 })];
const bread = (change: Partial<Board> = {}) => {
  const board = { ...plainBoard({ length: 300, width: 180, thickness: 30 }, [45, 45, 45, 45, 45]), ...change };
  return planInput(board, RACK);
};
const workFor = (input: PlanInput, more: Partial<WorkOf> = {}): BoardWork => {
  const plan = makePlan(input);
  return workOf(
    {
      id: 'b',
      board: input.board,
      operations: plan.operations,
      glueUps: glueUpsOf(plan),
      finish: plan.finish,
      facts: input.facts ?? [],
      ...more,
    },
    plan.shop,
  );
};
const done = (id: string, step: string, at: number, minutes: number, wait: number | null): Fact => ({
  kind: 'done',
  id,
  at: new Date(at * MINUTE).toISOString(),
  step,
  copy: 1,
  minutes,
  wait: wait === null ? null : { minutes: wait, for: 'the glue' },
});

describe('the work of a board', () => {
  it('is the hands and waits of its steps, each once for each panel, whatever the board', () => {
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const plan = makePlan(input);
        const { tasks } = workFor(input);
        const hands = plan.operations.reduce((sum, o) => sum + o.minutes * o.repeats, 0);
        expect(tasks.reduce((sum, t) => sum + t.minutes, 0)).toBeCloseTo(hands, 6);
        const waits = plan.operations.reduce((sum, o) => sum + (o.waitMinutes ?? 0) * o.repeats, 0);
        expect(tasks.reduce((sum, t) => sum + t.wait + t.cure, 0)).toBeCloseTo(waits, 6);
        // Each comes after those it depends on, and all ids are there.
        const seen = new Set<string>();
        for (const t of tasks) {
          expect(t.after.every((a) => seen.has(a))).toBe(true);
          seen.add(t.id);
        }
        expect(seen.size).toBe(tasks.length);
      }),
      { numRuns: 60 },
    );
  });

  it('coats of a finish lie a drying apart, the last one hardens; wetted wood dries before its paper', () => {
    const { tasks } = workFor(bread({ finish: ['hard-wax-oil'] }));
    const coats = tasks.filter((t) => t.kind === 'topCoat');
    expect(coats.map((t) => [t.part, t.parts, t.wait, t.cure])).toEqual([
      [1, 2, 1440, 0],
      [2, 2, 1440, 3 * 1440],
    ]);
    expect(coats[1]!.after).toEqual([coats[0]!.id]);
    const wet = tasks.filter((t) => t.kind === 'raiseGrain');
    expect(wet.map((t) => t.wait > 0)).toEqual([true, false]);
  });

  it('what is done is past; its wait keeps what comes after, and its clamps are held, until it is over', () => {
    const input = bread();
    const plan = makePlan(input);
    const at = plan.operations.findIndex((o) => o.kind === 'glue');
    const glue = plan.operations[at]!;
    const facts = plan.operations
      .slice(0, at + 1)
      .map((o, k) => done(`f${k}`, o.id, 1000 + k, 5, o.id === glue.id ? 120 : null));
    const work = workFor({ ...input, facts });
    const until = 1000 + at + 120;
    expect(work.past.at(-1)).toMatchObject({ step: glue.id, to: 1000 + at, until });
    expect(work.tasks.map((t) => t.step)).not.toContain(glue.id);
    expect(work.tasks[0]!.notBefore).toBe(until);
    expect(work.held).toEqual(
      [{ resource: 'clamps pipe 900', amount: 4, until }].map((h) => ({ ...h, amount: expect.any(Number) as number })),
    );
    const problem = shopProblem([{ work, due: null }], plan.shop, 'UTC', 1050);
    expect(firstSchedule(problem).placed.get(work.tasks[0]!.id)!.hands[0]!.from).toBeGreaterThanOrEqual(until);
  });

  it('a glue-up whose clock runs is begun, and so is everything before it', () => {
    const input = bread();
    const plan = makePlan(input);
    const glue = plan.operations.find((o) => o.kind === 'glue')!;
    const work = workFor(input, { running: [{ glueUp: glue.glueUp!, copy: 1, from: 500, until: 700 }] });
    const numbers = work.tasks.map((t) => t.number);
    expect(Math.min(...numbers)).toBe(glue.number + 1);
    expect(work.tasks[0]!.notBefore).toBe(700);
  });

  it('pins are those of its steps; of a step that is no longer there nothing is left', () => {
    const pins = [
      { step: 'crosscut', copy: 1, at: '2026-12-01T09:00:00Z', person: null },
      { step: 'gone', copy: 1, at: '2026-12-01T09:00:00Z', person: 'one' },
    ];
    const { tasks } = workFor(bread({ pins }));
    expect(tasks.filter((t) => t.pinned !== null).map((t) => t.step)).toEqual(['crosscut']);
    expect(tasks.every((t) => t.person === null)).toBe(true);
  });
});

describe('clamps by kind and opening', () => {
  const clamps = [
    { id: 'long', kind: 'f' as const, opening: 900, reach: 80, force: 3, count: 2 },
    { id: 'short', kind: 'f' as const, opening: 300, reach: 80, force: 3, count: 4 },
  ];
  const placed = (n: number) => ({
    placed: Array.from({ length: n }, () => ({ kind: 'f' as const, at: 0, side: 'below' as const })),
  });

  it('a wide panel holds long ones, which are counted among all; a narrow one leaves them', () => {
    const capacities = capacitiesOf({ clamps, space: { glueUps: null, drying: null }, bath: null });
    expect(Object.fromEntries(capacities)).toEqual({ 'clamps f 300': 6, 'clamps f 900': 2 });
    expect(clampsHeld({ clamps: placed(2) as never, width: 500 }, clamps)).toEqual([
      { resource: 'clamps f 300', amount: 2 },
      { resource: 'clamps f 900', amount: 2 },
    ]);
    expect(clampsHeld({ clamps: placed(4) as never, width: 200 }, clamps)).toEqual([
      { resource: 'clamps f 300', amount: 4 },
    ]);
  });
});

describe('several boards', () => {
  const shop = makePlan(bread()).shop;
  const three = ['a', 'b', 'c'].map((id) => ({ work: workFor(bread(), { id }), due: null }));

  it('three alike are planed at one setting together, and it says so', () => {
    const problem = shopProblem(three, shop, 'UTC', 0);
    const schedule = firstSchedule(problem);
    const planed = [...schedule.placed.values()].filter((p) => p.task.setting !== null);
    const groups = setUpsOf(planed).filter((g) => g.setting !== null);
    expect(groups.length).toBeGreaterThan(0);
    expect(new Set(groups[0]!.steps.map((s) => s.task.board)).size).toBe(3);
    // Every step is in one group.
    expect(setUpsOf(planed).flatMap((g) => g.steps)).toHaveLength(planed.length);
  });

  it('why one is late: its finish, itself, or the others', () => {
    const late = (id: string, due: { at: number; cured: boolean }, boards = three) => {
      const problem = { ...shopProblem(boards, shop, 'UTC', 0), dues: new Map([[id, due]]) };
      return whyLate(problem, firstSchedule(problem), id);
    };
    const own = firstSchedule(shopProblem([three[0]!], shop, 'UTC', 0)).boards.get('a')!;
    expect(late('a', { at: own.handled - 600, cured: false })).toMatch(
      /even with the shop to itself it would be \d+ h late/,
    );
    const slow = workFor(bread({ finish: ['drying-oil'] }), { id: 'a' });
    const dry = firstSchedule(shopProblem([{ work: slow, due: null }], shop, 'UTC', 0)).boards.get('a')!;
    expect(late('a', { at: dry.handled + 60, cured: true }, [{ work: slow, due: null }])).toContain(
      'its finish hardens 21 days more',
    );
    const last = [...firstSchedule(shopProblem(three, shop, 'UTC', 0)).boards].sort(
      (x, y) => y[1].handled - x[1].handled,
    )[0]!;
    expect(
      late(
        last[0],
        { at: own.handled + 60, cured: false },
        three.concat(three.map((t, i) => ({ ...t, work: workFor(bread(), { id: `d${i}` }) }))),
      ),
    ).toMatch(/other boards|shop to itself|hours there are/);
    expect(late('a', { at: -5, cured: false })).toBe('its day is past.');
  });
});
