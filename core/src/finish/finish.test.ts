import fc from 'fast-check';
import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { END_GRAIN, recutBoard } from '../board/recutForTests.ts';
import { checkPlan } from '../checks/checkPlan.ts';
import { workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { outlinePoints, type Outline } from '../features/outline.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { USUAL_FINISHES } from '../shop/finishes.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { careCalendar } from '../templates/careCalendar.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { bathFor, lieTogether } from './bath.ts';
import { careLines } from './care.ts';
import { coatMinutes, dryingMinutes, finishesOf } from './coats.ts';
import { dueState, finishDates } from './dates.ts';
import { grainMm, gritsOver, papersFor, pitRun } from '../shop/grits.ts';
import { resandings } from './resanding.ts';
import { gritsOf, ORIGINS } from './sanding.ts';
import { amountOf, SIDES, surfacesOf } from './surfaces.ts';

const rack = [
  plainPiece({ length: 4000 }),
  plainPiece({ id: 'thick', mark: 'T1', length: 4000, thickness: 60, count: 6 }),
];
const flat = planInput(plainBoard(), rack);
/** Whether a point lies in a closed line: how often a ray from it crosses. */
function isInside(line: readonly (readonly [number, number])[], x: number, y: number): boolean {
  return (
    line.filter(([ax, ay], i) => {
      const [bx, by] = line[(i + 1) % line.length]!;
      return ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax;
    }).length %
      2 ===
    1
  );
}
const pointsOf = (outline: Outline) => outlinePoints(outline, 2).map((p): [number, number] => [p.x, p.y]);
const finishCalled = (id: string) => USUAL_FINISHES.find((f) => f.id === id)!;

/** A pit in the show side of a board, as the bench notes it. @param depth mm */
const pitOf = (depth: number) => ({
  kind: 'badPlace' as const,
  id: 'p',
  at: '2026-11-27T08:00:00.000Z',
  thing: 'panel',
  copy: 1,
  spot: { id: 's', x: 5, y: 5, length: 5, width: 5, what: 'pit' },
  side: 'top' as const,
  depth,
});

describe('papers', () => {
  // Runs that people use (common practice): what their sides and their drawers give.
  it.each([
    ['80 to 240', 0.4, 80, 240, [80, 120, 180, 240], [80, 120, 180, 240]],
    ['60, 80, 120, 220', 0.5, 80, 220, [60, 80, 120, 220], [60, 80, 120, 220]],
    ['100, 150, 220, 320, 400', 0.3, 100, 400, [60, 100, 150, 220, 320, 400], [100, 150, 220, 320, 400]],
    ['120, 180, 220', ORIGINS.knives.marks, 120, 220, [80, 120, 180, 220, 320], [120, 180, 220]],
    ['a planed face begun with 220', ORIGINS.knives.marks, 220, 220, [120, 220], [220]],
    ['a sawn end begun with 180', ORIGINS.saw.marks, ORIGINS.saw.usual, 220, [120, 180, 220], [180, 220]],
    ['40 to 220 by belt, then 600', 0.8, 80, 600, [40, 80, 120, 220, 600], [40, 80, 120, 220, 600]],
    ['whatever there is, as few as leave no scratches', 0.4, 80, 220, null, [80, 150, 220]],
  ] as const)('%s', (_name, depth, usual, last, papers, run) => {
    expect(papersFor(depth, usual, last, papers)).toEqual(run);
  });

  it('take the pit and the scratches of all but the last: worked by hand', () => {
    // 0.13 of ripples, then the 0.125 that 120 scratches.
    const run = gritsOver(0.13, [120, 220]);
    expect(run.takes).toBeCloseTo(0.255, 9);
    expect(run).toMatchObject({ stays: 0, steps: [{ rounds: 1 }, { rounds: 1 }] });
    // From 220 to 600 is more than half of the grain: twice over.
    expect(gritsOver(0.1, [220, 600]).steps[1]!.rounds).toBe(2);
    // 1 mm is deeper than four times over with 220 reaches: 4 x 2.05 x 0.068.
    expect(gritsOver(1, [220]).stays).toBeCloseTo(1 - 4 * 2.05 * 0.068, 9);
  });

  it('a run never makes wood, loses no more with a finer end, and from whatever pit it began only its first paper knows', () => {
    const grits = fc.uniqueArray(fc.constantFrom(40, 60, 80, 100, 120, 150, 180, 220, 320, 400, 600), { minLength: 1 });
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 3, noNaN: true }), grits, (depth, some) => {
        const run = [...some].sort((a, b) => a - b);
        const { takes, stays, steps } = gritsOver(depth, run);
        expect(stays).toBeGreaterThanOrEqual(0);
        expect(takes).toBeGreaterThan(0);
        expect(takes).toBeLessThanOrEqual(depth + run.slice(0, -1).reduce((sum, g) => sum + grainMm(g), 0) + 1e-9);
        expect(steps.every((s) => s.rounds >= 1 && s.stays >= 0)).toBe(true);
        expect(gritsOver(depth / 2, run).stays).toBeLessThanOrEqual(stays + 1e-12);
      }),
    );
  });

  it('grains are those of FEPA P and ISO 6344 (from memory), and fall between them', () => {
    expect([40, 80, 120, 220, 400, 600].map((g) => grainMm(g) * 1000)).toEqual([425, 201, 125, 68, 35, 25.8]);
    expect(grainMm(100)).toBeGreaterThan(grainMm(110));
    expect(grainMm(110)).toBeGreaterThan(grainMm(120));
    expect(grainMm(1000)).toBeLessThan(grainMm(600));
  });

  it('over a pit they end where the shop’s own list ends, and the step tells the run that is drawn', () => {
    expect(pitRun({ ...DEFAULT_SHOP, grits: [120, 320] }, 0.4).steps.at(-1)!.grit).toBe(320);
    const pit = pitOf(0.5);
    const plan = makePlan({ ...flat, facts: [pit] });
    const lines = plan.operations.find((o) => o.kind === 'sand')!.lines.map((l) => phraseText(l, DEFAULT_DISPLAY));
    const drawn = plan.finish.sides[0]!.run.steps.map((s) => s.grit).join(', ');
    expect(lines).toContain(`The show side with ${drawn}: to the bottom of its pit`);
    // What the drawing adds up is what the ladder loses on that face.
    const lost = makePlan(flat).ladders.thickness.reached - plan.ladders.thickness.reached;
    expect(lost).toBeCloseTo(plan.finish.sides[0]!.run.takes - DEFAULT_SHOP.habits.sanding / 2, 9);
  });

  it('a shop’s own list is used as it stands', () => {
    expect(gritsOf({ ...DEFAULT_SHOP, grits: [100, 240] }, 'knives')).toEqual([100, 240]);
  });
});

