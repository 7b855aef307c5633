import { nth } from '#core/lists/there.ts';
import { withOperation } from '#core/board/looks.ts';
import { makePlan } from '#core/plan/plan.ts';
import type { PlanInput } from '#core/saw/planInput.ts';
import type { Figure } from './figure.ts';
import { cells } from './instances.ts';
import { buildWeb } from '../buildWeb.ts';
import { ensureProgram } from '../debianPackages.ts';
import { traceDrags, withBoardPage } from './traceDrag.ts';

const MEGABYTE = 1e6;

function medianPlan(input: PlanInput, runs: number): number {
  const times: number[] = [];
  for (let run = 0; run < runs; run += 1) {
    const board = { ...input.board };
    const start = performance.now();
    makePlan({ ...input, board });
    if (run >= runs / 2) times.push(performance.now() - start);
  }
  return nth(
    times.sort((a, b) => a - b),
    Math.floor(times.length / 2),
  );
}

/** Loads the finished board of 360 cells, and notes when it is first painted, when its wood is, and what memory the page then holds. */
async function wood(input: PlanInput): Promise<{ milliseconds: number; megabytes: number }> {
  return withBoardPage(input, async (page, address) => {
    const times: number[] = [];
    let megabytes = 0;
    for (let i = 0; i < 4; i += 1) {
      await page.goto(address);
      const tab = page.getByRole('tab', { name: 'Board' });
      await tab.waitFor();
      await page.waitForTimeout(1500);
      times.push(
        await tab.evaluate(
          (button) =>
            new Promise<number>((resolve) => {
              let drawn = 0;
              const look = () => {
                const svg = document.querySelector('[aria-label^="The finished board"]');
                if (svg && drawn === 0) drawn = performance.now();
                if (svg?.querySelector('image[data-wood][href^="blob:"]')) resolve(performance.now() - drawn);
                else requestAnimationFrame(look);
              };
              (button as HTMLElement).click();
              requestAnimationFrame(look);
            }),
        ),
      );
      const client = await page.context().newCDPSession(page);
      await client.send('Performance.enable');
      const { metrics } = await client.send('Performance.getMetrics');
      megabytes = Math.max(megabytes, (metrics.find((m) => m.name === 'JSHeapUsedSize')?.value ?? 0) / MEGABYTE);
    }
    return {
      milliseconds: nth(
        times.slice(1).sort((a, b) => a - b),
        1,
      ),
      megabytes,
    };
  });
}

/** Every figure that the issue of boards cut and glued again asks for. */
export async function recutFigures(): Promise<Figure[]> {
  const board = cells(15, 24);
  const plan = medianPlan(board, 120);
  const large = medianPlan(cells(50, 60), 16);
  ensureProgram('mariadbd', 'mariadb-server');
  ensureProgram('chromium', 'chromium');
  buildWeb();
  const painted = await wood(board);
  const dragged = (handle: string) =>
    traceDrags(board, { view: 'layout', stage: 'Slices', handle, across: true, slowed: 1 });
  // A slice as wide as was typed has a width of its own to be dragged.
  const pitch = await traceDrags(
    { ...board, board: withOperation(board.board, 'slice', 'slices', { pitch: 40 }) },
    { view: 'layout', stage: 'Slices', handle: 'Width of a slice', across: true, slowed: 1 },
  );
  const angle = await dragged('Angle of the cuts');
  const drags = [
    ['width of a slice', pitch],
    ['angle of the cuts', angle],
  ] as const;
  return [
    { name: 'plan of a board of 24 x 15 cells, median', value: plan, unit: 'ms', goal: '<= 20', ok: plan <= 20 },
    { name: 'plan of a board of 3,000 cells, median', value: large, unit: 'ms', goal: '<= 150', ok: large <= 150 },
    ...drags.flatMap(([what, drag]): Figure[] => [
      {
        name: `frames a second while the ${what} of 360 cells is dragged, against the page at rest (${drag.framesAtRest.toFixed(1)})`,
        value: drag.framesPerSecond / drag.framesAtRest,
        unit: 'of 1',
        goal: '>= 0.95',
        ok: drag.framesPerSecond >= 0.95 * drag.framesAtRest,
      },
      {
        name: `longest main-thread task of that drag`,
        value: drag.longestTask,
        unit: 'ms',
        goal: '<= 50',
        ok: drag.longestTask <= 50,
      },
    ]),
    {
      name: 'wood of 360 end-grain cells painted, after the first paint of the drawing, median of 3 loads',
      value: painted.milliseconds,
      unit: 'ms',
      goal: '<= 300',
      ok: painted.milliseconds <= 300,
    },
    {
      name: 'memory of that page',
      value: painted.megabytes,
      unit: 'MB',
      goal: '< 300',
      ok: painted.megabytes < 300,
    },
  ];
}
