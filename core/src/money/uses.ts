import type { Coating } from '../finish/finishPlan.ts';
import { nth } from '../lists/there.ts';
import { machinesOf } from '../steps/machinesOf.ts';
import type { Shop } from '../shop/shop.ts';
import type { ToolId } from '../shop/tools.ts';
import { ofKind } from '../steps/instruction.ts';
import type { Operation } from '../steps/operation.ts';

/** What a board takes beside wood, all copies together: one source for its cost and for what is to be bought. */
export interface Uses {
  /** Grams of each glue, by its id. */
  glue: Map<string, number>;
  /** Grams and millilitres of each finish, by its id. */
  finish: Map<string, { grams: number; ml: number }>;
  /** Square metres that are gone over with paper, each grit for itself, and sheets for them. */
  sanded: number;
  sheets: number;
  feet: number;
  fittings: number;
  /** Hands-on minutes, and those of each machine. */
  minutes: number;
  machines: Map<ToolId, number>;
}

const add = <K>(map: Map<K, number>, key: K, by: number): Map<K, number> => map.set(key, (map.get(key) ?? 0) + by);

/** @param coatings of one board @param count boards of the batch */
export function usesOf(
  operations: readonly Operation[],
  coatings: readonly Coating[],
  count: number,
  shop: Pick<Shop, 'saw' | 'prices'>,
): Uses {
  const uses: Uses = {
    glue: new Map(),
    finish: new Map(),
    sanded: 0,
    sheets: 0,
    feet: 0,
    fittings: 0,
    minutes: 0,
    machines: new Map(),
  };
  for (const { instructions, minutes, repeats, resources } of operations) {
    for (const i of ofKind(instructions, 'glue')) add(uses.glue, i.glue, i.grams);
    for (const i of ofKind(instructions, 'sand')) uses.sanded += i.area.squareMetres * i.grits.length;
    for (const i of ofKind(instructions, 'resand')) uses.sanded += i.area.squareMetres;
    for (const i of ofKind(instructions, 'feet')) uses.feet += i.parts.length * i.count;
    for (const i of ofKind(instructions, 'fit')) uses.fittings += i.parts.length * i.count;
    uses.minutes += minutes * repeats;
    for (const machine of machinesOf(resources.tools, shop)) add(uses.machines, machine, minutes * repeats);
  }
  uses.finish = finishUses(coatings, count);
  uses.sheets = uses.sanded / shop.prices.paperSheetM2;
  return uses;
}

/** How much of each finish goes on all copies, by its id. @param coatings of one board */
export function finishUses(coatings: readonly Coating[], count: number): Uses['finish'] {
  const used: Uses['finish'] = new Map();
  for (const { finish, amount } of coatings) {
    const before = used.get(finish.id) ?? { grams: 0, ml: 0 };
    const grams = amount.total * count;
    used.set(finish.id, { grams: before.grams + grams, ml: before.ml + grams / finish.density });
  }
  return used;
}

/** The finish that a list of them names. */
export const finishNamed = (shop: Pick<Shop, 'finishes'>, id: string): Shop['finishes'][number] | undefined =>
  shop.finishes.find((f) => f.id === id);

/** The glue that a list of them names. */
export const glueNamed = (shop: Pick<Shop, 'glues'>, id: string): Shop['glues'][number] =>
  shop.glues.find((g) => g.id === id) ?? nth(shop.glues, 0);
