import { describe, expect, it } from 'vitest';
import { NOTHING_WORKED, type Feature } from '../features/feature.ts';
import { boundsOf, outlineArea } from '../features/outline.ts';
import { firstOf } from '../lists/there.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import type { Board } from '../board/board.ts';
import { recutBoard } from '../board/recutForTests.ts';
import { extentOf } from './drawing.ts';
import { templatesOf, type Template } from './templates.ts';

const GROOVE: Feature = {
  kind: 'groove',
  id: 'g',
  face: 'top',
  offset: 20,
  bit: 12,
  depth: 6,
  corner: 25,
  wells: 1,
  spout: null,
  fall: 0,
};
const FINGER: Feature = { kind: 'finger', id: 'f', on: 'ends', shape: 'cove', bit: 12, length: 90, depth: 8, up: 15 };
const HOLE: Feature = { kind: 'hole', id: 'h', on: 'ends', length: 95, width: 28, inset: 25 };
const FEET: Feature = { kind: 'feet', id: 't', count: 4, inset: 40, bore: 20, boreDepth: 2, screw: 4, screwDepth: 12 };

/** Templates of a finished board of 400 x 260 x 30. */
function of(
  change: Partial<Board['worked']>,
  router: { base: number } | null = { base: 150 },
  display = DEFAULT_DISPLAY,
): Template[] {
  const board = plainBoard({ worked: { ...NOTHING_WORKED, ...change } });
  const { worked } = makePlan(planInput(board, [plainPiece({ length: 4000 })], DEFAULT_SHOP));
  return templatesOf(board, worked, { router }, display);
}
const named = (templates: Template[], name: string) => firstOf(templates.filter((t) => t.name === name));
const lines = (t: Template, layer: string) => t.drawing.lines.filter((l) => l.layer === layer).map((l) => l.outline);
const words = (t: Template) => t.drawing.words.map((w) => w.text);