describe('sides and what they drink', () => {
  it('are as large as points thrown on the board say, and as much of them is end grain', () => {
    const plan = makePlan(flat);
    const { length, width, thickness } = plan.worked.size;
    const surfaces = surfacesOf(plan.worked, plan.wood!.board);
    const all = surfaces.reduce((sum, s) => sum + s.area, 0);
    // Of a plain board all six sides are rectangles.
    const counted = (2 * (length * width + length * thickness + width * thickness)) / 1e6;
    expect(Math.abs(all / counted - 1)).toBeLessThan(0.01);
    expect(surfaces.map((s) => [s.side, Math.round(s.endGrain)])).toEqual([
      ['top', 0],
      ['bottom', 0],
      ['far', 0],
      ['near', 0],
      ['left', 1],
      ['right', 1],
    ]);
  });

  it('of rounded corners and a groove they are what is counted on a grid of a millimetre', () => {
    const corners = { kind: 'round' as const, size: 60 };
    const groove = {
      kind: 'groove' as const,
      id: 'g',
      face: 'top' as const,
      offset: 25,
      bit: 14,
      depth: 7,
      corner: 12,
      wells: 1 as const,
      spout: null,
      fall: 0,
    };
    const worked = { ...flat.board.worked, corners, features: [groove] };
    const plan = makePlan({ ...flat, board: { ...flat.board, worked } });
    const [top, bottom, far] = plan.finish.surfaces;
    const { length, width, thickness } = plan.worked.size;
    const STEP = 1;
    const solids = plan.worked.solids.map((s) => ({ to: s.to, outlines: s.outlines.map(pointsOf) }));
    const depthAt = (x: number, y: number) =>
      solids.reduce((deep, s) => {
        const inside = s.outlines.filter((o) => isInside(o, x, y)).length;
        return inside % 2 === 1 ? Math.max(deep, s.to) : deep;
      }, 0);
    const rim = pointsOf(plan.worked.outline);
    let [face, walls] = [0, 0];
    // Each row once: how much of it is board, and how often the floor drops or rises in it.
    for (let y = STEP / 2; y < width; y += STEP)
      for (let x = STEP / 2; x < length; x += STEP) if (isInside(rim, x, y)) face += STEP * STEP;
    // Walls by rows and by columns: a wall that leans by an angle is met by both, together in its length.
    const ROW = 8;
    const drops = (at: (i: number, along: number) => number, rows: number, long: number) => {
      let sum = 0;
      for (let i = ROW / 2; i < rows; i += ROW)
        for (let a = 1, before = 0; a < long; a += 1) {
          const now = at(i, a);
          sum += Math.abs(now - before) * ROW;
          before = now;
        }
      return sum;
    };
    walls += drops((y, x) => depthAt(x, y), width, length) + drops((x, y) => depthAt(x, y), length, width);
    expect(Math.abs(bottom!.area * 1e6 - face) / face).toBeLessThan(0.002);
    // Rows and columns together overcount round bends, by at most the root of two there.
    const ratio = walls / (top!.area * 1e6 - bottom!.area * 1e6);
    expect(ratio).toBeGreaterThan(0.97);
    expect(ratio).toBeLessThan(1.1);
    const edge = rim.reduce((sum, p, i) => {
      const q = rim[(i + 1) % rim.length]!;
      return sum + Math.hypot(q[0] - p[0], q[1] - p[1]);
    }, 0);
    const sides = plan.finish.surfaces.slice(2).reduce((sum, s) => sum + s.area, 0) * 1e6;
    expect(Math.abs(sides / (edge * thickness) - 1)).toBeLessThan(0.002);
    expect(far!.area * 1e6).toBeLessThan(length * thickness);
  });

  it('of a board of end grain both faces are; it takes several times as much', () => {
    const end = planInput(recutBoard(plainBoard({ length: 300, width: 200, thickness: 35 }), {}, END_GRAIN), rack);
    const plan = makePlan(end);
    const faces = plan.finish.surfaces.filter((s) => s.side === 'top' || s.side === 'bottom');
    expect(faces.map((s) => s.endGrain)).toEqual([1, 1]);
    const [oil] = plan.finish.coatings;
    const long = amountOf(
      oil!.finish,
      plan.finish.surfaces.map((s) => ({ ...s, endGrain: 0 })),
    );
    expect(oil!.amount.total / long.total).toBeGreaterThan(2);
    expect(oil!.amount.intoEndGrain).toBeGreaterThan(oil!.amount.total / 2);
  });

  it('amounts: 0.2 m2 of long grain at 90 g and 0.01 m2 of end grain at 400 g are 22 g', () => {
    const surfaces = SIDES.map((side) => ({
      side,
      area: side === 'top' || side === 'bottom' ? 0.1 : side === 'left' ? 0.01 : 0,
      endGrain: side === 'left' ? 1 : 0,
    }));
    const amount = amountOf(finishCalled('mineral-oil'), surfaces);
    expect([amount.faces, amount.ends, amount.total, amount.intoEndGrain]).toEqual([18, 4, 22, 4]);
  });

  it('every plan tells of six sides, and nothing in it is negative or no number', () => {
    fc.assert(
      fc.property(workshopArbitrary, (input) => {
        const { finish, ladders } = makePlan(input);
        expect(finish.surfaces.map((s) => s.side)).toEqual([...SIDES]);
        const figures = [
          finish.takes,
          ...finish.surfaces.flatMap((s) => [s.area, s.endGrain]),
          ...finish.coatings.flatMap((c) => Object.values(c.amount) as number[]),
        ];
        expect(figures.every((n) => Number.isFinite(n) && n >= 0)).toBe(true);
        const { handled, used } = finishDates(
          finish,
          finish.coatings.map((_, i) => i),
          0,
        );
        expect(used).toBeGreaterThanOrEqual(handled);
        expect(ladders.thickness.reached).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 150 },
    );
  });
});

describe('finishes', () => {
  it('the habit that has room for sanding has it, with a pit in one face or without', () => {
    const bare = {
      ...DEFAULT_SHOP,
      planer: null,
      jointer: null,
      handTools: { planes: false, beltSander: false, orbitalSander: true },
    };
    const shop = { ...bare, schools: { ...bare.schools, flatten: 'orbital' as const } };
    const spot = { id: 's', x: 5, y: 5, length: 5, width: 5, what: 'pit' };
    const about = { id: 'p', at: '2026-11-27T08:00:00.000Z', thing: 'panel', copy: 1, spot };
    for (const facts of [[], [{ kind: 'badPlace' as const, ...about, side: 'bottom' as const, depth: 0.9 }]]) {
      const habitOf = (sanding: number) =>
        makePlan({ ...flat, facts, shop: { ...shop, habits: { ...shop.habits, sanding } } }).finish.habit;
      // 0.4 of steps, and the scratches of 80 and 150, off each face.
      expect([habitOf(0.5), habitOf(1.5)]).toEqual([1.5, null]);
    }
  });

  it('that are not on the shelf are told, whoever asked for them: nothing goes on in their place', () => {
    const of = (finishes: string[], finish: string[] | null, schools = {}) => {
      const shop = {
        ...DEFAULT_SHOP,
        finishes: DEFAULT_SHOP.finishes.filter((f) => finishes.includes(f.id)),
        schools: { ...DEFAULT_SHOP.schools, ...schools },
      };
      const input = { ...flat, shop, board: { ...flat.board, finish } };
      const plan = makePlan(input);
      return [plan.finish.missing, checkPlan(plan, input).some((f) => f.rule === 'finish-missing')];
    };
    expect(of(['wax-oil'], null)).toEqual([['mineral oil'], true]);
    expect(of(['film'], null, { topCoat: 'hardWax' })).toEqual([['hard-wax oil'], true]);
    expect(of(['film'], ['film', 'gone'])).toEqual([['one that this board asks for'], true]);
    expect(of(['mineral-oil', 'wax-oil'], null)).toEqual([[], false]);
    expect(of(['film'], [])).toEqual([[], false]);
  });

  it('one over the other waits until the first has hardened, as its step says', () => {
    const input = { ...flat, board: { ...flat.board, finish: ['hard-wax-oil', 'wax-oil'] } };
    const { finish, operations } = makePlan(input);
    const HOUR = 3_600_000;
    const waits = operations.filter((o) => o.kind === 'topCoat').map((o) => o.waitMinutes);
    expect(waits).toEqual([5 * 1440, 720]);
    // The wax goes on six days later, because the shop is shut on the fifth.
    const { handled, used } = finishDates(finish, [0, 6 * 24 * HOUR], 0);
    expect([handled, used]).toEqual([(6 * 24 + 12) * HOUR, (6 * 24 + 12) * HOUR]);
  });

  it('are those of the schools, or those the board names in its order', () => {
    const names = (board: Parameters<typeof finishesOf>[0], shop = DEFAULT_SHOP) =>
      finishesOf(board, shop).map((f) => [f.id, f.method, f.coats]);
    expect(names({ finish: null })).toEqual([
      ['mineral-oil', 'flood', 1],
      ['wax-oil', 'wipe', 1],
    ]);
    const school = (change: Partial<typeof DEFAULT_SHOP.schools>) => ({
      ...DEFAULT_SHOP,
      schools: { ...DEFAULT_SHOP.schools, ...change },
    });
    expect(names({ finish: null }, school({ oil: 'coats', topCoat: 'none' }))).toEqual([['mineral-oil', 'wipe', 3]]);
    expect(names({ finish: null }, school({ topCoat: 'hardWax' }))).toEqual([['hard-wax-oil', 'wipe', 2]]);
    expect(names({ finish: ['film', 'gone'] })).toEqual([['film', 'brush', 3]]);
    expect(names({ finish: [] })).toEqual([]);
  });

  it('what wants bare wood over oil is a stop; rags that ignite are cautioned at the step and among the checks', () => {
    const of = (finish: string[]) => {
      const input = { ...flat, board: { ...flat.board, finish } };
      const plan = makePlan(input);
      return { plan, rules: checkPlan(plan, input).map((f) => f.rule) };
    };
    expect(of(['mineral-oil', 'film']).rules).toContain('finish-over-oil');
    expect(of(['mineral-oil', 'wax-oil']).rules).not.toContain('finish-over-oil');
    const { plan, rules } = of(['drying-oil']);
    expect(rules).toContain('rags-ignite');
    const step = plan.operations.find((o) => o.kind === 'topCoat')!;
    expect(step.cautions.map((c) => phraseText(c, DEFAULT_DISPLAY)).join()).toContain('can ignite by themselves');
    expect(step.waitMinutes).toBe(coatMinutes(finishCalled('drying-oil')).used);
    expect(of(['wax-oil']).rules).not.toContain('rags-ignite');
  });

  it('a pit is sanded to its bottom, with a coarser paper where that needs one, or filled', () => {
    const before = makePlan(flat);
    const after = makePlan({ ...flat, facts: [pitOf(0.4)] });
    // To its bottom and the scratches of 80 and 150: 0.4 + 0.201 + 0.1; half of the habit's 0.5 comes off that face anyway.
    expect(before.ladders.thickness.reached - after.ladders.thickness.reached).toBeCloseTo(0.451, 9);
    expect(after.finish.sides[0]).toMatchObject({
      side: 'top',
      pit: 0.4,
      run: { stays: 0, steps: [{ grit: 80 }, {}, {}] },
    });
    expect(after.trim).toEqual(before.trim);
    const filled = {
      kind: 'decided' as const,
      id: 'd',
      at: '2026-11-27T09:00:00.000Z',
      about: 'p',
      way: 'fill' as const,
    };
    expect(makePlan({ ...flat, facts: [pitOf(0.4), filled] }).ladders).toEqual(before.ladders);
    const deep = { ...flat, shop: { ...DEFAULT_SHOP, papers: [180, 220] }, facts: [pitOf(3)] };
    expect(checkPlan(makePlan(deep), deep).map((f) => f.rule)).toContain('grit-too-fine');
  });

  it('wetted wood dries the longer, the colder and damper the room is', () => {
    expect(dryingMinutes({ temperature: 20, humidity: 50 })).toBe(60);
    expect(dryingMinutes({ temperature: 10, humidity: 75 })).toBeGreaterThan(150);
    expect(dryingMinutes({ temperature: 30, humidity: 30 })).toBeLessThan(60);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 100 }), (temperature, humidity) => {
        const minutes = dryingMinutes({ temperature, humidity });
        expect(minutes).toBeGreaterThanOrEqual(30);
        expect(minutes).toBeLessThanOrEqual(480);
        expect(dryingMinutes({ temperature, humidity: Math.min(100, humidity + 5) })).toBeGreaterThanOrEqual(minutes);
      }),
    );
  });
});

