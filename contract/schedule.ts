import { z } from 'zod';
import { boardSchema } from '#core/board/board.ts';
import { shopSchema } from '#core/shop/shop.ts';
import type { BoardWork } from '#core/schedule/work.ts';
import { idSchema, lineOfText } from '#core/units/textSchema.ts';
import { versionSchema } from './version.ts';

/** More boards than these nobody has in work. */
export const MOST_BOARDS_IN_WORK = 200;
/** And more steps. */
const MOST_STEPS = 20_000;

/** What is decided about the work of the whole shop: the order in which steps take their places, boards that were taken up without a day, and those that wait. */
export const scheduleDocumentSchema = z.strictObject({
  order: z
    .array(lineOfText(1, 400))
    .max(MOST_STEPS, { error: `must be at most ${MOST_STEPS} steps` })
    .refine((ids) => new Set(ids).size === ids.length, { error: 'must name each step once' }),
  taken: z.array(idSchema).max(MOST_BOARDS_IN_WORK, { error: `must be at most ${MOST_BOARDS_IN_WORK} boards` }),
  waiting: z.array(idSchema).max(5000, { error: 'must be fewer' }),
});
export type ScheduleDocument = z.infer<typeof scheduleDocumentSchema>;

/** What is decided, at a version; 0 until somebody decides. */
export const storedScheduleSchema = z.strictObject({ version: z.int(), schedule: scheduleDocumentSchema });
export type StoredSchedule = z.infer<typeof storedScheduleSchema>;

export const scheduleChangeSchema = z.strictObject({ version: versionSchema, schedule: scheduleDocumentSchema });

/** A board in work: what is to be done on it, in the core's own form, and what was. */
export const boardInWorkSchema = z.strictObject({
  id: idSchema,
  revision: z.int(),
  due: boardSchema.shape.due,
  pins: boardSchema.shape.pins,
  work: z.custom<BoardWork>(),
});
export type BoardInWork = z.infer<typeof boardInWorkSchema>;

/** A board that could be begun: how many minutes of work it is. */
const boardIdleSchema = z.strictObject({
  id: idSchema,
  name: z.string(),
  minutes: z.number(),
  /** And how many until it first waits for glue or oil. */
  untilWait: z.number(),
  /** It waits because somebody said so. */
  waiting: z.boolean(),
});

/** Everything that the work of the shop is scheduled from. */
export const shopWorkSchema = storedScheduleSchema.extend({
  /** When the answer was put together. */
  now: z.iso.datetime({ precision: 3 }),
  /** Where the shop's clock hangs; where the server's does when nobody said. */
  zone: z.string(),
  shop: shopSchema,
  boards: z.array(boardInWorkSchema),
  idle: z.array(boardIdleSchema),
  /** Whether there is an address that calendars can ask. */
  calendar: z.boolean(),
  /** False while something is worked out again that may be another by now. */
  upToDate: z.boolean(),
  /** Boards of which nothing is worked out yet. */
  unknown: z.int(),
});
export type ShopWork = z.infer<typeof shopWorkSchema>;

/** The header that tells what time it is: a body may have been put together before. */
export const NOW_HEADER = 'cadenza-now';
/** The header that tells whether all of it is worked out, for whoever does not read the body. */
export const COMPLETE_HEADER = 'cadenza-complete';

/** Whether the answer waits, for a while, until all of it is worked out. */
export const shopWorkQuerySchema = z.object({
  complete: z.enum(['true', 'false'], { error: 'must be true or false' }).default('false'),
});

/** The address that calendars can ask, below the server's own. */
export const calendarAddressSchema = z.strictObject({ path: z.string() });
