import { z } from 'zod';
import { amountUpTo, wholeUpTo } from './quantity.ts';
import { toolIds } from './tools.ts';

const amount = amountUpTo(1_000_000);
const share = z.number().min(0).max(10, { error: 'must be at most 1000 %' });
const tool = z.enum(toolIds, { error: 'must be a tool' });

/** What things cost the shop, and what it wants for its work; amounts in the shop's currency. Null where nobody said. */
export const pricesSchema = z.strictObject({
  /** A sheet or disc of paper, and how much face it sands before it is done, square metres. */
  paperSheet: amount.nullable(),
  paperSheetM2: z
    .number()
    .min(0.01, { error: 'must be at least 0.01 m²' })
    .max(100, { error: 'must be at most 100 m²' }),
  /** Sheets in the drawer, of any grit; null where nobody counted. */
  paperShelf: wholeUpTo(100_000).nullable(),
  /** A foot, and a thing that is fitted, such as a handle or a loop. */
  foot: amount.nullable(),
  footShelf: wholeUpTo(100_000).nullable(),
  fitting: amount.nullable(),
  fittingShelf: wholeUpTo(100_000).nullable(),
  /** What an hour of work shall be paid, and what it costs whoever pays it. */
  wage: amount.nullable(),
  /** An hour of a machine. */
  machines: z
    .array(z.strictObject({ tool, hour: amount }))
    .max(30, { error: 'must be at most 30 machines' })
    .refine((all) => new Set(all.map((m) => m.tool)).size === all.length, { error: 'must name each machine once' }),
  /** Rent, power and what else is paid whether boards are made or not, a month, and over how many boards it is spread. */
  fixedMonth: amount.nullable(),
  boardsMonth: z.number().min(0.1).max(10_000),
  /** What is put on all costs, as a share. */
  markup: share,
  /** Tax that is put on the price, as a share; 0 where none is told. */
  tax: z.number().min(0).max(1, { error: 'must be at most 100 %' }),
  /** Machines that are thought of, and what they would cost. */
  wished: z
    .array(z.strictObject({ tool, price: amount }))
    .max(30, { error: 'must be at most 30 machines' })
    .refine((all) => new Set(all.map((m) => m.tool)).size === all.length, { error: 'must name each machine once' }),
});
export type Prices = z.infer<typeof pricesSchema>;

/** Nobody has said anything yet. A disc of 125 mm does about half a square metre of hardwood, and work with a markup of a third is common practice. */
export const NO_PRICES: Prices = {
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
};
