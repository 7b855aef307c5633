import { z } from 'zod';
import { lineOfText } from '../units/textSchema.ts';
import { slowness } from '../shop/gluing.ts';
import { glueOf, type Shop } from '../shop/shop.ts';
import type { GlueUp } from './glueUps.ts';

/** What happens in a glue-up, in order: glue is on, everything is closed, everything is pressed, the squeeze-out is off, the clamps are off. */
export const runEvents = ['firstClamp', 'lastClamp', 'scraped', 'outOfClamps'] as const;
export type RunEvent = (typeof runEvents)[number];

/** A clock that nobody ended within some ten weeks was forgotten, minutes. */
export const GREATEST_RUN_MINUTES = 100_000;
const minutes = z.number({ error: 'must be a number of minutes' }).min(0, { error: 'must not be negative' }).max(GREATEST_RUN_MINUTES, { error: 'must be at most 100 000 min' });

/** When each thing is due, minutes after the first glue. */
export const runDueSchema = z.strictObject({ firstClamp: minutes, lastClamp: minutes, scrapeFrom: minutes, scrapeTo: minutes, outOfClamps: minutes, fullStrength: minutes });
export type RunDue = z.infer<typeof runDueSchema>;

export const runMarkSchema = z.strictObject({ event: z.enum(runEvents, { error: `must be one of ${runEvents.join(', ')}` }), minutes });

/** A glue-up under way or done: what was due, and what happened when, minutes after the first glue. */
export const runDocumentSchema = z.strictObject({
  title: lineOfText(1, 120), due: runDueSchema, marks: z.array(runMarkSchema).max(20, { error: 'must be at most 20' }), note: lineOfText(0, 300),
});
export type RunDocument = z.infer<typeof runDocumentSchema>;

/** Scraping begins and ends so long after the glue was spread, minutes at 20 degrees C (common practice: 30 to 45 min). */
const SCRAPE = { from: 30, to: 45 } as const;

/** When each thing is due in a glue-up in this room. */
export function runDue(glueUp: Pick<GlueUp, 'assemblyMinutes' | 'waitMinutes'>, usable: { open: number; closed: number }, shop: Shop): RunDue {
  const slow = slowness(shop.room.temperature);
  return {
    firstClamp: Math.max(usable.open, Math.min(usable.closed, glueUp.assemblyMinutes)), lastClamp: usable.closed, scrapeFrom: SCRAPE.from * slow, scrapeTo: SCRAPE.to * slow,
    outOfClamps: usable.closed + glueUp.waitMinutes, fullStrength: glueOf(shop).fullMinutes * slow,
  };
}

/** How late an event was, minutes; 0 in time. Scraping may be late past its window, clamps may never come off too late. */
export function lateBy(event: RunEvent, at: number, due: RunDue): number {
  const limit = { firstClamp: due.firstClamp, lastClamp: due.lastClamp, scraped: due.scrapeTo, outOfClamps: Infinity }[event];
  return Math.max(0, at - limit);
}

/** How much too soon an event was, minutes: clamps that came off before the glue held, glue scraped while wet. */
export function earlyBy(event: RunEvent, at: number, due: RunDue): number {
  const limit = { firstClamp: 0, lastClamp: 0, scraped: due.scrapeFrom, outOfClamps: due.outOfClamps }[event];
  return Math.max(0, limit - at);
}
