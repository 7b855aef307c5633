import Big from 'big.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makePlan } from '../plan/plan.ts';
import { plainBoard, plainPiece, planInput, planInputArbitrary } from '../plan/planArbitrary.ts';
import { NO_PRICES } from '../shop/prices.ts';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import type { Operation } from '../steps/operation.ts';
import { HANDBOOK_SPECIES } from '../wood/handbookSpecies.ts';
import { amountOf, decimalsOf, sumOf, times } from './amount.ts';
import { costOf, finishCost, type Cost } from './cost.ts';
import { machineSavings, payBackOf } from './machineSaving.ts';
import { hourOf, pricesOf, withTax } from './price.ts';
import { shoppingList } from './shopping.ts';
import { stockValue } from './stockValue.ts';
import { finishUses, usesOf, type Uses } from './uses.ts';

const told = (amounts: readonly (Big | null)[]) => amounts.map((a) => a?.toString() ?? null);

describe('amounts', () => {
  it('are exact where floats are not', () => {
    expect(sumOf([amountOf(0.1, 'EUR'), amountOf(0.2, 'EUR')]).toString()).toBe('0.3');
    expect(sumOf(Array.from({ length: 1000 }, () => amountOf(0.01, 'EUR'))).toString()).toBe('10');
    // 1.005 is a little less as a float, and would be rounded down.
    expect(amountOf(1.005, 'EUR').toString()).toBe('1.01');
    expect(times(14.8, 0.051, 'EUR').toString()).toBe('0.75');
  });

  // Minor units by ISO 4217: 2 for EUR and USD, 0 for JPY, 3 for KWD.
  it.each([
    ['EUR', 2],
    ['USD', 2],
    ['JPY', 0],
    ['KWD', 3],
    ['QQQ', 2],
  ])('%s has %i decimals', (currency, decimals) => {
    expect(decimalsOf(currency)).toBe(decimals);
  });
});

const uses = (change: Partial<Uses> = {}): Uses => ({
  glue: new Map(),
  finish: new Map(),
  sanded: 0,
  sheets: 0,
  feet: 0,
  fittings: 0,
  minutes: 0,
  machines: new Map(),
  ...change,
});
const WOOD = { cost: 0, unpriced: [], currency: 'EUR' };
const shopWith = (prices: Partial<Shop['prices']>, change: Partial<Shop> = {}): Shop => ({
  ...DEFAULT_SHOP,
  prices: { ...NO_PRICES, ...prices },
  ...change,
});

describe('cost', () => {
  it('worked by hand: 20 of wood, 90 min at 24, 4 feet at 0.9, a quarter of a month of 80', () => {
    const cost = costOf(
      uses({ minutes: 90, feet: 4, machines: new Map([['planer', 30]]) }),
      { ...WOOD, cost: 20 },
      1,
      shopWith({ wage: 24, foot: 0.9, fixedMonth: 80, boardsMonth: 4, machines: [{ tool: 'planer', hour: 5 }] }),
    );
    const by = Object.fromEntries(cost.parts.map((p) => [p.kind, p.amount.toString()]));
    expect(by).toEqual({
      wood: '20',
      glue: '0',
      finish: '0',
      paper: '0',
      parts: '3.6',
      work: '36',
      machines: '2.5',
      fixed: '20',
    });
    expect([cost.total.toString(), cost.withoutWork.toString(), cost.hours]).toEqual(['82.1', '46.1', 1.5]);
  });

  it('of any planned board: every part is the sum of its rows, the whole of its parts, and each row what it says times what it says', () => {
    const glues = DEFAULT_SHOP.glues.map((g) => ({ ...g, pricePerKg: 13.37 }));
    fc.assert(
      fc.property(planInputArbitrary, fc.double({ min: 0, max: 90, noNaN: true }), (input, wage) => {
        const plan = makePlan(input);
        const prices = { ...NO_PRICES, wage: Math.round(wage * 100) / 100, paperSheet: 0.55 };
        const shop = { ...plan.shop, glues, prices };
        const cost = costOf(
          usesOf(plan.operations, plan.finish.coatings, input.board.count, shop),
          plan.materials,
          input.board.count,
          shop,
        );
        expect(cost.total.eq(sumOf(cost.parts.map((p) => p.amount)))).toBe(true);
        for (const part of cost.parts) {
          expect(part.amount.eq(sumOf(part.rows.map((r) => r.amount)))).toBe(true);
          expect(part.amount.gte(0)).toBe(true);
          for (const { quantity, price, amount } of part.rows.filter((r) => r.price !== '' && part.kind !== 'fixed'))
            expect(new Big(parseFloat(quantity)).times(parseFloat(price)).round(2, Big.roundHalfUp).eq(amount)).toBe(
              true,
            );
        }
      }),
      { numRuns: 60 },
    );
  });

  it('what has no price is named and not in the sum; in a currency without cents there are none', () => {
    const cost = costOf(
      uses({ glue: new Map([['water-resistant', 120]]), sheets: 3, minutes: 50 }),
      { ...WOOD, cost: 1234.56, currency: 'JPY' },
      1,
      shopWith({ wage: 1500 }),
    );
    expect(cost.parts.find((p) => p.kind === 'glue')!.unpriced).toEqual(['Water-resistant wood glue']);
    expect(cost.parts.find((p) => p.kind === 'paper')!.unpriced).toEqual(['Paper']);
    expect(cost.total.toString()).toBe('2480');
  });
});

