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
const minutes = z
  .number({ error: 'must be a number of minutes' })
  .min(0, { error: 'must not be negative' })
  .max(GREATEST_RUN_MINUTES, { error: 'must be at most 100 000 min' });

/** When each thing is due, minutes after the first glue. */
export const runDueSchema = z.strictObject({
  firstClamp: minutes,
  lastClamp: minutes,
  scrapeFrom: minutes,
  scrapeTo: minutes,
  outOfClamps: minutes,
  fullStrength: minutes,
});
export type RunDue = z.infer<typeof runDueSchema>;

export const runMarkSchema = z.strictObject({
  event: z.enum(runEvents),
  minutes,
});

/** A glue-up under way or done: what was due, and what happened when, minutes after the first glue. */
export const runDocumentSchema = z.strictObject({
  title: lineOfText(1, 120),
  due: runDueSchema,
  marks: z.array(runMarkSchema).max(20),
  note: lineOfText(0, 300),
});
export type RunDocument = z.infer<typeof runDocumentSchema>;

/** Scraping begins and ends so long after the glue was spread, minutes at 20 degrees C (common practice: 30 to 45 min). */
const SCRAPE = { from: 30, to: 45 } as const;

/** When squeezed-out glue has skinned and is scraped, minutes after it was spread, in this room: steps, clock and overview all say this. */
export function scrapeWindow(shop: Pick<Shop, 'room'>): { from: number; to: number } {
  const slow = slowness(shop.room.temperature);
  return { from: SCRAPE.from * slow, to: SCRAPE.to * slow };
}

/** What happens in a glue-up of this shop: glue that is wiped at once, or left to be planed off, is not scraped. */
export function eventsOf({ schools }: Pick<Shop, 'schools'>): RunEvent[] {
  return runEvents.filter((event) => event !== 'scraped' || schools.squeezeOut === 'scrape');
}

/** When each thing is due in a glue-up in this room. */
export function runDue(
  glueUp: Pick<GlueUp, 'layingMinutes' | 'waitMinutes'>,
  usable: { open: number; closed: number; skins: number },
  shop: Shop,
): RunDue {
  const scrape = scrapeWindow(shop);
  return {
    // As long as laying takes, but never past the glue's own open time.
    firstClamp: Math.min(usable.skins, usable.closed, Math.max(usable.open, glueUp.layingMinutes)),
    lastClamp: usable.closed,
    scrapeFrom: scrape.from,
    scrapeTo: scrape.to,
    outOfClamps: usable.closed + glueUp.waitMinutes,
    fullStrength: glueOf(shop).fullMinutes * slowness(shop.room.temperature),
  };
}

/** How late an event was, minutes; 0 in time. Scraping may be late past its window, clamps may never come off too late. */
export function lateBy(event: RunEvent, at: number, due: RunDue): number {
  const limit = { firstClamp: due.firstClamp, lastClamp: due.lastClamp, scraped: due.scrapeTo, outOfClamps: Infinity }[
    event
  ];
  return Math.max(0, at - limit);
}

/** How much too soon an event was, minutes: clamps that came off before the glue held, glue scraped while wet. */
export function earlyBy(event: RunEvent, at: number, due: RunDue): number {
  const limit = { firstClamp: 0, lastClamp: 0, scraped: due.scrapeFrom, outOfClamps: due.outOfClamps }[event];
  return Math.max(0, limit - at);
}

/** With what the names of glue-ups begin that put rows together, parts of a panel and what lies between them, a frame round a board, or a back under it. */
export const ROWS = 'R';
export const PARTS = 'P';
export const FRAMES = 'F';
export const BACKS = 'B';
export const STACKS = 'S';

/** What a clock calls the glue-up it is of. */
export function runTitle({ name, firstStrip, lastStrip }: Pick<GlueUp, 'name' | 'firstStrip' | 'lastStrip'>): string {
  if (name.startsWith(BACKS)) return 'The back';
  if (name.startsWith(STACKS)) return `Bits ${firstStrip} to ${lastStrip} of stack ${name.slice(1).split('.')[0]}`;
  if (name.startsWith(FRAMES)) return `Frame ${name.slice(1)}`;
  return `${name.startsWith(ROWS) ? 'Rows' : name.startsWith(PARTS) ? 'Pieces' : 'Strips'} ${firstStrip} to ${lastStrip}`;
}

/** Whether a clock is that of a glue-up: of the very strips it glues. Clocks from before glue-ups had lasting names know only a place and a title. */
export function isRunOf(
  { glueUp, run }: { glueUp: string; run: Pick<RunDocument, 'title'> },
  planned: Pick<GlueUp, 'id' | 'name' | 'firstStrip' | 'lastStrip'>,
): boolean {
  return glueUp === planned.id || (glueUp === planned.name && run.title === runTitle(planned));
}
