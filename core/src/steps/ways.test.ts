import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { proudBy } from '../board/allowances.ts';
import { showsOf } from '../board/board.ts';
import { BARE_SHOP, DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';
import { flatteningWays, LANE_SHARE, passDepthFor, straightEdgeOf, wayTaken } from './ways.ts';
import type { Face } from './instruction.ts';
import { stripsOf } from '../board/recipe.ts';

const face = (change: Partial<Face> = {}): Face => ({
  length: 430,
  width: 250,
  removal: 1.5,
  hardness: 5000,
  ...change,
});
const all: Shop = {
  ...DEFAULT_SHOP,
  drumSander: { width: 400, passDepth: 0.3, leastLength: 60 },
  routerSled: { width: 600, bit: 30, passDepth: 1 },
  handTools: { planes: true, beltSander: true, orbitalSander: true },
};

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
    expect(wide.filter((w) => w.cannot === null).map((w) => w.id)).toEqual([
      'routerSled',
      'handPlanes',
      'beltSander',
      'orbital',
    ]);
    // The habit cannot be kept: the quickest that the shop has.
    expect(wayTaken(wide, 'planer').id).toBe('beltSander');
    expect(wayTaken(flatteningWays([face()], all, 'panel'), 'drum').id).toBe('drum');
    // Nothing owned: the first that anybody could borrow.
    expect(
      wayTaken(
        flatteningWays(
          [face()],
          { ...BARE_SHOP, handTools: { planes: false, beltSander: false, orbitalSander: false } },
          'panel',
        ),
        'orbital',
      ).owned,
    ).toBe(false);
  });

  it("minutes go with the person's pace, and more wood never takes less", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 6, noNaN: true }),
        fc.double({ min: 1.1, max: 3, noNaN: true }),
        (removal, slower) => {
          const minutes = (removed: number, work: number) =>
            flatteningWays([face({ removal: removed })], { ...all, pace: { ...all.pace, work } }, 'panel').map(
              (w) => w.minutes,
            );
          minutes(removal, slower).forEach((m, i) => expect(m).toBeGreaterThan(minutes(removal, 1)[i]!));
          minutes(removal * 1.5, 1).forEach((m, i) => expect(m).toBeGreaterThanOrEqual(minutes(removal, 1)[i]!));
        },
      ),
    );
  });
});

