import { isRecord, type Json, type VersionStep } from './step.ts';

/** What nobody had said of prices, people and room. */
const SHOP_16 = {
  zone: null,
  people: [{ id: 'one', name: 'One pair of hands', hours: null }],
  away: [],
  openToo: [],
  space: { glueUps: null, drying: null },
  prices: {
    paperSheet: null,
    paperSheetM2: 0.5,
    paperShelf: null,
    foot: null,
    footShelf: null,
    fitting: null,
    fittingShelf: null,
    wage: null,
    machines: [],
    fixedMonth: null,
    boardsMonth: 4,
    markup: 0.33,
    tax: 0,
    wished: [],
  },
};

const withPrices = (glues: unknown): unknown =>
  Array.isArray(glues)
    ? glues.map((glue: unknown) => (isRecord(glue) ? { shelfGrams: null, pricePerKg: null, ...glue } : glue))
    : glues;

/** A day that a board was due was the day it had to be hardened by. */
const dueOf = (due: unknown): unknown =>
  typeof due === 'string' ? { day: due, time: null, cured: true } : (due ?? null);

/** Days that are due have a time, steps can be pinned, boards have a price; shops have people, days away, room and prices. */
export const TO_16 = {
  version: 16,
  board: (board: Json): Json => ({ pins: [], price: null, ...board, due: dueOf(board.due) }),
  shop: (shop: Json): Json => (isRecord(shop.schools) ? { ...SHOP_16, ...shop, glues: withPrices(shop.glues) } : shop),
} satisfies VersionStep;
