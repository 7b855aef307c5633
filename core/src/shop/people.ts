import { z } from 'zod';
import { idSchema, lineOfText } from '../units/textSchema.ts';
import { weekSchema } from './hours.ts';
import { wholeUpTo } from './quantity.ts';

/** Somebody who works in the shop. */
const personSchema = z.strictObject({
  id: idSchema,
  name: lineOfText(1, 60),
  /** When they come, Monday to Sunday; null for whenever the shop is open. */
  hours: weekSchema.nullable(),
});
export type Person = z.infer<typeof personSchema>;

export const peopleSchema = z.array(personSchema).min(1, { error: 'must name at least one pair of hands' }).max(8);

/** A shop nobody has described yet. */
export const ONE_PERSON: readonly Person[] = [{ id: 'one', name: 'One pair of hands', hours: null }];

/** Room for what takes its time; null for as much as anybody wants. */
export const spaceSchema = z.strictObject({
  /** Glue-ups in their clamps at once. */
  glueUps: wholeUpTo(50).min(1).nullable(),
  /** Boards that drip and dry at once. */
  drying: wholeUpTo(500).min(1).nullable(),
});

/** Whether a time zone is one that clocks know. */
function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** Where the shop's clock hangs; null for where the device is that looks at it. */
export const zoneSchema = z
  .string({ error: 'must be the name of a time zone such as Europe/Vienna' })
  .max(60, { error: 'must be at most 60 characters' })
  .refine(isZone, { error: 'must be the name of a time zone such as Europe/Vienna' })
  .nullable();