describe('a shop without a jointer, or with a narrow one', () => {
  const steps = (shop: Shop, board = plainBoard()) => makePlan(planInput(board, [plainPiece()], shop)).operations;
  const by = (shop: Shop, kind: string, board = plainBoard()) =>
    steps(shop, board).find((o) => o.kind === kind)!.machine;

  it('never sends anybody to a machine that is not there', () => {
    const none = { ...DEFAULT_SHOP, jointer: null };
    expect([by(none, 'flatten'), by(none, 'jointEdge'), straightEdgeOf(none)]).toEqual([
      'Planer, first face on a shimmed sled',
      'Hand plane',
      'handPlane',
    ]);
    expect(straightEdgeOf({ ...none, handTools: { ...none.handTools, planes: false } })).toBe('stuck');
    expect(straightEdgeOf({ ...none, schools: { ...none.schools, straightEdge: 'carrier' } })).toBe('carrier');
  });

  it('whatever is missing, every step goes to something the shop has, or to hands, and names what would be quicker', () => {
    const some = fc.boolean();
    fc.assert(
      fc.property(
        planInputArbitrary,
        fc.record({ bandSaw: some, jointer: some, planer: some, router: some, planes: some, orbital: some }),
        fc.constantFrom<Shop['saw']['kind']>('table', 'circular', 'hand'),
        (input, has, kind) => {
          const shop: Shop = {
            ...input.shop,
            bandSaw: has.bandSaw ? all.bandSaw : null,
            jointer: has.jointer ? all.jointer : null,
            planer: has.planer ? all.planer : null,
            router: has.router ? all.router : null,
            saw: { ...input.shop.saw, kind },
            handTools: { planes: has.planes, beltSander: false, orbitalSander: has.orbital },
          };
          for (const op of makePlan({ ...input, shop }).operations) {
            const taken = op.ways.find((w) => w.name === op.machine);
            if (op.ways.length === 0) continue;
            const someOwned = op.ways.some((w) => w.owned && w.cannot === null);
            expect([op.kind, taken !== undefined, taken!.owned || !someOwned]).toEqual([op.kind, true, true]);
            expect(op.minutes).toBeGreaterThan(0);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('edges without a router are planed or sanded, an under-bevel goes to the table saw, and it is said what a router saves (by hand: 14 against 8 minutes)', () => {
    const edges = (change: Partial<Shop>) => steps({ ...DEFAULT_SHOP, ...change }).find((o) => o.kind === 'edges')!;
    expect(edges({}).machine).toBe('Router');
    const none = edges({ router: null });
    expect([none.machine, none.minutes, none.ways.find((w) => w.id === 'router')]).toMatchObject([
      'Block plane',
      14,
      { owned: false, minutes: 8 },
    ]);
    expect(edges({ router: null, handTools: BARE_SHOP.handTools }).machine).toBe('Sanding block');
    expect(edges({ schools: { ...DEFAULT_SHOP.schools, edge: 'underBevel' } }).machine).toBe('Table saw, blade tilted');
    // A block plane cuts flats: a round-over is sanded where there is no router.
    expect(edges({ router: null, schools: { ...DEFAULT_SHOP.schools, edge: 'roundOver' } }).machine).toBe(
      'Sanding block',
    );
  });

  it('its width decides: stock of 150 mm does not go over a jointer of 100', () => {
    expect(by({ ...DEFAULT_SHOP, jointer: { ...DEFAULT_SHOP.jointer!, width: 100 } }, 'flatten')).toBe(
      'Planer, first face on a shimmed sled',
    );
    expect(by(DEFAULT_SHOP, 'flatten')).toBe('Jointer and planer');
  });

  it('a strip wider than the planer is not ripped in two: something else flattens it', () => {
    const board = plainBoard({ construction: 'face', width: 124, thickness: 20 }, [130]);
    const narrow = { ...DEFAULT_SHOP, planer: { ...DEFAULT_SHOP.planer!, width: 80 } };
    expect(by(narrow, 'flatten', board)).toBe('Hand planes');
  });
});

it('no wood is lost or made: strips add up to the panel, and each step from the glue-up to the last sanding begins with what the one before left', () => {
  fc.assert(
    fc.property(planInputArbitrary, (input) => {
      const { operations, ladders, strips, allowances, panelWidth } = makePlan(input);
      const steps = operations.filter((o) =>
        ['flattenPanel', 'trimEdges', 'trimEnds', 'cutApart', 'sand'].includes(o.kind),
      );
      if (strips.length === 0 || steps.length !== 4) return;
      const panel = allowances.panels[0]!;
      const over = (i: number) =>
        showsOf(input.board.construction, stripsOf(input.board)[i]!) === 'edge'
          ? proudBy(allowances, stripsOf(input.board)[i]!.width)
          : 0;
      const glued = strips[0]!.milled.thickness - over(0);
      const size = {
        length: panel.length,
        width: panelWidth,
        thickness: operations.some((o) => o.kind === 'flattenSections') ? steps[0]!.parts[0]!.before : glued,
      };
      const volume = () => size.length * size.width * size.thickness;
      expect(
        strips.reduce((sum, s, i) => sum + panel.length * s.milled.width * (s.milled.thickness - over(i)), 0),
      ).toBeCloseTo(panel.length * panelWidth * glued, 3);
      let [left, chips] = [volume(), 0];
      for (const {
        kind,
        parts: [part],
      } of steps) {
        expect([kind, part!.before.toFixed(6)]).toEqual([kind, size[part!.dimension].toFixed(6)]);
        expect(part!.after).toBeLessThanOrEqual(part!.before + 1e-9);
        size[part!.dimension] = kind === 'cutApart' ? panel.boards * part!.after : part!.after;
        chips += left - volume();
        left = volume();
      }
      const finished = panel.boards * input.board.length * ladders.width.reached * ladders.thickness.reached;
      expect(left).toBeCloseTo(finished, 3);
      expect(chips).toBeCloseTo(
        (operations.some((o) => o.kind === 'flattenSections') ? steps[0]!.parts[0]!.before : glued) *
          panel.length *
          panelWidth -
          finished,
        2,
      );
    }),
  );
});
