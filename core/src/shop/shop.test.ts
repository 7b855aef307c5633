import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_DIFFERENCES, shopFor } from '../board/differences.ts';
import { flattenerLimits } from './flattener.ts';
import { glueSchema, slowness, USUAL_GLUES } from './gluing.ts';
import { passesOf } from './machines.ts';
import { QUESTION_IDS, QUESTIONS, schoolsSchema, USUAL_SCHOOLS } from './schools.ts';
import { BARE_SHOP, DEFAULT_SHOP, glueOf, shopSchema } from './shop.ts';

describe('the shop', () => {
  it('is valid as it begins, rich or bare', () => {
    for (const shop of [DEFAULT_SHOP, BARE_SHOP]) expect(shopSchema.safeParse(shop).error).toBeUndefined();
  });

  it.each([
    ['glue', { glue: 'gone' }, "must be one of the shop's glues"],
    ['hours', { hours: Array(7).fill(null) }, 'must have at least one day'],
    ['clamps', { clamps: [DEFAULT_SHOP.clamps[0], DEFAULT_SHOP.clamps[0]] }, 'must each have an id of their own'],
    ['glues', { glues: [] }, 'must name at least one glue'],
  ])('says what is wrong with its %s', (field, change, words) => {
    const { error } = shopSchema.safeParse({ ...DEFAULT_SHOP, ...change });
    expect(error!.issues.find((i) => i.path[0] === field)!.message).toContain(words);
  });

  it('a glue is closed before it is pressed, and sets slower in the cold: twice as slow 15 degrees down (common rule)', () => {
    expect(glueSchema.safeParse({ ...USUAL_GLUES[0], openMinutes: 11 }).success).toBe(false);
    expect([slowness(20), slowness(5), slowness(35)]).toEqual([1, 2, 0.5]);
  });

  it('without a planer no machine forbids a size, and nothing snipes', () => {
    expect(flattenerLimits(BARE_SHOP)).toEqual({
      width: Infinity,
      leastLength: 0,
      leastWidth: 0,
      leastThickness: 0,
      snipe: 0,
    });
    expect(
      flattenerLimits({ ...DEFAULT_SHOP, jointer: { ...DEFAULT_SHOP.jointer!, leastLength: 400 } }).leastLength,
    ).toBe(400);
    expect(flattenerLimits({ ...DEFAULT_SHOP, schools: { ...USUAL_SCHOOLS, snipe: 'runners' } }).snipe).toBe(0);
  });

  it('passes take everything, and one less would not', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 6, noNaN: true }),
        fc.double({ min: 0.01, max: 40, noNaN: true }),
        (depth, removal) => {
          const passes = passesOf(depth, removal);
          expect(passes * depth).toBeGreaterThanOrEqual(removal - 1e-6);
          expect((passes - 1) * depth).toBeLessThan(removal);
        },
      ),
    );
  });
});

describe('schools', () => {
  it('each has a name, a reason and an id of its own; what a shop begins with is one of them', () => {
    for (const q of QUESTION_IDS) {
      const { schools } = QUESTIONS[q];
      expect(new Set(schools.map((s) => s.id)).size).toBe(schools.length);
      expect(schools.every((s) => s.name.length > 0 && s.why.length > 8)).toBe(true);
    }
    expect(schoolsSchema.safeParse(USUAL_SCHOOLS).success).toBe(true);
    expect(schoolsSchema.safeParse({ ...USUAL_SCHOOLS, rip: 'twice' }).success).toBe(false);
  });
});

describe('shopFor', () => {
  it('is the shop itself where nothing differs, and the same object for the same differences', () => {
    expect(shopFor({ differs: NO_DIFFERENCES }, DEFAULT_SHOP)).toBe(DEFAULT_SHOP);
    const differs = { habits: { creep: 5 }, schools: { rip: 'fat' as const }, glue: 'long-open' };
    const merged = shopFor({ differs }, DEFAULT_SHOP);
    expect(shopFor({ differs: structuredClone(differs) }, DEFAULT_SHOP)).toBe(merged);
    expect([merged.habits.creep, merged.habits.sanding, merged.schools.rip, glueOf(merged).id]).toEqual([
      5,
      DEFAULT_SHOP.habits.sanding,
      'fat',
      'long-open',
    ]);
  });

  it("a glue that the shop no longer has leaves the shop's own", () => {
    expect(glueOf(shopFor({ differs: { ...NO_DIFFERENCES, glue: 'used up' } }, DEFAULT_SHOP)).id).toBe(
      DEFAULT_SHOP.glue,
    );
  });
});
