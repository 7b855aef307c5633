import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { afterAll, describe, expect, it } from 'vitest';
import { readBoardJson, BOARD_FILE_VERSION } from '#core/format/boardFile.ts';
import { bundled } from './bundled.mjs';
import { startProjectDatabase } from './mariadb/database.ts';
import { projectFiles } from './projectFiles.ts';
import { ROOT } from './root.ts';

const folder = mkdtempSync(join(tmpdir(), 'cadenza-commands-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What runs them, made once: that takes longer than most of them do. */
const commands = {
  follow: await bundled('follow'),
  plan: await bundled('plan'),
  propose: await bundled('propose'),
  export: await bundled('export'),
};

describe('files made from code', () => {
  const files = projectFiles();

  it('are as the code makes them now (npm run schema)', () => {
    for (const [path, text] of Object.entries(files)) expect(readFileSync(join(ROOT, path), 'utf8'), path).toBe(text);
  });

  it('examples satisfy the published JSON Schema, read by an independent validator; broken ones do not', () => {
    const schema = JSON.parse(files[`docs/format/board.v${BOARD_FILE_VERSION}.schema.json`]!) as object;
    const validate = new Ajv2020({ strict: false, formats: { date: true, 'date-time': true } }).compile(schema);
    const examples = Object.entries(files).filter(([path]) => path.startsWith('examples/'));
    expect(examples.length).toBeGreaterThanOrEqual(2);
    for (const [, text] of examples) {
      const file = JSON.parse(text) as { board: { width: number } };
      expect(validate(file), JSON.stringify(validate.errors)).toBe(true);
      file.board.width = -1;
      expect(validate(file)).toBe(false);
    }
  });
});

describe('npm run follow', () => {
  const follow = (...args: string[]) =>
    spawnSync(process.execPath, [commands.follow, ...args], { encoding: 'utf8', cwd: folder });

  it.each(['bread-boards-edge-grain', 'onion-block-end-grain', 'cheese-board-split', 'sink-cover-framed'])(
    'prints a line a step of %s and that nothing failed',
    (name) => {
      const { status, stdout } = follow(join(ROOT, `examples/${name}.cadenza.json`));
      const lines = stdout.trimEnd().split('\n');
      expect([status, lines.at(-1)]).toEqual([0, `followed: ${lines.length - 1} steps, 0 failures`]);
      expect(lines[0]).toMatch(/^1\. Crosscut the blanks: \d+ instructions, done$/);
    },
  );

  it('tells each failure with step, instruction and figures, and exits 1; a file that is none exits 2', () => {
    const file = JSON.parse(readFileSync(join(ROOT, 'examples/bread-boards-edge-grain.cadenza.json'), 'utf8')) as {
      shop: { clamps: { count: number }[] };
    };
    for (const clamp of file.shop.clamps) clamp.count = 1;
    const path = join(folder, 'few-clamps.cadenza.json');
    writeFileSync(path, JSON.stringify(file));
    const { status, stdout } = follow(path);
    expect(status).toBe(1);
    expect(stdout).toMatch(
      /step \d+, glue: G1\.1: the clamps do not press the joints enough \([\d.]+ MPa, and the wood wants 1\.2 MPa\)/,
    );
    expect(follow('nowhere.json').status).toBe(2);
  });
});

describe('npm run plan', () => {
  const plan = (...args: string[]) =>
    spawnSync(process.execPath, [commands.plan, ...args], { encoding: 'utf8', cwd: folder });
  const example = join(ROOT, 'examples/bread-boards-edge-grain.cadenza.json');

  it('prints the plan of an example as JSON and nothing else', () => {
    const { status, stdout, stderr } = plan(example);
    expect([status, stderr]).toEqual([0, '']);
    const printed = JSON.parse(stdout) as {
      plan: { ladders: Record<string, { reached: number }>; cutting: { shortages: unknown[] } };
    };
    expect(printed.plan.ladders.width?.reached).toBe(250);
    expect(printed.plan.cutting.shortages).toEqual([]);
  });

  it('tells the stages of a board that is cut again, and every cell of its show face', () => {
    const { status, stdout } = plan(join(ROOT, 'examples/onion-block-end-grain.cadenza.json'), '--seconds', '1');
    expect(status).toBe(0);
    const printed = JSON.parse(stdout) as {
      stages: { kind: string; count?: number; pitch?: number }[];
      face: { cells: { polygon: [number, number][]; strip: number; row: number; species: string; grain: number[] }[] };
    };
    expect(printed.stages.map((s) => [s.kind, s.count])).toEqual([
      ['panel', 1],
      ['slices', 11],
      ['rows', 11],
      ['block', 1],
      ['board', 1],
    ]);
    const { cells } = printed.face;
    expect(new Set(cells.map((c) => c.row)).size).toBe(11);
    for (const { polygon, grain, strip } of cells) {
      expect(polygon.every(([x, y]) => x >= 0 && x <= 330 && y >= 0 && y <= 220)).toBe(true);
      expect(Math.abs(grain[2]!)).toBe(1);
      expect(strip).toBeLessThanOrEqual(9);
    }
  });

  it('refuses a bad file in one line that names file and field, with exit code 2', () => {
    const broken = join(folder, 'broken.json');
    writeFileSync(broken, readFileSync(example, 'utf8').replace('"count": 3', '"count": 0'));
    for (const [path, words] of [
      [broken, 'board.count: Board, count must be at least 1.'],
      ['missing.json', 'ENOENT'],
      [folder, 'cannot be read'],
    ] as const) {
      const { status, stdout, stderr } = plan(path);
      expect([status, stdout]).toEqual([2, '']);
      expect(stderr.trim().split('\n')).toHaveLength(1);
      expect(stderr).toContain(path);
      expect(stderr).toContain(words);
    }
  });
});

describe('npm run propose', () => {
  const run = (...args: string[]) =>
    spawnSync(process.execPath, [commands.propose, ...args], { encoding: 'utf8', cwd: folder });
  const example = join(ROOT, 'examples/bread-boards-edge-grain.cadenza.json');

  it('prints board files that can be read again, the same for the same seed, and a sentence about each beside them', () => {
    const { status, stdout, stderr } = run(example, '--seed', '3', '--seconds', '60');
    expect(status).toBe(0);
    const files = JSON.parse(stdout) as unknown[];
    expect(files).toHaveLength(12);
    for (const file of files) expect(readBoardJson(file).ok).toBe(true);
    expect(stderr.trim().split('\n')).toHaveLength(12);
    expect(run(example, '--seed', '3', '--seconds', '60').stdout).toBe(stdout);
  }, 60_000);

  it.each([
    [['--seed', '1'], /^Usage: /],
    [[example, '--seed', '1.5'], /--seed must be a whole number/],
    [[example, '--seconds', '-1'], /--seconds must be a number from 0/],
    [[example, '--seconds'], /--seconds must be a number/],
    [[example, '--colour', 'red'], /--colour is not known/],
    [[example, example], /^Usage: /],
  ])('refuses %j in one line', (args, words) => {
    const { status, stdout, stderr } = run(...args);
    expect([status, stdout, stderr.trim().split('\n').length]).toEqual([2, '', 1]);
    expect(stderr).toMatch(words);
  });
});

describe('npm run export', () => {
  const run = (...args: string[]) => spawnSync(process.execPath, [commands.export, ...args], { cwd: folder });
  const example = join(ROOT, 'examples/carving-board-edge-grain.cadenza.json');

  it.each([
    ['svg', /^<\?xml[\s\S]*<\/svg>\n$/],
    ['dxf', /^0\r\nSECTION[\s\S]*EOF\r\n$/],
    ['pdf', /^%PDF-[\s\S]*%%EOF\s*$/],
    ['gcode', /^\(Juice groove[\s\S]*M30\n$/],
  ])('writes %s to standard output and nothing else', (as, whole) => {
    const { status, stdout, stderr } = run(example, '--as', as);
    expect([status, stderr.toString()]).toEqual([0, '']);
    expect(stdout.toString('latin1')).toMatch(whole);
  });

  it.each([
    [['--as', 'svg'], /^Usage: /],
    [[example], /--as is missing/],
    [[example, '--as', 'step'], /--as must be one of svg, dxf, pdf, gcode/],
    [[example, '--as', 'svg', '--template', 'boat'], /no template "boat"; this board has board, jig-groove/],
    [[example, '--as', 'pdf', '--paper'], /--paper must be one of/],
    [[example, '--as', 'gcode', '--job', 'x'], /no job "x"; this board has groove/],
  ])('refuses %j in one line', (args, words) => {
    const { status, stdout, stderr } = run(...args);
    expect([status, stdout.length, stderr.toString().trim().split('\n').length]).toEqual([2, 0, 1]);
    expect(stderr.toString()).toMatch(words);
  });
});

describe('the project database', () => {
  const pidOf = (path: string) => Number(readFileSync(join(path, 'mariadb.pid'), 'utf8'));
  const until = async (done: () => boolean) => {
    for (let i = 0; i < 200 && !done(); i += 1) await new Promise((resolve) => setTimeout(resolve, 100));
    expect(done()).toBe(true);
  };
  const alive = (pid: number) => {
    try {
      process.kill(pid, 0);
      return !readFileSync(`/proc/${pid}/stat`, 'utf8').includes(') Z ');
    } catch {
      return false;
    }
  };

  it('comes back after kill -9 with the same address, and ends when it is stopped', async () => {
    const data = join(folder, 'database');
    const database = await startProjectDatabase(data);
    const first = pidOf(data);
    process.kill(first, 'SIGKILL');
    await until(() => {
      try {
        return pidOf(data) !== first && alive(pidOf(data));
      } catch {
        return false;
      }
    });
    const second = pidOf(data);
    await database.stop();
    // It is down; that its process is gone is told to its parent a moment later.
    await until(() => !alive(second));
    // A second start on the same folder finds the same port and password.
    const again = await startProjectDatabase(data);
    expect(again.url).toBe(database.url);
    await again.stop();
  }, 60_000);

  it('never touches a database that was not made here', async () => {
    const foreign = join(folder, 'foreign');
    spawnSync('mkdir', ['-p', join(foreign, 'data')]);
    writeFileSync(join(foreign, 'data', 'precious.ibd'), 'x');
    await expect(startProjectDatabase(foreign)).rejects.toThrow(/that Cadenza did not make/);
    expect(readFileSync(join(foreign, 'data', 'precious.ibd'), 'utf8')).toBe('x');
  });
});
