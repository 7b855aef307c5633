import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_DIFFERENCES } from '../board/differences.ts';
import type { EdgeCut, SideEdges } from '../features/edge.ts';
import { NOTHING_WORKED, UNDRAWN, type Feature, type Worked } from '../features/feature.ts';
import { makePlan } from '../plan/plan.ts';
import type { Fact } from '../facts/fact.ts';
import { panelFacts, plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { ofKind } from '../steps/instruction.ts';
import { phraseText } from '../units/phrase.ts';
import { checkPlan } from './checkPlan.ts';

const RULES = [
  'feature-outside',
  'feature-edge',
  'feature-through',
  'feature-beneath',
  'features-meet',
  'features-near',
  'screw-in-joint',
  'edge-eaten',
  'edge-face',
  'corner-size',
  'bevel-corner',
  'bevel-idle',
  'panel-spots',
  'feature-knot',
  'mark-strip',
  'mark-drawing',
  'mark-lines',
  'inlay-deep',
  'inlay-glue',
  'inlay-sanded',
  'plug-wood',
];

/** A board of 400 by 260 by 30 of six strips, joints at 37, 83, 129 … from its far edge. */
function workedBoard(worked: Partial<Worked>, schools: object = {}, facts: readonly Fact[] = []) {
  const board = plainBoard({ worked: { ...NOTHING_WORKED, ...worked }, differs: { ...NO_DIFFERENCES, schools } });
  const input = { ...planInput(board, [plainPiece({ length: 4000 })]), facts };
  const plan = makePlan(input);
  return {
    board,
    plan,
    found: checkPlan(plan, input)
      .filter((f) => RULES.includes(f.rule))
      .map((f) => ({
        rule: f.rule,
        severity: f.severity,
        what: phraseText(f.what, DEFAULT_DISPLAY),
        ways: f.waysOut.map((w) => phraseText(w, DEFAULT_DISPLAY)),
      })),
  };
}

const groove: Feature = {
  kind: 'groove',
  id: 'g',
  face: 'top',
  offset: 25,
  bit: 12.7,
  depth: 8,
  corner: 20,
  wells: 1,
  spout: null,
  fall: 0,
};
const feet: Feature = { kind: 'feet', id: 'f', count: 4, inset: 55, bore: 20, boreDepth: 2, screw: 4, screwDepth: 10 };
const mark: Feature = {
  kind: 'mark',
  id: 'm',
  face: 'top',
  name: 'Hut',
  method: 'brand',
  x: 200,
  y: 130,
  length: 60,
  width: 20,
  depth: 1,
  ...UNDRAWN,
};
const handle: Feature = {
  kind: 'handle',
  id: 'h',
  on: 'ends',
  bores: 2,
  spacing: 100,
  bore: 5,
  inset: 60,
  counterbore: 12,
  sinkTop: 0,
  sinkBottom: 8,
};
const finger: Feature = { kind: 'finger', id: 'c', on: 'ends', shape: 'cove', bit: 12.7, length: 90, depth: 8, up: 15 };
const around = (top: EdgeCut, bottom: EdgeCut): Worked['edges'] => {
  const side: SideEdges = { top, bottom };
  return { far: side, right: side, near: side, left: side };
};
const straight: EdgeCut = { kind: 'straight' };

describe('rules on what is worked into a board', () => {
  it('find nothing where there is room for everything', () => {
    expect(
      workedBoard({ features: [groove, finger, mark, { ...feet, inset: 60 }], corners: { kind: 'round', size: 12 } })
        .found,
    ).toEqual([]);
  });

  it.each<[string, string, string, Partial<Worked>]>([
    ['feature-outside', 'stop', 'has no room', { features: [{ ...groove, offset: 140 }] }],
    ['feature-outside', 'stop', 'Feet: over the edge', { features: [{ ...feet, inset: 5 }] }],
    [
      'feature-edge',
      'caution',
      'Juice groove: only 0.5 mm to the treated edge; 6 mm',
      { features: [{ ...groove, offset: 10 }] },
    ],
    ['feature-through', 'stop', 'right through, the board is 30 mm thick', { features: [{ ...groove, depth: 31 }] }],
    [
      'feature-through',
      'stop',
      'falls 9 mm but is only 8 mm deep',
      { features: [{ ...groove, spout: 'left', fall: 9 }] },
    ],
    ['feature-through', 'stop', 'counterbores meet', { features: [{ ...handle, sinkTop: 16, sinkBottom: 15 }] }],
    [
      'feature-beneath',
      'caution',
      'Feet: only 8 mm of wood is left; 10 mm',
      { features: [{ ...feet, screwDepth: 20 }] },
    ],
    [
      'features-meet',
      'stop',
      'Juice groove and hand holes run into each other',
      { features: [groove, { kind: 'hole', id: 'h', on: 'ends', length: 90, width: 28, inset: 20 }] },
    ],
    [
      'features-near',
      'caution',
      'Between juice groove and feet only 8 mm of thickness',
      { features: [groove, { ...feet, inset: 27, screwDepth: 12 }] },
    ],
    ['screw-in-joint', 'caution', 'joint between strips 3 and 4', { features: [{ ...handle, bores: 1 }] }],
    [
      'edge-eaten',
      'stop',
      'take 35 mm of the far edge',
      { edges: around({ kind: 'chamfer', reach: 15, angle: 45 }, { kind: 'underBevel', angle: 45, reveal: 10 }) },
    ],
    [
      'edge-face',
      'stop',
      'nothing flat is left',
      { edges: around(straight, { kind: 'underBevel', angle: 80, reveal: 4 }) },
    ],
    ['corner-size', 'stop', 'Corners of 200 mm do not fit', { corners: { kind: 'round', size: 200 } }],
    [
      'bevel-corner',
      'caution',
      'miss each other by 4 mm',
      {
        edges: {
          ...around(straight, { kind: 'underBevel', angle: 45, reveal: 12 })!,
          left: { top: straight, bottom: { kind: 'underBevel', angle: 45, reveal: 16 } },
        },
      },
    ],
    [
      'bevel-idle',
      'caution',
      'leaves 40 mm of its side, and the board is 30 mm thick',
      { edges: around(straight, { kind: 'underBevel', angle: 45, reveal: 40 }) },
    ],
    ['mark-drawing', 'note', 'has no drawing yet', { features: [{ ...mark, method: 'laser' }] }],
    [
      'inlay-sanded',
      'stop',
      'the plug goes 0.2 mm deep, and sanding takes',
      { features: [{ ...mark, method: 'inlay', plugStart: 0.2 }] },
    ],
    [
      'plug-wood',
      'caution',
      'nothing that this board leaves in the rack',
      { features: [{ ...mark, method: 'inlay', depth: 2 }] },
    ],
    [
      'feature-edge',
      'caution',
      'Mark: only 0 mm to the treated edge',
      {
        features: [{ ...mark, face: 'far', y: 9, width: 10 }],
        edges: around({ kind: 'roundOver', radius: 5 }, straight),
      },
    ],
    [
      'inlay-deep',
      'stop',
      'the plug goes 1.5 mm deep and the pocket is 1 mm',
      { features: [{ ...mark, method: 'inlay' }] },
    ],
    ['inlay-glue', 'caution', '0.1 mm is left for glue', { features: [{ ...mark, method: 'inlay', depth: 1.6 }] }],
    [
      'mark-lines',
      'caution',
      'nearer to each other than 3 mm',
      {
        features: [
          {
            ...mark,
            method: 'router',
            bit: 3,
            art: { name: 'a', length: 1000, width: 300, d: 'M0 0L1000 0L1000 10L0 10Z' },
          },
        ],
      },
    ],
  ])('%s (%s): %s', (rule, severity, what, worked) => {
    const { found } = workedBoard(worked);
    const one = found.find((f) => f.rule === rule && f.what.includes(what));
    expect(one, JSON.stringify(found)).toMatchObject({ severity });
    expect(one!.ways.length).toBeGreaterThan(0);
  });

  it('panel-spots (stop): no board lies clear of what was found on the panel', () => {
    const gap = { id: 's', x: 0, y: 100, length: 40, width: 10, what: 'Gap' };
    const { found } = workedBoard({}, {}, panelFacts(null, [gap]));
    expect(found.find((f) => f.rule === 'panel-spots')).toMatchObject({
      severity: 'stop',
      what: expect.stringContaining('leave no room for a board of 400 mm by 260 mm') as string,
    });
  });

  it('a groove that runs into a knot of its strip is told of, at the place where the knot comes to lie', () => {
    // One flat strip from 20 mm beside the piece's edge; the knot is under the groove's near line, or in the middle of the board.
    const at = (across: number) => {
      const board = plainBoard(
        {
          construction: 'face',
          width: 200,
          thickness: 30,
          length: 300,
          worked: { ...NOTHING_WORKED, features: [groove] },
        },
        [206],
      );
      const input = planInput(board, [
        plainPiece({
          length: 360,
          width: 220,
          thickness: 40,
          defects: [
            { id: 'd', kind: 'knot', face: 'up', from: 174, across, length: 12, width: 12, treatment: 'harmless' },
          ],
        }),
      ]);
      return checkPlan(makePlan(input), input).map((f) => f.rule);
    };
    expect(at(30)).toContain('feature-knot');
    expect(at(105)).not.toContain('feature-knot');
  });

  it('a mark made before the glue-up belongs on an outer strip', () => {
    expect(workedBoard({ features: [mark] }, { engraving: 'outerStrip' }).found.map((f) => f.rule)).toContain(
      'mark-strip',
    );
    expect(
      workedBoard({ features: [{ ...mark, face: 'near', y: 18, width: 10 }] }, { engraving: 'outerStrip' }).found.map(
        (f) => f.rule,
      ),
    ).not.toContain('mark-strip');
  });

  it('a way out works: the panel stays as long as it was glued, and at the length that remains the board lies clear', () => {
    const spots = [{ id: 's', x: 0, y: 100, length: 40, width: 10, what: 'Gap' }];
    const facts = panelFacts(429, spots);
    const { board, plan, found } = workedBoard({}, {}, facts);
    const { instead } = plan.trim;
    expect(found.find((f) => f.rule === 'panel-spots')!.ways[0]).toContain('long');
    const input = { ...planInput({ ...board, length: instead!.length }, [plainPiece({ length: 4000 })]), facts };
    const shorter = makePlan(input);
    expect(shorter.allowances.panels[0]!.length).toBeCloseTo(429, 9);
    const layout = shorter.trim;
    expect([layout.missing, layout.length]).toEqual([0, 429]);
    expect(layout.boards[0]!.x).toBeGreaterThanOrEqual(40);
    expect(shorter.ladders.length.shortBy).toBe(0);
    expect(shorter.ladders.length.reached).toBeCloseTo(instead!.length, 6);
    expect(checkPlan(shorter, input).map((f) => f.rule)).not.toContain('panel-spots');
    const ends = shorter.operations.find((o) => o.kind === 'trimEnds')!;
    expect(phraseText(ends.lines[0]!, DEFAULT_DISPLAY)).toContain(
      `Cut one end ${Number((layout.boards[0]!.x - 3).toFixed(1))} mm in`,
    );
  });

  it('where a bad place moves the boards across the panel, strips and joints move with them', () => {
    // 276 of strips for 260: 8 off each side; a place along the far edge down to 12 pushes the board there.
    const crack = { id: 's', x: 100, y: 0, length: 200, width: 12, what: 'Crack' };
    const { plan } = workedBoard({}, {}, panelFacts(429, [crack]));
    expect(plan.worked.shift).toBeCloseTo(12, 9);
    expect(plan.strips.map((s) => s.finished.width)).toEqual(
      [34, 46, 46, 46, 46, 42].map((w) => expect.closeTo(w, 6) as number),
    );
    expect(plan.strips.reduce((sum, s) => sum + s.finished.width, 0)).toBeCloseTo(plan.worked.size.width, 6);
  });

  it('a panel that is too small for its board says so, and what would fit', () => {
    const { found } = workedBoard({}, {}, panelFacts(380));
    expect(found).toMatchObject([
      {
        rule: 'panel-spots',
        severity: 'stop',
        what: expect.stringContaining('The panel is 380 mm long: too short for a board of 400 mm') as string,
      },
    ]);
    expect(found[0]!.ways[0]).toMatch(/^Make it 351 mm long/);
  });

  it('never fail, whatever is worked into whatever board', () => {
    const mm = (least: number, greatest: number) => fc.integer({ min: least * 2, max: greatest * 2 }).map((n) => n / 2);
    const feature = fc.oneof(
      fc
        .record({
          offset: mm(1, 200),
          bit: mm(1, 60),
          depth: mm(1, 60),
          corner: mm(0, 300),
          wells: fc.constantFrom(1 as const, 2 as const),
          spout: fc.constantFrom(null, 'left' as const, 'right' as const),
          fall: mm(0, 50),
        })
        .map((f): Feature => ({ ...groove, ...f })),
      fc
        .record({
          inset: mm(1, 300),
          bore: mm(1, 60),
          boreDepth: mm(0, 60),
          count: fc.constantFrom(4 as const, 6 as const),
        })
        .map((f): Feature => ({ ...feet, ...f })),
      fc
        .record({
          on: fc.constantFrom('ends' as const, 'sides' as const),
          length: mm(10, 600),
          depth: mm(1, 60),
          up: mm(0, 60),
        })
        .map((f): Feature => ({ ...finger, ...f })),
      fc
        .record({ x: mm(0, 900), y: mm(0, 500), length: mm(2, 500), width: mm(2, 300), depth: mm(1, 20) })
        .map((f): Feature => ({ ...mark, ...f })),
    );
    fc.assert(
      fc.property(
        fc.array(feature, { maxLength: 5 }),
        mm(0, 300),
        fc.array(fc.record({ x: mm(0, 500), y: mm(0, 300), length: mm(1, 200), width: mm(1, 200) }), { maxLength: 4 }),
        (features, size, spots) => {
          const { plan, found } = workedBoard(
            { features: features.map((f, i) => ({ ...f, id: `f${i}` })), corners: { kind: 'clip', size } },
            {},
            panelFacts(
              null,
              spots.map((s, i) => ({ ...s, id: `s${i}`, what: 'Gap' })),
            ),
          );
          for (const f of found) expect(f.what).not.toMatch(/NaN|undefined|Infinity/);
          for (const o of plan.operations)
            for (const line of [o.title, ...o.lines])
              expect(phraseText(line, DEFAULT_DISPLAY)).not.toMatch(/NaN|undefined|Infinity/);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('the order of what is worked into a board', () => {
  const kinds = (schools: object) =>
    workedBoard(
      { features: [groove, finger, handle, { ...feet, inset: 70 }, mark], corners: { kind: 'round', size: 12 } },
      schools,
    ).plan.operations.map((o) => o.kind);
  const before = (list: string[], ...order: string[]) =>
    expect(list.filter((k) => order.includes(k)).filter((k, i, all) => k !== all[i - 1])).toEqual(order);

  it('follows physics: corners before edges, all cutting before sanding, feet after oil', () => {
    before(
      kinds({}),
      'trimEnds',
      'corners',
      'edges',
      'holds',
      'handles',
      'bores',
      'sand',
      'raiseGrain',
      'oil',
      'topCoat',
      'feet',
    );
  });

  it.each([
    [{ grooveOrder: 'before' }, ['groove', 'edges']],
    [{ grooveOrder: 'after' }, ['edges', 'groove']],
    [{ engraving: 'beforeGrain' }, ['sand', 'engrave', 'raiseGrain']],
    [{ engraving: 'last' }, ['topCoat', 'engrave', 'feet']], // A face is planed after the glue-up: what was burnt into it would be gone.
    [{ engraving: 'outerStrip' }, ['sand', 'engrave', 'raiseGrain']],
  ])('follows the habit %j', (schools, order) => before(kinds(schools), ...order));

  it('a long edge is marked on its loose strip, and that edge is never trimmed', () => {
    const { plan } = workedBoard({ features: [{ ...mark, face: 'far', y: 10 }] }, { engraving: 'outerStrip' });
    const order = plan.operations.map((o) => o.kind);
    expect(order.indexOf('engrave')).toBeLessThan(order.indexOf('glue'));
    expect(plan.operations.flatMap((o) => ofKind(o.instructions, 'trimEdge')).map((i) => i.side)).toEqual(['near']);
    // Measured on the strip as it lies in the panel: what is cut off its end, and planed off its top, is added.
    const [figures] = plan.operations
      .flatMap((o) => ofKind(o.instructions, 'work'))
      .filter((i) => i.what === 'mark')
      .map((i) => i.figures);
    const start = workedBoard({}).plan.trim.boards[0]!.x;
    expect(figures!.x1).toBeCloseTo(start + mark.x, 6);
    expect(figures!.y).toBeCloseTo(10 + (plan.allowances.glueThickness - plan.worked.size.thickness) / 2, 6);
  });

  it('without a router every cut still has a way', () => {
    const board = plainBoard({ worked: { ...NOTHING_WORKED, features: [groove, finger] } });
    const input = planInput(board, [plainPiece({ length: 4000 })]);
    const steps = makePlan({ ...input, shop: { ...input.shop, router: null } }).operations.filter(
      (o) => o.kind === 'groove' || o.kind === 'holds',
    );
    expect(steps.map((s) => s.machine)).toEqual(['Gouge and scraper', 'Gouge and rasp']);
    expect(steps.every((s) => s.ways.some((w) => w.id === 'router' && !w.owned))).toBe(true);
  });
});
