import type { Knex } from 'knex';
import type { BoardInWork, ShopWork } from '#contract/schedule.ts';
import type { BoardWork } from '#core/schedule/work.ts';
import { hasCalendar } from './calendarStore.ts';
import { remembered } from './documentCache.ts';
import { runningGlueUps } from './glueRunStore.ts';
import { tagOf } from './page.ts';
import { readSchedule } from './scheduleStore.ts';
import { sha256 } from './sha256.ts';
import { readShop } from './shopStore.ts';
import { allSpecies } from './speciesStore.ts';

/** A board whose last step is so long past is no longer told of, days. */
const TOLD_DAYS = 60;
const DAY_MS = 86_400_000;

interface WorkRow {
  board_id: string;
  /** Everything that may decide what is to be done: as long as it is the same, nothing is looked at. */
  state: string;
  /** What does decide it: as long as it is the same, nothing is planned. */
  wood: string;
  /** A `Summary`. */
  summary: string;
  /** A `BoardInWork`. */
  document: string;
}

/** What is asked of every board, so that the work of most need not be read. */
interface Summary {
  name: string;
  hasDue: boolean;
  hasPins: boolean;
  tasks: number;
  /** Hands-on minutes, and those until it first waits for something. */
  minutes: number;
  untilWait: number;
  past: number;
  /** When the last wait of what was done is over, minutes since 1970; 0 where nothing was. */
  until: number;
}

/** The work of a board as it was found: null where it is what is stored already. */
export interface FreshWork {
  id: string;
  state: string;
  wood: string;
  planned: BoardInWork | null;
}

/** Forgets what was worked out by another state of the code. */
export async function forgetWork(db: Knex): Promise<void> {
  await db('board_work').delete();
}

/** Forgets the work of boards that are not there any more. */
export async function forgetOtherWork(db: Knex, boards: readonly string[]): Promise<void> {
  await db('board_work')
    .whereNotIn('board_id', [...boards])
    .delete();
}

/** What the work of each board was worked out from. */
export async function knownWork(db: Knex): Promise<ReadonlyMap<string, Pick<WorkRow, 'state' | 'wood'>>> {
  const rows = await db<WorkRow>('board_work').select('board_id', 'state', 'wood');
  return new Map(rows.map((row) => [row.board_id, row]));
}

export async function keepWork(db: Knex, fresh: readonly FreshWork[]): Promise<void> {
  const rows = fresh.flatMap(({ id, state, wood, planned }): WorkRow[] =>
    planned
      ? [
          {
            board_id: id,
            state,
            wood,
            summary: JSON.stringify(summaryOf(planned)),
            document: JSON.stringify(planned),
          },
        ]
      : [],
  );
  if (rows.length > 0) await db('board_work').insert(rows).onConflict('board_id').merge();
  for (const { id, state, planned } of fresh)
    if (!planned) await db<WorkRow>('board_work').where({ board_id: id }).update({ state });
}

function summaryOf({ due, pins, work: { name, tasks, past } }: BoardInWork): Summary {
  return {
    name,
    hasDue: due !== null,
    hasPins: pins.length > 0,
    tasks: tasks.length,
    minutes: handsOf(tasks),
    untilWait: handsOf(untilWait(tasks)),
    past: past.length,
    until: Math.max(0, ...past.map((p) => p.until)),
  };
}

const handsOf = (tasks: BoardWork['tasks']): number => tasks.reduce((sum, t) => sum + t.minutes, 0);

/** Steps up to the first one that is waited for. */
function untilWait(tasks: BoardWork['tasks']): BoardWork['tasks'] {
  const at = tasks.findIndex((t) => t.wait > 0);
  return at < 0 ? tasks : tasks.slice(0, at + 1);
}

/** Tables whose rows the work of a shop depends on, with what is another whenever one of them is. Facts are only ever added, and counted with their board. */
const DEPENDS_ON = [
  ['boards', 'id, revision, facts', 'removed_at is null'],
  ['pieces', 'id, version', 'removed_at is null'],
  ['promises', 'plan_id, piece_id, unit, from_mm, to_mm, boards', '1'],
  ['cut_plans', 'id, document', '1'],
  ['cut_plan_boards', 'board_id, plan_id', '1'],
  ['cuttings', 'id, version', '1'],
  ['cutting_boards', 'board_id, cutting_id', '1'],
] as const;

/**
 * A text that is another whenever anything is that the work of the shop depends on: the database adds it up, so that nothing is read.
 * @param now milliseconds since 1970
 */
