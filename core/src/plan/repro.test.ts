import { describe, expect, it } from 'vitest';
import { checkPlan } from '../checks/checkPlan.ts';
import { NOTHING_MADE } from '../facts/made.ts';
import { allowancesFor } from '../board/allowances.ts';
import { NO_CUTTING_WISHES } from '../board/board.ts';
import { NOTHING_WORKED } from '../features/feature.ts';
import { trimLayout } from '../trim/trimLayout.ts';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText, type Phrase } from '../units/phrase.ts';
import { furthest } from './furthest.ts';
import { makePlan } from './plan.ts';
import { cutList } from '../bodies/strips.ts';
import { plainBoard, plainPiece, planInput } from './planArbitrary.ts';
import { NOTHING_SAWN, type PlanInput } from '../saw/planInput.ts';
import type { Board } from '../board/board.ts';
import type { Piece } from '../stock/piece.ts';

/** Boards on which one size was told in two ways, or told wrong; each with the figures worked out by hand. */
const look = (board: Board, rack: Piece[], shop: Shop = DEFAULT_SHOP) => {
  const input = planInput(board, rack, shop);
  const plan = makePlan(input);
  return {
    plan,
    findings: checkPlan(plan, input),
    step: (kind: string) => plan.operations.find((o) => o.kind === kind)!,
  };
};

const words = (phrases: readonly Phrase[]) => phrases.map((p) => phraseText(p, DEFAULT_DISPLAY)).join(' ');

