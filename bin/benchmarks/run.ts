import { checkPlan } from '#core/checks/checkPlan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import { makePlan } from '#core/plan/plan.ts';
import { benchInstance } from './instances.ts';
import type { Figure } from './figure.ts';
import { firstPageKilobytes } from './firstPage.ts';
import { buildWeb } from '../buildWeb.ts';
import { ensureProgram } from '../debianPackages.ts';
import { runCommand, Sentence } from '../sentence.ts';
import { stripsOf, withStrips } from '#core/board/recipe.ts';

function median(values: number[]): number {
  return values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;
}

function timePlan(input: PlanInput): number {
  const times: number[] = [];
  for (let run = 0; run < 200; run += 1) {
    const start = performance.now();
    checkPlan(makePlan(input), input);
    if (run >= 100) times.push(performance.now() - start);
  }
  return median(times);
}

/** What an edit to one strip asks of the main thread beside the drawing: the plan made anew, the rack and the shop as they were. */
function timeEdit(input: PlanInput): number {
  const times: number[] = [];
  for (let run = 0; run < 200; run += 1) {
    const strips = stripsOf(input.board).map((s, i) => (i === 7 ? { ...s, width: s.width + (run % 10) / 10 } : s));
    const edited = { ...input, board: withStrips(input.board, strips) };
    const start = performance.now();
    checkPlan(makePlan(edited), edited);
    if (run >= 100) times.push(performance.now() - start);
  }
  return median(times);
}

async function planFigures(): Promise<Figure[]> {
  const milliseconds = timePlan(benchInstance(40, 60));
  const large = timePlan(benchInstance(100, 60));
  const edit = timeEdit(benchInstance(40, 60));
  ensureProgram('mariadbd', 'mariadb-server');
  ensureProgram('chromium', 'chromium');
  buildWeb();
  const kilobytes = firstPageKilobytes();
  const { traceJointDrags } = await import('./traceDrag.ts');
  const { longestTask: task } = await traceJointDrags(benchInstance(40, 60));
  return [
    {
      name: 'full plan of 40 strips from 60 pieces (operations, ladders, groups, timeline, checks), median',
      value: milliseconds,
      unit: 'ms',
      goal: '< 20',
      ok: milliseconds < 20,
    },
    { name: 'the same of 100 strips, median', value: large, unit: 'ms', goal: '< 100', ok: large < 100 },
    {
      name: 'plan of 100 strips over plan of 40',
      value: large / milliseconds,
      unit: 'ratio',
      goal: '< 8',
      ok: large / milliseconds < 8,
    },
    {
      name: 'an edit to one of 40 strips, main thread beside the drawing, median',
      value: edit,
      unit: 'ms',
      goal: '< 16.7',
      ok: edit < 16.7,
    },
    {
      name: 'JavaScript of the first page, gzipped',
      value: kilobytes,
      unit: 'kB',
      goal: '<= 240',
      ok: kilobytes <= 240,
    },
    {
      name: 'longest main-thread task while a joint of 40 strips is dragged, median of 3 drags',
      value: task,
      unit: 'ms',
      goal: '< 50',
      ok: task < 50,
    },
  ];
}

const BENCHES: Record<string, () => Promise<Figure[]>> = {
  plan: planFigures,
  cutting: async () => (await import('./cutting.ts')).cuttingFigures(),
  layout: async () => (await import('./layout.ts')).layoutFigures(),
  recut: async () => (await import('./recut.ts')).recutFigures(),
  bench: async () => (await import('./benchPlace.ts')).benchFigures(),
  finish: async () => (await import('./finish.ts')).finishFigures(),
  schedule: async () => (await import('./schedule.ts')).scheduleFigures(),
  trim: async () => (await import('./trim.ts')).trimFigures(),
  shared: async () => (await import('./shared.ts')).sharedFigures(),
  server: async () => (await import('./server.ts')).serverFigures(),
};

/** `npm run bench [-- NAME] [--json]`: every figure an issue asks for, a line each. Never fails because a machine is slow. */
await runCommand(async () => {
  const names = process.argv.slice(2).filter((a) => a !== '--json');
  const json = process.argv.includes('--json');
  for (const name of names.length > 0 ? names : Object.keys(BENCHES)) {
    const bench = BENCHES[name];
    if (!bench) throw new Sentence(`There is no bench "${name}"; there is ${Object.keys(BENCHES).join(', ')}.`);
    for (const figure of await bench()) {
      const value = Number(figure.value.toPrecision(3));
      process.stdout.write(
        json
          ? `${JSON.stringify({ ...figure, value })}\n`
          : `${figure.name}: ${value} ${figure.unit} (goal ${figure.goal}) ${figure.ok ? 'ok' : 'NOT MET'}\n`,
      );
    }
  }
});
