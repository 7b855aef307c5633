import { describe, expect, it } from 'vitest';
import { NOTHING_WORKED, UNDRAWN } from '../features/feature.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import type { Board } from '../board/board.ts';
import type { Fact } from '../facts/fact.ts';
import { USUAL_GLUES } from '../shop/gluing.ts';
import { BARE_SHOP, DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { checkPlan, isToldAt, openStops, stopsOfNoStep } from './checkPlan.ts';
import { flatRecipe, stripsOf, type Strip, withStrips } from '../board/recipe.ts';

function found(board: Board, rack: Piece[] = [plainPiece({ length: 4000 })], shop: Shop = DEFAULT_SHOP) {
  const input = planInput(board, rack, shop);
  return checkPlan(makePlan(input), input).map((f) => ({
    rule: f.rule,
    strips: f.strips,
    severity: f.severity,
    what: phraseText(f.what, DEFAULT_DISPLAY),
    ways: f.waysOut.length,
  }));
}
const planerAt = (change: Partial<NonNullable<Shop['planer']>>): Shop => ({
  ...DEFAULT_SHOP,
  planer: { ...DEFAULT_SHOP.planer!, ...change },
});
const wide = planerAt({ width: 400 });

describe('checkPlan', () => {
  it('looks for a strip in the rack until it is glued, each copy of it, whether its cut was booked or not', () => {
    const input = planInput(plainBoard({ count: 2, width: 270 }), [], wide);
    const missing = (facts: Fact[]) =>
      checkPlan(makePlan({ ...input, facts }), { ...input, facts }).filter((f) => f.rule === 'stock-shortage').length;
    const [glue] = makePlan(input).operations.filter((o) => o.glueUp !== null && o.kind === 'glue');
    const times = Array.from({ length: glue!.repeats }, (_, i) => i + 1);
    const glued = times.map((copy): Fact => ({
      kind: 'done',
      id: `d${copy}`,
      at: '2026-11-28T08:00:00.000Z',
      step: glue!.id,
      copy,
      minutes: null,
    }));
    expect(times.length).toBe(2);
    expect([missing([]), missing(glued.slice(1)), missing(glued)]).toEqual([1, 1, 0]);
    expect(missing([...glued, { kind: 'takenBack', id: 't', at: '2026-11-28T09:00:00.000Z', fact: 'd1' }])).toBe(1);
  });

  it('finds nothing on a board that works', () => {
    expect(found(plainBoard({ width: 270 }), undefined, wide)).toEqual([]);
  });

  const strips = (widths: number[], change: (s: Strip, i: number) => object = () => ({})) =>
    stripsOf(plainBoard({}, widths)).map((s, i) => ({ ...s, ...change(s, i) }));
  const flat = plainBoard({ construction: 'face', width: 90, thickness: 20 }, [96]);
  const oneFlat = withStrips(
    flat,
    stripsOf(flat).map((s) => ({ ...s, sideKept: true })),
  );
  const stained = (face: 'up' | 'down') => [
    plainPiece({
      length: 500,
      width: 100,
      thickness: 30,
      defects: [{ id: 'd1', kind: 'stain', face, from: 100, across: 20, length: 100, width: 40, treatment: 'under' }],
    }),
  ];
  const six = [46, 46, 46, 46, 46, 46];

  it.each<[string, string, Board, Piece[] | undefined, Shop, number[]]>([
    ['empty-board', 'No strips', plainBoard({}, []), undefined, wide, []],
    ['panel-width', '10 mm more', plainBoard({ width: 280 }), undefined, wide, []],
    ['panel-width', '24 mm wider', plainBoard({ width: 246 }), undefined, wide, []],
    [
      'board-thickness',
      'comes out 44.8 mm thick, 5.2 mm short of 50 mm',
      plainBoard({ construction: 'face', thickness: 50 }),
      undefined,
      wide,
      [],
    ],
    ['thin-board', '12 mm', plainBoard({ thickness: 12 }), undefined, wide, []],
    [
      'strip-wider-than-board',
      '300 mm',
      plainBoard({ width: 260, recipe: flatRecipe(strips([300])) }),
      undefined,
      wide,
      [1],
    ],
    [
      'width-not-in-rack',
      'widest the rack gives in this species is 46.8 mm',
      plainBoard({ recipe: flatRecipe(strips([46, 60, 46, 46, 46])) }),
      undefined,
      wide,
      [2],
    ],
    [
      'stock-shortage',
      'Hard maple: 5 strips missing (number 2–6)',
      plainBoard(),
      [plainPiece({ length: 450, width: 40 })],
      wide,
      [2, 3, 4, 5, 6],
    ],
    [
      'planed-away',
      'Strip 6 comes from P1 and is planed 16.8 mm further',
      plainBoard({ recipe: flatRecipe(strips([46, 46, 46, 46, 46, 30])) }),
      undefined,
      wide,
      [6],
    ],
    [
      'narrow-strip',
      'only 8 mm wide',
      plainBoard({ recipe: flatRecipe(strips([46, 46, 46, 46, 46, 46, 8])) }),
      undefined,
      wide,
      [7],
    ],
    [
      'blank-wider-than-planer',
      'P1 is 150 mm wide; the planer takes 120 mm',
      plainBoard(),
      undefined,
      planerAt({ width: 120 }),
      [1, 2, 3, 4, 5, 6],
    ],
    [
      'panel-wider-than-planer',
      'The panel is 276 mm wide; the planer takes 260 mm',
      plainBoard(),
      undefined,
      DEFAULT_SHOP,
      [],
    ],
    [
      'thin-for-planer',
      'planed to 4 mm; the planer goes down to 6 mm',
      plainBoard({}, [46, 4, 46]),
      undefined,
      DEFAULT_SHOP,
      [2],
    ],
    // A long plank would be flattened whole; this piece is short itself.
    [
      'short-for-planer',
      'Blanks are 229 mm long',
      plainBoard({ length: 200 }),
      [plainPiece({ length: 249 })],
      wide,
      [],
    ],
    [
      'deeper-than-saw',
      'The panel is 82 mm thick; the saw cuts 80 mm',
      plainBoard({ thickness: 80 }),
      undefined,
      wide,
      [],
    ],
    [
      'glue-time',
      'Gluing 2 pieces takes',
      plainBoard(),
      undefined,
      { ...wide, glues: [{ ...USUAL_GLUES[0]!, openMinutes: 1, closedMinutes: 2 }] },
      [],
    ],
    ['no-clamps', 'asks for 5', plainBoard(), undefined, { ...wide, clamps: [] }, []],
    [
      'clamps-too-short',
      'the longest opens 300 mm',
      plainBoard(),
      undefined,
      { ...wide, clamps: [{ ...wide.clamps[0]!, opening: 300 }] },
      [],
    ],
    [
      'clamps-too-shallow',
      'the deepest reaches 15 mm',
      plainBoard(),
      undefined,
      { ...wide, clamps: [{ ...wide.clamps[0]!, reach: 15 }] },
      [],
    ],
    [
      'few-clamps',
      'asks for 5 clamps; 3 of',
      plainBoard(),
      undefined,
      { ...wide, clamps: [{ ...wide.clamps[0]!, count: 3 }] },
      [],
    ],
    [
      'too-cold-for-glue',
      'The room is at 4 °C',
      plainBoard(),
      undefined,
      { ...wide, room: { temperature: 4, humidity: 50 } },
      [],
    ],
    [
      'cold-room',
      'takes 1.6 times as long',
      plainBoard(),
      undefined,
      { ...wide, room: { temperature: 10, humidity: 50 } },
      [],
    ],
    [
      'glue-not-for-water',
      'is class D2',
      plainBoard(),
      undefined,
      { ...wide, glues: [{ ...DEFAULT_SHOP.glues[0]!, class: 'D2' }] },
      [],
    ],
    [
      'nothing-to-flatten-with',
      'Nothing in the shop makes this stock flat',
      plainBoard(),
      undefined,
      { ...BARE_SHOP, handTools: { planes: false, beltSander: false, orbitalSander: false } },
      [],
    ],
    // Two blanks of 423.8 x 150 mm, 4 mm to go: 0.51 m2 mm at 240 min, and 2 min to begin.
    // A planer narrower than a strip: its blank must not be ripped in two.
    [
      'strip-wider-than-half',
      'a strip of 131 mm is cut from it',
      plainBoard({ construction: 'face', width: 124, thickness: 20 }, [130]),
      undefined,
      planerAt({ width: 80 }),
      [1],
    ],
    ['slow-flattening', 'takes 2.1 h (Orbital sander)', plainBoard(), undefined, BARE_SHOP, []],
    // 14 % against 9.2 % in the room (the handbook's table 4-2): a flat-sawn strip of 46 on edge moves radially, 46 x .00165 x 4.8.
    ['unsettled-stock', 'shrinks by 0.4 mm', plainBoard(), [plainPiece({ length: 4000, moisture: 14 })], wide, []],
    ['short-rip', 'Blanks of 279 mm', plainBoard({ length: 250 }), undefined, wide, six.map((_, i) => i + 1)],
    ['narrow-rip', 'ripped 17 mm wide', plainBoard({ thickness: 15 }), undefined, wide, six.map((_, i) => i + 1)],
    [
      'rough-edge-at-fence',
      'P1: no edge is straight',
      plainBoard(),
      undefined,
      { ...wide, schools: { ...wide.schools, straightEdge: 'offSaw' } },
      six.map((_, i) => i + 1),
    ],
    // 8 mm over 1000 x 150 is 3.4 mm in a blank of 429 (twist goes with the length).
    [
      'rocking-stock',
      'twisted by 3.4 mm',
      plainBoard(),
      [plainPiece({ length: 1000, form: { bow: 0, cup: 0, crook: 0, twist: 8 } })],
      wide,
      six.map((_, i) => i + 1),
    ],
    [
      'reclaimed-wood',
      'P1 was something else before',
      plainBoard(),
      [plainPiece({ origin: { kind: 'salvage', of: 'A bench' } })],
      wide,
      six.map((_, i) => i + 1),
    ],
    [
      'rags-ignite',
      'ignite by themselves',
      plainBoard(),
      undefined,
      { ...wide, schools: { ...wide.schools, topCoat: 'hardWax' } },
      [],
    ],
    [
      'grain-direction',
      'Strips 3, 4 run against',
      plainBoard({ recipe: flatRecipe(strips(six, (_, i) => ({ endForEnd: i === 2 }))) }),
      undefined,
      wide,
      [3, 4],
    ],
    ['clean-side-down', 'Strip 1 from P1 shows its stain; its clean side is down', oneFlat, stained('up'), wide, [1]],
    [
      'grain-direction',
      'Strip 2 runs against',
      plainBoard({
        construction: 'face',
        width: 130,
        thickness: 20,
        recipe: flatRecipe(strips([70, 70], (_, i) => ({ turned: i === 1 }))),
      }),
      [plainPiece({ grain: 'toFar' })],
      wide,
      [2],
    ],
    [
      'wide-strip',
      'lies flat and is 130 mm wide',
      plainBoard({ construction: 'face', width: 124, thickness: 20 }, [130]),
      undefined,
      wide,
      [1],
    ],
    [
      'outer-strip-edge',
      'Strip 1 keeps 1 mm after the edge is trimmed',
      plainBoard({ width: 95, recipe: flatRecipe(strips([4, 46, 46, 5])) }),
      undefined,
      wide,
      [1],
    ],
    // Quartered maple on edge is radial in thickness, flat-sawn beech tangential: 30 x (0.0041 - 0.00165) x 4.77 % = 0.35 mm.
    [
      'seasonal-ridge',
      'The joint before strip 2 opens a ridge of 0.4 mm',
      plainBoard({
        width: 90,
        recipe: flatRecipe(strips([46, 46], (_, i) => ({ species: i === 0 ? 'maple-hard' : 'beech-european' }))),
      }),
      [plainPiece({ rings: 'quarter' }), plainPiece({ id: 'p2', mark: 'P2', species: 'beech-european' })],
      wide,
      [2],
    ],
    [
      'bleeding-neighbour',
      'African padauk lies beside Hard maple',
      plainBoard({ recipe: flatRecipe(strips(six, (_, i) => ({ species: i === 2 ? 'padauk' : 'maple-hard' }))) }),
      undefined,
      wide,
      [2, 4],
    ],
    [
      'oily-wood',
      'Teak is oily',
      plainBoard({ recipe: flatRecipe(strips(six, (_, i) => ({ species: i === 0 ? 'teak' : 'maple-hard' }))) }),
      undefined,
      wide,
      [1],
    ],
    [
      'dust',
      'Dust of Wenge can make people allergic',
      plainBoard({ recipe: flatRecipe(strips(six, (_, i) => ({ species: i === 0 ? 'wenge' : 'maple-hard' }))) }),
      undefined,
      wide,
      [1],
    ],
    [
      'open-pores',
      'White oak has open pores',
      plainBoard({ recipe: flatRecipe(strips(six, (_, i) => ({ species: i === 0 ? 'oak-white' : 'maple-hard' }))) }),
      undefined,
      wide,
      [1],
    ],
    [
      'soft-wood',
      'Yellow-poplar is soft: 2400 N',
      plainBoard({
        recipe: flatRecipe(strips(six, (_, i) => ({ species: i === 5 ? 'poplar-yellow' : 'maple-hard' }))),
      }),
      undefined,
      wide,
      [6],
    ],
  ])('%s: %s', (rule, words, board, rack, shop, where) => {
    const hit = found(board, rack, shop).find((f) => f.rule === rule);
    expect(hit?.what).toContain(words);
    expect(hit?.strips).toEqual(where);
    expect(hit?.ways).toBeGreaterThan(0);
  });

  it('own groups that are too large for the glue have a way out that says how large they may be', () => {
    const quick = { ...wide, glues: [{ ...USUAL_GLUES[0]!, openMinutes: 10, closedMinutes: 10 }] };
    const twelve = plainBoard({ width: 270 }, Array<number>(12).fill(23));
    const single = { ...twelve, gluing: { ...twelve.gluing, groups: [12] } };
    const input = planInput(single, [plainPiece({ length: 8000 })], quick);
    const plan = makePlan(input);
    const hit = checkPlan(plan, input).find((f) => f.rule === 'glue-time');
    expect(phraseText(hit!.what, DEFAULT_DISPLAY)).toContain('Gluing 12 pieces');
    expect(phraseText(hit!.waysOut[0]!, DEFAULT_DISPLAY)).toContain(
      `at most ${plan.gluing.mostParts}, or let Cadenza choose`,
    );
    // Groups of that size close in time.
    const { mostParts } = plan.gluing;
    expect(mostParts).toBeLessThan(12);
    const groups = Array.from({ length: Math.ceil(12 / mostParts) }, (_, i) => Math.min(mostParts, 12 - i * mostParts));
    expect(
      found({ ...single, gluing: { ...single.gluing, groups } }, [plainPiece({ length: 8000 })], quick).filter(
        (f) => f.rule === 'glue-time',
      ),
    ).toEqual([]);
  });

  it('puts stops before cautions before notes', () => {
    const order = ['stop', 'caution', 'note'];
    const severities = found(
      plainBoard({ width: 290, thickness: 12, recipe: flatRecipe(strips([46, 46, 46, 46, 46, 40, 8])) }),
    ).map((f) => order.indexOf(f.severity));
    expect(new Set(severities).size).toBe(3);
    expect(severities).toEqual([...severities].sort());
  });
});

it('a stop that the maker goes on with keeps standing with his note, and is no longer open', () => {
  const board = plainBoard({ accepted: [{ rule: 'no-clamps', strips: [], part: '', note: 'Wedges' }] });
  const input = planInput(board, [plainPiece({ length: 4000 })], { ...wide, clamps: [] });
  const findings = checkPlan(makePlan(input), input);
  expect(findings.find((f) => f.rule === 'no-clamps')!.accepted).toBe('Wedges');
  expect(openStops(findings).map((f) => f.rule)).not.toContain('no-clamps');
});

it('every open stop is told at a step of the plan, or before all of them: also what took its steps out of the plan', () => {
  const rules = (rack: Piece[], change: Partial<Board> = {}, shop = wide) => {
    const input = planInput(plainBoard(change), rack, shop);
    const plan = makePlan(input);
    const findings = checkPlan(plan, input);
    const before = stopsOfNoStep(findings, plan.operations);
    const atSteps = openStops(findings).filter((f) => plan.operations.some((o) => isToldAt(f, o)));
    expect(new Set([...before, ...atSteps])).toEqual(new Set(openStops(findings)));
    return [before, atSteps].map((list) => [...new Set(list.map((f) => f.rule))]);
  };
  expect(rules([])[0]).toEqual(['stock-shortage']);
  const clamped = rules([plainPiece({ length: 4000 })], {}, { ...wide, clamps: [] });
  expect(clamped[0]).not.toContain('no-clamps');
  expect(clamped[1]).toContain('no-clamps');
  expect(rules([plainPiece({ length: 4000 })])).toEqual([[], []]);
  const note = { rule: 'stock-shortage', strips: null, part: null, note: 'It comes on Monday' };
  expect(rules([], { accepted: [note] })[0]).toEqual([]);
});

it('a stop that is gone on with for one strip stays open for another, and follows the strip when it moves', () => {
  const metal = (id: string, mark: string) =>
    plainPiece({
      id,
      mark,
      length: 500,
      width: 60,
      defects: [
        { id: 'n', kind: 'nail', face: 'up', from: 200, across: 30, length: 8, width: 8, treatment: 'harmless' },
      ],
    });
  const plain = plainBoard({ width: 80 }, [46, 46]);
  const pins = [
    { strip: 's1', piece: 'p1' },
    { strip: 's2', piece: 'p2' },
  ];
  const open = (change: Partial<Board>) => {
    const input = planInput(
      { ...plain, cutting: { ...plain.cutting, pins }, ...change },
      [metal('p1', 'P1'), metal('p2', 'P2')],
      wide,
    );
    return openStops(checkPlan(makePlan(input), input))
      .filter((f) => f.rule === 'metal-stays')
      .flatMap((f) => f.strips);
  };
  expect(open({})).toEqual([1, 2]);
  expect(open({ accepted: [{ rule: 'metal-stays', strips: ['s1'], part: '', note: 'Brass' }] })).toEqual([2]);
  expect(
    open({
      accepted: [{ rule: 'metal-stays', strips: ['s1'], part: '', note: 'Brass' }],
      recipe: flatRecipe([...stripsOf(plain)].reverse()),
    }),
  ).toEqual([1]);
  expect(open({ accepted: [{ rule: 'metal-stays', strips: null, part: null, note: 'Brass' }] })).toEqual([]);
});

it('a stop that is gone on with for one feature stays open for another; every finding knows its station and its step', () => {
  const mark = (id: string, x: number) => ({
    ...UNDRAWN,
    kind: 'mark' as const,
    id,
    face: 'top' as const,
    name: id,
    method: 'inlay' as const,
    x,
    y: 130,
    length: 40,
    width: 12,
    depth: 2,
    plugStart: 0.2,
  });
  const stops = (change: Partial<Board> = {}) => {
    const input = planInput(
      plainBoard({ worked: { ...NOTHING_WORKED, features: [mark('a', 100), mark('b', 250)] }, ...change }),
      [plainPiece({ length: 4000 })],
      wide,
    );
    return openStops(checkPlan(makePlan(input), input))
      .filter((f) => f.rule === 'inlay-sanded')
      .map((f) => [f.part, f.station, f.step]);
  };
  expect(stops()).toEqual([
    ['a', 'trim', 'inlay:a'],
    ['b', 'trim', 'inlay:b'],
  ]);
  expect(stops({ accepted: [{ rule: 'inlay-sanded', strips: [], part: 'a', note: 'A trial' }] })).toEqual([
    ['b', 'trim', 'inlay:b'],
  ]);
  expect(stops({ accepted: [{ rule: 'inlay-sanded', strips: null, part: null, note: 'Trials' }] })).toEqual([]);
});
