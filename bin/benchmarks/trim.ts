import { readSvg } from '#core/format/svgArt.ts';
import type { Feature } from '#core/features/feature.ts';
import { UNDRAWN } from '#core/features/feature.ts';
import { placeMixed } from '#core/trim/placement.ts';
import type { Figure } from './figure.ts';
import { benchInstance } from './instances.ts';
import { buildWeb } from '../buildWeb.ts';
import { ensureProgram } from '../debianPackages.ts';
import { traceDrags, withBoardPage } from './traceDrag.ts';
import { stripsOf } from '#core/board/recipe.ts';

/** A board of 40 strips with one of each feature that is dragged. */
function workedInstance() {
  const input = benchInstance(40, 60);
  const { length } = input.board;
  const strips = stripsOf(input.board);
  const width = Math.min(input.board.width, strips.reduce((sum, s) => sum + s.width, 0) - 6);
  const features: Feature[] = [
    {
      kind: 'groove',
      id: 'groove',
      face: 'top',
      offset: 25,
      bit: 12.7,
      depth: 6,
      corner: 20,
      wells: 1,
      spout: null,
      fall: 0,
    },
    { kind: 'finger', id: 'finger', on: 'ends', shape: 'cove', bit: 10, length: 90, depth: 6, up: 12 },
    {
      kind: 'mark',
      id: 'mark',
      face: 'top',
      name: 'Mark',
      method: 'brand',
      x: length / 2,
      y: width / 2,
      length: 60,
      width: 20,
      depth: 1,
      ...UNDRAWN,
    },
  ];
  return { ...input, board: { ...input.board, worked: { ...input.board.worked, features } } };
}

/** Every figure that the trim's issue asks for. */
export async function trimFigures(): Promise<Figure[]> {
  ensureProgram('mariadbd', 'mariadb-server');
  ensureProgram('chromium', 'chromium');
  buildWeb();
  const instance = workedInstance();
  const figures: Figure[] = [];
  for (const grip of ['Groove, in from the edge', 'Finger holds, length', 'Mark, middle from the left end']) {
    const drag = await traceDrags(instance, {
      view: 'trim?view=board',
      handle: grip,
      across: grip.startsWith('Mark'),
      slowed: 1,
    });
    figures.push(
      {
        name: `frames while "${grip}" is dragged on 40 strips, against the page at rest (${drag.framesAtRest.toFixed(1)} a second)`,
        value: drag.framesPerSecond / drag.framesAtRest,
        unit: 'of 1',
        goal: '>= 0.95',
        ok: drag.framesPerSecond >= 0.95 * drag.framesAtRest,
      },
      {
        name: 'from the pointer to the changed drawing, in frames, median of that drag',
        value: drag.framesToRedraw,
        unit: 'frames',
        goal: '<= 1',
        ok: drag.framesToRedraw <= 1,
      },
    );
  }
  return [...figures, placing(), await importing()];
}

/** Six boards, three alike and three others, on a panel with four bad places. The search is exact: it is proven best. */
function placing(): Figure {
  const bad = [
    { x: 310, y: 0, length: 40, width: 60 },
    { x: 700, y: 150, length: 30, width: 80 },
    { x: 1250, y: 40, length: 25, width: 25 },
    { x: 1700, y: 0, length: 10, width: 260 },
  ];
  const start = performance.now();
  const found = placeMixed(
    { left: 20, right: 2380, far: 3, near: 257 },
    bad,
    { length: 400, width: 250 },
    3,
    [
      { length: 300, width: 150 },
      { length: 220, width: 200 },
      { length: 180, width: 90 },
    ],
    3,
    5,
  );
  const seconds = (performance.now() - start) / 1000;
  return {
    name: `six boards on a panel with four bad places, proven best (${found.xs.length + found.others.length} fit)`,
    value: seconds,
    unit: 's',
    goal: '<= 1',
    ok: seconds <= 1,
  };
}

/** Nodes of the drawing that is imported. */
const NODES = 5000;

/** A drawing of 5 000 nodes, from the file chosen to the mark drawn, and what holds the page up meanwhile. */
async function importing(): Promise<Figure> {
  const d = `M0 0${Array.from({ length: NODES - 1 }, (_, i) => `C${i} ${50 * Math.sin(i)} ${i + 0.4} ${50 * Math.cos(i)} ${i + 1} ${100 * Math.sin(i / 9)}`).join('')}Z`;
  const text = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 5000 200"><path d="${d}"/></svg>`;
  const read = readSvg(text, 'Bench');
  if (!read.ok || read.nodes !== NODES) throw new Error('The drawing was not read: nothing was measured.');
  return withBoardPage(workedInstance(), async (page, address) => {
    await page.goto(address.replace('/layout', '/trim?view=board'));
    await page.getByRole('button', { name: 'Mark', exact: true }).click();
    await page.waitForTimeout(1500);
    await page.evaluate(() => {
      const seen = { start: 0, drawn: 0, longest: 0 };
      Object.assign(globalThis, { seen });
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries()) seen.longest = Math.max(seen.longest, entry.duration);
      }).observe({ type: 'longtask' });
      document.addEventListener(
        'change',
        () => {
          seen.start = performance.now();
          const look = () => {
            if (document.querySelector('path[d^="M0"][fill-rule="evenodd"][transform]')) seen.drawn = performance.now();
            else requestAnimationFrame(look);
          };
          requestAnimationFrame(look);
        },
        { capture: true, once: true },
      );
    });
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Take a drawing from SVG' }).click();
    await (await chooser).setFiles({ name: 'bench.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(text) });
    await page.waitForFunction(() => (globalThis as unknown as { seen: { drawn: number } }).seen.drawn > 0);
    await page.waitForTimeout(800);
    const seen = await page.evaluate(
      () => (globalThis as unknown as { seen: { start: number; drawn: number; longest: number } }).seen,
    );
    const seconds = (seen.drawn - seen.start) / 1000;
    return {
      name: `an SVG of ${NODES} nodes, from the file to the drawing on the board (longest task of the page ${Math.round(seen.longest)} ms)`,
      value: seconds,
      unit: 's',
      goal: '< 1',
      ok: seconds < 1,
    };
  });
}
