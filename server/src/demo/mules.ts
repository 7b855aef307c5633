import type { Board } from '#core/board/board.ts';

const DAY_MS = 86_400_000;
/** The mules leave on a Saturday morning, with time for one working week before. */
const SATURDAY = 6;
const LEAST_DAYS = 8;
const LEAVE = '06:30';

/** What the boards that go along are finished with; the one for the Upper Hut takes weeks to harden, and is late with it. */
const GOES_ALONG: Readonly<Record<string, Partial<Board>>> = {
  'Lower Hut dough board': {},
  'Middle Hut bread boards': {},
  'Upper Hut carving board': { finish: ['drying-oil'] },
};

/** The morning the mules leave, as 2026-12-05. @param now milliseconds since 1970 */
export function muleDay(now: number): string {
  const day = new Date(now + LEAST_DAYS * DAY_MS);
  const ahead = (SATURDAY - day.getUTCDay() + 7) % 7;
  return new Date(day.getTime() + ahead * DAY_MS).toISOString().slice(0, 10);
}

/** A board of the demo with the day it is due, if it goes along with the mules. */
export function forTheMules(board: Board, now: number): Board {
  const own = GOES_ALONG[board.name];
  return own ? { ...board, ...own, due: { day: muleDay(now), time: LEAVE, cured: true } } : board;
}
