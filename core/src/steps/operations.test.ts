import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Board } from '../board/board.ts';
import { BARE_SHOP, DEFAULT_SHOP } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { ofKind } from './instruction.ts';
import type { OperationKind } from './operation.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';

const stepsOf = (board: Board, rack: Piece[], shop = DEFAULT_SHOP) => makePlan(planInput(board, rack, shop)).operations;
const partsOf = (board: Board, rack: Piece[], kind: OperationKind) =>
  stepsOf(board, rack)
    .filter((o) => o.kind === kind)
    .flatMap((o) => o.parts);
const linesOf = (board: Board, rack: Piece[], kind: OperationKind, shop = DEFAULT_SHOP) =>
  stepsOf(board, rack, shop)
    .filter((o) => o.kind === kind)
    .flatMap((o) => o.lines.map((line) => phraseText(line, DEFAULT_DISPLAY)));

describe('steps of an edge-grain board', () => {
  it('crosscut, flatten and rip each piece with the counts of the cut plan', () => {
    const board = plainBoard();
    const rack = [plainPiece()];
    expect(linesOf(board, rack, 'crosscut')).toEqual([
      'P1: trim 10 mm off the marked end, then 2 × 429 mm (P1.1, P1.2)',
    ]);
    // 50 to 46 at 150 of 260 wide: a pass takes 1.5 x (1 - 0.5 x 2 x (150 / 260 - 0.5)) = 1.38 mm.
    // Hard maple is harder than 6000 N: passes are a fifth shallower, 1.11 mm, so four.
    expect(partsOf(board, rack, 'flatten')).toEqual([
      { part: 'P1.1, P1.2', dimension: 'thickness', before: 50, after: 46, passes: 4 },
    ]);
    expect(linesOf(board, rack, 'rip')).toEqual([
      'P1.1: from the straight edge 4 × 32 mm for strips 1–4',
      'P1.2: from the straight edge 2 × 32 mm for strips 5, 6',
    ]);
  });

  it('plane further only the strips that share a blank with wider ones', () => {
    // With no saw that makes layers: a pass of 1.5 mm on a narrow strip, a fifth less in hard maple: 26 / 1.2.
    const noLayers = { ...DEFAULT_SHOP, bandSaw: null, saw: { ...DEFAULT_SHOP.saw, kind: 'circular' as const } };
    const planed = stepsOf(plainBoard({}, [46, 46, 20, 46]), [plainPiece()], noLayers)
      .filter((o) => o.kind === 'planeStrips')
      .flatMap((o) => o.parts);
    expect(planed).toEqual([{ part: '3', dimension: 'thickness', before: 46, after: 20, passes: 22 }]);
    // With one, what would go to shavings is sawn off whole: 46 - 20 - 1 of kerf - 0.8 to clean.
    expect(partsOf(plainBoard({}, [46, 46, 20, 46]), [plainPiece()], 'planeStrips')).toEqual([
      { part: '3', dimension: 'thickness', before: 20.8, after: 20, passes: 1 },
    ]);
    expect(
      stepsOf(plainBoard({}, [46, 46, 20, 46]), [plainPiece()])
        .flatMap((o) => ofKind(o.instructions, 'resaw'))
        .map((i) => i.rest),
    ).toEqual([expect.closeTo(24.2, 6)]);
    expect(partsOf(plainBoard(), [plainPiece()], 'planeStrips')).toEqual([]);
  });

  it('say when a blank or the panel is too wide for the planer', () => {
    const shop = { ...DEFAULT_SHOP, planer: { ...DEFAULT_SHOP.planer!, width: 140 } };
    // The fourth strip ends at 139 of 150: what is beside it is sawn off, so that 140 is left.
    expect(linesOf(plainBoard(), [plainPiece()], 'split', shop)).toContain(
      'P1.1 narrower than the planer: P1.1a from 0 mm to 140 mm',
    );
    expect(linesOf(plainBoard(), [plainPiece()], 'flattenPanel', shop)).toContain(
      'The panel is wider than the planer takes',
    );
    // Sections that fit are planed before they are joined; the last levelling is done by hand.
    const sections = stepsOf(plainBoard(), [plainPiece()], shop);
    expect(sections.find((o) => o.kind === 'flattenSections')!.machine).toBe('Planer');
    expect(sections.find((o) => o.kind === 'flattenPanel')!.machine).toBe('Hand planes');
    expect(
      stepsOf(plainBoard({ width: 130 }, [46, 46, 44]), [plainPiece()], shop).find((o) => o.kind === 'flattenPanel')!
        .passes,
    ).toBe(3);
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
    expect(steps.find((o) => o.kind === 'sand')!.parts[0]).toMatchObject({
      before: 22.3,
      after: expect.closeTo(21.8, 9) as number,
    });
  });
});

