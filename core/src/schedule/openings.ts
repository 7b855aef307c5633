import { grouped } from '../lists/grouped.ts';
import { tzOffset } from '@date-fns/tz';
import { nth } from '../lists/there.ts';
import type { DayHours, OpenToo } from '../shop/hours.ts';

/** A stretch in which somebody is in the shop; minutes since 1970. */
export interface Opening {
  from: number;
  to: number;
}

/** Days on which nobody comes, both included, by the shop's calendar. */
export interface DaysAway {
  from: string;
  to: string;
}

const DAY = 1440;
const MINUTE_MS = 60_000;
/** 1970-01-01 was a Thursday; weeks begin on Monday. */
const FIRST_WEEKDAY = 3;

/** Minutes since 1970 of a time of day; a time that a clock skips is as late after midnight as the clocks were before. @param day days since 1970 @param zone an IANA name */
export function momentOf(zone: string, day: number, minuteOfDay: number): number {
  const asUtc = day * DAY + minuteOfDay;
  const offsetAt = (minute: number) => tzOffset(zone, new Date(minute * MINUTE_MS));
  const before = offsetAt(asUtc - offsetAt(asUtc - DAY));
  const guess = asUtc - before;
  // Behind a change of the clocks the other offset holds, unless that leads back before the change.
  const after = offsetAt(guess);
  return after !== before && offsetAt(asUtc - after) === after ? asUtc - after : guess;
}

/** The day by the shop's calendar that a moment lies in, days since 1970. @param minute since 1970 */
export function dayAt(zone: string, minute: number): number {
  return Math.floor((minute + tzOffset(zone, new Date(minute * MINUTE_MS))) / DAY);
}

/** @example dayNumber('1970-01-02') is 1 */
export function dayNumber(date: string): number {
  return Math.round(Date.parse(`${date}T00:00:00Z`) / (DAY * MINUTE_MS));
}

/** The end of a day by the shop's calendar, minutes since 1970. */
export function endOfDay(zone: string, date: string): number {
  return momentOf(zone, dayNumber(date) + 1, 0);
}

export function minuteOfDay(time: string): number {
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  return hours * 60 + minutes;
}

/** Monday is 0. @param day days since 1970 */
export const weekdayOf = (day: number): number => (((day + FIRST_WEEKDAY) % 7) + 7) % 7;

/**
 * When somebody is in the shop from a moment on, for so many days.
 * @param hours Monday to Sunday, by the clock on the wall: a day on which clocks change is an hour shorter or longer @param from minutes since 1970
 */
export function openingsFrom(
  {
    hours,
    away,
    openToo = [],
    zone,
  }: { hours: readonly DayHours[]; away: readonly DaysAway[]; openToo?: readonly OpenToo[]; zone: string },
  from: number,
  days: number,
): Opening[] {
  const closed = away.map((a) => ({ from: dayNumber(a.from), to: dayNumber(a.to) }));
  const more = grouped(openToo, (open) => dayNumber(open.day));
  const first = dayAt(zone, from);
  const openings: Opening[] = [];
  for (let day = first; day < first + days; day += 1) {
    const usual = nth(hours, weekdayOf(day));
    const isClosed = closed.some((c) => day >= c.from && day <= c.to);
    const own = [...(usual && !isClosed ? [usual] : []), ...(more.get(day) ?? [])].sort((a, b) =>
      a.from < b.from ? -1 : 1,
    );
    for (const open of own) {
      const begins = Math.max(from, momentOf(zone, day, minuteOfDay(open.from)));
      const ends = momentOf(zone, day, minuteOfDay(open.to));
      const last = openings.at(-1);
      if (last && begins <= last.to) last.to = Math.max(last.to, ends);
      else if (ends > begins) openings.push({ from: begins, to: ends });
    }
  }
  return openings;
}
