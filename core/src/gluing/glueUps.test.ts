import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { USUAL_GLUES } from '../shop/gluing.ts';
import { CAUL_MM, CLAMP_BAR_MM, clampsFor, type ClampSet } from './clamping.ts';
import { clampCount, planGlueUps, type PanelToGlue } from './glueUps.ts';
import { chooseGroups, levelMinutes, type GroupingTask } from './groups.ts';
import { isRunOf } from './glueRun.ts';

const panel = (strips: number, length: number, height: number, change: Partial<PanelToGlue> = {}): PanelToGlue => ({
  widths: Array<number>(strips).fill(20),
  ids: Array.from({ length: strips }, (_, i) => `s${i}`),
  symmetrical: true,
  length,
  height,
  hardness: 6000,
  helper: false,
  groups: null,
  flattens: Infinity,
  ...change,
});

describe('planGlueUps', () => {
  it('a group of strips that all stand over the panel is pressed as tall as it is; level again it is joined like the rest', () => {
    const proud = [1.6, 1.6, 0, 0, 0, 0];
    const plan = (flattens: number) =>
      planGlueUps(panel(6, 400, 30, { proud, groups: [2, 4], flattens }), DEFAULT_SHOP).glueUps;
    const tall = (g: { clamps: ClampSet }) => {
      const force = g.clamps.placed.reduce(
        (sum, { kind }) => sum + DEFAULT_SHOP.clamps.find((c) => c.kind === kind)!.force,
        0,
      );
      return (force * 1000) / (g.clamps.pressure * 400);
    };
    for (const flattens of [Infinity, 100])
      plan(flattens).forEach((g, i) => expect(tall(g)).toBeCloseTo([31.6, 30, 30][i]!, 6));
    // The glue goes as high.
    const [low, high] = plan(Infinity).map((g) => g.grams / g.joints);
    expect(low! / high!).toBeCloseTo(31.6 / 30, 9);
  });

  it('25 strips of a 17 or 18 in board make five groups of five and one join; five clamps on 16 to 18 in (common practice)', () => {
    expect(clampCount(16 * 25.4, DEFAULT_SHOP)).toBe(5);
    for (const inches of [17, 18]) {
      const { glueUps } = planGlueUps(panel(25, inches * 25.4, 40), DEFAULT_SHOP);
      expect(glueUps.map((g) => g.parts)).toEqual([5, 5, 5, 5, 5, 5]);
      expect(glueUps.at(-1)).toMatchObject({
        level: 2,
        joins: glueUps.slice(0, 5).map((g) => g.id),
        firstStrip: 1,
        lastStrip: 25,
      });
      expect(clampCount(inches * 25.4, DEFAULT_SHOP)).toBe(5);
      // Groups are handled after 20 to 30 min, the panel after 2 h at least (common practice).
      expect(glueUps.map((g) => g.waitMinutes)).toEqual([30, 30, 30, 30, 30, 120]);
    }
  });

  it('a glue-up is called by the strips it glues: others beside it change nothing, another strip or another grouping does', () => {
    const named = (ids: string[], groups: number[]) =>
      planGlueUps({ ...panel(ids.length, 400, 30), ids, groups }, DEFAULT_SHOP).glueUps;
    const [ab, cd, all] = named(['a', 'b', 'c', 'd'], [2, 2]);
    expect(named(['x', 'y', 'a', 'b'], [2, 2])[1]).toMatchObject({ id: ab!.id, name: 'G1.2' });
    expect(named(['a', 'c', 'b', 'd'], [2, 2]).map((g) => g.id)).not.toContain(ab!.id);
    const [whole] = named(['a', 'b', 'c', 'd'], [4]);
    expect(new Set([ab!.id, cd!.id, all!.id, whole!.id]).size).toBe(4);
    expect([
      isRunOf({ glueUp: ab!.id, run: { title: 'Strips 3 to 4' } }, ab!),
      isRunOf({ glueUp: 'G1.1', run: { title: 'Strips 1 to 2' } }, ab!),
      isRunOf({ glueUp: 'G1.1', run: { title: 'Strips 1 to 3' } }, ab!),
    ]).toEqual([true, true, false]);
  });

  it('glues every joint once, in time, joins only what was glued before, and puts no joint outside', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 120 }),
        fc.integer({ min: 200, max: 900 }),
        fc.integer({ min: 10, max: 60 }),
        fc.constantFrom(Infinity, 150, 260),
        fc.boolean(),
        (strips, length, height, flattens, helper) => {
          const plan = planGlueUps(panel(strips, length, height, { flattens, helper }), DEFAULT_SHOP);
          expect(plan.glueUps.reduce((sum, g) => sum + g.joints, 0)).toBe(Math.max(0, strips - 1));
          const made = new Set<string>();
          for (const g of plan.glueUps) {
            for (const id of g.joins) expect(made.has(id)).toBe(true);
            made.add(g.id);
            if (plan.mostParts > 2) expect(g.assemblyMinutes).toBeLessThanOrEqual(plan.usableMinutes + 1e-9);
            expect(g.width).toBeCloseTo((g.lastStrip - g.firstStrip + 1) * 20, 9);
            expect(g.jointsAt.every((x) => x > 0 && x < g.width)).toBe(true);
            if (plan.sectionWidth !== null && g.level === 1 && plan.glueUps.length > 1)
              expect(g.width).toBeLessThanOrEqual(flattens);
          }
        },
      ),
    );
  });

  it("takes longer in the cold, more at once with a helper or a slow glue, and the maker's own groups where they add up", () => {
    const shop = (change: Partial<Shop>): Shop => ({ ...DEFAULT_SHOP, ...change });
    const most = (s: Shop, helper = false) => planGlueUps(panel(25, 430, 40, { helper }), s).mostParts;
    expect(most(DEFAULT_SHOP, true)).toBeGreaterThan(most(DEFAULT_SHOP));
    expect(most(shop({ glue: 'long-open' }))).toBeGreaterThan(2 * most(DEFAULT_SHOP));
    const cold = planGlueUps(panel(5, 430, 40), shop({ room: { temperature: 5, humidity: 50 } }));
    expect([cold.usableMinutes, cold.clampMinutesEach]).toEqual([14, 240]);
    const mine = planGlueUps(panel(6, 430, 40, { groups: [4, 2] }), DEFAULT_SHOP);
    expect([mine.byHand, ...mine.glueUps.map((g) => g.parts)]).toEqual([true, 4, 2, 2]);
    expect(planGlueUps(panel(6, 430, 40, { groups: [4, 4] }), DEFAULT_SHOP).byHand).toBe(false);
    expect(USUAL_GLUES.every((g) => g.gramsPerM2 >= 150 && g.gramsPerM2 <= 250)).toBe(true);
  });
});

