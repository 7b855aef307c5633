import { firstMishaps } from '#core/bench/mishaps.ts';
import { waitsOf } from '#core/bench/waits.ts';
import { MOST_STRIPS_CUT } from '#core/board/writtenBoard.ts';
import { stripsOf } from '#core/board/recipe.ts';
import type { Fact } from '#core/facts/fact.ts';
import { nth } from '#core/lists/there.ts';
import { workOfPlan } from '#core/plan/boardWork.ts';
import { makePlan } from '#core/plan/plan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { benchInstance } from './instances.ts';
import type { Figure } from './figure.ts';

const PIECES = 12_000;
const STRIPS = 200;
const FAILED = 400;
const WAITS = 5000;
const ENDS = 40;
const MOMENT = Date.parse('2026-12-01T08:00:00.000Z');
const at = (k: number): string => new Date(MOMENT + k * 1000).toISOString();

/** The largest things that a maker may ask for, each once after the engine has warmed up on a small one. */
export function heaviestFigures(): Figure[] {
  const plan = (input: PlanInput) => workOfPlan('b', input, makePlan(input));
  plan(benchInstance(40, 60));
  const rack = benchInstance(40, PIECES);
  const large = benchInstance(STRIPS, 2000);
  const copies = Math.floor(MOST_STRIPS_CUT / STRIPS);
  const batch = { ...large, board: { ...large.board, width: 1500, count: copies } };
  const strips = stripsOf(large.board);
  const failed = {
    ...large,
    facts: Array.from({ length: FAILED }, (_, k): Fact => ({
      kind: 'failed',
      id: `f${k}`,
      at: at(k),
      what: 'strip',
      thing: nth(strips, k % strips.length).id,
      copy: 1,
      why: 'split',
    })),
  };
  const mishapPlan = makePlan(failed);
  const waits = Array.from({ length: WAITS }, (_, k): Fact => ({
    kind: 'done',
    id: `d${k}`,
    at: at(k),
    step: `step/${k}`,
    copy: 1,
    minutes: 3,
    wait: { minutes: 60_000, for: 'the glue' },
    ends: Array.from({ length: ENDS }, (__, e) => ({ step: `other/${k}/${e}`, copy: 1 })),
  }));
  return [
    seconds(`plan of a board from ${PIECES} pieces`, () => plan(rack)),
    seconds(`plan of ${copies} boards of ${STRIPS} strips, the most that is cut at once`, () => plan(batch)),
    seconds(`what went otherwise with ${FAILED} failed strips`, () => firstMishaps(failed, mishapPlan)),
    seconds(`${WAITS} waits with ${ENDS} ends each`, () => waitsOf(waits, 0)),
  ];
}

function seconds(name: string, work: () => unknown): Figure {
  const before = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(before);
  const value = (user + system) / 1e6;
  return { name, value, unit: 's of processor', goal: '< 1', ok: value < 1 };
}
