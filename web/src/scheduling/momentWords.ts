import { dayAt } from '#core/schedule/openings.ts';

const MINUTE_MS = 60_000;

/** Words for moments on the shop's clock; all moments minutes since 1970. */
export interface MomentWords {
  /** 16:05 */
  clock(minute: number): string;
  /** Sat 5 Dec */
  day(minute: number): string;
  /** today 16:05, tomorrow 09:00, Sat 5 Dec, 06:30 */
  moment(minute: number): string;
  /** A moment that something is due by: the end of Thu 24 Dec, where the day is over then. */
  due(minute: number): string;
}

/** @param now minutes since 1970 */
export function momentWords(zone: string, now: number): MomentWords {
  const format = (options: Intl.DateTimeFormatOptions) => {
    const made = new Intl.DateTimeFormat(undefined, { timeZone: zone, ...options });
    return (minute: number) => made.format(new Date(minute * MINUTE_MS));
  };
  const clock = format({ hour: '2-digit', minute: '2-digit', hourCycle: 'h23' });
  const day = format({ weekday: 'short', day: 'numeric', month: 'short' });
  const today = dayAt(zone, now);
  const near = (minute: number): string | null => {
    const ahead = dayAt(zone, minute) - today;
    return ahead === 0 ? 'today' : ahead === 1 ? 'tomorrow' : ahead === -1 ? 'yesterday' : null;
  };
  const moment = (minute: number): string => {
    const word = near(minute);
    return word ? `${word} ${clock(minute)}` : `${day(minute)}, ${clock(minute)}`;
  };
  return {
    clock,
    day,
    moment,
    due: (minute) => (clock(minute) === '00:00' ? `the end of ${near(minute - 1) ?? day(minute - 1)}` : moment(minute)),
  };
}