describe('chooseGroups', () => {
  /** Every list of positive numbers with a sum, none above `most`. */
  function compositions(sum: number, most: number): number[][] {
    if (sum === 0) return [[]];
    return Array.from({ length: Math.min(sum, most) }, (_, i) => i + 1).flatMap((first) =>
      compositions(sum - first, most).map((rest) => [first, ...rest]),
    );
  }
  /** Fewest minutes over all trees, by trying them all; above the first level they depend on the number of pieces alone. */
  function enumerated(
    count: number,
    task: GroupingTask,
    level: number,
    widths: readonly number[],
    known = new Map<number, number>(),
  ): number {
    if (count === 1) return 0;
    if (level > 1 && known.has(count)) return known.get(count)!;
    let best = Infinity;
    for (const sizes of compositions(count, task.mostParts)) {
      if (sizes.length === count) continue;
      if (level === 1 && task.sectionWidth !== null && sizes.length > 1) {
        let at = 0;
        const fits = sizes.every((s) => {
          const width = widths.slice(at, at + s).reduce((sum, w) => sum + w, 0);
          at += s;
          return s === 1 || width <= task.sectionWidth!;
        });
        if (!fits) continue;
      }
      if (
        level === 1 &&
        task.sectionWidth !== null &&
        sizes.length === 1 &&
        widths.reduce((sum, w) => sum + w, 0) > task.sectionWidth
      )
        continue;
      const wait = sizes.length === 1 ? task.lastMinutes : level === 1 ? task.groupMinutes : task.joinMinutes;
      best = Math.min(best, levelMinutes(sizes, wait, task) + enumerated(sizes.length, task, level + 1, [], known));
    }
    if (level > 1) known.set(count, best);
    return best;
  }

  it('has as few minutes as any of all trees, for up to ten strips', () => {
    const task = fc.record({
      widths: fc.array(fc.integer({ min: 15, max: 70 }), { minLength: 2, maxLength: 10 }),
      mostParts: fc.integer({ min: 2, max: 6 }),
      sectionWidth: fc.option(fc.integer({ min: 60, max: 200 }), { nil: null }),
      sideBySide: fc.integer({ min: 1, max: 3 }),
      groupMinutes: fc.constantFrom(20, 30, 120),
      lastMinutes: fc.constantFrom(120, 180),
    });
    fc.assert(
      fc.property(task, ({ sectionWidth, ...given }) => {
        const whole = given.widths.reduce((sum, w) => sum + w, 0);
        const full: GroupingTask = {
          ...given,
          sectionWidth: sectionWidth !== null && whole > sectionWidth ? sectionWidth : null,
          symmetrical: false,
          joinMinutes: 30,
          groups: null,
          handsMinutes: (parts) => 2 + 1.5 * parts,
        };
        const chosen = chooseGroups(full);
        const expected = enumerated(given.widths.length, full, 1, given.widths);
        // No pair of strips keeps the width: then all of them are joined at once as far as time allows.
        if (expected < Infinity) expect(chosen.minutes).toBeCloseTo(expected, 6);
        expect(chosen.levels.at(-1)).toHaveLength(1);
      }),
      { numRuns: 60 },
    );
  });

  it('is symmetrical for a symmetrical pattern', () => {
    for (const [strips, most] of [
      [11, 5],
      [9, 4],
      [13, 5],
    ] as const) {
      const { glueUps } = planGlueUps(panel(strips, 430, 40, { flattens: most * 20 }), DEFAULT_SHOP);
      const first = glueUps.filter((g) => g.level === 1).map((g) => g.firstStrip + g.lastStrip);
      expect(first.map((sum) => 2 * (strips + 1) - sum).reverse()).toEqual(first);
    }
  });
});

