import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import type { ShopWork } from '#contract/schedule.ts';
import type { Board } from '#core/board/board.ts';
import { workOfPlan } from '#core/plan/boardWork.ts';
import { makePlan } from '#core/plan/plan.ts';
import { sawStateFor } from '#core/saw/sawBook.ts';
import type { BoardWork } from '#core/schedule/work.ts';
import { boardsNewest } from './boardStore.ts';
import { factsOfBoards } from './factStore.ts';
import { runningGlueUps } from './glueRunStore.ts';
import { piecesInRack } from './rackStore.ts';
import { sawBook } from './sawStore.ts';
import { readSchedule } from './scheduleStore.ts';
import { readShop } from './shopStore.ts';
import { allSpecies } from './speciesStore.ts';

/** A board whose last step is so long past is no longer told of, days. */
const TOLD_DAYS = 60;
const DAY_MS = 86_400_000;

interface WorkRow {
  board_id: string;
  state: string;
  document: string;
}

/** Forgets what was worked out by another state of the code. */
export async function forgetWork(db: Knex): Promise<void> {
  await db('board_work').delete();
}

/**
 * Everything that is to be done in the shop, board by board. What is to be done on a board is worked out when the board, its facts, the rack, the shop or the saw book are others than when it was worked out last.
 * @param now milliseconds since 1970
 */
export async function shopWork(db: Knex, now: number): Promise<ShopWork> {
  const [{ shop }, { version, schedule, secret }, boards] = await Promise.all([
    readShop(db),
    readSchedule(db),
    boardsNewest(db),
  ]);
  const ids = boards.map((b) => b.id);
  const [facts, book, rack, species, running] = await Promise.all([
    factsOfBoards(db, ids),
    sawBook(db, ids),
    piecesInRack(db),
    allSpecies(db),
    runningGlueUps(db, now),
  ]);
  const common = hashOf([
    shop,
    rack.map((p) => [p.piece.id, p.version]),
    species,
    book.promises,
    book.cuttings.map((c) => [c.id, c.version]),
  ]);
  const known = new Map((await db<WorkRow>('board_work').select()).map((row) => [row.board_id, row]));
  const pieces = rack.map((p) => p.piece);
  const fresh: WorkRow[] = [];
  const works: BoardWork[] = [];
  for (const { id, revision, board } of boards) {
    const own = facts.get(id) ?? [];
    const clocks = running.filter((r) => r.board === id);
    const state = hashOf([common, revision, own, clocks]);
    const before = known.get(id);
    if (before?.state === state) {
      works.push(JSON.parse(before.document) as BoardWork);
      continue;
    }
    // Others get their answers between two boards.
    await new Promise(setImmediate);
    const input = { board, rack: pieces, shop, species, saw: sawStateFor(book, id), facts: own };
    const work = workOfPlan(id, input, makePlan(input), clocks);
    fresh.push({ board_id: id, state, document: JSON.stringify(work) });
    works.push(work);
  }
  if (fresh.length > 0) await db('board_work').insert(fresh).onConflict('board_id').merge();
  const kept = new Set(book.plans.flatMap((p) => p.boards).concat(book.cuttings.flatMap((c) => c.boards)));
  const isBegun = (id: string, board: Board, work: BoardWork) =>
    board.due !== null || kept.has(id) || work.past.length > 0 || board.pins.length > 0 || schedule.taken.includes(id);
  const isOver = (work: BoardWork) =>
    work.tasks.length === 0 && Math.max(0, ...work.past.map((p) => p.until)) * 60_000 < now - TOLD_DAYS * DAY_MS;
  const all = boards.map((b, i) => ({ ...b, work: works[i] as BoardWork }));
  const inWork = all.filter(
    ({ id, board, work }) =>
      isBegun(id, board, work) &&
      !schedule.waiting.includes(id) &&
      !isOver(work) &&
      work.tasks.length + work.past.length > 0,
  );
  return {
    now: new Date(now).toISOString(),
    version,
    schedule,
    zone: shop.zone ?? new Intl.DateTimeFormat().resolvedOptions().timeZone,
    shop,
    boards: inWork.map(({ id, revision, board, work }) => ({ id, revision, due: board.due, pins: board.pins, work })),
    idle: all
      .filter((b) => !inWork.includes(b) && b.work.tasks.length > 0)
      .map(({ id, board, work }) => ({
        id,
        name: board.name,
        minutes: handsOf(work.tasks),
        untilWait: handsOf(untilWait(work.tasks)),
        waiting: schedule.waiting.includes(id),
      })),
    calendar: secret !== null,
  };
}

const handsOf = (tasks: BoardWork['tasks']): number => tasks.reduce((sum, t) => sum + t.minutes, 0);

/** Steps up to the first one that is waited for. */
function untilWait(tasks: BoardWork['tasks']): BoardWork['tasks'] {
  const at = tasks.findIndex((t) => t.wait > 0);
  return at < 0 ? tasks : tasks.slice(0, at + 1);
}

const hashOf = (value: unknown): string => createHash('sha256').update(JSON.stringify(value)).digest('hex');
