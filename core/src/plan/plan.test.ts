import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { usableSize } from '../cutting/usable.ts';
import { passCount } from '../shop/machines.ts';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { makePlan } from './plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from './planArbitrary.ts';

const inch = (n: number) => n * 25.4;

describe('ladders', () => {
  it('add up rung by rung, and end at the size that is reached', () => {
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const { ladders } = makePlan(input);
        for (const ladder of Object.values(ladders)) {
          let size = ladder.rungs[0]?.before;
          for (const rung of ladder.rungs) {
            expect(rung.before).toBe(size);
            expect(rung.before - rung.taken).toBeCloseTo(rung.after, 9);
            expect(rung.taken).toBeGreaterThan(0);
            expect(rung.after).toBeGreaterThanOrEqual(0);
            size = rung.after;
          }
          expect(ladder.reached).toBe(size ?? ladder.reached);
          expect(ladder.target - ladder.reached).toBeCloseTo(ladder.shortBy, 6);
        }
      }),
    );
  });

  it('end exactly at the finished size when the stock is enough', () => {
    const plan = makePlan(planInput(plainBoard(), [plainPiece()]));
    expect(plan.ladders.thickness.reached).toBeCloseTo(30, 9);
    expect(plan.ladders.width.reached).toBeCloseTo(260, 9);
    expect(plan.ladders.length.reached).toBeCloseTo(400, 9);
    // 429 long blanks for 400: 20 to 40 mm over on 360 to 380 is common practice.
    expect(plan.allowances.roughLength).toBe(400 + 3 + 2 * (10 + 3));
  });

  it('4/4 rough stock planes to about 7/8 in (common practice)', () => {
    expect(
      usableSize(plainPiece({ thickness: inch(1) }), DEFAULT_SHOP, { length: 429, width: 32 }).thickness,
    ).toBeCloseTo(inch(7 / 8), 1);
  });

  it('a wanted 20 mm becomes 17 when one piece begins at 20 (common practice), and names that piece', () => {
    const board = plainBoard({ construction: 'face', thickness: 20, width: 150 }, [80, 80]);
    const thin = plainPiece({ id: 'thin', mark: 'T1', thickness: 20, surface: 'twoFaces', width: 90, length: 450 });
    const { thickness } = makePlan(
      planInput(board, [thin, plainPiece({ thickness: 20, surface: 'twoFaces', id: 'p2', mark: 'P2' })]),
    ).ladders;
    expect(thickness.reached).toBeGreaterThanOrEqual(17);
    expect(thickness.reached).toBeLessThan(17.5);
    expect(thickness.shortBy).toBeCloseTo(20 - thickness.reached, 9);
    expect(thickness.limiting?.[0]).toMatch(/^(T1|P2)$/);
  });
});

describe('materials', () => {
  it('weigh what strips of their finished size and density weigh', () => {
    // By hand: 0.4 m x 0.26 m x 0.03 m of hard maple at 705.6 kg/m3.
    const { materials } = makePlan(planInput(plainBoard(), [plainPiece({ price: { amount: 10, per: 'boardFoot' } })]));
    expect(materials.gramsEach).toBeCloseTo(0.4 * 0.26 * 0.03 * 705.6 * 1000, 6);
    expect(materials.finished.cubicMetres).toBeCloseTo(0.4 * 0.26 * 0.03, 12);
    // Two blanks (four 32 mm rips in 148 mm) of 429 + 3 mm at 150 x 50 mm.
    expect(materials.taken.cubicMetres).toBeCloseTo((2 * 432 * 150 * 50) / 1e9, 12);
    // Used up: 874 mm of the piece; beside the second blank's two rips 78 mm go back, at half their worth.
    expect(materials.cost).toBeCloseTo((((874 * 150 - 0.5 * 429 * 78) * 50) / 2_359_737) * 10, 4);
  });

  it('never make more board than wood was taken, and say which pieces have no price', () => {
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const { materials, strips, ladders } = makePlan(input);
        expect(materials.yield ?? 0).toBeLessThanOrEqual(1);
        expect(materials.unpriced.length > 0).toBe(materials.yield !== null);
        const shown = strips.reduce((sum, s) => sum + s.finished.width, 0);
        expect(shown).toBeCloseTo(ladders.width.reached, 6);
        for (const { rough, milled, finished } of strips) {
          for (const size of [rough, milled, finished])
            expect(Math.min(size.length, size.width, size.thickness)).toBeGreaterThanOrEqual(0);
        }
      }),
    );
  });
});