describe('the bath', () => {
  const board = { length: 400, width: 250, thickness: 30 };
  const volume = 400 * 250 * 30;

  it('covers what lies in it: oil and boards together fill the tray that high', () => {
    const tray = { length: 900, width: 300, depth: 60 };
    const plan = bathFor(tray, board, volume, 5)!;
    expect(plan).toMatchObject({ how: 'lying', atOnce: 2, times: 3, depth: 35 });
    expect(plan.litres * 1e6 + plan.atOnce * volume).toBeCloseTo(900 * 300 * 35, 3);
  });

  it('stands them where that saves fillings, and says so where a board does not go in', () => {
    expect(bathFor({ length: 450, width: 260, depth: 300 }, board, volume, 4)).toMatchObject({
      how: 'standing',
      atOnce: 4,
      times: 1,
    });
    expect(bathFor({ length: 300, width: 200, depth: 100 }, board, volume, 1)).toBeNull();
  });

  it('takes boards together that lie beside each other in rows: worked by hand', () => {
    const tray = { length: 900, width: 520, depth: 60 };
    const small = { length: 300, width: 200, thickness: 25 };
    // Two of 400 in a row of 250, two of 300 in a row of 200: 250 + 10 + 200 across.
    expect(lieTogether(tray, [board, board, small, small])).toBe(true);
    expect(lieTogether(tray, [board, board, board, board, small])).toBe(false);
    expect(lieTogether({ ...tray, depth: 30 }, [board])).toBe(false);
    expect(lieTogether({ length: 300, width: 900, depth: 60 }, [board, board])).toBe(true);
  });

  it('never holds less than nothing, nor more boards than there are', () => {
    const mm = (least: number, most: number) => fc.integer({ min: least, max: most });
    fc.assert(
      fc.property(
        fc.record({ length: mm(100, 2000), width: mm(100, 1000), depth: mm(20, 500) }),
        fc.record({ length: mm(100, 900), width: mm(50, 500), thickness: mm(10, 80) }),
        mm(1, 12),
        (tray, size, count) => {
          const plan = bathFor(tray, size, size.length * size.width * size.thickness, count);
          if (!plan) return;
          expect(plan.litres).toBeGreaterThanOrEqual(0);
          expect(plan.depth).toBeLessThanOrEqual(tray.depth);
          expect(plan.atOnce * plan.times).toBeGreaterThanOrEqual(count);
          expect(plan.atOnce).toBeLessThanOrEqual(count);
        },
      ),
    );
  });
});

