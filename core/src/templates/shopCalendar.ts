import ical, { ICalAlarmType } from 'ical-generator';

/** A step in the shop's calendar, or something that is waited for. Milliseconds since 1970. */
export interface ShopEvent {
  /** Lasting id: a calendar that has it already takes the new one in its place. */
  id: string;
  from: number;
  to: number;
  title: string;
  words: string;
  /** A wait ends then: calendars remind of it. */
  reminds: boolean;
}

/** So soon a calendar asks again, seconds. */
const ASK_AGAIN_SECONDS = 3600;

/** The work of a shop as an iCalendar file (RFC 5545), in the order it is given. @param made milliseconds since 1970 */
export function shopCalendar(shop: string, events: readonly ShopEvent[], made: number): string {
  const calendar = ical({
    name: shop,
    prodId: { company: 'Cadenza', product: 'shop' },
    ttl: ASK_AGAIN_SECONDS,
  });
  for (const { id, from, to, title, words, reminds } of events) {
    const event = calendar.createEvent({
      id: `${id}@cadenza`,
      start: new Date(from),
      end: new Date(to),
      stamp: new Date(made),
      summary: title,
      description: words,
    });
    if (reminds) event.createAlarm({ type: ICalAlarmType.display, trigger: 0 });
  }
  return calendar.toString();
}
