import type { DueDay } from '../board/board.ts';
import { dayNumber, endOfDay, minuteOfDay, momentOf } from './openings.ts';

/** When a board is wanted, minutes since 1970: the whole of its day counts where no time is told. @param zone an IANA name */
export function dueMoment({ day, time }: Pick<DueDay, 'day' | 'time'>, zone: string): number {
  return time === null ? endOfDay(zone, day) : momentOf(zone, dayNumber(day), minuteOfDay(time));
}