it('every step at a machine carries its cautions, every step its reason', () => {
  const atMachines: OperationKind[] = [
    'crosscut',
    'flatten',
    'jointEdge',
    'rip',
    'planeStrips',
    'jointStrips',
    'flattenPanel',
    'trimEdges',
    'trimEnds',
    'sand',
  ];
  fc.assert(
    fc.property(planInputArbitrary, (input) => {
      for (const step of makePlan(input).operations) {
        expect(step.why.length).toBeGreaterThan(0);
        expect(step.lines.length).toBeGreaterThan(0);
        if (atMachines.includes(step.kind)) expect(step.cautions.length).toBeGreaterThan(0);
      }
    }),
    { numRuns: 40 },
  );
});

it('the glue-ups stand in the steps with their waits, joins after their groups', () => {
  const wide = { ...DEFAULT_SHOP, planer: { ...DEFAULT_SHOP.planer!, width: 600 } };
  const steps = stepsOf(plainBoard({ width: 500 }, Array<number>(12).fill(46)), [plainPiece({ length: 4000 })], wide);
  const glue = steps.filter((o) => o.kind === 'glue' || o.kind === 'join');
  expect(glue.map((o) => phraseText(o.title, DEFAULT_DISPLAY))).toEqual([
    'Glue strips 1 to 6',
    'Glue strips 7 to 12',
    'Join 2 pieces into strips 1 to 12',
  ]);
  expect(glue.map((o) => o.waitMinutes)).toEqual([30, 30, 120]);
});

describe('a bare kitchen table gets an honest plan too', () => {
  const rack = [plainPiece({ surface: 'fourSides' })];
  it('everything is flattened with what is there, in honest time, and says what a planer would save', () => {
    const { operations, allowances } = makePlan(planInput(plainBoard(), rack, BARE_SHOP));
    const flatten = operations.find((o) => o.kind === 'flattenPanel')!;
    expect(flatten.machine).toBe('Orbital sander');
    const planer = flatten.ways.find((w) => w.id === 'planer')!;
    expect([planer.owned, flatten.minutes > 5 * planer.minutes]).toEqual([false, true]);
    // Nothing snipes: the ends only carry the usual trim.
    expect(allowances.endTrim).toBe(BARE_SHOP.habits.panelEndTrim);
    expect(operations.find((o) => o.kind === 'jointEdge')!.machine).toBe('A straight edge stuck on');
  });
});

describe('habits decide', () => {
  const differs = (change: Partial<Board['differs']>): Board =>
    plainBoard({ differs: { habits: {}, schools: {}, glue: null, ...change } });
  it('strips ripped fat rest and are milled again; the stock gives that much more', () => {
    const plan = makePlan(planInput(differs({ schools: { rip: 'fat' } }), [plainPiece()]));
    expect(plan.operations.find((o) => o.kind === 'rip')).toMatchObject({
      waitMinutes: 720,
      settings: [{ value: { mm: 38 } }],
    });
    expect(plan.operations.find((o) => o.kind === 'remill')!.parts[0]).toMatchObject({ before: 38, after: 32 });
    expect(plan.ladders.thickness.rungs.map((r) => r.id)).toEqual([
      'joint-edge',
      'rip',
      'remill',
      'flatten-panel',
      'sand',
    ]);
    expect(plan.cutting.blanks.every((b) => b.strips.every((s) => s.way.rip === 38))).toBe(true);
  });

  it('a board may differ from its shop in figures, schools and glue', () => {
    const plan = makePlan(
      planInput(
        differs({ habits: { panelFlatten: 3 }, schools: { squeezeOut: 'leave', snipe: 'tuned' }, glue: 'waterproof' }),
        [plainPiece()],
      ),
    );
    expect([plan.allowances.glueThickness, plan.allowances.endTrim, plan.gluing.clampMinutesEach]).toEqual([
      33.5, 8, 180,
    ]);
    expect(plan.operations.some((o) => o.kind === 'scrape')).toBe(true);
  });

  it('boards of a batch out of one panel lose creep and end trims once, and every length adds up', () => {
    const of = (perPanel: number) =>
      makePlan(planInput(plainBoard({ count: 5, perPanel }), [plainPiece({ length: 4000, count: 4 })]));
    const [each, two] = [of(1), of(2)];
    expect(each.allowances.panels.map((p) => p.boards)).toEqual([1, 1, 1, 1, 1]);
    expect(two.allowances.panels.map((p) => [p.boards, p.length])).toEqual([
      [2, 832],
      [2, 832],
      [1, 429],
    ]);
    expect(two.materials.taken.cubicMetres).toBeLessThan(each.materials.taken.cubicMetres);
    expect(two.ladders.length.reached).toBe(400);
    expect(two.operations.some((o) => o.kind === 'cutApart')).toBe(true);
    expect(two.operations.find((o) => o.kind === 'glue')!.repeats).toBe(3);
  });
});
