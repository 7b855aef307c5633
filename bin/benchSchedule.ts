import { firstSchedule, Improver, judged } from '#core/schedule/improve.ts';
import type { Figure } from './bench.ts';
import { scheduleInstance } from './scheduleInstances.ts';

const SHOPS = 10;
const BOARDS = 10;
const MANY_BOARDS = 40;
/** Goals: first answer in milliseconds, gaps as shares. */
const FIRST_MS = 200;
const MANY_MS = 1000;
const GAPS = [
  { seconds: 2, most: 0.05 },
  { seconds: 10, most: 0.01 },
] as const;
/** On so many of the shops the gap must be reached. */
const ENOUGH = 9;
const AT_ONCE = 10;

/** Milliseconds until an order of so many boards is there, the bound not counted, the slowest shop of all. */
function firstAnswer(boards: number, shops: number): number {
  const times = Array.from({ length: shops }, (_, k) => {
    const problem = scheduleInstance(boards, k + 1);
    const start = performance.now();
    firstSchedule(problem);
    return performance.now() - start;
  });
  return Math.max(...times);
}

/** Every figure that the issue of the whole shop asks of its scheduler. */
export function scheduleFigures(): Figure[] {
  // What runs first runs cold.
  firstSchedule(scheduleInstance(BOARDS, SHOPS + 1));
  const first = firstAnswer(BOARDS, SHOPS);
  const many = firstAnswer(MANY_BOARDS, 2);
  const gaps: number[][] = GAPS.map(() => []);
  let steps = 0;
  for (let seed = 1; seed <= SHOPS; seed += 1) {
    const problem = scheduleInstance(BOARDS, seed);
    steps += problem.tasks.length;
    const improver = new Improver(problem, firstSchedule(problem));
    const start = performance.now();
    GAPS.forEach(({ seconds }, k) => {
      while (!improver.finished && performance.now() - start < seconds * 1000) improver.look(AT_ONCE);
      gaps[k]?.push(judged(problem, improver.best, improver.bounds).gap);
    });
  }
  return [
    {
      name: `first order of ${BOARDS} boards (${Math.round(steps / SHOPS)} steps), slowest of ${SHOPS} shops`,
      value: first,
      unit: 'ms',
      goal: `< ${FIRST_MS}`,
      ok: first < FIRST_MS,
    },
    ...GAPS.map(({ seconds, most }, k): Figure => {
      const reached = (gaps[k] ?? []).filter((g) => g <= most).length;
      return {
        name: `shops of ${SHOPS} whose order is within ${most * 100} % of the bound in ${seconds} s (mostly one pair of hands, clamps for three panels); all: ${(gaps[k] ?? []).map((g) => `${(g * 100).toFixed(1)} %`).join(', ')}`,
        value: reached,
        unit: `of ${SHOPS}`,
        goal: `>= ${ENOUGH}`,
        ok: reached >= ENOUGH,
      };
    }),
    {
      name: `first order of ${MANY_BOARDS} boards, slower of 2 shops`,
      value: many,
      unit: 'ms',
      goal: `< ${MANY_MS}`,
      ok: many < MANY_MS,
    },
  ];
}
