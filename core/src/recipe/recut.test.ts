import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { nth } from '../lists/there.ts';
import { outlineArea } from '../features/outline.ts';
import { showFace, type ShownCell } from './face.ts';
import { glueWorkpiece } from './glueOperation.ts';
import { AT_REST, dot, movedBy, type Triple } from './motion.ts';
import { grainOf, sliceable, sliceBackward, sliceCount, sliceWorkpiece, type Slicing } from './sliceOperation.ts';
import { bounds, box, volume } from './solid.ts';
import { plainBoard } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { TURNS } from '../board/recipe.ts';
import { ofKind, recutOf } from '../board/recut.ts';
import { recutBoard } from '../board/recutForTests.ts';
import { rowsLaid, slicesOf } from './rows.ts';
import { turnWorkpiece } from './turnOperation.ts';
import type { Cell, Workpiece } from './workpiece.ts';

const INCH = 25.4;
/** A panel of strips, each from the corner of a piece of its own. */
function panelOf(widths: readonly number[], length: number, thickness: number): Workpiece {
  return glueWorkpiece(
    widths.map((width, i): Workpiece => ({
      size: [length, width, thickness],
      cells: [{ strip: `s${i}`, solid: box([length, width, thickness]), piece: null, unit: 0, inPiece: AT_REST }],
    })),
  );
}
const wood = (cells: readonly Cell[]) => cells.reduce((sum, c) => sum + volume(c.solid), 0);
const square = (change: Partial<Slicing> = {}): Slicing => ({
  angle: 0,
  pitch: 35,
  kerf: 3,
  first: 0,
  count: null,
  ...change,
});

const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const panels = fc.record({
  widths: fc.array(mm(3, 60), { minLength: 1, maxLength: 9 }),
  length: mm(150, 900),
  thickness: mm(10, 60),
});
const slicings = fc.record({
  angle: mm(-60, 60),
  pitch: mm(8, 90),
  kerf: mm(0.5, 5),
  first: mm(0, 60),
  count: fc.option(fc.integer({ min: 1, max: 30 }), { nil: null }),
});

/** The strip that shows at a point of a face; null at a glue line or beside it. */
function shownAt(face: readonly ShownCell[], [x, y]: readonly [number, number]): string | null {
  const hit = face.filter(({ polygon }) => {
    const sides = polygon.map(([ax, ay], i) => {
      const [bx, by] = nth(polygon, (i + 1) % polygon.length);
      return (bx - ax) * (y - ay) - (by - ay) * (x - ax);
    });
    return sides.every((s) => s > 1e-9) || sides.every((s) => s < -1e-9);
  });
  return hit.length === 1 ? nth(hit, 0).cell.strip : null;
}
/** The strip that lies at a place across a panel. */
function stripAcross(widths: readonly number[], y: number): string {
  let at = 0;
  return `s${widths.findIndex((w) => (at += w) > y)}`;
}