describe('what a finish costs', () => {
  const shop = {
    finishes: DEFAULT_SHOP.finishes.map((f) => ({ ...f, pricePerLitre: f.id === 'mineral-oil' ? 20 : null })),
  };
  const of = (finish: string[], count: number) => {
    const input = planInput(plainBoard({ finish, count }), [plainPiece({ length: 4000 })]);
    const { coatings } = makePlan({ ...input, shop: { ...DEFAULT_SHOP, ...shop } }).finish;
    return { coatings, cost: finishCost(finishUses(coatings, count), shop, 'EUR') };
  };

  it('is its whole millilitres at the price of a litre, all copies together, and what has no price is named', () => {
    const { coatings, cost } = of(['mineral-oil'], 3);
    const ml = Math.round((coatings[0]!.amount.total * 3) / 0.86);
    expect(cost.amount.toString()).toBe(new Big(ml).times(20).div(1000).round(2, Big.roundHalfUp).toString());
    expect(of(['mineral-oil', 'wax-oil'], 1).cost.unpriced).toEqual(['Wax and oil blend']);
    expect(of([], 1).cost).toEqual({ rows: [], amount: new Big(0), unpriced: [] });
  });
});

describe('prices', () => {
  const cost = (change: Partial<Cost> = {}): Cost => ({
    currency: 'EUR',
    count: 1,
    parts: [],
    total: new Big(100),
    withoutWork: new Big(40),
    hours: 3,
    ...change,
  });
  const size = { length: 400, width: 250 };

  it('worked by hand: a third on 100, 20 an hour for 3 hours, and twice the area of one that was asked 50 for', () => {
    const earlier = [{ name: 'Small one', length: 250, width: 200, price: 50 }];
    const prices = pricesOf(cost(), size, earlier, { markup: 0.33, wage: 20 });
    expect(told(prices.map((p) => p.each))).toEqual(['133', '100', '100']);
    expect(told(prices.map((p) => p.hour))).toEqual(['31', '20', '20']);
  });

  it('paid the wage, an hour pays the wage, whatever the costs and the batch', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 100_000 }),
        fc.integer({ min: 0, max: 9_999 }),
        fc.integer({ min: 1, max: 2_000 }),
        fc.integer({ min: 1, max: 20 }),
        (other, wage, hours, count) => {
          const own = cost({ withoutWork: new Big(other).div(100), hours: hours / 100, count });
          const [, byWage] = pricesOf(own, size, [], { markup: 0, wage: wage / 100 });
          // The price of one is rounded to the coin: over the batch that is half a coin each.
          const off = hourOf(own, byWage!.each!)!.minus(new Big(wage).div(100)).abs();
          expect(off.lte(new Big(0.005).times(count).div(own.hours).plus(0.011))).toBe(true);
        },
      ),
    );
  });

  it('nothing to go by: no price, and what to say for one; a rate of zero is a rate', () => {
    const prices = pricesOf(cost({ hours: 0 }), size, [], { markup: 0, wage: null });
    expect(told(prices.map((p) => p.each))).toEqual(['100', null, null]);
    expect(prices.map((p) => p.hour)).toEqual([null, null, null]);
    expect(prices[1]!.why).toContain('Say in the shop');
    expect(pricesOf(cost(), size, [], { markup: 0, wage: 0 })[1]!.each!.toString()).toBe('40');
  });

  it('tax is put on to the coin', () => {
    const { net, tax, gross } = withTax(new Big('118.13'), 0.2, 'EUR');
    expect(told([net, tax, gross])).toEqual(['118.13', '23.63', '141.76']);
  });
});

