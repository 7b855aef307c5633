import type { Board } from '../board/board.ts';
import { glueOf, type Shop } from '../shop/shop.ts';
import { nth } from '../lists/there.ts';
import { workOfPlan } from '../plan/boardWork.ts';
import { makePlan } from '../plan/plan.ts';
import type { PlanInput } from '../saw/planInput.ts';
import { penaltyOf, firstSchedule } from '../schedule/improve.ts';
import { dayAt, dayNumber, weekdayOf } from '../schedule/openings.ts';
import { shopProblem, type WorkDue } from '../schedule/shopProblem.ts';
import type { BoardTimes } from '../schedule/task.ts';
import type { BoardWork } from '../schedule/work.ts';

/** What would change, and where. */
export type RescueChange =
  | { what: 'finish'; finish: string; name: string }
  | { what: 'glue'; glue: string; name: string }
  | { what: 'uncured' }
  | { what: 'clamps'; clamp: string; more: number }
  | { what: 'evenings'; open: Shop['openToo'] }
  | { what: 'later'; board: string; name: string };

/** A way to make a day, or to come nearer to it. */
export interface Rescue {
  changes: RescueChange[];
  times: BoardTimes;
  /** Minutes after the day; negative while there is time. */
  late: number;
  /** Boards that are late with it and are in time without. */
  makesLate: string[];
}

/** A board that is late, everything else that is in work, and the shop. */
export interface RescueInput {
  board: string;
  /** What its plan is made from. */
  input: PlanInput;
  /** All boards in work, it among them. */
  boards: readonly WorkDue[];
  shop: Shop;
  zone: string;
  /** Minutes since 1970. */
  from: number;
  /** The order that was kept. */
  order: readonly string[];
}

/** More clamps or evenings than these are no small change. */
const MOST_MORE_CLAMPS = 8;
const MOST_EVENINGS = 5;
/** Days ahead that are looked at for an evening more. */
const LOOK_AHEAD = 60;

/** A state of shop and board in which the day is tried. */
interface Trial {
  board: Board;
  shop: Shop;
  without: readonly string[];
}

/**
 * What would make a board's day: each change alone, the least of its kind that does, or the most that was tried; and where none does alone, two together.
 * @returns those that make the day, with the most time to spare first; where nothing does, those that come nearer to it
 */
export function rescuesFor(given: RescueInput): Rescue[] {
  const now: Trial = { board: given.input.board, shop: given.shop, without: [] };
  const before = tried(given, now);
  const own = before.get(given.board);
  if (!own || own.late === null) return [];
  const judge = (changes: RescueChange[]): Rescue | null => {
    const times = tried(
      given,
      changes.reduce((trial, c) => changed(trial, c), now),
    );
    const mine = times.get(given.board);
    if (!mine || mine.late === null) return null;
    return {
      changes,
      times: mine,
      late: mine.late,
      makesLate: [...times]
        .filter(([id, t]) => id !== given.board && (t.late ?? 0) > 0 && (before.get(id)?.late ?? 0) <= 0)
        .map(([id]) => id),
    };
  };
  const singles = candidates(given).flatMap((steps) => {
    // Of one kind the least that does, or the most there is.
    const judged = steps.flatMap((c) => judge([c]) ?? []);
    const first = judged.find((r) => r.late <= 0) ?? judged.at(-1);
    return first && first.late < (own.late ?? 0) - 1 ? [first] : [];
  });
  const inTime = singles.filter((r) => r.late <= 0);
  if (inTime.length > 0) return inTime.sort((a, b) => a.late - b.late);
  const pairs = singles.flatMap((a, i) =>
    singles
      .slice(i + 1)
      .filter((b) => nth(a.changes, 0).what !== nth(b.changes, 0).what)
      .flatMap((b) => judge([...a.changes, ...b.changes]) ?? [])
      .filter((r) => r.late < a.late - 1),
  );
  const made = pairs.filter((r) => r.late <= 0);
  return (made.length > 0 ? made : [...singles, ...pairs]).sort((a, b) => a.late - b.late);
}