describe('a panel that is cut again', () => {
  it('loses no wood: slices, kerfs and ends are the panel, at any angle, to a thousand millionth', () => {
    fc.assert(
      fc.property(panels, slicings, ({ widths, length, thickness }, slicing) => {
        const panel = panelOf(widths, length, thickness);
        const { slices, waste } = sliceWorkpiece(panel, slicing);
        const all = slices.reduce((sum, s) => sum + wood(s.cells), 0) + wood(waste);
        expect(Math.abs(all / wood(panel.cells) - 1)).toBeLessThan(1e-9);
        expect(slices).toHaveLength(sliceCount(panel.size, slicing));
      }),
      { numRuns: 1000 },
    );
  });

  it('every slice is as thick as it was asked for and as high as the panel, and none is thicker', () => {
    fc.assert(
      fc.property(panels, slicings, ({ widths, length, thickness }, slicing) => {
        for (const { size, cells } of sliceWorkpiece(panelOf(widths, length, thickness), slicing).slices) {
          expect(size[1]).toBeLessThanOrEqual(slicing.pitch + 1e-6);
          expect(size[2]).toBeCloseTo(thickness, 6);
          for (const { solid } of cells) for (const c of bounds(solid).least) expect(c).toBeGreaterThanOrEqual(-1e-6);
        }
      }),
      { numRuns: 200 },
    );
  });

  it('14 slices of 35 with a kerf of 3 are 490 of wood and 532 with kerfs, so a panel of 540 (common practice)', () => {
    const rows = Math.ceil(400 / 30);
    expect([rows, rows * 35, sliceBackward(rows, square())]).toEqual([14, 490, 532]);
    expect(sliceCount([540, 250, 30], square())).toBe(14);
    expect(sliceCount([528, 250, 30], square())).toBe(13);
    // The kerf behind the last one may fall off the end.
    expect(sliceCount([529, 250, 30], square())).toBe(14);
  });

  it('slices of 1 in with a kerf of 1/8: a panel of 27 in, 3/4 thick, gives 24 and a board of 18 in (common practice)', () => {
    const slicing = square({ pitch: INCH, kerf: INCH / 8 });
    expect(sliceCount([27 * INCH, 10 * INCH, 0.75 * INCH], slicing)).toBe(24);
    expect((24 * 0.75 * INCH) / INCH).toBe(18);
    expect(sliceBackward(24, slicing) / INCH).toBeCloseTo(27, 9);
  });

  it('no fewer than none and no more than asked for: a pitch wider than the panel, one row, four hundred rows', () => {
    expect(sliceCount([100, 50, 20], square({ pitch: 101 }))).toBe(0);
    expect(sliceCount([100, 50, 20], square({ pitch: 100 }))).toBe(1);
    expect(sliceCount([100, 50, 20], square({ count: 1 }))).toBe(1);
    expect(sliceCount([100, 50, 20], square({ count: 400 }))).toBe(2);
    expect(sliceCount([100, 50, 20], square({ first: 500 }))).toBe(0);
  });

  it('at an angle each is the width over its cosine long: in area, and from corner to corner', () => {
    fc.assert(
      fc.property(mm(1, 60), mm(60, 300), mm(10, 60), (angle, width, pitch) => {
        const a = (angle * Math.PI) / 180;
        // Long enough, and begun where the saw has the whole width before it.
        const panel = panelOf([width], 3 * width + 10 * pitch + 500, 25);
        const { slices } = sliceWorkpiece(panel, { angle, pitch, kerf: 3, first: width * Math.sin(a), count: 3 });
        for (const slice of slices) {
          expect(wood(slice.cells) / 25).toBeCloseTo((pitch * width) / Math.cos(a), 5);
          expect(slice.size[0]).toBeCloseTo(width / Math.cos(a) + pitch * Math.tan(a), 6);
        }
        expect(sliceable(panel.size, { angle })).toBeCloseTo(panel.size[0] * Math.cos(a) + width * Math.sin(a), 9);
      }),
      { numRuns: 100 },
    );
  });
});

/** Corners in whatever order they are told, to a thousandth. */
const cornersOf = (corners: readonly Triple[]): string[] =>
  corners.map((c) => c.map((v) => (Math.round(v * 1000) / 1000 + 0).toFixed(3)).join(' ')).sort();
const inPieceOf = ({ solid, inPiece }: Cell): string[] => cornersOf(solid.corners.map((c) => movedBy(inPiece, c)));

describe('a slice that is turned', () => {
  const slice = (widths: number[], angle = 0) =>
    nth(sliceWorkpiece(panelOf(widths, 400, 30), square({ angle, first: 20, count: 1 })).slices, 0);

  it('keeps all its wood, every cell knows where it lay, and two turns of one kind undo each other', () => {
    fc.assert(
      fc.property(
        fc.array(mm(5, 50), { minLength: 1, maxLength: 6 }),
        mm(0, 45),
        fc.constantFrom(...TURNS),
        (widths, angle, turn) => {
          const was = slice(widths, angle);
          const turned = turnWorkpiece(was, turn);
          expect(wood(turned.cells) / wood(was.cells)).toBeCloseTo(1, 9);
          // The corners of the piece that a cell came from are where they were, and turned again the slice lies as it lay.
          turned.cells.forEach((cell, i) => expect(inPieceOf(cell)).toEqual(inPieceOf(nth(was.cells, i))));
          if (turn === 'up') return;
          turnWorkpiece(turned, turn).cells.forEach((cell, i) =>
            expect(cornersOf(cell.solid.corners)).toEqual(cornersOf(nth(was.cells, i).solid.corners)),
          );
        },
      ),
      { numRuns: 100 },
    );
  });

  it('up, its end grain shows: the grain of every cell stands on the face; over and end for end it lies as it lay', () => {
    const along: Triple = [0, 0, 1];
    for (const cell of turnWorkpiece(slice([30, 40]), 'up').cells)
      expect(Math.abs(dot(grainOf(cell), along))).toBeCloseTo(1, 9);
    for (const turn of ['over', 'endForEnd'] as const)
      for (const cell of turnWorkpiece(slice([30, 40]), turn).cells)
        expect(Math.abs(grainOf(cell)[1])).toBeCloseTo(1, 9);
    const upright = turnWorkpiece(slice([30, 40]), 'up');
    [70, 30, 35].forEach((side, axis) => expect(upright.size[axis as 0 | 1 | 2]).toBeCloseTo(side, 9));
  });
});

