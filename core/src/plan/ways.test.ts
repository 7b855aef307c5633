import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BARE_SHOP, DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { makePlan } from './plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from './planArbitrary.ts';
import { flatteningWays, LANE_SHARE, passDepthFor, straightEdgeOf, wayTaken, type Face } from './ways.ts';

const face = (change: Partial<Face> = {}): Face => ({ length: 430, width: 250, removal: 1.5, hardness: 5000, ...change });
const all: Shop = { ...DEFAULT_SHOP, drumSander: { width: 400, passDepth: 0.3, leastLength: 60 }, routerSled: { width: 600, bit: 30, passDepth: 1 }, handTools: { planes: true, beltSander: true, orbitalSander: true } };

describe('flatteningWays', () => {
  it('counts passes by removal over depth: drum 1.5 / 0.3, and lanes of a router sled that cover the width twice (by hand)', () => {
    const ways = flatteningWays([face()], all, 'panel');
    expect(ways.find((w) => w.id === 'drum')!.passes).toBe(5);
    // 250 mm in lanes of 18 mm are 14; one depth on each face.
    expect(ways.find((w) => w.id === 'routerSled')!.passes).toBe(28);
    expect(14 * 30 * LANE_SHARE).toBeGreaterThanOrEqual(250);
  });

  it('the harder and the wider, the shallower the pass', () => {
    const planer = DEFAULT_SHOP.planer!;
    expect(passDepthFor(planer, { width: 100, hardness: 4000 })).toBe(1.5);
    expect(passDepthFor(planer, { width: 260, hardness: 4000 })).toBe(0.75);
    expect(passDepthFor(planer, { width: 100, hardness: 7000 })).toBeCloseTo(1.2, 9);
  });

  it('what is too wide or too short for a machine is not taken, whatever the habit; hands always can', () => {
    const wide = flatteningWays([face({ width: 450 })], all, 'panel');
    expect(wide.filter((w) => w.cannot === null).map((w) => w.id)).toEqual(['routerSled', 'handPlanes', 'beltSander', 'orbital']);
    // The habit cannot be kept: the quickest that the shop has.
    expect(wayTaken(wide, 'planer').id).toBe('beltSander');
    expect(wayTaken(flatteningWays([face()], all, 'panel'), 'drum').id).toBe('drum');
    // Nothing owned: the first that anybody could borrow.
    expect(wayTaken(flatteningWays([face()], { ...BARE_SHOP, handTools: { planes: false, beltSander: false, orbitalSander: false } }, 'panel'), 'orbital').owned).toBe(false);
  });

  it('minutes go with the person\'s pace, and more wood never takes less', () => {
    fc.assert(fc.property(fc.double({ min: 0.2, max: 6, noNaN: true }), fc.double({ min: 1.1, max: 3, noNaN: true }), (removal, slower) => {
      const minutes = (removed: number, work: number) => flatteningWays([face({ removal: removed })], { ...all, pace: { ...all.pace, work } }, 'panel').map((w) => w.minutes);
      minutes(removal, slower).forEach((m, i) => expect(m).toBeGreaterThan(minutes(removal, 1)[i]!));
      minutes(removal * 1.5, 1).forEach((m, i) => expect(m).toBeGreaterThanOrEqual(minutes(removal, 1)[i]!));
    }));
  });
});

describe('a shop without a jointer, or with a narrow one', () => {
  const steps = (shop: Shop, board = plainBoard()) => makePlan(planInput(board, [plainPiece()], shop)).operations;
  const by = (shop: Shop, kind: string, board = plainBoard()) => steps(shop, board).find((o) => o.kind === kind)!.machine;

  it('never sends anybody to a machine that is not there', () => {
    const none = { ...DEFAULT_SHOP, jointer: null };
    expect([by(none, 'flatten'), by(none, 'jointEdge'), straightEdgeOf(none)]).toEqual(['Planer, first face on a shimmed sled', null, 'handPlane']);
    expect(straightEdgeOf({ ...none, handTools: { ...none.handTools, planes: false } })).toBe('stuck');
    expect(straightEdgeOf({ ...none, schools: { ...none.schools, straightEdge: 'carrier' } })).toBe('carrier');
  });

  it('its width decides: stock of 150 mm does not go over a jointer of 100', () => {
    expect(by({ ...DEFAULT_SHOP, jointer: { ...DEFAULT_SHOP.jointer!, width: 100 } }, 'flatten')).toBe('Planer, first face on a shimmed sled');
    expect(by(DEFAULT_SHOP, 'flatten')).toBe('Jointer and planer');
  });

  it('a strip wider than the planer is not ripped in two: something else flattens it', () => {
    const board = plainBoard({ construction: 'face', width: 124, thickness: 20 }, [130]);
    const narrow = { ...DEFAULT_SHOP, planer: { ...DEFAULT_SHOP.planer!, width: 80 } };
    expect(by(narrow, 'flatten', board)).toBe('Hand planes');
  });
});

it('steps hand on what the ladder says: no thickness is lost or made between the glue-up and the last sanding', () => {
  fc.assert(fc.property(planInputArbitrary, (input) => {
    const { operations, ladders } = makePlan(input);
    const change = (kind: string) => operations.find((o) => o.kind === kind)?.parts[0];
    const [flatten, sand] = [change('flattenPanel'), change('sand')];
    if (!flatten || !sand) return;
    expect(sand.before).toBeCloseTo(flatten.after, 9);
    expect(sand.after).toBe(ladders.thickness.reached);
    if (!operations.some((o) => o.kind === 'flattenSections') && flatten.after > 0) {
      const rung = ladders.thickness.rungs.find((r) => r.id === 'flatten-panel')!;
      expect([flatten.before, flatten.after].map((v) => v.toFixed(6))).toEqual([rung.before.toFixed(6), rung.after.toFixed(6)]);
    }
  }));
});