describe('what a machine would save', () => {
  it('counts where it is quicker than what is taken, with the thickness it leaves', () => {
    const way = (id: 'drum' | 'handPlanes', owned: boolean, minutes: number, extra: number) => ({
      id,
      name: id,
      owned,
      minutes,
      extra,
      passes: null,
      cannot: null,
    });
    const step = {
      number: 7,
      repeats: 2,
      machine: 'handPlanes',
      ways: [way('handPlanes', true, 30, 0.3), way('drum', false, 12, 0)],
    };
    expect(machineSavings([step as unknown as Operation])).toEqual([
      { tool: 'drumSander', minutes: 36, thickness: 0.3, steps: [7] },
    ]);
    const back = payBackOf(
      'drumSander',
      [
        { minutes: 30, thickness: 0 },
        { minutes: 0, thickness: 0 },
      ],
      40,
      {
        wage: 24,
        wished: [{ tool: 'drumSander', price: 950 }],
      },
    );
    // A quarter of an hour on average, at 24 an hour: 6 a board, 950 in 159 boards, four years of 40.
    expect([back.minutesEach, back.minutesYear, back.boards, back.years]).toEqual([15, 600, 159, 159 / 40]);
    expect(payBackOf('drumSander', [], 40, { wage: 24, wished: [] }).boards).toBeNull();
    expect(
      payBackOf('drumSander', [{ minutes: 9, thickness: 0 }], 40, {
        wage: 0,
        wished: [{ tool: 'drumSander', price: 9 }],
      }).boards,
    ).toBeNull();
  });
});

describe('shopping list', () => {
  const shop = shopWith(
    { foot: 0.9, footShelf: 4 },
    {
      glues: DEFAULT_SHOP.glues.map((g) => ({ ...g, shelfGrams: 60, pricePerKg: 15 })),
      finishes: DEFAULT_SHOP.finishes.map((f) => ({ ...f, shelfMl: null })),
    },
  );
  const needs = (id: string, own: Partial<Uses>) => ({ id, name: id, shortages: [], uses: uses(own) });

  it('takes off what is there, all boards together, and prices what is missing', () => {
    const lines = shoppingList(
      [
        needs('one', { glue: new Map([['water-resistant', 50]]), feet: 4 }),
        needs('two', {
          glue: new Map([['water-resistant', 70]]),
          finish: new Map([['mineral-oil', { grams: 86, ml: 100 }]]),
        }),
      ],
      shop,
      HANDBOOK_SPECIES,
    );
    expect(
      lines.map((l) =>
        l.kind === 'wood' ? l.id : [l.id, l.needed, l.shelf, l.buy, l.cost?.toString() ?? null, l.boards],
      ),
    ).toEqual([
      ['glue water-resistant', 120, 60, 60, '0.9', ['one', 'two']],
      ['finish mineral-oil', 100, null, 100, null, ['two']],
    ]);
  });

  it('wood comes in yard sizes, with other sizes that give all strips too, and like woods', () => {
    const input = planInput(plainBoard({ length: 400, width: 200, thickness: 25 }, [40, 40, 40, 40, 40]), [
      plainPiece({ mark: 'A1', length: 300, width: 60, thickness: 45 }),
    ]);
    const plan = makePlan(input);
    expect(plan.cutting.shortages.length).toBeGreaterThan(0);
    const [line] = shoppingList(
      [{ id: 'b', name: 'Board', shortages: plan.cutting.shortages, uses: uses() }],
      input.shop,
      input.species,
    );
    if (line?.kind !== 'wood') throw new Error('No wood is listed.');
    expect(line.buy).toEqual(plan.cutting.shortages[0]!.buy);
    const strip = plan.cutting.shortages[0]!;
    for (const { buy } of [line, ...line.alternatives]) {
      // Each way holds at least the wood of the strips, planed.
      const wood = buy.pieces * buy.length * buy.width * buy.thickness;
      expect(wood).toBeGreaterThan(strip.parts * strip.length * strip.rip * strip.thickness);
      expect(buy.length % 300).toBe(0);
    }
    expect(new Set(line.alternatives.map((a) => JSON.stringify(a.buy))).size).toBe(line.alternatives.length);
  });
});

describe('what the rack is worth', () => {
  it('worked by hand: a plank of 0.01 m³ at 2,000 a cubic metre twice, a board foot at 9.5, and one without a price', () => {
    const piece = (mark: string, change: Parameters<typeof plainPiece>[0]) => plainPiece({ id: mark, mark, ...change });
    const value = stockValue(
      [
        {
          since: 3,
          piece: piece('A', {
            length: 2000,
            width: 200,
            thickness: 25,
            count: 2,
            price: { amount: 2000, per: 'cubicMetre' },
          }),
        },
        // A board foot is 144 cubic inches.
        {
          since: 1,
          piece: piece('B', {
            length: 304.8,
            width: 304.8,
            thickness: 25.4,
            price: { amount: 9.5, per: 'boardFoot' },
            origin: { kind: 'offcut', of: '' },
          }),
        },
        { since: 2, piece: piece('C', { length: 500, width: 100, thickness: 20, price: null }) },
      ],
      HANDBOOK_SPECIES,
      'EUR',
    );
    expect(value.total.toString()).toBe('49.5');
    expect(value.oldest.map((v) => v.piece.mark)).toEqual(['B', 'C', 'A']);
    expect([value.leftovers.pieces, value.leftovers.value.toString(), value.unpriced]).toEqual([1, '9.5', 1]);
  });
});