describe('one figure, one source', () => {
  it('ends are trimmed and boards cut apart with the kerf of the saw that does it', () => {
    const shop: Shop = {
      ...DEFAULT_SHOP,
      saw: { ...DEFAULT_SHOP.saw, kerf: 1 },
      crosscutSaw: { ...DEFAULT_SHOP.crosscutSaw, kerf: 3.2 },
    };
    const { plan } = look(
      plainBoard({ count: 10, perPanel: 10, length: 80, width: 132, thickness: 25 }, [46, 46, 46]),
      [plainPiece()],
      shop,
    );
    // By hand: ten boards of 80, nine cuts between them and one at each end, the trims and the creep.
    const { endTrim } = plan.allowances;
    expect(plan.allowances.panels[0]!.length).toBeCloseTo(10 * 80 + 11 * 3.2 + 2 * endTrim + shop.habits.creep, 6);
    expect(plan.ladders.length.rungs.at(-1)!.after).toBeCloseTo(80, 6);
  });

  it('enough clamps are those that press together, weak ones beside strong ones', () => {
    const shop: Shop = {
      ...DEFAULT_SHOP,
      clamps: [
        { id: 'big', kind: 'pipe', opening: 900, reach: 60, force: 9, count: 2 },
        { id: 'small', kind: 'f', opening: 900, reach: 60, force: 2.5, count: 12 },
      ],
    };
    const { plan } = look(
      plainBoard({ length: 400, width: 240, thickness: 78 }, [41, 41, 41, 41, 41, 41]),
      [plainPiece({ width: 180, count: 2 })],
      shop,
    );
    for (const { clamps } of plan.gluing.glueUps) {
      expect(clamps.wanted > clamps.owned || clamps.pressure >= clamps.wantedPressure - 1e-9).toBe(true);
      // Two of 9 kN and so many of 2.5 as the rest of 1.2 MPa on the joint asks for.
      const force = (1.2 * plan.allowances.panels[0]!.length * plan.allowances.glueThickness) / 1000;
      expect(clamps.wanted).toBe(2 + Math.ceil((force - 18) / 2.5));
    }
  });

  it('the rehearsal and the glue-up have the clamps that the shop has', () => {
    const { step } = look(plainBoard({ length: 900, width: 260 }), [plainPiece({ count: 3 })], {
      ...DEFAULT_SHOP,
      clamps: [{ id: 'few', kind: 'bar', opening: 900, reach: 60, force: 4.5, count: 3 }],
    });
    for (const kind of ['dryRun', 'glue']) expect(words(step(kind).lines)).toMatch(/3 bar clamps/);
  });

  it('a spare changes nothing of its strip in the width ladder', () => {
    const rack = [
      plainPiece({ id: 'p1', length: 480, width: 40, thickness: 31, surface: 'twoFaces' }),
      plainPiece({ id: 'p2', mark: 'P2', length: 480, width: 40, thickness: 52, surface: 'twoFaces' }),
    ];
    const board = (spares: number) =>
      plainBoard(
        { width: 30, thickness: 25, cutting: { ...NO_CUTTING_WISHES, spares, pins: [{ strip: 's1', piece: 'p1' }] } },
        [30],
      );
    expect(look(board(1), rack).plan.ladders.width).toEqual(look(board(0), rack).plan.ladders.width);
  });

  it('moisture is told for the widest strip of a piece, not for its last', () => {
    const { plan } = look(plainBoard({ width: 50, thickness: 25 }, [46, 10]), [plainPiece({ moisture: 12 })]);
    const { plan: alone } = look(plainBoard({ width: 46, thickness: 25 }, [46]), [plainPiece({ moisture: 12 })]);
    expect(plan.moisture[0]!.change).toBeCloseTo(alone.moisture[0]!.change!, 9);
  });

  it('a strip of a tapering piece is never thinner rough than milled, and its passes are counted from the thicker end', () => {
    const { plan, step } = look(plainBoard({ width: 82, thickness: 25 }, [44, 44]), [
      plainPiece({ length: 1200, thickness: 36, farEnd: { width: 150, thickness: 56 }, surface: 'twoFaces' }),
    ]);
    for (const { rough, milled } of plan.strips) expect(rough.width).toBeGreaterThanOrEqual(milled.width);
    const [part] = step('flatten').parts;
    expect(part!.passes! * DEFAULT_SHOP.planer!.passDepth).toBeGreaterThanOrEqual(part!.before - part!.after - 1e-9);
  });

  it('a strip that comes the other way round is jointed, sized and judged as it really lies', () => {
    const { plan, findings, step } = look(
      plainBoard({ width: 100, cutting: { ...NO_CUTTING_WISHES, eitherWay: true } }, [60, 46]),
      [plainPiece({ width: 170, surface: 'twoFaces' })],
    );
    const [first] = plan.cutting.blanks.flatMap((b) => b.strips).filter((s) => s.demand.strip === 1);
    expect(first!.way.shows).toBe('face');
    expect(plan.strips[0]!.rough).toMatchObject({ width: 60 + plan.allowances.ripExtra.face, thickness: 50 });
    expect(findings.map((f) => f.rule)).not.toContain('width-not-in-rack');
    expect(words([step('jointStrips').title])).toMatch(/strip 1/);
  });

  it('strips cut together lose what the widest of them loses', () => {
    const form = { bow: 0, cup: 6, crook: 0, twist: 0 };
    const board = plainBoard(
      { construction: 'face', width: 174, thickness: 20, cutting: { ...NO_CUTTING_WISHES, together: [['s1', 's2']] } },
      [30, 150],
    );
    const { plan } = look(board, [plainPiece({ width: 200, thickness: 32, surface: 'twoFaces', form })]);
    const [one, two] = plan.cutting.blanks.flatMap((b) => b.strips);
    expect(one!.planed).toBe(two!.planed);
  });

  it('a board of one strip may be as much wider than the board as its edges are trimmed', () => {
    const { findings } = look(
      plainBoard({ width: 100, thickness: 25 }, [100 + 2 * DEFAULT_SHOP.habits.panelEdgeTrim]),
      [plainPiece({ thickness: 130, width: 60, surface: 'twoFaces' })],
    );
    expect(findings.filter((f) => f.severity === 'stop').map((f) => f.rule)).toEqual([]);
  });

  it('how thick it could be is never less than what is planned, and knows of wood promised to others', () => {
    const board = plainBoard({ thickness: 30 });
    const rack = [plainPiece()];
    const chosen = makePlan(planInput(board, rack)).cutting;
    // First fit with this piece promised away finds nothing; the plan that was kept has it.
    const input: PlanInput = {
      ...planInput(board, rack),
      saw: { ...NOTHING_SAWN, chosen: { ...chosen, method: 'kept' } },
    };
    expect(furthest(input, 'thickness')).toBeGreaterThanOrEqual(30);
    const promised: PlanInput = {
      ...planInput(board, rack),
      saw: { ...NOTHING_SAWN, promised: [{ pieceId: 'p1', unit: 0, from: 0, to: 2000 }] },
    };
    expect(furthest(promised, 'thickness')).toBe(0);
  });

  it('a knot under a feature is found on whichever board of the panel it lies', () => {
    const defect = (id: string, from: number) => ({
      id,
      kind: 'knot' as const,
      face: 'through' as const,
      from,
      across: 0,
      length: 12,
      width: 150,
      treatment: 'harmless' as const,
    });
    const groove = {
      kind: 'groove' as const,
      id: 'g',
      face: 'top' as const,
      offset: 25,
      bit: 12,
      depth: 6,
      corner: 20,
      wells: 1 as const,
      spout: null,
      fall: 0,
    };
    const knots = (perPanel: number, from: number) => {
      const board = plainBoard(
        {
          construction: 'face',
          length: 300,
          width: 130,
          thickness: 20,
          count: 2,
          perPanel,
          worked: { ...NOTHING_WORKED, features: [groove] },
        },
        [136],
      );
      const { plan, findings } = look(board, [
        plainPiece({ length: perPanel * 300 + 160, thickness: 32, defects: [defect('d', from)], count: 3 }),
      ]);
      const [blank] = plan.cutting.blanks;
      return { at: blank!.from, found: findings.filter((f) => f.rule === 'feature-knot').map((f) => words([f.what])) };
    };
    // The left end of the first board's groove lies 25 in from the board, which begins behind trim, creep and kerf; the second board a board and a kerf further.
    const probe = knots(2, 2);
    const { x } = trimLayout(
      plainBoard({ length: 300, width: 130, count: 2, perPanel: 2 }, [136]),
      allowancesFor(plainBoard({ length: 300, width: 130, count: 2, perPanel: 2 }, [136]), DEFAULT_SHOP, NOTHING_MADE),
      DEFAULT_SHOP,
      NOTHING_MADE,
    ).boards[0]!;
    const left = probe.at + x + 25 - 6;
    expect(knots(2, left).found.join()).toMatch(/^Juice groove of board 1 of the panel: into a knot of strip 1/);
    expect(knots(2, left + 303).found.join()).toMatch(/board 2 of the panel/);
    expect(knots(2, left + 100).found.join()).toMatch(/board 1/);
    // Between the boards and in the trim nothing is worked.
    expect(knots(2, probe.at + 1).found).toEqual([]);
  });

  it('the cut list counts and measures the strips of the panels that are glued, as the saw steps do', () => {
    const board = plainBoard(
      { count: 5, perPanel: 2, width: 132, thickness: 25, cutting: { ...NO_CUTTING_WISHES, spares: 1 } },
      [46, 46, 46],
    );
    const { plan, step } = look(board, [plainPiece({ count: 4 })]);
    const lines = cutList(plan.strips, plan.allowances, plan.cutting);
    const strips = plan.cutting.blanks.flatMap((b) => b.strips.map((s) => ({ ...s, length: b.length })));
    for (const { length } of lines) {
      const cut = strips.filter((s) => Math.abs(s.length - length) < 1e-6);
      const listed = lines.filter((l) => l.length === length);
      expect(listed.reduce((sum, l) => sum + l.count, 0)).toBe(cut.filter((s) => s.demand.spare === 0).length);
      expect(listed.reduce((sum, l) => sum + l.spares, 0)).toBe(cut.filter((s) => s.demand.spare > 0).length);
    }
    // Two panels of two boards and one of one: nine strips, six of them long.
    expect(lines.map((l) => l.count).sort()).toEqual([3, 6]);
    expect(words(step('crosscut').lines)).toContain(
      phraseText([{ mm: plan.allowances.panels[0]!.length }], DEFAULT_DISPLAY),
    );
  });

  it('what is alike of many strips is told once, with all of them', () => {
    const { findings } = look(
      plainBoard({ construction: 'edge', width: 120, thickness: 25 }, [12, 12, 12, 12, 12, 12, 12, 12, 12, 12]),
      [plainPiece({ thickness: 20, count: 4 })],
    );
    const narrow = findings.filter((f) => f.rule === 'narrow-strip');
    expect(narrow).toHaveLength(1);
    expect(narrow[0]!.strips).toHaveLength(10);
    expect(words([narrow[0]!.what])).toMatch(/^Strips 1–10 are only/);
    const resawn = look(plainBoard({ width: 50, thickness: 25 }, [10, 10]), [
      plainPiece({ thickness: 30, surface: 'twoFaces' }),
    ]);
    expect(resawn.plan.cutting.blanks.flatMap((b) => b.strips).some((s) => s.layers > 1)).toBe(true);
    expect(resawn.findings.filter((f) => f.rule === 'planed-away')).toEqual([]);
  });
});