describe('the show face, against a way that goes backward: take a point, undo what was done, say which strip it is', () => {
  it('end grain, rows turned end for end by any pattern: 10,000 points', () => {
    const cases = fc.sample(
      fc.record({
        widths: fc.array(mm(8, 50), { minLength: 1, maxLength: 8 }),
        thickness: mm(12, 45),
        turned: fc.array(fc.boolean(), { minLength: 2, maxLength: 9 }),
      }),
      { numRuns: 100, seed: 15 },
    );
    let looked = 0;
    for (const { widths, thickness, turned } of cases) {
      const width = widths.reduce((a, b) => a + b, 0);
      const panel = panelOf(widths, sliceBackward(turned.length, square()) + 1, thickness);
      const rows = sliceWorkpiece(panel, square({ count: turned.length })).slices.map((s, i) => {
        const upright = turnWorkpiece(s, 'up');
        return turned[i] ? turnWorkpiece(upright, 'endForEnd') : upright;
      });
      const board = glueWorkpiece(rows);
      [width, turned.length * thickness, 35].forEach((side, axis) =>
        expect(board.size[axis as 0 | 1 | 2]).toBeCloseTo(side, 6),
      );
      const face = showFace(board);
      expect(
        face.reduce(
          (sum, f) => sum + outlineArea({ closed: true, vertices: f.polygon.map(([x, y]) => ({ x, y, bulge: 0 })) }),
          0,
        ),
      ).toBeCloseTo(board.size[0] * board.size[1], 4);
      for (let n = 0; n < 100; n += 1) {
        const [x, y] = [((n * 0.6180339887) % 1) * width, ((n * 0.7548776662) % 1) * board.size[1]];
        const shown = shownAt(face, [x, y]);
        if (shown === null) continue;
        looked += 1;
        // A row lies with the far edge of the panel at its start; turned, with the near one.
        const across = turned[Math.floor(y / thickness)] ? x : width - x;
        expect(shown).toBe(stripAcross(widths, across));
      }
    }
    expect(looked).toBeGreaterThan(9_800);
  });

  it('a chevron, every second slice turned over: 10,000 points', () => {
    const cases = fc.sample(
      fc.record({
        widths: fc.array(mm(8, 40), { minLength: 2, maxLength: 8 }),
        angle: mm(5, 60),
        pitch: mm(15, 60),
        count: fc.integer({ min: 2, max: 8 }),
      }),
      { numRuns: 100, seed: 35 },
    );
    let looked = 0;
    for (const { widths, angle, pitch, count } of cases) {
      const [width, a, kerf] = [widths.reduce((s, w) => s + w, 0), (angle * Math.PI) / 180, 3];
      const first = width * Math.sin(a);
      const panel = panelOf(widths, (first + count * (pitch + kerf) + width) / Math.cos(a) + 10, 28);
      const { slices } = sliceWorkpiece(panel, { angle, pitch, kerf, first, count });
      const over = (i: number) => i % 2 === 1;
      const board = glueWorkpiece(slices.map((s, i) => (over(i) ? turnWorkpiece(s, 'over') : s)));
      const face = showFace(board);
      for (let n = 0; n < 110; n += 1) {
        const [x, y] = [((n * 0.6180339887) % 1) * board.size[0], ((n * 0.7548776662) % 1) * board.size[1]];
        const i = Math.floor(y / pitch);
        const own = over(i) ? pitch - (y - i * pitch) : y - i * pitch;
        // Back to the panel: how far square to the cuts, then how far along the cut from where the slice begins.
        const offset = first + i * (pitch + kerf);
        const square = offset + own;
        const alongCut = x + offset * Math.tan(a) - width / Math.cos(a);
        const py = square * Math.sin(a) - alongCut * Math.cos(a);
        const shown = shownAt(face, [x, y]);
        // Beside the slanted end of its slice there is nothing.
        if (py < -1e-6 || py > width + 1e-6) expect(shown).toBeNull();
        else if (shown !== null) {
          looked += 1;
          expect(shown).toBe(stripAcross(widths, py));
        }
      }
    }
    expect(looked).toBeGreaterThan(5_000);
  });

  it('every second row end for end: an even number of equal strips of two kinds makes a chequer, an odd number makes all rows alike', () => {
    const rowsOf = (strips: number) => {
      const panel = panelOf(
        Array.from({ length: strips }, () => 30),
        200,
        30,
      );
      const board = glueWorkpiece(
        sliceWorkpiece(panel, square({ count: 2 })).slices.map((s, i) => {
          const upright = turnWorkpiece(s, 'up');
          return i % 2 === 1 ? turnWorkpiece(upright, 'endForEnd') : upright;
        }),
      );
      const face = showFace(board);
      const kind = (row: number) =>
        Array.from({ length: strips }, (_, k) => Number(shownAt(face, [k * 30 + 15, row * 30 + 15])!.slice(1)) % 2);
      return [kind(0), kind(1)] as const;
    };
    const [even, evenTurned] = rowsOf(8);
    expect(evenTurned).toEqual(even.map((k) => 1 - k));
    const [odd, oddTurned] = rowsOf(9);
    expect(oddTurned).toEqual(odd);
  });
});