describe('operations', () => {
  it('come in working order, and mill only what the cut plan gives', () => {
    const order = [
      'crosscut',
      'split',
      'flatten',
      'jointEdge',
      'rip',
      'remill',
      'resaw',
      'planeStrips',
      'jointStrips',
      'layOut',
      'keys',
      'dryRun',
      'glue',
      'flattenSections',
      'join',
      'scrape',
      'flattenPanel',
      'trimEdges',
      'cutApart',
      'trimEnds',
      'corners',
      'groove',
      'edges',
      'holds',
      'handles',
      'bores',
      'sand',
      'engrave',
      'raiseGrain',
      'oil',
      'topCoat',
      'feet',
    ];
    fc.assert(
      fc.property(planInputArbitrary, (input) => {
        const { operations, cutting } = makePlan(input);
        // Planks that are flattened at full length come before everything.
        const places = operations
          .filter((o, i) => !(o.kind === 'flatten' && i === 0))
          .map((o) => order.indexOf(o.kind));
        expect(Math.min(0, ...places)).toBe(0);
        for (const o of operations)
          for (const change of o.parts) expect(change.before).toBeGreaterThanOrEqual(change.after - 1e-9);
        for (const o of operations) for (const change of o.parts) expect(change.after).toBeGreaterThanOrEqual(0);
        for (const o of operations) expect(o.minutes >= 0 && Number.isFinite(o.minutes)).toBe(true);
        expect(places).toEqual([...places].sort((a, b) => a - b));
        expect(operations.map((o) => o.number)).toEqual(operations.map((_, i) => i + 1));
        expect(operations.some((o) => o.kind === 'rip')).toBe(cutting.blanks.length > 0);
      }),
    );
  });

  it('set fences and stops to the sizes of the ladder', () => {
    const { operations } = makePlan(planInput(plainBoard(), [plainPiece()]));
    const setting = (kind: string) => operations.find((o) => o.kind === kind)!.settings.map((s) => s.value.mm);
    expect(setting('crosscut')).toEqual([429]);
    expect(setting('flatten')).toEqual([46]);
    expect(setting('rip')).toEqual([32]);
    // A millimetre is left on the last cut until it has been measured.
    expect(setting('trimEnds')).toEqual([401, 400]);
    // The panel is 276 wide: 8 off each side of 260.
    expect(setting('trimEdges')).toEqual([268, 260]);
  });

  it('passes are removal over the depth of one, which halves at full width', () => {
    const planer = DEFAULT_SHOP.planer!;
    expect(passCount(planer, 130, 3)).toBe(2);
    expect(passCount(planer, 260, 3)).toBe(4);
    expect(passCount(planer, 100, 0)).toBe(0);
  });
});

it('a plan does not depend on the order of the rack', () => {
  fc.assert(
    fc.property(planInputArbitrary, (input) => {
      expect(makePlan({ ...input, rack: [...input.rack].reverse() }).cutting.blanks).toEqual(
        makePlan(input).cutting.blanks,
      );
    }),
  );
});

it('snipe longer than the usual trim lengthens the blanks', () => {
  const shop: Shop = { ...DEFAULT_SHOP, planer: { ...DEFAULT_SHOP.planer!, snipe: 40 } };
  expect(makePlan(planInput(plainBoard(), [plainPiece()], shop)).allowances.roughLength).toBe(400 + 3 + 2 * 43);
});

it('strips that are all left fat are pressed as tall as they are, others as tall as the rest', () => {
  const shop: Shop = { ...DEFAULT_SHOP, schools: { ...DEFAULT_SHOP.schools, thin: 'fat' } };
  const pressed = (widths: number[]) => {
    const { gluing, allowances } = makePlan(planInput(plainBoard({}, widths), [plainPiece()], shop));
    const { placed, pressure } = gluing.glueUps[0]!.clamps;
    const force = placed.reduce((sum, { kind }) => sum + shop.clamps.find((c) => c.kind === kind)!.force, 0);
    const tall = (force * 1000) / (pressure * allowances.panels[0]!.length) - allowances.glueThickness;
    return [tall, allowances.proud.by] as const;
  };
  const [tall, by] = pressed([5, 5]);
  expect(by).toBeGreaterThan(1);
  expect(tall).toBeCloseTo(by, 6);
  expect(pressed([5, 40])[0]).toBeCloseTo(0, 6);
});
