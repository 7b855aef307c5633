import { describe, expect, it } from 'vitest';
import type { Board } from '../board/board.ts';
import { flatRecipe, stripsOf, withStrips } from '../board/recipe.ts';
import { makePlan } from '../plan/plan.ts';
import { panelFacts, plainBoard, plainPiece, planInput } from '../plan/planArbitrary.ts';
import { DEFAULT_SHOP, type Shop } from '../shop/shop.ts';
import type { Piece } from '../stock/piece.ts';
import { DEFAULT_DISPLAY } from '../units/formatLength.ts';
import { phraseText } from '../units/phrase.ts';
import { checkPlan } from './checkPlan.ts';
import type { Fact } from '../facts/fact.ts';

const PLANK = [plainPiece({ length: 4000 })];
const shopWith = (change: Partial<Shop>): Shop => ({ ...DEFAULT_SHOP, ...change });

/** What one rule says of a board; nothing where it is silent. */
function says(
  rule: string,
  board: Board,
  rack: Piece[] = PLANK,
  shop: Shop = DEFAULT_SHOP,
  facts: Fact[] = [],
): string[] {
  const input = { ...planInput(board, rack, shop), facts };
  return checkPlan(makePlan(input), input)
    .filter((f) => f.rule === rule)
    .map((f) => phraseText(f.what, DEFAULT_DISPLAY));
}

describe('just within a limit a rule is silent, just beyond it speaks', () => {
  it('panel-width: as wide as board and trims, a little less, a little more', () => {
    // 260 and twice 3 mm of edge trim.
    const of = (width: number) => says('panel-width', plainBoard({ width: 260 }, [width / 2, width / 2]));
    expect(of(266)).toEqual([]);
    expect(of(265.9)).toHaveLength(1);
  });

  it('open-time: a glue that stays open just so long, or shorter than laying takes', () => {
    const quick = (openMinutes: number) =>
      shopWith({
        glues: DEFAULT_SHOP.glues.map((g) => ({ ...g, openMinutes })),
        pace: { ...DEFAULT_SHOP.pace, reserve: 1 },
      });
    // Two strips on one joint of 429 x 32 mm: 0.0137 m2 at 45 min and two strips at 0.2 min are 1.02 min.
    const two = plainBoard({ width: 86 }, [46, 46]);
    expect(says('open-time', two, PLANK, quick(1.1))).toEqual([]);
    expect(says('open-time', two, PLANK, quick(1))).toEqual([
      expect.stringMatching(/^Laying 2 pieces together takes 1\.0 min; .* stays open for 1\.0 min/),
    ]);
  });

  it('food-contact: of every species people differ on, and of no other', () => {
    const of = (species: string) =>
      says(
        'food-contact',
        withStrips(
          plainBoard(),
          stripsOf(plainBoard()).map((s) => ({ ...s, species })),
        ),
        [plainPiece({ length: 4000, species })],
      );
    expect(of('maple-hard')).toEqual([]);
    expect(of('iroko')).toEqual([expect.stringMatching(/^Iroko: /)]);
    expect(of('robinia')).toEqual([expect.stringMatching(/^Robinia: .*poisonous/)]);
  });

  it('others-missing: another board that has room on the panel, and one that has none', () => {
    const with1 = (width: number) =>
      says(
        'others-missing',
        plainBoard({ worked: { ...plainBoard().worked, others: [{ id: 'o1', name: 'Small', length: 100, width }] } }),
      );
    expect(with1(100)).toEqual([]);
    expect(with1(400)).toEqual(['1 of 1 other boards has no room on the panel.']);
  });

  it('mixed-orders: long and short blanks of one bowed plank, where the machines take only the long ones by themselves', () => {
    const form = { bow: 8, cup: 0, crook: 0, twist: 0 };
    const bowed = (['p1', 'p2'] as const).map((id) =>
      plainPiece({ id, mark: id.toUpperCase(), length: 4000, thickness: 60, form }),
    );
    // Panels of two boards and of one: 832 and 429 long.
    const shortest = (leastLength: number) =>
      says(
        'mixed-orders',
        plainBoard({ count: 3, perPanel: 2 }),
        bowed,
        shopWith({
          planer: { ...DEFAULT_SHOP.planer!, leastLength },
          jointer: { ...DEFAULT_SHOP.jointer!, leastLength },
        }),
      );
    expect(shortest(429)).toEqual([]);
    expect(shortest(430).length).toBeGreaterThan(0);
    for (const text of shortest(430)) expect(text).toMatch(/is flattened at full length for its short parts/);
  });

  it('narrow-for-planer: what is flattened is at least as wide as the planer asks for', () => {
    const narrow = (leastWidth: number) =>
      says(
        'narrow-for-planer',
        plainBoard({ width: 86 }, [46, 46]),
        [plainPiece({ length: 900, width: 80, thickness: 50 })],
        shopWith({ planer: { ...DEFAULT_SHOP.planer!, leastWidth } }),
      );
    expect(narrow(20)).toEqual([]);
    expect(narrow(80)).toEqual([]);
    expect(narrow(81)).toHaveLength(1);
  });
});

describe('every finding', () => {
  const boards: Board[] = [
    plainBoard(),
    plainBoard({ thickness: 9 }),
    plainBoard({ recipe: flatRecipe([]) }),
    plainBoard({ count: 4, perPanel: 2, length: 700 }),
    plainBoard({ construction: 'face', thickness: 60 }),
    withStrips(
      plainBoard(),
      stripsOf(plainBoard()).map((s, i) => ({
        ...s,
        species: i % 2 ? 'padauk' : 'maple-hard',
        endForEnd: i % 3 === 0,
      })),
    ),
  ];
  const shops: Shop[] = [
    DEFAULT_SHOP,
    shopWith({ planer: null, jointer: null }),
    shopWith({ clamps: [] }),
    shopWith({ room: { temperature: 6, humidity: 80 } }),
  ];
  const all = boards.flatMap((board) =>
    shops.flatMap((shop) => {
      const input = {
        ...planInput(board, [plainPiece({ length: 900 })], shop),
        facts: panelFacts(500, [{ id: 's', x: 20, y: 20, length: 30, width: 30, what: 'Gap' }]),
      };
      return checkPlan(makePlan(input), input);
    }),
  );

  it('says what is wrong, why it matters and at least one way out, in whole sentences', () => {
    expect(all.length).toBeGreaterThan(60);
    for (const f of all) {
      const [what, why] = [f.what, f.why].map((p) => phraseText(p, DEFAULT_DISPLAY));
      expect([f.rule, /[.!?]$/.test(what!), /[.!?]$/.test(why!)]).toEqual([f.rule, true, true]);
      expect([f.rule, f.waysOut.length > 0]).toEqual([f.rule, true]);
      for (const way of f.waysOut)
        expect([f.rule, phraseText(way, DEFAULT_DISPLAY)]).toEqual([f.rule, expect.stringMatching(/^[A-Z“"].*[.!?]$/)]);
      expect([f.rule, /NaN|undefined|Infinity/.test(`${what} ${why}`)]).toEqual([f.rule, false]);
    }
  });

  it('names a station, and only strips that there are', () => {
    for (const f of all) {
      expect(['mill', 'glue', 'trim', null, undefined, 'layout', 'cuts', 'brief']).toContain(f.station);
      for (const strip of f.strips) expect(strip).toBeGreaterThanOrEqual(1);
    }
  });
});
