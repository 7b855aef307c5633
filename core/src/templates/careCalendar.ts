import ical from 'ical-generator';

/** A board's calendar for its owner. Days as 2026-12-24: of the place where the board is, whatever time it is elsewhere. */
export interface CareCalendar {
  /** Lasting id: a calendar that has it already takes the new one in its place. */
  id: string;
  board: string;
  shop: string;
  /** May be used from then on; null where it may already. */
  used: string | null;
  renewals: readonly string[];
  /** How it is renewed. */
  how: string;
  /** When the file was made, milliseconds since 1970. */
  made: number;
}

const DAY_MS = 86_400_000;

/** The owner's renewals as an iCalendar file (RFC 5545): whole days, each once. */
export function careCalendar({ id, board, shop, used, renewals, how, made }: CareCalendar): string {
  const calendar = ical({ name: `${board}: care`, prodId: { company: 'Cadenza', product: 'care' } });
  const add = (name: string, day: string, summary: string, description: string) => {
    // The library writes the day that a moment has in Greenwich.
    const start = Date.parse(`${day}T00:00:00Z`);
    calendar.createEvent({
      id: `${id}-${name}@cadenza`,
      start: new Date(start),
      end: new Date(start + DAY_MS),
      allDay: true,
      stamp: new Date(made),
      summary,
      description,
    });
  };
  if (used !== null) add('used', used, `${board} may be used`, `The finish has hardened. ${shop}`);
  renewals.forEach((day, k) => add(`renew-${k + 1}`, day, `Oil ${board}`, `${how} ${shop}`));
  return calendar.toString();
}
