const DAY = 1440;

/** Minutes from Monday 00:00 of this week until now, by the clock on the wall: where timelines are counted from. */
export function minuteOfWeek(now: Date): number {
  return ((now.getDay() + 6) % 7) * DAY + now.getHours() * 60 + now.getMinutes();
}