describe('the owner', () => {
  const FROM = Date.parse('2026-12-01T18:00:00Z');
  const DAY = 86_400_000;

  it('may touch, be given and use it: two finishes one after the other, the longest cure decides', () => {
    const input = { ...flat, board: { ...flat.board, finish: ['hard-wax-oil'] } };
    const dates = finishDates(makePlan(input).finish, [FROM], 0);
    expect([dates.handled - FROM, dates.used - FROM]).toEqual([2 * DAY, 5 * DAY]);
    expect(dates.renewals).toHaveLength(4);
    expect(dates.renewals[0]! - dates.used).toBe(52 * 7 * DAY);
    expect([4.5, 5.5, 1].map((d) => dueState(dates, FROM + d * DAY))).toEqual(['uncured', 'inTime', 'late']);
  });

  it('reads what follows from finish, construction and thickness; the shop’s own words come last', () => {
    const { finish } = makePlan(flat);
    const told = (change: object = {}) =>
      careLines({
        finish,
        resanding: resandings(30, null, [120, 220]),
        woodNotes: [],
        curesUntil: null,
        careWords: '',
        ...change,
      })
        .map((l) => `${l.heading}: ${l.text}`)
        .join('\n');
    expect(told()).toMatch(/Never in a dishwasher, never left to soak/);
    expect(told()).toContain('every 6 weeks: the same wax and oil');
    expect(told({ curesUntil: '6 December' })).toMatch(/^Not yet: .* before 6 December/);
    expect(told({ careWords: 'Ring us.' })).toMatch(/From the shop: Ring us\.$/);
    const own = told({ careWords: 'Wash: Cold water only.\nscars:\nRing us.' });
    expect(own).toContain('Wash: Cold water only.');
    expect(own).not.toContain('Scars');
    expect(own).toMatch(/From the shop: Ring us\.$/);
    const up = finish.surfaces.map((s) => ({ ...s, endGrain: 1 }));
    expect(told({ finish: { ...finish, surfaces: up } })).toContain('every 3 weeks');
    expect(told({ finish: { ...finish, coatings: [] } })).toContain('bare wood');
    expect(told({ woodNotes: ['Open pores hold dirt.'] })).toContain('Its wood: Open pores hold dirt.');
    expect(told({ resanding: resandings(15, null, [120]) })).toContain('too thin to be sanded');
  });

  it('can have it sanded again so often: worked by hand', () => {
    // 0.4 of scars and the 0.125 of 120 are 0.525 each time; from 30 to 15 mm that is 28 times.
    expect(resandings(30, null, [120, 220])).toMatchObject({ times: 28, until: 'thin' });
    // A groove of 6 mm keeps 2: 4 mm, 7 times.
    expect(resandings(30, 6, [120, 220])).toMatchObject({ times: 7, until: 'groove' });
    expect(resandings(14, null, [120, 220]).times).toBe(0);
  });

  it('gets a calendar that an independent reader reads back', () => {
    const renewals = ['2026-12-08', '2027-01-05', '2027-03-28'];
    const text = careCalendar({
      id: 'b1',
      board: 'Bread, "board"; 1',
      shop: 'The Tram Shed',
      used: '2026-12-04',
      renewals,
      how: 'Flood it,\nwait; wipe.',
      made: FROM,
    });
    const events = new ICAL.Component(ICAL.parse(text) as unknown as string)
      .getAllSubcomponents('vevent')
      .map((e) => new ICAL.Event(e));
    expect(events.map((e) => [e.uid, e.summary, e.startDate.isDate])).toEqual([
      ['b1-used@cadenza', 'Bread, "board"; 1 may be used', true],
      ...[1, 2, 3].map((k) => [`b1-renew-${k}@cadenza`, 'Oil Bread, "board"; 1', true]),
    ]);
    expect(events[1]!.description).toBe('Flood it,\nwait; wipe. The Tram Shed');
    expect(events.map((e) => [e.startDate.toString(), e.duration.toString()])).toEqual(
      ['2026-12-04', ...renewals].map((day) => [day, 'P1D']),
    );
    // No line is longer than 75 bytes (RFC 5545, 3.1).
    expect(Math.max(...text.split('\r\n').map((l) => Buffer.byteLength(l)))).toBeLessThanOrEqual(75);
  });
});

