import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { readFileSync } from 'node:fs';
import { checkPlan } from '#core/checks/checkPlan.ts';
import type { PlanInput } from '#core/plan/context.ts';
import { makePlan } from '#core/plan/plan.ts';
import { benchInstance } from './benchInstance.ts';
import { buildWeb } from './buildWeb.ts';
import { ensureProgram } from './debianPackages.ts';
import { ROOT } from './root.ts';
import { runCommand, Sentence } from './sentence.ts';

/** One figure that an issue asks for. */
export interface Figure {
  name: string;
  value: number;
  unit: string;
  goal: string;
  ok: boolean;
}

function median(values: number[]): number {
  return values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;
}

function timePlan(input: PlanInput): number {
  const times: number[] = [];
  for (let run = 0; run < 300; run += 1) {
    const start = performance.now();
    checkPlan(makePlan(input), input);
    if (run >= 150) times.push(performance.now() - start);
  }
  return median(times);
}

/** JavaScript that the first page loads before anything is clicked, gzipped, kB: the entry and all it imports at once. */
function firstPageKilobytes(): number {
  const dist = join(ROOT, 'web', 'dist');
  const manifest = JSON.parse(readFileSync(join(dist, '.vite/manifest.json'), 'utf8')) as Record<string, { file: string; isEntry?: boolean; imports?: string[] }>;
  const seen = new Set<string>();
  const visit = (key: string) => {
    if (seen.has(key)) return;
    seen.add(key);
    manifest[key]?.imports?.forEach(visit);
  };
  Object.keys(manifest).filter((key) => manifest[key]?.isEntry).forEach(visit);
  return [...seen].reduce((sum, key) => sum + gzipSync(readFileSync(join(dist, manifest[key]!.file))).length, 0) / 1000;
}

async function planFigures(): Promise<Figure[]> {
  const milliseconds = timePlan(benchInstance(40, 60));
  const doubled = timePlan(benchInstance(80, 60)) / milliseconds;
  ensureProgram('mariadbd', 'mariadb-server');
  ensureProgram('chromium', 'chromium');
  buildWeb();
  const kilobytes = firstPageKilobytes();
  const { traceJointDrag } = await import('./traceDrag.ts');
  const { longestTask: task } = await traceJointDrag(benchInstance(40, 60));
  return [
    { name: 'plan of 40 strips from 60 pieces, with checks, median', value: milliseconds, unit: 'ms', goal: '< 5', ok: milliseconds < 5 },
    { name: 'plan of 80 strips over plan of 40', value: doubled, unit: 'ratio', goal: '< 4', ok: doubled < 4 },
    { name: 'JavaScript of the first page, gzipped', value: kilobytes, unit: 'kB', goal: '<= 300', ok: kilobytes <= 300 },
    { name: 'longest main-thread task while a joint of 40 strips is dragged', value: task, unit: 'ms', goal: '< 50', ok: task < 50 },
  ];
}

const BENCHES: Record<string, () => Promise<Figure[]>> = {
  plan: planFigures, cutting: async () => (await import('./benchCutting.ts')).cuttingFigures(), layout: async () => (await import('./benchLayout.ts')).layoutFigures(),
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
      process.stdout.write(json ? `${JSON.stringify({ ...figure, value })}\n` : `${figure.name}: ${value} ${figure.unit} (goal ${figure.goal}) ${figure.ok ? 'ok' : 'NOT MET'}\n`);
    }
  }
});
