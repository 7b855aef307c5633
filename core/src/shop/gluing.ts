import { z } from 'zod';
import { lengthBetween } from '../units/lengthSchema.ts';
import { idSchema, lineOfText } from '../units/textSchema.ts';
import { amountUpTo, minutesBetween, wholeUpTo } from './quantity.ts';

export const clampKinds = ['pipe', 'bar', 'parallel', 'f'] as const;

/** Clamps of one kind and length. */
export const clampSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(clampKinds),
  /** Widest panel between its jaws. */
  opening: lengthBetween(50, 5000),
  /** From the bar to the middle of the jaw: half a panel's thickness must lie within. */
  reach: lengthBetween(10, 500),
  /** Force of a firm hand, kilonewton. */
  force: z
    .number({ error: 'must be a number of kilonewtons' })
    .min(0.1, { error: 'must be at least 0.1 kN' })
    .max(40, { error: 'must be at most 40 kN' }),
  count: wholeUpTo(200),
});
export type Clamp = z.infer<typeof clampSchema>;

/** How many clamps there are together, of whatever kind. */
export function clampCount(clamps: readonly Pick<Clamp, 'count'>[]): number {
  return clamps.reduce((sum, c) => sum + c.count, 0);
}

/** Water resistance by the classes that are printed on the bottle (names only, from memory): ANSI/HPVA HP-1 and EN 204. */
export const glueClasses = ['Type I', 'Type II', 'D2', 'D3', 'D4', 'unclassed'] as const;

export const glueSchema = z
  .strictObject({
    id: idSchema,
    name: lineOfText(1, 60),
    class: z.enum(glueClasses),
    /** From spreading until the joint is closed, at 20 degrees C. */
    openMinutes: minutesBetween(1, 240),
    /** From spreading until the joint is under pressure, at 20 degrees C: open time is part of it. */
    closedMinutes: minutesBetween(1, 480),
    /** Under pressure before a group may be handled with care. */
    handleMinutes: minutesBetween(1, 2880),
    /** In clamps before the panel may be worked. */
    clampMinutes: minutesBetween(1, 2880),
    /** Until full strength. */
    fullMinutes: minutesBetween(1, 20_000),
    /** Coldest that wood, glue and room may be, degrees C: below, the film turns to chalk. */
    leastTemperature: z
      .number({ error: 'must be a number of degrees' })
      .min(-10, { error: 'must be at least -10 °C' })
      .max(40, { error: 'must be at most 40 °C' }),
    /** Grams for a square metre of joint, one face spread. */
    gramsPerM2: z
      .number({ error: 'must be a number of grams' })
      .min(20, { error: 'must be at least 20 g/m²' })
      .max(1000, { error: 'must be at most 1000 g/m²' }),
    /** What is on the shelf, g, and what a kilogram costs, in the shop's currency; null where nobody said. */
    shelfGrams: amountUpTo(1_000_000).nullable(),
    pricePerKg: amountUpTo(10_000).nullable(),
  })
  .refine((glue) => glue.closedMinutes >= glue.openMinutes, {
    path: ['closedMinutes'],
    error: 'must not be shorter than its open time: a joint is closed before it is under pressure',
  });
export type Glue = z.infer<typeof glueSchema>;

/**
 * Glues to start from. Times at 20 degrees C: common practice, to be replaced by those on the bottle. Spread of 150 to 250 g/m2 is common practice.
 */
export const USUAL_GLUES: readonly Glue[] = [
  {
    id: 'water-resistant',
    name: 'Water-resistant wood glue',
    class: 'Type II',
    openMinutes: 5,
    closedMinutes: 10,
    handleMinutes: 30,
    clampMinutes: 120,
    fullMinutes: 1440,
    leastTemperature: 10,
    gramsPerM2: 200,
    shelfGrams: null,
    pricePerKg: null,
  },
  {
    id: 'waterproof',
    name: 'Waterproof wood glue',
    class: 'Type I',
    openMinutes: 5,
    closedMinutes: 10,
    handleMinutes: 30,
    clampMinutes: 180,
    fullMinutes: 1440,
    leastTemperature: 10,
    gramsPerM2: 200,
    shelfGrams: null,
    pricePerKg: null,
  },
  {
    id: 'long-open',
    name: 'Long-open-time wood glue',
    class: 'Type I',
    openMinutes: 12,
    closedMinutes: 25,
    handleMinutes: 60,
    clampMinutes: 300,
    fullMinutes: 1440,
    leastTemperature: 13,
    gramsPerM2: 200,
    shelfGrams: null,
    pricePerKg: null,
  },
];

/** Doubling of speed with warmth, degrees C (common rule of thumb for what sets by drying and reacting). */
const TWICE_AS_FAST_EVERY = 15;
/** Warmth at which the times of a glue are given, degrees C. */
const GIVEN_AT = 20;

/** How much longer than at 20 degrees C a glue takes: above 1 when cold, below 1 when warm. */
export function slowness(temperature: number): number {
  return 2 ** ((GIVEN_AT - temperature) / TWICE_AS_FAST_EVERY);
}
