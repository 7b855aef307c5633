import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stripsOf } from '../board/recipe.ts';
import type { Fact } from '../facts/fact.ts';
import { NOTHING_WORKED, type Feature } from '../features/feature.ts';
import { factsThatHold } from '../facts/factsThatHold.ts';
import { stageOf } from '../facts/made.ts';
import { busyWorkshopArbitrary, workshopArbitrary } from '../follow/workshopArbitrary.ts';
import { makePlan } from '../plan/plan.ts';
import { panelFacts, plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { looksAfter } from './inspection.ts';
import { measured, measuresIn } from './measuredForTests.ts';
import { measuresOf } from './measures.ts';
import { firstMishaps, MOST_TOLD, mishapsOf, undecidedFacts } from './mishaps.ts';
import { isPractice, practiceBoard, practiceMishaps } from './practice.ts';
import { progressOf } from './progress.ts';
import { readLine, takeReading, type Reading, type ReadingUnit } from './reading.ts';
import { slipOf } from './slip.ts';
import { lessonOf } from './teaching.ts';
import { waitsOf } from './waits.ts';

const AT = '2026-11-27T08:00:00.000Z';
const minutesLater = (n: number) => new Date(Date.parse(AT) + n * 60_000).toISOString();
const done = (id: string, step: string, copy = 1, at = AT): Fact => ({
  kind: 'done',
  id,
  at,
  step,
  copy,
  minutes: null,
});
const shuffled = <T>(list: T[]) => fc.shuffledSubarray(list, { minLength: list.length });

/** Any board in any shop, with its plan. */
const planned = fc.oneof(workshopArbitrary, busyWorkshopArbitrary).map((input) => ({ input, plan: makePlan(input) }));
const flat = planInput(plainBoard(), [plainPiece({ length: 4000 })]);

describe('how it stands with the steps', () => {
  it('is the same in whatever order it arrives; taking a fact back gives what was before', () => {
    fc.assert(
      fc.property(
        planned.chain(({ plan }) => {
          const all = plan.operations.flatMap((o) =>
            Array.from({ length: o.repeats }, (_, k) => done(`${o.number}-${k}`, o.id, k + 1, minutesLater(o.number))),
          );
          return fc.tuple(
            fc.constant(plan),
            fc.subarray(all).chain((some) => fc.tuple(fc.constant(some), shuffled(some))),
          );
        }),
        ([{ operations }, [facts, other]]) => {
          const progress = progressOf(operations, facts);
          expect(progressOf(operations, other)).toEqual(progress);
          const [last] = facts.slice(-1);
          if (!last) return;
          const back: Fact = { kind: 'takenBack', id: 'back', at: AT, fact: last.id };
          expect(progressOf(operations, [back, ...facts])).toEqual(progressOf(operations, facts.slice(0, -1)));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('done one after another as they fall due, every step comes, and none before what it comes after', () => {
    fc.assert(
      fc.property(planned, ({ plan: { operations } }) => {
        const facts: Fact[] = [];
        for (let due = progressOf(operations, facts).due; due; due = progressOf(operations, facts).due) {
          const finished = new Set(
            operations.filter((o) => facts.some((f) => f.kind === 'done' && f.step === o.id)).map((o) => o.id),
          );
          expect(due.step.after.every((id) => finished.has(id))).toBe(true);
          facts.push(done(`f${facts.length}`, due.step.id, due.times.indexOf(null) + 1));
        }
        expect(facts).toHaveLength(operations.reduce((sum, o) => sum + o.repeats, 0));
      }),
      { numRuns: 40 },
    );
  });

  it('two devices that finish the same step finished it once; a step nobody plans any more decides nothing', () => {
    const { operations } = makePlan(flat);
    const [first, second] = operations;
    const { steps, strays } = progressOf(operations, [
      done('b', first!.id, 1, minutesLater(2)),
      done('a', first!.id, 1, minutesLater(1)),
      done('c', 'a step of yesterday'),
      done('d', first!.id, 7),
    ]);
    expect(steps[0]).toMatchObject({ state: 'done', times: [{ facts: ['a', 'b'], at: minutesLater(1) }] });
    expect(steps[1]).toMatchObject({ state: 'free', step: { id: second!.id } });
    expect(strays).toBe(2);
  });

  it('says what holds a step, and until when glue does', () => {
    const { operations } = makePlan(flat);
    const at = operations.findIndex((o) => o.waitMinutes !== null);
    const gluing = operations[at]!;
    const facts = operations.slice(0, at + 1).map((o, i) => done(`f${i}`, o.id));
    const { steps } = progressOf(operations, facts);
    expect(steps[at + 1]).toMatchObject({ state: 'free', waitsUntil: Date.parse(AT) + gluing.waitMinutes! * 60_000 });
    expect(steps[at + 2]!.held.map((o) => o.id)).toEqual([operations[at + 1]!.id]);
  });
});

describe('what was measured', () => {
  it('as the plan expected it changes no size, and is no mishap', () => {
    fc.assert(
      fc.property(planned, ({ input, plan }) => {
        const facts = measuresIn(plan, input).flatMap((m, i) =>
          m.expected === null || m.expected < 1 ? [] : [measured(`m${i}`, m, m.expected)],
        );
        const again = makePlan({ ...input, facts });
        for (const side of ['thickness', 'width', 'length'] as const)
          expect(again.ladders[side].reached).toBeCloseTo(plan.ladders[side].reached, 3);
        expect(mishapsOf({ ...input, facts: facts.slice(0, 4) }, again)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it('is what there is from then on: no size after a step exceeds what was measured before it, in whatever order it arrived', () => {
    fc.assert(
      fc.property(
        planned.chain(({ input, plan }) => {
          const sizes = measuresIn(plan, input).filter((m) => m.expected !== null && m.expected > 5);
          const some = fc
            .subarray(sizes.map((m, i) => ({ m, i })))
            .chain((list) =>
              fc.tuple(
                ...list.map(({ m, i }) =>
                  fc
                    .integer({ min: 70, max: 115 })
                    .map((percent) => measured(`m${i}`, m, (m.expected! * percent) / 100, minutesLater(i))),
                ),
              ),
            );
          return some.chain((facts) => fc.tuple(fc.constant({ input, plan, facts }), shuffled(facts)));
        }),
        ([{ input, plan, facts }, other]) => {
          const real = makePlan({ ...input, facts });
          const { thickness, width, length } = makePlan({ ...input, facts: other }).ladders;
          expect({ thickness, width, length }).toEqual({ ...real.ladders });
          const last = input.board.recipe.at(-1)?.id;
          for (const f of factsThatHold(facts)) {
            if (f.kind !== 'measured' || f.thing !== last) continue;
            const side = f.dimension;
            if (side !== 'thickness' && side !== 'width' && side !== 'length') continue;
            // A framed or backed board is trimmed of another thing than its panel was.
            if (stageOf(f) === 'glued' && (plan.frame || plan.back)) continue;
            expect(real.ladders[side].reached).toBeLessThanOrEqual(f.value + 1e-6);
          }
          for (const ladder of Object.values(real.ladders)) {
            expect(ladder.reached).toBeGreaterThanOrEqual(0);
            expect(ladder.rungs.every((r) => Math.abs(r.before - r.taken - r.after) < 1e-6)).toBe(true);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('taken back gives the plan that was before', () => {
    const measure = measuresIn(makePlan(flat), flat).find((m) => m.dimension === 'thickness');
    const facts = [measured('m', measure!, measure!.expected! - 3)];
    const back: Fact = { kind: 'takenBack', id: 't', at: AT, fact: 'm' };
    expect(makePlan({ ...flat, facts }).ladders.thickness.reached).toBeLessThan(
      makePlan(flat).ladders.thickness.reached,
    );
    expect(makePlan({ ...flat, facts: [...facts, back] })).toEqual(makePlan({ ...flat, facts: [] }));
  });

  it('a thinner board may have a shallower groove: as much wood stays beneath it', () => {
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
    const board = plainBoard({ thickness: 20, worked: { ...NOTHING_WORKED, features: [groove] } });
    const input = { ...flat, board };
    const thin = (by: number) => {
      const measure = measuresIn(makePlan(input), input).find((m) => m.dimension === 'thickness' && m.stage === 'flat');
      const given = { ...input, facts: [measured('m', measure!, measure!.expected! - by)] };
      return mishapsOf(given, makePlan(given))[0]!.ways.find((w) => w.way === 'shallower');
    };
    expect(thin(1.2)!.board!.worked.features).toEqual([{ ...groove, depth: 6.8 }]);
    expect(phraseText(thin(1.2)!.cost, DEFAULT_DISPLAY)).toContain('6.8 mm deep instead of 8 mm');
    // A groove of next to nothing is no way.
    expect(thin(7)).toBeUndefined();
  });

  it('that Trim noted, how long the panel was glued, is no mishap of the board', () => {
    const facts = panelFacts(612);
    expect(mishapsOf({ ...flat, facts }, makePlan({ ...flat, facts }))).toEqual([]);
  });

  it('told in one sentence with figures and ways: worked by hand', () => {
    // 20 thick, half a millimetre sanded off: 20.5 flat; 18.3 leaves 17.8 (worked by hand).
    const input = planInput(plainBoard({ thickness: 20 }), [plainPiece({ length: 4000, thickness: 40 })]);
    const plan = makePlan(input);
    const flatten = plan.operations.find((o) => o.kind === 'flattenPanel')!;
    const [measure] = measuresOf(flatten, plan.operations, input.board, input.shop);
    expect(measure).toMatchObject({
      dimension: 'thickness',
      stage: 'flat',
      expected: 20 + DEFAULT_SHOP.habits.sanding,
    });
    const facts = [measured('m', measure!, 18.3)];
    const real = makePlan({ ...input, facts });
    expect(real.ladders.thickness).toMatchObject({ shortBy: expect.closeTo(2.2, 9) as number });
    expect(real.operations.find((o) => o.kind === 'sand')!.parts[0]).toMatchObject({
      before: 18.3,
      after: expect.closeTo(17.8, 9) as number,
    });
    const [mishap] = mishapsOf({ ...input, facts }, real);
    expect(phraseText(mishap!.says, DEFAULT_DISPLAY)).toBe(
      'the panel: 18.3 mm thick, 2.2 mm under; the board ends 17.8 mm thick, 2.2 mm under what is wished.',
    );
    const decided: Fact = { kind: 'decided', id: 'd', at: AT, about: 'm', way: 'goOn' };
    expect(
      mishapsOf({ ...input, facts: [...facts, decided] }, makePlan({ ...input, facts: [...facts, decided] })),
    ).toEqual([]);
  });
});

it('diagonals that differ say how far the ends lean, worked by hand', () => {
  // A parallelogram 400 long and 250 wide that leans by 4 over its width: diagonals of √(404² + 250²) and √(396² + 250²).
  const thing = flat.board.recipe.at(-1)!.id;
  const [long, short] = [Math.hypot(404, 250), Math.hypot(396, 250)];
  const one = (id: string, dimension: 'diagonal' | 'otherDiagonal', value: number): Fact => ({
    kind: 'measured',
    id,
    at: AT,
    thing,
    copy: 1,
    stage: 'trimmed',
    dimension,
    value,
  });
  const told = (a: number, b: number) => {
    const facts = [one('a', 'diagonal', a), one('b', 'otherDiagonal', b)];
    return mishapsOf({ ...flat, facts }, makePlan({ ...flat, facts })).map((m) => phraseText(m.says, DEFAULT_DISPLAY));
  };
  expect(told(long, short)).toEqual(['The diagonals differ by 6.8 mm: the ends lean 4 mm over the width.']);
  expect(told(short + 0.4, short)).toEqual([]);
});

describe('what went wrong', () => {
  const fail = (strip: string): Fact => ({
    kind: 'failed',
    id: 'f',
    at: AT,
    what: 'strip',
    thing: strip,
    copy: 1,
    why: 'torn out',
  });

  it('a strip: made again from the rack, left out, turned over, each with what it costs', () => {
    const strips = stripsOf(flat.board);
    const facts = [fail(strips[1]!.id)];
    const plan = makePlan({ ...flat, facts });
    const [mishap] = mishapsOf({ ...flat, facts }, plan);
    expect(phraseText(mishap!.says, DEFAULT_DISPLAY)).toBe('Strip 2 is no good: torn out.');
    expect(mishap!.ways.map((w) => w.way)).toEqual(['again', 'turnOver', 'shorten', 'fill', 'goOn']);
    const [, turned, without] = mishap!.ways;
    expect(stripsOf(turned!.board!)[1]!.turned).toBe(!strips[1]!.turned);
    expect(stripsOf(without!.board!).map((s) => s.id)).toEqual(strips.filter((_, i) => i !== 1).map((s) => s.id));
    const left = makePlan({ ...flat, board: without!.board! }).ladders.width.reached;
    expect(without!.cost).toContainEqual({ mm: left });
  });

  it('a strip on the bench that is no good is asked of the rack again, unless it is used all the same', () => {
    const before = makePlan(flat);
    const done = before.cutting.blanks.map((blank) => ({
      piece: flat.rack.find((p) => p.id === blank.pieceId)!,
      blank: { ...blank, done: true },
    }));
    const saw = { key: '', promised: [], chosen: null, done };
    const strip = stripsOf(flat.board)[0]!.id;
    const asked = (facts: Fact[]) =>
      makePlan({ ...flat, saw, facts })
        .cutting.blanks.filter((b) => !b.done)
        .flatMap((b) => b.strips.map((s) => s.demand.stripId));
    expect(asked([])).toEqual([]);
    expect(asked([fail(strip)])).toEqual([strip]);
    expect(asked([fail(strip), { kind: 'decided', id: 'd', at: AT, about: 'f', way: 'turnOver' }])).toEqual([]);
  });

  it('a bad place moves the boards, and moves them no more once it is filled', () => {
    const spot = { id: 's', x: 0, y: 20, length: 40, width: 20, what: 'Gap' };
    const panel = flat.board.recipe.at(-1)!.id;
    const facts: Fact[] = [{ kind: 'badPlace', id: 'b', at: AT, thing: panel, copy: 1, spot }];
    const at = (given: Fact[]) => makePlan({ ...flat, facts: given }).trim.boards[0]?.x;
    const [mishap] = mishapsOf({ ...flat, facts }, makePlan({ ...flat, facts }));
    expect(mishap!.ways.map((w) => w.way)).toEqual(['shorten', 'turnOver', 'fill', 'goOn']);
    expect(at([...facts, { kind: 'decided', id: 'd', at: AT, about: 'b', way: 'fill' }])).toBe(at([]));
  });
});

describe('a figure that cannot be right', () => {
  it.each([
    [1.18, 30, 'inches', 29.97],
    [762, 30, 'millimetres', 30],
    [283, 28.5, 'point', 28.3],
    [82.3, 28.5, 'swapped', 28.3],
    [70, 30, 'far', null],
    [28.3, 30, null, null],
    [402, 400, null, null],
  ] as const)('%f where %f is expected: %s', (value, expected, why, meant) => {
    const slip = slipOf(value, expected);
    expect(slip?.why ?? null).toBe(why);
    if (meant !== null) expect(slip!.meant).toBeCloseTo(meant, 1);
  });

  it('near what is expected nothing is asked, whatever it is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 2000, noNaN: true }),
        fc.double({ min: -0.1, max: 0.1, noNaN: true }),
        (expected, off) => {
          expect(slipOf(expected * (1 + off), expected)).toBeNull();
        },
      ),
    );
  });
});

it('waits begin when a step is done, end by themselves, and go when it is not done after all', () => {
  const wait = (id: string, minutes: number, at: string): Fact => ({
    ...(done(id, 'glue', 1, at) as Extract<Fact, { kind: 'done' }>),
    wait: { minutes, for: 'the glue' },
  });
  const facts = [wait('long', 600, AT), wait('short', 30, minutesLater(5))];
  const ends = (given: Fact[], since: number) =>
    waitsOf(given, Date.parse(minutesLater(since))).map((w) => [w.fact, (w.until - Date.parse(AT)) / 60_000]);
  expect(ends(facts, 0)).toEqual([
    ['short', 35],
    ['long', 600],
  ]);
  expect(ends([...facts].reverse(), 36)).toEqual([['long', 600]]);
  expect(ends([...facts, { kind: 'takenBack', id: 't', at: AT, fact: 'long' }], 36)).toEqual([]);
  // Work that went on from it has ended a wait, of this panel or of all.
  const next = (copy: number | null): Fact => ({
    ...(done('next', 'join') as Extract<Fact, { kind: 'done' }>),
    ends: [{ step: 'glue', copy }],
  });
  expect(ends([...facts, next(1)], 0)).toEqual([]);
  expect(ends([...facts, next(2)], 0)).toHaveLength(2);
  expect(ends([...facts, next(null)], 0)).toEqual([]);
});

it('every step of every board teaches how to see that it is right, and every look has a way to look', () => {
  fc.assert(
    fc.property(planned, ({ plan }) => {
      for (const { kind } of plan.operations) {
        const { right, mistakes } = lessonOf(kind);
        expect([right, ...mistakes.flatMap((m) => [m.mistake, m.looks])].every((text) => text.endsWith('.'))).toBe(
          true,
        );
        expect(looksAfter(kind).every((l) => l.how.length > 0)).toBe(true);
      }
    }),
    { numRuns: 20 },
  );
});

describe('readings of instruments', () => {
  const caliper = (value: number, unit: ReadingUnit, flat = false): Reading => ({
    instrument: 'caliper',
    value,
    unit,
    flat,
  });

  it('come to the field that waits for them in its own unit', () => {
    expect(takeReading(caliper(28.3, 'mm'), 'thickness')).toEqual({ ok: true, value: 28.3 });
    expect(takeReading(caliper(1, 'in'), 'width')).toEqual({ ok: true, value: 25.4 });
    expect(takeReading({ instrument: 'scale', value: 2.35, unit: 'kg', flat: false }, 'weight')).toEqual({
      ok: true,
      value: 2350,
    });
    expect(takeReading({ instrument: 'hygrometer', value: 48, unit: '%', flat: false }, 'humidity')).toEqual({
      ok: true,
      value: 48,
    });
  });

  it.each([
    [caliper(28.3, 'mm', true), 'thickness', 'The battery of the caliper is flat'],
    [caliper(28.3, 'g'), 'thickness', 'The caliper sent 28.3 g, which is no length.'],
    [caliper(28.3, 'mm'), 'moisture', 'The caliper measures length; what is waited for is moisture.'],
    [caliper(-0.02, 'mm'), 'thickness', 'set it to zero'],
    [{ instrument: 'hygrometer', value: 48, unit: '%', flat: false }, 'moisture', 'measures humidity'],
  ] as const)('%j for %s is not taken, and why is said', (reading, awaited, why) => {
    const taken = takeReading(reading, awaited);
    expect(taken.ok ? '' : taken.message).toContain(why);
  });

  it('are read off a line, with or without a unit', () => {
    expect(readLine('+028,31 mm', 'caliper')).toEqual(caliper(28.31, 'mm'));
    expect(readLine('1.114"', 'caliper')).toEqual(caliper(1.114, 'in'));
    expect(readLine(' 2350', 'scale')).toEqual({ instrument: 'scale', value: 2350, unit: 'g', flat: false });
    expect(readLine('28.3 mm LOW BATT', 'caliper')).toEqual(caliper(28.3, 'mm', true));
    expect(readLine('ready', 'caliper')).toBeNull();
  });
});

it('strips that the room will dry further are told, with what the room brings them to', () => {
  // Air of 20 °C and 50 % brings wood to some 9.3 % (Wood Handbook, table 4-2, from memory: 9.2 at 70 °F).
  const plan = makePlan(flat);
  const layOut = plan.operations.find((o) => o.kind === 'layOut')!;
  const [measure] = measuresOf(layOut, plan.operations, flat.board, flat.shop);
  expect(measure).toMatchObject({ dimension: 'moisture', label: 'the strips' });
  const told = (percent: number) => {
    const facts = [measured('w', measure!, percent)];
    return mishapsOf({ ...flat, facts }, makePlan({ ...flat, facts })).map((m) => phraseText(m.says, DEFAULT_DISPLAY));
  };
  expect(told(13)).toEqual(['The strips have 13 % of moisture; the room brings wood to 9.3 %: the board will shrink.']);
  expect(told(6)[0]).toContain('the board will swell');
  expect(told(10)).toEqual([]);
  expect(makePlan({ ...flat, facts: [measured('w', measure!, 13)] }).ladders).toEqual(plan.ladders);
});

it('a practice run meets a mishap of each kind on the way, and each has ways', () => {
  const board = practiceBoard();
  const rack = ['beech-european', 'cherry-wild'].map((species, i) =>
    plainPiece({ id: `p${i}`, mark: `P${i}`, species, length: 3000 }),
  );
  const input = { ...flat, board, rack };
  const facts: Fact[] = [];
  const met: string[] = [];
  for (let step = progressOf(makePlan({ ...input, facts }).operations, facts).due; step;) {
    const { operations } = makePlan({ ...input, facts });
    facts.push(done(`d${facts.length}`, step.step.id, step.times.indexOf(null) + 1, minutesLater(facts.length)));
    for (const mishap of practiceMishaps(step.step, measuresOf(step.step, operations, board, input.shop), board))
      facts.push({ ...mishap, id: `m${facts.length}`, at: minutesLater(facts.length) });
    const given = { ...input, facts };
    for (const { fact, says, ways } of mishapsOf(given, makePlan(given))) {
      met.push(phraseText(says, DEFAULT_DISPLAY));
      expect(ways.length).toBeGreaterThan(0);
      facts.push({ kind: 'decided', id: `w${facts.length}`, at: minutesLater(facts.length), about: fact, way: 'goOn' });
    }
    step = progressOf(makePlan({ ...input, facts }).operations, facts).due;
  }
  expect(met).toHaveLength(3);
  expect(met[0]).toBe('Strip 2 is no good: torn out.');
  expect(met[1]).toContain('1.6 mm under');
  expect(met[2]).toContain('The diagonals differ by 3 mm');
  expect(isPractice(board) && !isPractice(flat.board)).toBe(true);
});

it('of a heap of mishaps the oldest few are told, the next ones when those are decided', () => {
  const strips = stripsOf(flat.board);
  const facts = Array.from({ length: 400 }, (_, k): Fact => ({
    kind: 'failed',
    id: `f${k}`,
    at: minutesLater(k),
    what: 'strip',
    thing: strips[k % strips.length]!.id,
    copy: 1,
    why: 'split',
  }));
  const first = (given: Fact[]) => firstMishaps({ ...flat, facts: given }, makePlan({ ...flat, facts: given }));
  expect(first(facts)).toMatchObject({ told: [{ fact: 'f0' }, { fact: 'f1' }, { fact: 'f2' }], more: true });
  const decided: Fact = { kind: 'decided', id: 'd', at: minutesLater(500), about: 'f1', way: 'fill' };
  expect(first([...facts, decided]).told.map((m) => m.fact)).toEqual(['f0', 'f2', 'f3']);
  expect(first(facts.slice(0, MOST_TOLD))).toMatchObject({ more: false });
  expect([...undecidedFacts([...facts.slice(0, 3), decided])]).toEqual(['f0', 'f2']);
});

it('what is done asks for no hands any more', () => {
  const all = makePlan(flat);
  const facts = all.operations.slice(0, 5).map((o, i) => done(`d${i}`, o.id));
  const left = makePlan({ ...flat, facts });
  expect(left.operations.map((o) => o.id)).toEqual(all.operations.map((o) => o.id));
  const doneMinutes = all.operations.slice(0, 5).reduce((sum, o) => sum + o.minutes, 0);
  expect(left.handsMinutes).toBeCloseTo(all.handsMinutes - doneMinutes, 9);
});

describe('a pit in a side that is sanded', () => {
  const pit = (side: 'top' | 'left', depth: number): Fact => ({
    kind: 'badPlace',
    id: 'p',
    at: AT,
    thing: 'panel',
    copy: 1,
    spot: { id: 's', x: 5, y: 5, length: 5, width: 5, what: 'tear-out' },
    side,
    depth,
  });
  const mishaps = (fact: Fact) => {
    const given = { ...flat, facts: [fact] };
    return mishapsOf(given, makePlan(given));
  };

  it('says how thin sanding it out makes the board, and can be filled instead', () => {
    const [mishap] = mishaps(pit('top', 0.8));
    // 0.8 to its bottom, then the scratches of 40, 60 and 100; a quarter of a millimetre is planned off that face anyway.
    expect(phraseText(mishap!.says, DEFAULT_DISPLAY)).toMatch(
      /^Tear-out 0\.8 mm deep: sanding to its bottom ends the board 28\.\d mm thick\.$/,
    );
    expect(mishap!.ways.map((w) => w.way)).toEqual(['goOn', 'fill']);
    const given = { ...flat, facts: [pit('top', 0.8)] };
    const filled: Fact = { kind: 'decided', id: 'd', at: minutesLater(1), about: 'p', way: 'fill' };
    expect(makePlan({ ...flat, facts: [...given.facts, filled] }).ladders.thickness.reached).toBe(
      makePlan(flat).ladders.thickness.reached,
    );
  });

  it('in an end it makes no board thinner, and nothing is asked', () => {
    expect(mishaps(pit('left', 0.8))).toEqual([]);
  });
});