describe('clampsFor', () => {
  it('never puts a clamp and a caul, or two clamps of one side, in the same place, and nothing off the panel', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 120, max: 2500 }),
        fc.integer({ min: 15, max: 80 }),
        fc.integer({ min: 40, max: 500 }),
        fc.integer({ min: 1, max: 40 }),
        (length, height, width, count) => {
          const shop: Shop = { ...DEFAULT_SHOP, clamps: [{ ...DEFAULT_SHOP.clamps[0]!, count }] };
          const { placed, cauls, wanted, owned }: ClampSet = clampsFor(
            { length, height, width, joints: 3, hardness: 6000 },
            shop,
          );
          expect(placed).toHaveLength(Math.min(wanted, owned));
          for (const c of placed) expect(c.at).toBeGreaterThanOrEqual(0);
          for (const c of placed) expect(c.at).toBeLessThanOrEqual(length);
          for (const caul of cauls) {
            expect(caul - CAUL_MM / 2).toBeGreaterThanOrEqual(-1e-9);
            expect(caul + CAUL_MM / 2).toBeLessThanOrEqual(length + 1e-9);
            for (const c of placed)
              expect(Math.abs(caul - c.at)).toBeGreaterThanOrEqual((CAUL_MM + CLAMP_BAR_MM) / 2 - 1e-9);
          }
          for (const side of ['above', 'below'] as const) {
            const row = placed.filter((c) => c.side === side).map((c) => c.at);
            row.slice(1).forEach((at, i) => expect(at - row[i]!).toBeGreaterThanOrEqual(CLAMP_BAR_MM * 0.9));
          }
        },
      ),
    );
  });

  it('counts by pressure where that is more: 1.2 MPa on 430 x 100 mm is 51.6 kN (by hand), twelve clamps of 4.5 kN', () => {
    const set = clampsFor(
      { length: 430, height: 100, width: 250, joints: 5, hardness: 6000 },
      { ...DEFAULT_SHOP, clamps: [{ ...DEFAULT_SHOP.clamps[0]!, reach: 60, count: 20 }] },
    );
    expect([set.bySpacing, set.byPressure, set.wanted]).toEqual([5, 12, 12]);
    expect(set.pressure).toBeCloseTo((12 * 4500) / (430 * 100), 9);
  });
});
