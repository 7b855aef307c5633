import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildWeb } from './buildWeb.ts';
import { ensureBrowser, ensureProgram } from './debianPackages.ts';
import { COMPUTED_ONCE } from './engineFlags.ts';
import { ROOT } from './root.ts';
import { runCommand, tell } from './sentence.ts';

interface Count {
  passed: number;
  failed: number;
}

/** Runs one of the project's tools; its output goes straight through. @returns its exit code */
function runTool(tool: string, args: string[], env: Record<string, string> = {}): Promise<number> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [...COMPUTED_ONCE, join(ROOT, 'node_modules', tool), ...args], {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, ...env },
    });
    child.on('close', (code) => resolve(code ?? 1));
  });
}

/** A check without cases of its own counts as one test. */
async function checkOnce(name: string, tool: string, args: string[]): Promise<Count> {
  const code = await runTool(tool, args);
  tell(`${name}: ${code === 0 ? 'passed' : 'FAILED'}`);
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

/** So many of the slowest tests are named at the end. */
const SLOWEST = 10;

interface Timed {
  name: string;
  seconds: number;
}

interface UnitReport {
  numPassedTests: number;
  numFailedTests: number;
  testResults: { assertionResults: { fullName: string; duration?: number | null }[] }[];
}

interface Suite {
  specs?: { title: string; tests: { results: { duration: number }[] }[] }[];
  suites?: Suite[];
}

function unitTimes({ testResults }: UnitReport): Timed[] {
  return testResults.flatMap((file) =>
    file.assertionResults.map((t) => ({ name: t.fullName, seconds: (t.duration ?? 0) / 1000 })),
  );
}

function interfaceTimes({ specs = [], suites = [] }: Suite): Timed[] {
  const own = specs.map((s) => ({
    name: s.title,
    seconds: s.tests.flatMap((t) => t.results).reduce((sum, r) => sum + r.duration, 0) / 1000,
  }));
  return [...own, ...suites.flatMap(interfaceTimes)];
}

/** Counts what a runner reported; a runner that ended badly without a failed test to show counts as one failure. */
function counted(code: number, read: () => Count): Count {
  try {
    const count = read();
    return code !== 0 && count.failed === 0 ? { ...count, failed: 1 } : count;
  } catch {
    return { passed: 0, failed: 1 };
  }
}

/** `npm test`: type check, lint, unit and API tests, the interface in Chromium; one closing line for all. */
await runCommand(async () => {
  const reports = mkdtempSync(join(tmpdir(), 'cadenza-reports-'));
  const json = (name: string) => JSON.parse(readFileSync(join(reports, name), 'utf8')) as Record<string, unknown>;

  const times: Timed[] = [];
  // Much of the time is spent waiting for databases and processes: what needs nothing of each other goes on side by side, and what is missing comes while others work.
  const checks = [
    checkOnce('Type check', 'typescript/bin/tsc', ['--noEmit', '-p', 'tsconfig.json']),
    checkOnce('Lint', 'oxlint/bin/oxlint', ['-c', 'oxlint.config.mjs', '--max-warnings', '0']),
    checkOnce('Format', 'oxfmt/bin/oxfmt', ['--check']),
  ];
  ensureProgram('mariadbd', 'mariadb-server');
  const running = Promise.all([
    ...checks,
    runTool('vitest/vitest.mjs', [
      'run',
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${join(reports, 'unit.json')}`,
    ]).then((code) =>
      counted(code, () => {
        const report = json('unit.json') as unknown as UnitReport;
        times.push(...unitTimes(report));
        return { passed: report.numPassedTests, failed: report.numFailedTests };
      }),
    ),
  ]);
  ensureBrowser();
  buildWeb();
  const counts: Count[] = await running;
  const interfaceTests = await runTool('@playwright/test/cli.js', ['test'], {
    CADENZA_E2E_JSON: join(reports, 'e2e.json'),
  });
  counts.push(
    counted(interfaceTests, () => {
      const report = json('e2e.json') as unknown as Suite & {
        stats: { expected: number; unexpected: number; flaky: number };
      };
      const { expected, unexpected, flaky } = report.stats;
      times.push(...interfaceTimes(report));
      return { passed: expected, failed: unexpected + flaky };
    }),
  );
  rmSync(reports, { recursive: true, force: true });

  tell('\nSlowest tests:');
  for (const { name, seconds } of times.sort((a, b) => b.seconds - a.seconds).slice(0, SLOWEST))
    tell(`${seconds.toFixed(1).padStart(6)} s  ${name}`);
  const passed = counts.reduce((sum, c) => sum + c.passed, 0);
  const failed = counts.reduce((sum, c) => sum + c.failed, 0);
  process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
  process.exitCode = failed > 0 ? 1 : 0;
});
