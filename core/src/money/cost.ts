import Big from 'big.js';
import type { Shop } from '../shop/shop.ts';
import { TOOL_NAMES } from '../shop/tools.ts';
import { amountOf, sumOf, times, type Amount } from './amount.ts';
import type { Materials } from './materials.ts';
import { finishNamed, glueNamed, type Uses } from './uses.ts';

export const COST_KINDS = ['wood', 'glue', 'finish', 'paper', 'parts', 'work', 'machines', 'fixed'] as const;
export type CostKind = (typeof COST_KINDS)[number];

/** A sum as it is reckoned: so much of something at a price. */
export interface CostRow {
  what: string;
  /** Quantity with its unit, and the price of one; empty where it comes as one figure. */
  quantity: string;
  price: string;
  amount: Amount;
}

/** A part of a board's cost, with the sums that make it. */
export interface CostPart {
  kind: CostKind;
  amount: Amount;
  rows: CostRow[];
  /** What is used and has no price: not in the sum. */
  unpriced: string[];
}

export interface Cost {
  currency: string;
  count: number;
  parts: CostPart[];
  /** All copies together; every part is rounded to the coin, and this is their sum. */
  total: Amount;
  /** Without what the work is paid. */
  withoutWork: Amount;
  hours: number;
}

const HOUR = 60;
const figure = (value: number, decimals: number): string => String(Number(value.toFixed(decimals)));

/** So much of something, told with so many decimals, at a price for one. */
interface Quantity {
  what: string;
  quantity: number;
  decimals: number;
  unit: string;
  price: number | null;
  per: string;
}

type Sums = Omit<CostPart, 'kind'>;

/** What is used, priced row by row: what is told is what is reckoned. */
function sumsOf(all: readonly Quantity[], currency: string): Sums {
  const used = all.filter((r) => r.quantity > 0);
  const priced = used.flatMap(({ what, quantity, decimals, unit, price, per }): CostRow[] =>
    price === null
      ? []
      : [
          {
            what,
            quantity: `${figure(quantity, decimals)} ${unit}`,
            price: `${price} ${currency} ${per}`,
            amount: times(price, Number(quantity.toFixed(decimals)), currency),
          },
        ],
  );
  return {
    rows: priced,
    amount: sumOf(priced.map((r) => r.amount)),
    unpriced: used.filter((r) => r.price === null).map((r) => r.what),
  };
}

/** What finishes cost that go on all copies: the one figure of it, wherever it is told. */
export function finishCost(finish: Uses['finish'], shop: Pick<Shop, 'finishes'>, currency: string): Sums {
  return sumsOf(
    [...finish].map(([id, { ml }]) => {
      const own = finishNamed(shop, id);
      return {
        what: own?.name ?? id,
        quantity: ml / 1000,
        decimals: 3,
        unit: 'l',
        price: own?.pricePerLitre ?? null,
        per: 'a litre',
      };
    }),
    currency,
  );
}

/** What a board costs, all copies together. Exact to the coin: quantities are told with the decimals that they are reckoned with. */
export function costOf(
  uses: Uses,
  materials: Pick<Materials, 'cost' | 'unpriced' | 'currency'>,
  count: number,
  shop: Pick<Shop, 'glues' | 'finishes' | 'prices'>,
): Cost {
  const { currency } = materials;
  const { prices } = shop;
  const rows = (all: readonly Quantity[]) => sumsOf(all, currency);
  const wood = amountOf(materials.cost, currency);
  const hours = uses.minutes / HOUR;
  const parts: CostPart[] = [
    {
      kind: 'wood',
      amount: wood,
      rows: [
        { what: 'Wood used up: pieces taken less what goes back to the rack', quantity: '', price: '', amount: wood },
      ],
      unpriced: materials.unpriced,
    },
    {
      kind: 'glue',
      ...rows(
        [...uses.glue].map(([id, grams]) => {
          const glue = glueNamed(shop, id);
          return {
            what: glue.name,
            quantity: grams / 1000,
            decimals: 3,
            unit: 'kg',
            price: glue.pricePerKg,
            per: 'a kg',
          };
        }),
      ),
    },
    { kind: 'finish', ...finishCost(uses.finish, shop, currency) },
    {
      kind: 'paper',
      ...rows([
        { what: 'Paper', quantity: uses.sheets, decimals: 1, unit: 'sheets', price: prices.paperSheet, per: 'a sheet' },
      ]),
    },
    {
      kind: 'parts',
      ...rows([
        { what: 'Feet', quantity: uses.feet, decimals: 0, unit: 'feet', price: prices.foot, per: 'each' },
        {
          what: 'Handles and loops',
          quantity: uses.fittings,
          decimals: 0,
          unit: 'pieces',
          price: prices.fitting,
          per: 'each',
        },
      ]),
    },
    {
      kind: 'work',
      ...rows([{ what: 'Hands', quantity: hours, decimals: 2, unit: 'h', price: prices.wage, per: 'an hour' }]),
    },
    {
      kind: 'machines',
      // A machine without an hourly rate costs nothing here: that is how the shop wants it.
      ...rows(
        prices.machines.map(({ tool, hour }) => ({
          what: TOOL_NAMES[tool],
          quantity: (uses.machines.get(tool) ?? 0) / HOUR,
          decimals: 2,
          unit: 'h',
          price: hour,
          per: 'an hour',
        })),
      ),
    },
    { kind: 'fixed', ...fixedShare(count, prices, currency) },
  ];
  const total = sumOf(parts.map((p) => p.amount));
  const work = sumOf(parts.filter((p) => p.kind === 'work').map((p) => p.amount));
  return { currency, count, parts, total, withoutWork: total.minus(work), hours: Number(hours.toFixed(2)) };
}

/** A share of what is paid whether boards are made or not. */
function fixedShare(count: number, { fixedMonth, boardsMonth }: Shop['prices'], currency: string): Sums {
  if (fixedMonth === null) return { rows: [], amount: new Big(0), unpriced: ['Rent and power'] };
  const amount = amountOf(new Big(fixedMonth).times(count).div(boardsMonth), currency);
  return {
    rows: [
      {
        what: 'Rent and power',
        quantity: `${count} of ${boardsMonth} boards a month`,
        price: `${fixedMonth} ${currency} a month`,
        amount,
      },
    ],
    amount,
    unpriced: [],
  };
}