describe('a strip that failed', () => {
  const board = plainBoard({ width: 130, cutting: { ...NO_CUTTING_WISHES, spares: 1 } }, [46, 46, 46]);
  const rack = [plainPiece({ id: 'p1' }), plainPiece({ id: 'p2', mark: 'P2' })];
  const cut = makePlan(planInput(board, rack)).cutting.blanks;
  const strips = cut.flatMap((b) => b.strips.map((s) => s.demand));
  const afterFailing = (id: string, failed: (spare: number) => boolean) => {
    const done = cut.map((blank) => ({
      piece: rack[0]!,
      blank: {
        ...blank,
        done: true,
        strips: blank.strips.filter((s) => s.demand.stripId !== id || !failed(s.demand.spare)),
      },
    }));
    return makePlan({ ...planInput(board, [rack[1]!]), saw: { key: '', promised: [], chosen: null, done } });
  };

  it('gives way to the spare that was cut: nothing is cut again', () => {
    // Three alike and one spare, all from the first piece.
    expect(strips.filter((d) => d.spare === 1).length).toBe(1);
    const { cutting, operations } = afterFailing('s2', (spare) => spare === 0);
    expect([cutting.shortages, cutting.blanks.filter((b) => !b.done)]).toEqual([[], []]);
    expect(operations.some((o) => o.kind === 'rip')).toBe(false);
    expect(
      cutting.blanks
        .flatMap((b) => b.strips)
        .map((s) => s.demand.stripId)
        .sort(),
    ).toEqual(['s1', 's2', 's3']);
  });

  it('and is cut again when the spare is gone too', () => {
    const done = cut.map((blank) => ({
      piece: rack[0]!,
      blank: {
        ...blank,
        done: true,
        strips: blank.strips.filter((s) => s.demand.spare === 0 && s.demand.stripId !== 's2'),
      },
    }));
    const { cutting } = makePlan({
      ...planInput(board, [rack[1]!]),
      saw: { key: '', promised: [], chosen: null, done },
    });
    expect(
      cutting.blanks
        .filter((b) => !b.done)
        .flatMap((b) => b.strips)
        .some((s) => s.demand.stripId === 's2'),
    ).toBe(true);
  });

  it('what was ripped fat and cut is still rested and milled again', () => {
    const fat = { ...board, differs: { ...board.differs, schools: { rip: 'fat' as const } } };
    const blanks = makePlan(planInput(fat, rack)).cutting.blanks;
    const { operations } = makePlan({
      ...planInput(fat, [rack[1]!]),
      saw: {
        key: '',
        promised: [],
        chosen: null,
        done: blanks.map((blank) => ({ piece: rack[0]!, blank: { ...blank, done: true } })),
      },
    });
    expect(operations.map((o) => o.kind).slice(0, 2)).toEqual(['remill', 'layOut']);
  });
});
