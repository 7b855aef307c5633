import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';
import { idSchema, lineOfText } from '../units/textSchema.ts';
import { amountUpTo, minutesBetween } from './quantity.ts';

export const FINISH_KINDS = ['mineralOil', 'waxOil', 'hardWaxOil', 'dryingOil', 'film'] as const;
export type FinishKind = (typeof FINISH_KINDS)[number];
/** How it is put on. */
export const FINISH_METHODS = ['flood', 'bath', 'wipe', 'brush'] as const;
export type FinishMethod = (typeof FINISH_METHODS)[number];

const grams = z
  .number({ error: 'must be a number of grams' })
  .min(0, { error: 'must not be negative' })
  .max(3000, { error: 'must be at most 3000 g/m²' });
const hours = z
  .number({ error: 'must be a number of hours' })
  .min(0, { error: 'must not be negative' })
  .max(1000, { error: 'must be at most 1000 hours' });
const days = z
  .number({ error: 'must be a number of days' })
  .min(0, { error: 'must not be negative' })
  .max(365, { error: 'must be at most 365 days' });

/** A finish as its maker and the shop know it. */
export const finishSchema = z.strictObject({
  id: idSchema,
  name: lineOfText(1, 60),
  kind: z.enum(FINISH_KINDS),
  method: z.enum(FINISH_METHODS),
  coats: z.int().min(1).max(10),
  /** What a square metre takes in one coat: of long grain on faces and on edges, and of end grain. */
  face: grams,
  edge: grams,
  end: grams,
  /** In the bath, or kept wet, each side. */
  soakMinutes: minutesBetween(0, 2880),
  /** From one coat to the next, and from the last until it can be handled. */
  dryHours: hours,
  /** Rubbed back between coats. */
  rubBack: z.boolean(),
  /** From then until it may meet food and water. */
  cureDays: days,
  /** What its maker states about food; empty where nobody looked. */
  food: lineOfText(0, 120),
  /** Rags with it can ignite by themselves. */
  ignites: z.boolean(),
  /** Kilogram of a litre. */
  density: z.number().min(0.5, { error: 'must be at least 0.5 kg/l' }).max(2, { error: 'must be at most 2 kg/l' }),
  /** What is on the shelf, ml; null where nobody counted. */
  shelfMl: amountUpTo(1_000_000).nullable(),
  /** Of a litre, in the shop's currency; null where nobody said. */
  pricePerLitre: amountUpTo(10_000).nullable(),
  /** Months that it keeps once it is opened; null where its maker says nothing. */
  keepsMonths: z.int().min(1).max(240).nullable(),
  /** How the owner renews it, and every how many weeks. */
  renewWith: lineOfText(0, 80),
  renewWeeks: z.int().min(1).max(520),
  source: lineOfText(0, 120),
});
export type Finish = z.infer<typeof finishSchema>;

/** A tray that boards are soaked in, inside; mm. */
export const bathSchema = z.strictObject({
  length: lengthBetween(100, 3000),
  width: lengthBetween(100, 2000),
  depth: lengthBetween(20, 1000),
});
export type Bath = z.infer<typeof bathSchema>;

/**
 * Finishes to start from; the figures on the tin count. Mineral oil: long grain takes 60 to 120 g/m2, end grain 3 to 6 times that (common practice, the middle of both). The others are common practice from memory: to be corrected by
 * weighing a board before and after.
 */
export const USUAL_FINISHES: readonly Finish[] = [
  {
    id: 'mineral-oil',
    name: 'Mineral oil',
    kind: 'mineralOil',
    method: 'flood',
    coats: 1,
    face: 90,
    edge: 90,
    end: 400,
    soakMinutes: 5,
    dryHours: 12,
    rubBack: false,
    cureDays: 0,
    food: 'Food grade, as its maker states',
    ignites: false,
    density: 0.86,
    shelfMl: null,
    pricePerLitre: null,
    keepsMonths: null,
    renewWith: 'food-grade mineral oil',
    renewWeeks: 4,
    source: 'Common practice',
  },
  {
    id: 'wax-oil',
    name: 'Wax and oil blend',
    kind: 'waxOil',
    method: 'wipe',
    coats: 1,
    face: 20,
    edge: 20,
    end: 40,
    soakMinutes: 0,
    dryHours: 12,
    rubBack: false,
    cureDays: 0,
    food: 'Food safe, as its maker states',
    ignites: false,
    density: 0.88,
    shelfMl: null,
    pricePerLitre: null,
    keepsMonths: 24,
    renewWith: 'the same wax and oil',
    renewWeeks: 6,
    source: 'Common practice, from memory',
  },
  {
    id: 'hard-wax-oil',
    name: 'Hard-wax oil',
    kind: 'hardWaxOil',
    method: 'wipe',
    coats: 2,
    face: 35,
    edge: 35,
    end: 90,
    soakMinutes: 0,
    dryHours: 24,
    rubBack: true,
    cureDays: 3,
    food: 'Food safe once cured, as its maker states',
    ignites: true,
    density: 0.95,
    shelfMl: null,
    pricePerLitre: null,
    keepsMonths: 24,
    renewWith: 'the same hard-wax oil, on a clean dry board',
    renewWeeks: 52,
    source: 'Cures in 2 to 6 days (common practice)',
  },
  {
    id: 'drying-oil',
    name: 'Drying oil',
    kind: 'dryingOil',
    method: 'wipe',
    coats: 4,
    face: 40,
    edge: 40,
    end: 150,
    soakMinutes: 15,
    dryHours: 24,
    rubBack: true,
    cureDays: 21,
    food: 'Food safe once cured, as its maker states',
    ignites: true,
    density: 0.93,
    shelfMl: null,
    pricePerLitre: null,
    keepsMonths: 12,
    renewWith: 'the same drying oil',
    renewWeeks: 26,
    source: 'Common practice, from memory',
  },
  {
    id: 'film',
    name: 'Film finish',
    kind: 'film',
    method: 'brush',
    coats: 3,
    face: 70,
    edge: 70,
    end: 110,
    soakMinutes: 0,
    dryHours: 6,
    rubBack: true,
    cureDays: 7,
    food: '',
    ignites: false,
    density: 1.02,
    shelfMl: null,
    pricePerLitre: null,
    keepsMonths: 12,
    renewWith: 'sanding and a new film: knives cut it',
    renewWeeks: 104,
    source: 'Common practice, from memory',
  },
];

/** What wants bare wood: over mineral oil or wax it stays soft (common practice). */
export const WANTS_BARE_WOOD: ReadonlySet<FinishKind> = new Set(['hardWaxOil', 'dryingOil', 'film']);