describe('steps of the finish, worked by hand', () => {
  const wide = { ...DEFAULT_SHOP, planer: { ...DEFAULT_SHOP.planer!, width: 400 } };
  const linesOf = (input: typeof flat, kind: string) =>
    makePlan(input)
      .operations.filter((o) => o.kind === kind)
      .map((o) => ({
        title: phraseText(o.title, DEFAULT_DISPLAY),
        lines: o.lines.map((l) => phraseText(l, DEFAULT_DISPLAY)),
        wait: o.waitMinutes,
        after: o.after,
      }));

  it('oil says how much of it goes where: 0.208 m2 of faces and 0.024 of edges at 90 g, 0.0156 of ends at 400 g', () => {
    const input = { ...flat, shop: { ...wide, habits: { ...wide.habits, edgeTreatment: 0 } } };
    const { length, width, thickness } = makePlan(input).worked.size;
    expect([length, width, thickness]).toEqual([400, 260, 30]);
    const [oil] = linesOf(input, 'oil');
    expect(oil!.lines).toContain(
      'About 27 g (32 ml): faces 19 g, edges 2.2 g, ends 6.2 g; end grain first, it drinks longest',
    );
    expect(oil!.lines).toContain('Both faces alike, or it cups');
    expect(oil!.wait).toBe(720);
  });

  it('three boards take three times as much, and say what one takes; coats say how long they lie apart', () => {
    const input = { ...flat, board: { ...flat.board, count: 3, finish: ['hard-wax-oil'] }, shop: wide };
    const [coat] = linesOf(input, 'topCoat');
    const [grams, one] = /About (\d+) g .*, (\d+) g a board/.exec(coat!.lines.join('\n'))!.slice(1).map(Number);
    expect(Math.abs(grams! - 3 * one!)).toBeLessThanOrEqual(2);
    expect(coat!.lines).toContain('2 coats, 24 h between them; rub back lightly before each');
    expect(coat!.lines).toContain('On bare wood: no other oil before it');
    expect(coat!.wait).toBe(5 * 1440);
  });

  it('handles go on after the last coat, feet after them; what is filled is filled before it is sanded', () => {
    const handle = {
      kind: 'handle' as const,
      id: 'h',
      on: 'ends' as const,
      bores: 1 as const,
      spacing: 0,
      bore: 12,
      inset: 30,
      counterbore: 20,
      sinkTop: 0,
      sinkBottom: 0,
    };
    const spot = { id: 's', x: 5, y: 5, length: 5, width: 5, what: 'knot' };
    const at = (hour: number) => `2026-11-27T0${hour}:00:00.000Z`;
    const input = {
      ...flat,
      shop: { ...wide, schools: { ...wide.schools, feet: 'feet' as const } },
      board: { ...flat.board, worked: { ...flat.board.worked, features: [handle] } },
      facts: [
        {
          kind: 'badPlace' as const,
          id: 'p',
          at: at(8),
          thing: 'panel',
          copy: 1,
          spot,
          side: 'top' as const,
          depth: 2,
        },
        { kind: 'decided' as const, id: 'd', at: at(9), about: 'p', way: 'fill' as const },
      ],
    };
    const kinds = makePlan(input).operations.map((o) => o.kind);
    const last = (kind: (typeof kinds)[number]) => kinds.lastIndexOf(kind);
    expect(last('topCoat')).toBeLessThan(last('fit'));
    expect(last('fit')).toBeLessThan(last('feet'));
    expect(last('handles')).toBeLessThan(last('sand'));
    expect(linesOf(input, 'fit')[0]!.lines[0]).toMatch(/^2 loops: rope through the bores of 12 mm/);
    expect(linesOf(input, 'sand')[0]!.lines.join()).toContain('Fill first what is to be filled (1)');
  });

  it('shaped edges and grooves are sanded by hand, from what made them', () => {
    const groove = {
      kind: 'groove' as const,
      id: 'g',
      face: 'top' as const,
      offset: 20,
      bit: 12,
      depth: 6,
      corner: 10,
      wells: 1 as const,
      spout: null,
      fall: 0,
    };
    const { finish } = makePlan({
      ...flat,
      shop: wide,
      board: { ...flat.board, worked: { ...flat.board.worked, features: [groove] } },
    });
    expect(finish.sides.map((s) => [s.side, s.origin, s.byHand])).toEqual([
      ['top', 'knives', false],
      ['bottom', 'knives', false],
      ...['far', 'near', 'left', 'right'].map((side) => [side, 'saw', false]),
      ['edges', 'router', true],
      ['groove', 'router', true],
    ]);
    // The walls of the groove drink too: its run round the board, twice, 6 mm deep.
    const without = makePlan({ ...flat, shop: wide }).finish.surfaces[0]!.area;
    const walls = finish.surfaces[0]!.area - without;
    expect(walls).toBeGreaterThan((2 * 2 * (400 + 260 - 100) * 6) / 1e6);
    expect(walls).toBeLessThan((2 * 2 * (400 + 260) * 6) / 1e6);
  });
});
