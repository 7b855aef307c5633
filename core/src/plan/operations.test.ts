import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Board } from '../board/board.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import type { OperationKind } from './operation.ts';
import { makePlan } from './plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from './planArbitrary.ts';

const stepsOf = (board: Board, rack: Piece[], shop = DEFAULT_SHOP) => makePlan(planInput(board, rack, shop)).operations;
const linesOf = (board: Board, rack: Piece[], kind: OperationKind, shop = DEFAULT_SHOP) =>
  stepsOf(board, rack, shop).filter((o) => o.kind === kind).flatMap((o) => o.lines.map((line) => phraseText(line, DEFAULT_DISPLAY)));

describe('steps of an edge-grain board', () => {
  it('crosscut, flatten and rip each piece with the counts of the cut plan', () => {
    const board = plainBoard();
    const rack = [plainPiece()];
    expect(linesOf(board, rack, 'crosscut')).toEqual(['P1: trim 10 mm off the marked end, then 2 × 429 mm']);
    // 50 to 46 at 150 of 260 wide: a pass takes 1.5 x (1 - 0.5 x 2 x (150 / 260 - 0.5)) = 1.38 mm.
    expect(linesOf(board, rack, 'flatten')).toEqual(['P1: 50 mm to 46 mm, 3 passes, the last one light']);
    expect(linesOf(board, rack, 'rip')).toEqual(['32 mm: 6 strips from P1 for strips 1–6']);
  });

  it('plane further only the strips that share a blank with wider ones', () => {
    const lines = linesOf(plainBoard({}, [46, 46, 20, 46]), [plainPiece()], 'planeStrips');
    expect(lines).toEqual(['strip 3 from P1: 46 mm to 20 mm, 18 passes, the last one light']);
    expect(linesOf(plainBoard(), [plainPiece()], 'planeStrips')).toEqual([]);
  });

  it('say when a blank or the panel is too wide for the planer', () => {
    const shop = { ...DEFAULT_SHOP, planer: { ...DEFAULT_SHOP.planer, width: 140 } };
    expect(linesOf(plainBoard(), [plainPiece()], 'flatten', shop)[0]).toContain('150 mm is wider than the planer, so rip the blank in two first');
    expect(linesOf(plainBoard(), [plainPiece()], 'flattenPanel', shop)[1]).toContain('drum sander, router sled, belt sander or a long hand plane');
    expect(stepsOf(plainBoard({ width: 130 }, [46, 46, 44]), [plainPiece()], shop).find((o) => o.kind === 'flattenPanel')!.passes).toBe(2);
  });
});

describe('steps of a face-grain board', () => {
  const board = plainBoard({ construction: 'face', thickness: 24, width: 150 }, [80, 76]);

  it('plane all to one thickness, rip with the jointing allowance, joint both edges', () => {
    const steps = stepsOf(board, [plainPiece({ thickness: 32 })]);
    const setting = (kind: OperationKind) => steps.find((o) => o.kind === kind)!.settings.map((s) => s.value.mm);
    expect(setting('flatten')).toEqual([26]);
    expect(setting('rip')).toEqual([81, 77]);
    expect(steps.some((o) => o.kind === 'jointStrips')).toBe(true);
  });

  it('mill to what thin stock leaves, and sand to what comes of it', () => {
    const steps = stepsOf(board, [plainPiece({ thickness: 27 })]);
    expect(steps.find((o) => o.kind === 'flatten')!.settings[0]!.value.mm).toBeCloseTo(23.8, 9);
    expect(phraseText(steps.at(-1)!.lines[0]!, DEFAULT_DISPLAY)).toContain('22.3 mm to 21.8 mm');
  });
});

it('every step at a machine carries its cautions, every step its reason', () => {
  const atMachines: OperationKind[] = ['crosscut', 'flatten', 'jointEdge', 'rip', 'planeStrips', 'jointStrips', 'flattenPanel', 'trimEdges', 'trimEnds', 'sand'];
  fc.assert(fc.property(planInputArbitrary, (input) => {
    for (const step of makePlan(input).operations) {
      expect(step.why.length).toBeGreaterThan(0);
      expect(step.lines.length).toBeGreaterThan(0);
      if (atMachines.includes(step.kind)) expect(step.cautions.length).toBeGreaterThan(0);
    }
  }), { numRuns: 40 });
});

it('the glue-ups stand in the steps with their waits, joins after their groups', () => {
  const steps = stepsOf(plainBoard({ width: 500 }, Array<number>(12).fill(46)), [plainPiece({ length: 4000 })]);
  const glue = steps.filter((o) => o.kind === 'glue' || o.kind === 'join');
  expect(glue.map((o) => phraseText(o.title, DEFAULT_DISPLAY))).toEqual(['Glue strips 1 to 6', 'Glue strips 7 to 12', 'Join 2 groups into strips 1 to 12']);
  expect(glue.map((o) => o.waitMinutes)).toEqual([120, 120, 120]);
});