describe('templates at full size', () => {
  it('the board comes first, as large as it is, with its joints as guides', () => {
    const board = firstOf(of({}));
    const { width, height } = extentOf({
      ...board.drawing,
      lines: board.drawing.lines.filter((l) => l.layer === 'cut'),
    });
    expect([width, height]).toEqual([400, 260]);
    // Six strips have five joints.
    const joints = lines(board, 'guide').filter((o) => !o.closed);
    expect(joints).toHaveLength(5);
    expect(words(board)).toEqual(['Test board: 400 mm × 260 mm × 30 mm']);
  });

  it('a plain board has no other; square corners need none', () => {
    expect(of({}).map((t) => t.name)).toEqual(['The board']);
    expect(of({ corners: { kind: 'round', size: 0 } }).map((t) => t.name)).toEqual(['The board']);
  });

  it('a corner has wood enough to hold it by, and only one corner is shaped', () => {
    const round = named(of({ corners: { kind: 'round', size: 20 } }), 'Corner');
    const [shape] = lines(round, 'cut');
    // 80 mm square less the fifth of a square of 20 that the round takes: 20² (1 - pi / 4).
    expect(outlineArea(shape!)).toBeCloseTo(80 * 80 - 400 * (1 - Math.PI / 4), 3);
    expect(words(round)).toEqual(['Radius 20 mm']);
    const clipped = named(of({ corners: { kind: 'clip', size: 20 } }), 'Corner');
    expect(outlineArea(lines(clipped, 'cut')[0]!)).toBeCloseTo(80 * 80 - 200, 6);
    expect(words(clipped)).toEqual(['Clipped 20 mm']);
  });

  it('the frame of a groove: its opening guides a base of 150, so it goes 75 mm beyond the middle of the cut', () => {
    const jig = named(of({ features: [GROOVE] }), 'Groove jig');
    const [outer, opening] = lines(jig, 'cut').map((o) => boundsOf([o]));
    // The middle of the groove runs 20 in from the edge; the frame is half a base wider all round.
    const middle = { length: 400 - 2 * 20, width: 260 - 2 * 20 };
    expect(opening!.right - opening!.left).toBeCloseTo(middle.length + 150, 3);
    expect(opening!.near - opening!.far).toBeCloseTo(middle.width + 150, 3);
    expect(outer!.right - outer!.left).toBeCloseTo(middle.length + 150 + 120, 3);
    expect(firstOf(words(jig))).toMatch(/^Opening 510 mm × 370 mm, corners \d+(\.\d)? mm, for a base of 150 mm$/);
  });

  it('without a router there is no frame to guide one', () => {
    expect(of({ features: [GROOVE] }, null).map((t) => t.name)).not.toContain('Groove jig');
  });

  it('marks on a fence stand as far to either side of the bit', () => {
    const fence = named(of({ features: [FINGER] }), 'Fence marks');
    const at = lines(fence, 'mark').map((o) => firstOf(o.vertices).x);
    expect(at).toHaveLength(3);
    expect(at[0]!).toBeCloseTo(-at[2]!, 9);
    expect(at[1]).toBe(0);
    // The hold begins half of what an end of 260 has beside 90, and the bit's middle is its half further in.
    expect(at[2]!).toBeCloseTo((260 - 90) / 2 + 6, 6);
  });

  it('feet: from a corner, a bore with its cross just where both edges say', () => {
    const feet = named(of({ features: [FEET] }), 'Feet');
    const { left, right, far, near } = boundsOf(lines(feet, 'mark').filter((o) => o.closed));
    expect([(left + right) / 2, (far + near) / 2, right - left].map((v) => Math.round(v * 10) / 10)).toEqual([
      40, 40, 20,
    ]);
  });

  it('hand holes: a piece as long as the end is wide, the hole in its middle and as deep in as it is asked', () => {
    const hole = named(of({ features: [HOLE] }), 'Hand holes');
    const [piece, ...slots] = lines(hole, 'cut');
    expect(boundsOf([piece!]).near).toBe(260);
    const { left, right, far, near } = boundsOf(slots);
    expect([left, right - left, near - far].map((v) => Math.round(v * 10) / 10)).toEqual([25, 28, 95]);
    expect((far + near) / 2).toBeCloseTo(130, 1);
  });

  it('a gauge has a line for every distance from an edge, in order of the features', () => {
    const gauge = named(of({ features: [GROOVE, HOLE, FEET] }), 'Marking gauge');
    expect(lines(gauge, 'mark').map((o) => firstOf(o.vertices).x)).toEqual([20, 25, 40]);
    expect(words(gauge)).toEqual(['20 mm juice groove', '25 mm hand holes', '40 mm feet']);
  });

  it('two of one kind are told apart by their names', () => {
    const names = of({ features: [HOLE, { ...HOLE, id: 'h2', inset: 40, on: 'sides' }] }).map((t) => t.name);
    expect(new Set(names).size).toBe(names.length);
    for (const name of names) expect(name.length).toBeGreaterThan(3);
  });

  it('every one says how it is used, has something to cut and an id of its own, and reads in the units of its reader', () => {
    const all = of(
      { features: [GROOVE, FINGER, HOLE, FEET], corners: { kind: 'round', size: 20 } },
      { base: 150 },
      { ...DEFAULT_DISPLAY, system: 'inch' },
    );
    expect(new Set(all.map((t) => t.id)).size).toBe(all.length);
    for (const t of all) {
      expect([t.name, /[.]$/.test(t.use)]).toEqual([t.name, true]);
      expect([t.name, lines(t, 'cut').length > 0]).toEqual([t.name, true]);
      for (const text of words(t)) expect([t.name, /\bmm\b/.test(text)]).toEqual([t.name, false]);
    }
  });
});

it('a board of rows has no joint from end to end, and its template draws none', () => {
  const flat = plainBoard({ length: 300, width: 150, thickness: 30 }, [40, 40, 40, 40]);
  const lines = (board: typeof flat) => {
    const { worked } = makePlan(planInput(board, []));
    const template = templatesOf(board, worked, { router: null }, DEFAULT_DISPLAY).find((t) => t.id === 'board')!;
    return template.drawing.lines.length;
  };
  // Three joints between four strips.
  expect(lines(flat) - lines(recutBoard(flat))).toBe(3);
});
