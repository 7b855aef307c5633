import { z } from 'zod';

export const timeOfDaySchema = z
  .string({ error: 'must be a time of day such as 08:30' })
  .regex(/^([01]\d|2[0-3]):[0-5]\d$/, { error: 'must be a time of day such as 08:30' });

/** From when to when the shop is open on a day; null when it is closed. */
const dayHoursSchema = z
  .strictObject({ from: timeOfDaySchema, to: timeOfDaySchema })
  .refine((day) => day.to > day.from, { path: ['to'], error: 'must be later than when the day begins' })
  .nullable();
export type DayHours = z.infer<typeof dayHoursSchema>;

/** Monday to Sunday. */
export const weekSchema = z.array(dayHoursSchema).length(7, { error: 'must be seven days' });

const daySchema = z.iso.date({ error: 'must be a day such as 2026-12-24' });

/** More days away than these nobody enters. */
const MOST_AWAY = 100;

/** Days on which nobody comes, or one of those who work there does not; both included. */
export const awaySchema = z
  .array(
    z
      .strictObject({
        from: daySchema,
        to: daySchema,
        /** Id of who is away; null for everybody. */
        person: z.string({ error: 'must be chosen' }).nullable(),
      })
      .refine((away) => away.to >= away.from, { path: ['to'], error: 'must not be before its first day' }),
  )
  .max(MOST_AWAY, { error: `must be at most ${MOST_AWAY} times away` });
export type Away = z.infer<typeof awaySchema>[number];

/** Days on which the shop is open longer than usual, or at all: an evening more. */
export const openTooSchema = z
  .array(
    z
      .strictObject({ day: daySchema, from: timeOfDaySchema, to: timeOfDaySchema })
      .refine((open) => open.to > open.from, { path: ['to'], error: 'must be later than when it begins' }),
  )
  .max(MOST_AWAY, { error: `must be at most ${MOST_AWAY} days` });
export type OpenToo = z.infer<typeof openTooSchema>[number];
