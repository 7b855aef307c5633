import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measured, measuresIn } from '../bench/measuredForTests.ts';
import type { Board } from '../board/board.ts';
import { CHEVRON, END_GRAIN, framedBoard, insetBoard, recutBoard } from '../board/recutForTests.ts';
import { stripsOf } from '../board/recipe.ts';
import type { Fact } from '../facts/fact.ts';
import { followPlan } from '../follow/followPlan.ts';
import { unwarned } from '../follow/unwarnedForTests.ts';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { volume } from '../recipe/solid.ts';
import { makePlan } from './plan.ts';
import { plainBoard, plainPiece, planInput } from './planArbitrary.ts';

const PLENTY = [
  plainPiece({ mark: 'A1', length: 2400, width: 220, thickness: 56, count: 8 }),
  plainPiece({ id: 'w', mark: 'A2', species: 'walnut-black', length: 2400, width: 220, thickness: 56, count: 8 }),
];
const accent = (width: number) => ({ species: 'walnut-black', width });
/** Every way a board can be made, of the strips of a flat one. */
const WAYS = {
  flat: (board: Board) => board,
  endGrain: (board: Board) => recutBoard(board, {}, END_GRAIN),
  chevron: (board: Board) => recutBoard(board, {}, CHEVRON),
  inTurn: (board: Board) => recutBoard(board, { inTurn: [[accent(60), accent(50), accent(40)]] }, END_GRAIN),
  parts: (board: Board) => insetBoard(board, [{ ...accent(20), at: 100, angle: 20, jog: 4 }]),
  framed: (board: Board) => framedBoard(board, [{ ...accent(20), widths: [20, 20, 20, 20], first: 'ends' }]),
};
const plain = (widths = [45, 45, 45, 45, 45]) => plainBoard({ length: 300, width: 180, thickness: 30 }, widths);
const wood = (cells: readonly { solid: Parameters<typeof volume>[0] }[]) =>
  cells.reduce((sum, c) => sum + volume(c.solid), 0);

describe('a board goes on from what was measured', () => {
  it('the blind maker, told what came out of the planer, ends with the board of the new plan: 150 measures of every kind of board', () => {
    const way = fc.constantFrom(...Object.values(WAYS));
    const inputs = fc.oneof(
      { weight: 2, arbitrary: way.map((made) => planInput(made(plain()), PLENTY)) },
      fc
        .tuple(workshopArbitrary, way)
        .filter(([{ board }]) => stripsOf(board).length > 0)
        .map(([input, made]) => ({ ...input, board: made(input.board) })),
    );
    let followed = 0;
    fc.assert(
      fc.property(inputs, fc.nat(), fc.double({ min: -1.5, max: 0.5, noNaN: true }), (input, which, off) => {
        const plan = makePlan(input);
        const lengths = measuresIn(plan, input).filter((m) => m.expected !== null && m.expected > 5);
        const measure = lengths[which % lengths.length];
        if (!measure?.expected || Object.values(plan.ladders).some((l) => l.reached <= 20)) return;
        const given = { ...input, facts: [measured('m', measure, measure.expected + off)] };
        const next = makePlan(given);
        const made = followPlan(next, given);
        expect([measure.label, measure.dimension, ...unwarned(next, given, made)]).toEqual([
          measure.label,
          measure.dimension,
        ]);
        if (made.failures.length === 0) followed += 1;
      }),
      { numRuns: 150 },
    );
    expect(followed).toBeGreaterThan(20);
  }, 60_000);

  it.each([-1, 0.5])('a strip that is put in and came out %s mm wider lies in the board so', (off) => {
    const input = planInput(WAYS.parts(plain()), PLENTY);
    const band = measuresIn(makePlan(input), input).find((m) => m.thing === 'band-1')!;
    const given = { ...input, facts: [measured('m', band, band.expected! + off)] };
    const next = makePlan(given);
    const made = followPlan(next, given);
    expect(unwarned(next, given, made)).toEqual([]);
    expect(made.boards[0]!.panel.parts!.joints[0]!.strip.width).toBeCloseTo(20 + off, 6);
  });

  it.each(['endGrain', 'chevron', 'inTurn', 'parts'] as const)(
    'a panel trimmed 4 mm narrower makes what is cut from it so much shorter across, of wood throughout: %s',
    (how) => {
      const input = planInput(WAYS[how](plain()), PLENTY);
      const plan = makePlan(input);
      const trims = measuresIn(plan, input).filter((m) => m.stage === 'trimmed' && m.dimension === 'width');
      const panels = trims.filter((m) => m.thing !== input.board.recipe.at(-1)!.id);
      expect(panels.length).toBeGreaterThan(0);
      const given = {
        ...input,
        facts: panels.map((m, i) => measured(`m${i}`, m, m.expected! - 4)),
      };
      const next = makePlan(given);
      const [before, after] = [plan.again!, next.again!];
      const slope = plan.recut ? Math.cos((plan.recut.angle * Math.PI) / 180) : 1;
      const across = plan.recut ? plan.recut.rowLength - next.recut!.rowLength : before.block.width - after.block.width;
      expect(across).toBeCloseTo(4 / slope, 6);
      const { length, width, height } = after.block;
      expect(wood(next.wood!.panel.cells) / (length * width * height)).toBeCloseTo(1, 6);
      expect(unwarned(next, given, followPlan(next, given))).toEqual([]);
    },
  );

  it('a pit that was noted in a panel on the way makes nothing thinner: nobody sands it', () => {
    for (const made of [WAYS.endGrain, WAYS.parts, WAYS.framed]) {
      const input = planInput(made(plain()), PLENTY);
      const spot = { id: 's', x: 5, y: 5, length: 5, width: 5, what: 'pit' };
      const pit: Fact = {
        kind: 'badPlace',
        id: 'p',
        at: '2026-11-27T08:00:00.000Z',
        thing: 'panel',
        copy: 1,
        spot,
        side: 'top',
        depth: 1,
      };
      const given = { ...input, facts: [pit] };
      expect(makePlan(given).ladders).toEqual(makePlan(input).ladders);
      expect(unwarned(makePlan(given), given)).toEqual([]);
    }
  });

  it('of two panels that rows come from in turn the thinner one decides how wide the rows are', () => {
    const input = planInput(WAYS.inTurn(plain()), PLENTY);
    const plan = makePlan(input);
    const flats = measuresIn(plan, input).filter((m) => m.stage === 'flat' && m.dimension === 'thickness');
    const second = flats.find((m) => m.thing === plan.recut!.kinds[1]!.panel.id)!;
    const next = makePlan({ ...input, facts: [measured('m', second, second.expected! - 2)] });
    expect(plan.recut!.row - next.recut!.row).toBeCloseTo(2, 6);
  });
});