/** Changes by kind, each list from the least on. */
function candidates({ input: { board }, boards, board: id, shop, zone, from }: RescueInput): RescueChange[][] {
  const finishes = shop.finishes
    .filter((f) => board.finish?.length !== 1 || board.finish[0] !== f.id)
    .map((f): RescueChange[] => [{ what: 'finish', finish: f.id, name: f.name }]);
  const glue = board.differs.glue ?? glueOf(shop).id;
  const now = shop.glues.find((g) => g.id === glue);
  const glues = shop.glues
    .filter((g) => g.id !== glue && g.clampMinutes < (now?.clampMinutes ?? 0))
    .map((g): RescueChange[] => [{ what: 'glue', glue: g.id, name: g.name }]);
  const clamps = shop.clamps.map((c) =>
    Array.from({ length: MOST_MORE_CLAMPS }, (_, k): RescueChange => ({ what: 'clamps', clamp: c.id, more: k + 1 })),
  );
  const due = boards.find((b) => b.work.board === id)?.due;
  const others = boards
    .filter((b) => b.work.board !== id && b.work.tasks.length > 0)
    .map((b): RescueChange[] => [{ what: 'later', board: b.work.board, name: b.work.name }]);
  return [
    ...finishes,
    ...glues,
    ...(due?.cured ? [[{ what: 'uncured' } as const]] : []),
    ...clamps,
    eveningsMore(shop, zone, from),
    ...others,
  ];
}

/** One evening more, two, and on: the next days on which the shop is shut, open as it is on its shortest day. */
function eveningsMore(shop: Shop, zone: string, from: number): RescueChange[] {
  const usual = shop.hours.flatMap((d) => (d ? [d] : [])).sort((a, b) => (a.to > b.to ? -1 : 1))[0];
  if (!usual) return [];
  const today = dayAt(zone, from);
  const shut: Shop['openToo'] = [];
  for (let day = today; day < today + LOOK_AHEAD && shut.length < MOST_EVENINGS; day += 1) {
    const date = new Date(day * 86_400_000).toISOString().slice(0, 10);
    const isAway = shop.away.some((a) => a.person === null && day >= dayNumber(a.from) && day <= dayNumber(a.to));
    const isOpen = nth(shop.hours, weekdayOf(day)) !== null || shop.openToo.some((o) => o.day === date);
    if (!isOpen && !isAway) shut.push({ day: date, from: usual.from, to: usual.to });
  }
  return shut.map((_, k) => ({ what: 'evenings', open: shut.slice(0, k + 1) }));
}

/** The note that goes along with a board that still hardens. */
export const UNCURED_NOTE = 'A note: still hardening, not to be used yet';

/** A board with a change; other changes leave it as it is. */
export function boardWith(board: Board, change: RescueChange): Board {
  switch (change.what) {
    case 'finish':
      return { ...board, finish: [change.finish] };
    case 'glue':
      return { ...board, differs: { ...board.differs, glue: change.glue } };
    case 'uncured':
      return {
        ...board,
        due: board.due && { ...board.due, cured: false },
        pack: board.pack.includes(UNCURED_NOTE) ? board.pack : [...board.pack, UNCURED_NOTE].slice(-12),
      };
    default:
      return board;
  }
}

/** A shop with a change; other changes leave it as it is. */
export function shopWith(shop: Shop, change: RescueChange): Shop {
  switch (change.what) {
    case 'clamps':
      return {
        ...shop,
        clamps: shop.clamps.map((c) => (c.id === change.clamp ? { ...c, count: c.count + change.more } : c)),
      };
    case 'evenings':
      return { ...shop, openToo: [...shop.openToo, ...change.open] };
    default:
      return shop;
  }
}

function changed(trial: Trial, change: RescueChange): Trial {
  return {
    board: boardWith(trial.board, change),
    shop: shopWith(trial.shop, change),
    without: change.what === 'later' ? [...trial.without, change.board] : trial.without,
  };
}

/** When every board is done in a state of shop and board. */
function tried(
  { board: id, boards, input, zone, from, order }: RescueInput,
  trial: Trial,
): ReadonlyMap<string, BoardTimes> {
  const all = boards
    .filter((b) => !trial.without.includes(b.work.board))
    .map((b) => (b.work.board === id ? { work: workWith(id, input, trial), due: trial.board.due } : b));
  const problem = shopProblem(all, trial.shop, zone, from);
  const [kept, anew] = [firstSchedule(problem, order), firstSchedule(problem)];
  return (penaltyOf(anew.score) < penaltyOf(kept.score) ? anew : kept).boards;
}

function workWith(id: string, input: PlanInput, { board, shop }: Trial): BoardWork {
  const plan = makePlan({ ...input, board, shop });
  return workOfPlan(id, { ...input, board }, plan);
}