export async function stateOfShop(db: Knex, now: number): Promise<string> {
  const sums = DEPENDS_ON.map(([table, columns, where]) =>
    db(table)
      .whereRaw(where)
      .select(db.raw(`count(*) as n, coalesce(sum(crc32(concat_ws(' ', ${columns}))), 0) as sum`))
      .then(([row]: { n: number; sum: number }[]) => [table, row]),
  );
  return sha256(JSON.stringify(await Promise.all([readShop(db), allSpecies(db), runningGlueUps(db, now), ...sums])));
}

/** A body with its tag, written out only when somebody has not got it yet. */
export interface Written {
  tag: string;
  write(): string;
}

/** How many boards have no work worked out at all. */
export async function boardsWithoutWork(db: Knex): Promise<number> {
  const [{ n }] = (await db('boards')
    .leftJoin('board_work', 'board_work.board_id', 'boards.id')
    .whereNull('boards.removed_at')
    .whereNull('board_work.board_id')
    .count({ n: '*' })) as [{ n: number }];
  return Number(n);
}

/**
 * Everything that is to be done in the shop, board by board, as it is known.
 * @param now milliseconds since 1970
 * @param upToDate whether nothing is still being worked out
 */
export async function shopWork(db: Knex, now: number, upToDate: boolean): Promise<Written> {
  const [{ shop }, stored, calendar, rows, kept] = await Promise.all([
    readShop(db),
    readSchedule(db),
    hasCalendar(db),
    db('boards')
      .leftJoin('board_work', 'board_work.board_id', 'boards.id')
      .whereNull('boards.removed_at')
      .orderBy([
        { column: 'boards.saved_at', order: 'desc' },
        { column: 'boards.id', order: 'desc' },
      ])
      .select<{ id: string; wood: string | null; summary: string }[]>('boards.id', 'wood', 'summary'),
    boardsAtTheSaw(db),
  ]);
  const { schedule } = stored;
  const isInWork = (id: string, { hasDue, hasPins, tasks, past, until }: Summary) => {
    const isBegun = hasDue || hasPins || past > 0 || kept.has(id) || schedule.taken.includes(id);
    const isOver = tasks === 0 && until * 60_000 < now - TOLD_DAYS * DAY_MS;
    return isBegun && !schedule.waiting.includes(id) && !isOver && tasks + past > 0;
  };
  const known = rows.flatMap(({ id, wood, summary }) =>
    wood === null ? [] : [{ id, wood, summary: JSON.parse(summary) as Summary }],
  );
  const inWork = known.filter(({ id, summary }) => isInWork(id, summary));
  const shown = new Set(inWork.map((b) => b.id));
  const texts = await documentsOf(db, inWork);
  const head: Omit<ShopWork, 'boards'> = {
    now: new Date(now).toISOString(),
    ...stored,
    zone: shop.zone ?? new Intl.DateTimeFormat().resolvedOptions().timeZone,
    shop,
    idle: known
      .filter(({ id, summary }) => !shown.has(id) && summary.tasks > 0)
      .map(({ id, summary: { name, minutes, untilWait: first } }) => ({
        id,
        name,
        minutes,
        untilWait: first,
        waiting: schedule.waiting.includes(id),
      })),
    calendar,
    upToDate,
    unknown: rows.length - known.length,
  };
  const { now: _now, ...rest } = head;
  return {
    tag: tagOf([JSON.stringify(rest), ...inWork.flatMap(({ id, wood }) => [id, wood])]),
    write: () => `${JSON.stringify(head).slice(0, -1)},"boards":[${texts.join(',')}]}`,
  };
}

/** Boards for which wood is kept or cut. */
async function boardsAtTheSaw(db: Knex): Promise<ReadonlySet<string>> {
  const rows = await Promise.all(
    ['cut_plan_boards', 'cutting_boards'].map((table) => db(table).distinct<{ board_id: string }[]>('board_id')),
  );
  return new Set(rows.flat().map((row) => row.board_id));
}

/** The work of some boards as text, in their order; what is remembered is not read again. */
async function documentsOf(
  db: Knex,
  boards: readonly Pick<WorkRow & { id: string }, 'id' | 'wood'>[],
): Promise<string[]> {
  const read = remembered<{ json: string }>(db, 'work');
  const keyOf = ({ id, wood }: { id: string; wood: string }) => `${id}/${wood}`;
  const missing = boards.filter((b) => !read.get(keyOf(b)));
  const rows = await db<WorkRow>('board_work')
    .whereIn(
      'board_id',
      missing.map((b) => b.id),
    )
    .select('board_id', 'wood', 'document');
  const fresh = new Map(rows.map((row) => [row.board_id, row.document]));
  for (const { board_id: id, wood, document } of rows)
    read.set(keyOf({ id, wood }), { json: document }, document.length);
  // One that was removed in this moment has none any more.
  return boards.flatMap((b) => read.get(keyOf(b))?.json ?? fresh.get(b.id) ?? []);
}
