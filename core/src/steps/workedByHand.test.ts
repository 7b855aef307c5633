import { describe, expect, it } from 'vitest';
import { firstOf } from '../lists/there.ts';
import { makePlan, type Plan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import type { Operation, OperationKind } from './operation.ts';

/** The step of a kind, as its maker reads it. */
function step(plan: Plan, kind: OperationKind, system: 'metric' | 'inch' = 'metric') {
  const found: Operation = firstOf(plan.operations.filter((o) => o.kind === kind));
  const display = { ...DEFAULT_DISPLAY, system };
  return {
    ...found,
    title: phraseText(found.title, display),
    lines: found.lines.map((l) => phraseText(l, display).replace(/\u00a0/g, ' ')),
    set: found.settings.map((s) => [s.label, Number(s.value.mm.toFixed(6))]),
    changes: found.parts.map((p) => [p.part, p.before, p.after, p.passes]),
  };
}

describe('six strips of 46 mm on edge, 400 x 260 x 30, from a rough plank of 2000 x 150 x 50 in the usual shop', () => {
  const plan = makePlan(planInput(plainBoard(), [plainPiece()]));

  it('crosscut: 400 and 3 of creep, twice 10 of snipe and 3 of kerf are 429; two blanks, because one gives four strips', () => {
    const { set, lines } = step(plan, 'crosscut');
    expect(set).toEqual([['Stop', 429]]);
    // (150 - 2 of jointing + 3 of kerf) / (32 + 3) is 4.3.
    expect(lines).toEqual(['P1: trim 10 mm off the marked end, then 2 × 429 mm (P1.1, P1.2)']);
  });

  it('flatten: 50 down to the 46 that a strip shows', () => {
    const { set, changes } = step(plan, 'flatten');
    expect(set).toEqual([['Planer', 46]]);
    // 4 mm in passes: 150 of the planer's 260 mm wide are 0.154 of the way from half width to all of it, so 1.5 (1 - 0.154 / 2) = 1.385 a pass, 3 passes; the first face takes one of its own.
    expect(changes).toEqual([['P1.1, P1.2', 50, 46, 4]]);
  });

  it('joint and rip: 2 off the edge, then 30 and 0.5 of sanding and 1.5 of flattening are 32', () => {
    expect(step(plan, 'jointEdge').lines.at(-1)).toBe('P1.1, P1.2: take off 2 mm');
    const { set, lines } = step(plan, 'rip');
    expect(set).toEqual([['Fence', 32]]);
    expect(lines).toEqual([
      'P1.1: from the straight edge 4 × 32 mm for strips 1–4',
      'P1.2: from the straight edge 2 × 32 mm for strips 5, 6',
    ]);
  });

  it('glue: 429 x 32 mm of joint at 200 g for a square metre is 2.75 g, five joints five times that', () => {
    const one = (429 * 32 * 200) / 1e6;
    const glued = plan.operations.filter((o) => o.glueUp !== null);
    const grams = plan.gluing.glueUps.map((g) => [g.joints, g.grams]);
    for (const [joints, spread] of grams) expect(spread).toBeCloseTo(joints! * one, 6);
    expect(plan.gluing.glueUps.reduce((sum, g) => sum + g.joints, 0)).toBe(5);
    expect(glued.map((o) => phraseText(o.lines[0]!, DEFAULT_DISPLAY).match(/^\d+/)![0])).toEqual(
      plan.gluing.glueUps.map((g) => String(Math.ceil(g.grams))),
    );
    expect(glued.every((o) => o.waitMinutes === 120)).toBe(true);
  });

  it('trim: 276 wide and 260 wanted leave 8 a side; 429 long and 400 wanted, a kerf of 3 at each end, leave 11.5', () => {
    const edges = step(plan, 'trimEdges');
    expect(edges.set).toEqual([
      ['Fence, far edge off', 268],
      ['Fence, near edge off', 260],
    ]);
    const ends = step(plan, 'trimEnds');
    expect(ends.set).toEqual([
      ['Stop, first try', 401],
      ['Stop', 400],
    ]);
    expect(ends.lines[0]).toBe(
      'Cut one end 11.5 mm in, turn end for end keeping the same long edge to the fence, cut the other to 400 mm',
    );
    expect(ends.changes).toEqual([['the panel', 429, 400, null]]);
  });

  it('sand: 30.5 to 30; what a hand plane left is begun with 220, coarser would only scratch it', () => {
    const { lines, changes } = step(plan, 'sand');
    expect(changes).toEqual([['the board', 30.5, 30, null]]);
    expect(lines).toEqual([
      '30.5 mm to 30 mm: 0.5 mm in all, half off each face',
      'Grit 220: pencil lines over the face, sanded until they are gone',
    ]);
  });

  it('in order: nothing is glued before it is laid out, trimmed before it is flat, oiled before it is wet and dry again', () => {
    const kinds = plan.operations.map((o) => o.kind);
    for (const [before, after] of [
      ['crosscut', 'flatten'],
      ['flatten', 'jointEdge'],
      ['jointEdge', 'rip'],
      ['rip', 'layOut'],
      ['layOut', 'dryRun'],
      ['dryRun', 'glue'],
      ['join', 'flattenPanel'],
      ['flattenPanel', 'trimEdges'],
      ['trimEdges', 'trimEnds'],
      ['trimEnds', 'edges'],
      ['edges', 'sand'],
      ['sand', 'raiseGrain'],
      ['raiseGrain', 'oil'],
      ['oil', 'topCoat'],
    ] as const)
      expect([before, after, kinds.lastIndexOf(before) < kinds.indexOf(after)]).toEqual([before, after, true]);
  });

  it('every step waits for those before it and for nothing else', () => {
    const seen = new Set<string>();
    for (const { id, after } of plan.operations) {
      for (const before of after) expect(seen.has(before)).toBe(true);
      seen.add(id);
    }
    expect(seen.size).toBe(plan.operations.length);
  });
});

describe('the same in a shop of inches: six strips of 1 3/4, 16 x 10 x 1 1/4, from rough 8/4', () => {
  const inch = (n: number) => n * 25.4;
  const board = plainBoard(
    { length: inch(16), width: inch(10), thickness: inch(1.25) },
    Array.from({ length: 6 }, () => inch(1.75)),
  );
  const shop: Shop = {
    ...DEFAULT_SHOP,
    saw: { ...DEFAULT_SHOP.saw, kerf: inch(1 / 8) },
    crosscutSaw: { ...DEFAULT_SHOP.crosscutSaw, kerf: inch(1 / 8) },
    habits: { ...DEFAULT_SHOP.habits, sanding: inch(1 / 64), panelFlatten: inch(1 / 16), creep: inch(1 / 8) },
  };
  const plan = makePlan(planInput(board, [plainPiece({ length: inch(96), width: inch(6), thickness: inch(2) })], shop));

  it('rips to 1 1/4, 1/64 and 1/16, told to the nearest thirty-second with the side it lies on', () => {
    expect(step(plan, 'rip').set).toEqual([['Fence', Number(inch(1.25 + 1 / 64 + 1 / 16).toFixed(6))]]);
    const lines = step(plan, 'rip', 'inch').lines.join(' ');
    expect(lines).toContain(`4 × 1 11/32" −`);
    expect(lines).not.toMatch(/mm/);
  });

  it('every line of every step reads in inches alone, every length with its mark', () => {
    for (const o of plan.operations)
      for (const line of [...o.lines, o.title, ...o.cautions]) {
        const text = phraseText(line, { ...DEFAULT_DISPLAY, system: 'inch' });
        expect([o.kind, /\d\s?mm\b/.test(text) && text]).toEqual([o.kind, false]);
      }
  });

  it('and in millimetres nobody reads an inch', () => {
    for (const o of plan.operations)
      for (const line of [...o.lines, o.title, ...o.cautions]) {
        const text = phraseText(line, DEFAULT_DISPLAY);
        expect([o.kind, /\d"/.test(text) && text]).toEqual([o.kind, false]);
      }
  });
});

describe('what else a step must say', () => {
  it('a drum sander instead of hand planes: its own depth of a pass, so many passes, and no hand that is quicker', () => {
    const shop: Shop = {
      ...DEFAULT_SHOP,
      drumSander: { width: 400, passDepth: 0.25, leastLength: 60 },
      schools: { ...DEFAULT_SHOP.schools, flatten: 'drum' },
    };
    const plan = makePlan(planInput(plainBoard(), [plainPiece()], shop));
    const flatten = step(plan, 'flattenPanel');
    expect(flatten.machine).toBe('Drum sander');
    const { removal } = { removal: (flatten.changes[0]![1] as number) - (flatten.changes[0]![2] as number) };
    expect(removal).toBeCloseTo(1.5, 9);
    // 1.5 mm at 0.25 a pass.
    expect(flatten.passes ?? flatten.changes[0]![3]).toBe(6);
  });

  it('three boards of one panel are cut apart, each behind a kerf; boards of panels of their own are not', () => {
    const plank = plainPiece({ length: 4000 });
    const together = makePlan(planInput(plainBoard({ count: 3, perPanel: 3 }), [plank]));
    const apart = makePlan(
      planInput(plainBoard({ count: 3, perPanel: 1 }), [plank, plainPiece({ id: 'p2', mark: 'P2', length: 4000 })]),
    );
    // 429 and twice a board of 400 with its kerf of 3.
    expect(together.allowances.panels).toEqual([{ boards: 3, length: 429 + 2 * 403 }]);
    expect(together.operations.some((o) => o.kind === 'cutApart')).toBe(true);
    expect(apart.allowances.panels.map((p) => p.length)).toEqual([429, 429, 429]);
    expect(apart.operations.some((o) => o.kind === 'cutApart')).toBe(false);
  });

  it('glue in a cold room: slower, and below its least temperature it is told', () => {
    const at = (temperature: number) =>
      makePlan(
        planInput(plainBoard(), [plainPiece()], { ...DEFAULT_SHOP, room: { ...DEFAULT_SHOP.room, temperature } }),
      );
    const waits = [30, 20, 12].map((t) =>
      Math.max(...at(t).operations.map((o) => (o.glueUp ? (o.waitMinutes ?? 0) : 0))),
    );
    expect(waits[0]!).toBeLessThanOrEqual(waits[1]!);
    expect(waits[1]!).toBeLessThan(waits[2]!);
  });

  it('a slower hand takes longer for every step of hands and machines, and glue dries as before', () => {
    const plan = (work: number) =>
      makePlan(planInput(plainBoard(), [plainPiece()], { ...DEFAULT_SHOP, pace: { ...DEFAULT_SHOP.pace, work } }));
    const [usual, slow] = [plan(1), plan(2)];
    expect(slow.operations.map((o) => o.id)).toEqual(usual.operations.map((o) => o.id));
    usual.operations.forEach((o, i) => {
      const other = slow.operations[i]!;
      expect([o.kind, other.minutes >= o.minutes - 1e-9]).toEqual([o.kind, true]);
      expect(other.waitMinutes).toBe(o.waitMinutes);
    });
    expect(slow.handsMinutes).toBeGreaterThan(usual.handsMinutes * 1.5);
  });
});
