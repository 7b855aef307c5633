import { describe, expect, it } from 'vitest';
import { END_GRAIN, recutBoard } from '#core/board/recutForTests.ts';
import { makePlan } from '#core/plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '#core/plan/planArbitrary.ts';
import type { Workpiece } from '#core/recipe/workpiece.ts';
import { HANDBOOK_SPECIES } from '#core/wood/handbookSpecies.ts';
import { drawnCells, faceRequest } from './faceRequest.ts';
import { logOf, type Log } from './log.ts';
import { paintMosaic, type Mosaic, type Tile } from './mosaic.ts';
import { paintWood, type Cut } from './paintWood.ts';

const species = (code: string) => HANDBOOK_SPECIES.find((s) => s.code === code)!;
const logFrom = (key: string, code: string): Log =>
  logOf({ key, rings: 'flat', size: [150, 50], defects: [] }, species(code));
const LOGS = [logFrom('light', 'maple-hard'), logFrom('dark', 'walnut-black')];
/** Where nothing is painted. */
const BARE = [120, 120, 120];
const cut = (size: readonly [number, number], along = 0): Cut => ({
  corner: [along, 10, 50],
  right: [1, 0, 0],
  down: [0, 1, 0],
  size,
});
const box = (x: number, y: number, w: number, h: number): [number, number][] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];
const tile = (log: number, at: [number, number], size: [number, number], polygon = box(...at, ...size)): Tile => ({
  log,
  cut: cut(size),
  at,
  polygon,
});
const painted = (tiles: Tile[], size: [number, number] = [60, 40], scale = 2) =>
  paintMosaic({ logs: LOGS, tiles } satisfies Mosaic, size, scale, false);
const pixel = ({ rgb, width }: ReturnType<typeof painted>, x: number, y: number): number[] => [
  ...rgb.subarray((y * width + x) * 3, (y * width + x) * 3 + 3),
];
const bright = (rgb: number[]) => rgb.reduce((sum, v) => sum + v, 0);
const covered = (picture: ReturnType<typeof painted>) => {
  let n = 0;
  for (let y = 0; y < picture.height; y += 1)
    for (let x = 0; x < picture.width; x += 1) if (String(pixel(picture, x, y)) !== String(BARE)) n += 1;
  return n;
};

describe('a face of many cells as one picture', () => {
  it('is as large as the face at its scale, and bare where no cell lies', () => {
    const picture = painted([tile(0, [0, 0], [30, 40])]);
    expect([picture.width, picture.height, picture.rgb.length]).toEqual([120, 80, 120 * 80 * 3]);
    expect(pixel(picture, 59, 40)).not.toEqual(BARE);
    expect(pixel(picture, 60, 40)).toEqual(BARE);
  });

  it('a cell alone is the very wood that is painted of its cut', () => {
    const [all, alone] = [painted([tile(1, [0, 0], [60, 40])]), paintWood(LOGS[1]!, cut([60, 40]), 2, false)];
    expect([...all.rgb]).toEqual([...alone.rgb]);
  });

  it('each cell has its own wood: dark beside light, without a gap or an overlap', () => {
    const picture = painted([tile(0, [0, 0], [30, 40]), tile(1, [30, 0], [30, 40])]);
    for (const y of [2, 40, 77])
      expect(bright(pixel(picture, 55, y))).toBeGreaterThan(bright(pixel(picture, 65, y)) + 60);
    expect(covered(picture)).toBe(120 * 80);
  });

  it('a slanted cell is cut at its outline: two triangles fill their box, each pixel once', () => {
    const upper: [number, number][] = [
      [0, 0],
      [60, 0],
      [0, 40],
    ];
    const lower: [number, number][] = [
      [60, 0],
      [60, 40],
      [0, 40],
    ];
    const [one, two] = [painted([tile(0, [0, 0], [60, 40], upper)]), painted([tile(1, [0, 0], [60, 40], lower)])];
    expect(covered(one) + covered(two)).toBe(120 * 80);
    // Half of the box to within a row of pixels.
    expect(Math.abs(covered(one) - 4800)).toBeLessThan(80);
    expect(pixel(one, 5, 5)).not.toEqual(BARE);
    expect(pixel(one, 115, 75)).toEqual(BARE);
    // In either order of painting nothing of the other is painted over.
    const both = [tile(0, [0, 0], [60, 40], upper), tile(1, [0, 0], [60, 40], lower)];
    expect([...painted(both).rgb]).toEqual([...painted([...both].reverse()).rgb]);
  });

  it('what reaches over the edge of the face, or lies beside it, breaks nothing and shows as far as it lies on it', () => {
    const picture = painted([
      tile(0, [-10, -10], [30, 30]),
      tile(1, [50, 30], [30, 30]),
      tile(1, [200, 200], [20, 20]),
    ]);
    expect(covered(picture)).toBe(40 * 40 + 20 * 20);
    expect(covered(painted([tile(0, [5, 5], [0.01, 20])]))).toBeLessThanOrEqual(1 * 40);
  });
});