describe('the largest square-cornered piece of rows', () => {
  const choices = fc.record({
    widths: fc.array(fc.integer({ min: 10, max: 60 }), { minLength: 2, maxLength: 6 }),
    others: fc.option(fc.array(fc.integer({ min: 10, max: 60 }), { minLength: 2, maxLength: 6 }), { nil: null }),
    angle: fc.oneof(fc.constant(0), fc.integer({ min: -60, max: 60 })),
    stagger: fc.boolean(),
    pitch: fc.integer({ min: 12, max: 50 }),
    up: fc.boolean(),
    pattern: fc.array(fc.boolean(), { minLength: 1, maxLength: 3 }),
    shifts: fc.array(fc.integer({ min: -15, max: 15 }), { maxLength: 3 }),
    runs: fc.constantFrom('along' as const, 'across' as const),
  });

  it('is what a fine grid search finds: every row is whole in it, and half a millimetre beyond either end of the rows one is not', () => {
    let looked = 0;
    fc.assert(
      fc.property(choices, ({ widths, others, up, pattern, stagger, ...rest }) => {
        const turns = [
          ...(up ? [{ turn: 'up' as const, pattern: [true] }] : []),
          { turn: 'endForEnd' as const, pattern },
        ];
        const inTurn = others ? [others.map((width) => ({ species: 'maple-hard', width }))] : [];
        const board = recutBoard(plainBoard({ length: 300, width: 200, thickness: 30 }, widths), {
          ...rest,
          thickness: 30,
          stagger: stagger ? rest.angle : 0,
          turns,
          inTurn,
          count: 5,
        });
        const recut = recutOf(board, DEFAULT_SHOP)!;
        if (recut.rowLength < 5) return;
        looked += 1;
        const slices = recut.kinds.flatMap((kind, k) => {
          const own = ofKind(recut, k);
          const panel = panelOf(kind.widths, kind.panelLength, recut.thickness);
          const named = { ...panel, cells: panel.cells.map((c, i) => ({ ...c, strip: nth(kind.panel.takes, i) })) };
          const edge = (kind.panelWidth - kind.trueWidth) / 2;
          return kind.slices.map((count) => slicesOf(own, { panel: named, edge, planed: 0 }, count));
        });
        const cells = rowsLaid(recut, recut.all, slices);
        const across = recut.last.runs === 'across';
        // Ends of slices that are turned up are slanted from face to face.
        const thing = { size: [0, 0, recut.block.height] as const, cells };
        const [top, under] = [showFace(thing), showFace(thing, 'under')];
        const there = (x: number, y: number) => shownAt(top, [x, y]) !== null && shownAt(under, [x, -y]) !== null;
        const whole = (along: number) =>
          recut.all.every((_, i) =>
            // Near both faces of a row, and between: its ends may be slanted. Off any glue line by a hair.
            [0.02, 0.51, 0.98].every((share) => {
              const stacked = (i + share) * recut.row;
              const hair = 1.3e-4;
              return [-hair, hair].some((by) => (across ? there(stacked, along + by) : there(along + by, stacked)));
            }),
          );
        const [from, to] = [0.01, recut.rowLength - 0.01];
        for (let at = from; at < to; at += Math.max(0.5, (to - from) / 40)) expect([at, whole(at)]).toEqual([at, true]);
        // Two hundredths of a row's thickness of slant are not looked at.
        const slack = 0.5 + 0.02 * recut.row * Math.abs(Math.tan((recut.angle * Math.PI) / 180));
        expect([whole(-slack), whole(recut.rowLength + slack)]).toEqual([false, false]);
      }),
      { numRuns: 120 },
    );
    expect(looked).toBeGreaterThan(40);
  }, 120_000);
});