describe('what the painter is asked', () => {
  const board = recutBoard(
    plainBoard({ length: 120, width: 90, thickness: 25 }, [28, 28, 28, 28]),
    { thickness: 30 },
    END_GRAIN,
  );
  const plan = makePlan(planInput(board, [plainPiece({ length: 2400, width: 220, thickness: 56, count: 4 })]));
  const thing = plan.wood!.panel;
  const request = (
    of: Workpiece = thing,
    side: 'top' | 'under' = 'top',
    code = 'maple-hard',
    scale = 1,
    oiled = false,
  ) => faceRequest(of, side, () => species(code), scale, oiled);

  it('a tile for every cell that shows, as large as its outline, within the face', () => {
    const { mosaic, cut: whole } = request();
    const cells = drawnCells(thing, 'top');
    expect(mosaic!.tiles.map((t) => t.polygon)).toEqual(cells.map((c) => c.polygon));
    // Four strips in as many rows as make 120 mm of 30.
    expect(cells).toHaveLength(4 * 4);
    const area = mosaic!.tiles.reduce((sum, t) => sum + t.cut.size[0] * t.cut.size[1], 0);
    expect(area).toBeCloseTo(whole.size[0] * whole.size[1], 6);
    for (const { at, cut: own, log } of mosaic!.tiles) {
      expect(at[0]).toBeGreaterThanOrEqual(-1e-9);
      expect(at[0] + own.size[0]).toBeLessThanOrEqual(thing.size[0] + 1e-9);
      expect(mosaic!.logs[log]).toBeDefined();
    }
  });

  it('in end grain every cut looks along the piece, from below as from above; the same wood is one log', () => {
    for (const side of ['top', 'under'] as const)
      for (const { cut: own } of request(thing, side).mosaic!.tiles)
        expect([own.right[0], own.down[0]].map((v) => Math.abs(Math.round(v * 1e9)))).toEqual([0, 0]);
    const { logs, tiles } = request().mosaic!;
    const strips = new Set(thing.cells.map((c) => `${c.piece?.id}/${c.unit}`));
    expect(logs).toHaveLength(strips.size);
    expect(new Set(tiles.map((t) => t.log)).size).toBe(strips.size);
  });

  it('the key is the same for the same wood, and another for the other side, oil, a finer scale, another species, a turned row', () => {
    const { key } = request();
    expect(request().key).toBe(key);
    const turned = makePlan(
      planInput(
        recutBoard(
          plainBoard({ length: 120, width: 90, thickness: 25 }, [28, 28, 28, 28]),
          { thickness: 30, turns: [{ turn: 'up', pattern: [true] }] },
          END_GRAIN,
        ),
        [plainPiece({ length: 2400, width: 220, thickness: 56, count: 4 })],
      ),
    ).wood!.panel;
    const others = [
      request(thing, 'under'),
      request(thing, 'top', 'maple-hard', 1, true),
      request(thing, 'top', 'maple-hard', 4),
      request(thing, 'top', 'walnut-black'),
      request(turned),
    ].map((r) => r.key);
    expect(new Set([key, ...others]).size).toBe(6);
  });

  it('a thing without wood can be asked for, and has no tiles', () => {
    const { mosaic, log } = request({ size: [100, 50, 20], cells: [] });
    expect(mosaic).toEqual({ logs: [], tiles: [] });
    expect(log.seed).toBeGreaterThanOrEqual(0);
  });
});
