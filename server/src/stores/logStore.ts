import type { EarlierPrices } from '#contract/money.ts';
import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import type { EntryChange, ListedEntry, LogPage, LogQuery, LogSort, StoredEntry } from '#contract/log.ts';
import { cutStripsOf } from '#core/board/recipe.ts';
import { factsThatHold } from '#core/facts/factsThatHold.ts';
import { BOARD_FILE_VERSION } from '#core/format/boardFile.ts';
import { logEntrySchema, pairSchema, type LogEntry, type Pair } from '#core/log/entry.ts';
import { notFound, Problem } from '../problem.ts';
import { readDocument } from './document.ts';

interface LogRow {
  id: string;
  board_id: string | null;
  aside_id: number | null;
  version: number;
  format_version: number;
  name: string;
  use_for: string;
  for_whom: string;
  finished_at: Date;
  species: string;
  words: string;
  length: number;
  width: number;
  thickness: number;
  minutes_planned: number;
  minutes_taken: number;
  cost: number | null;
  mishaps: number;
  pairs: string;
  document: string;
  removed_at: Date | null;
}

/** So many boards stand on a page of the log. */
export const LOG_PAGE = 100;

const ORDER: Readonly<Record<LogSort, { column: string; order: 'asc' | 'desc' }>> = {
  newest: { column: 'finished_at', order: 'desc' },
  oldest: { column: 'finished_at', order: 'asc' },
  name: { column: 'name', order: 'asc' },
  longest: { column: 'minutes_taken', order: 'desc' },
  dearest: { column: 'cost', order: 'desc' },
};

const LISTED = [
  'id',
  'version',
  'name',
  'use_for',
  'for_whom',
  'finished_at',
  'species',
  'length',
  'width',
  'thickness',
  'minutes_planned',
  'minutes_taken',
  'cost',
  'mishaps',
] as const;

/** What of an entry lists sort and search by. */
function columnsOf(entry: LogEntry): Omit<LogRow, 'id' | 'version' | 'removed_at' | 'aside_id'> {
  const { board, forWhom, reached } = entry;
  const species = [...new Set(cutStripsOf(board).map((s) => s.species))];
  const held = factsThatHold(entry.facts);
  const notes = held.flatMap((f) => (f.kind === 'note' ? [f.text] : f.kind === 'failed' ? [f.why] : []));
  return {
    board_id: entry.boardId,
    format_version: BOARD_FILE_VERSION,
    name: board.name,
    use_for: board.use,
    for_whom: forWhom,
    finished_at: new Date(entry.finishedAt),
    species: ` ${species.join(' ')} `,
    words: [board.name, board.use, forWhom, ...species, ...notes].join(' ').toLowerCase().slice(0, 20_000),
    length: reached.length,
    width: reached.width,
    thickness: reached.thickness,
    minutes_planned: entry.minutesPlanned,
    minutes_taken: entry.minutesTaken,
    cost: entry.cost,
    mishaps: held.filter((f) => f.kind === 'decided').length,
    pairs: JSON.stringify(entry.pairs),
    document: JSON.stringify(entry),
  };
}

const listed = (row: Pick<LogRow, (typeof LISTED)[number]>): ListedEntry => ({
  id: row.id,
  version: row.version,
  name: row.name,
  use: row.use_for,
  forWhom: row.for_whom,
  finishedAt: row.finished_at.toISOString(),
  species: row.species.trim().split(' ').filter(Boolean),
  length: row.length,
  width: row.width,
  thickness: row.thickness,
  minutesPlanned: row.minutes_planned,
  minutesTaken: row.minutes_taken,
  cost: row.cost,
  mishaps: row.mishaps,
});

const rows = (db: Knex) => db<LogRow>('log_entries').whereNull('removed_at');

const YEAR_MS = 365 * 86_400_000;
/** The newest prices tell; older ones are of another year's wood. */
const MOST_PRICES = 200;

/** What was asked for finished boards, the newest first, and how many were made in the last year. @param now milliseconds since 1970 */
export async function earlierPrices(db: Knex, now: number): Promise<EarlierPrices> {
  const price = `cast(json_value(document, '$.board.price') as decimal(12, 4))`;
  const count = `cast(json_value(document, '$.board.count') as unsigned)`;
  const [[{ n }], priced] = await Promise.all([
    rows(db)
      .where('finished_at', '>', new Date(now - YEAR_MS))
      .select(db.raw(`coalesce(sum(${count}), 0) as n`)) as unknown as Promise<[{ n: number | string }]>,
    rows(db)
      .whereRaw(`json_value(document, '$.board.price') is not null`)
      .orderBy([{ column: 'finished_at', order: 'desc' }, { column: 'id' }])
      .limit(MOST_PRICES)
      .select('name', 'length', 'width', db.raw(`${price} as price`)),
  ]);
  return {
    boardsYear: Number(n),
    prices: (priced as unknown as { name: string; length: number; width: number; price: number | string }[]).map(
      (row) => ({
        name: row.name,
        length: row.length,
        width: row.width,
        price: Number(row.price),
      }),
    ),
  };
}

/** A page of finished boards, by words that all of them hold, a species and an order. */
export async function logPage(
  db: Knex,
  { words = '', species, board, sort = 'newest', from = 0 }: LogQuery,
): Promise<LogPage> {
  const asked = () => {
    const found = rows(db);
    for (const word of words.toLowerCase().split(/\s+/).filter(Boolean))
      void found.whereRaw('locate(?, words) > 0', [word]);
    if (species) void found.whereRaw('locate(?, species) > 0', [` ${species} `]);
    if (board) void found.where({ board_id: board });
    return found;
  };
  const { column, order } = ORDER[sort];
  const [[{ n }], page] = await Promise.all([
    asked().count({ n: '*' }) as unknown as Promise<[{ n: number }]>,
    asked()
      .select(...LISTED)
      .orderBy([{ column, order }, { column: 'id' }])
      .limit(LOG_PAGE)
      .offset(from),
  ]);
  return { count: Number(n), entries: page.map(listed) };
}

/** @throws Problem 404 */
export async function readEntry(db: Knex, id: string): Promise<StoredEntry> {
  const row = await rows(db).where({ id }).first('id', 'version', 'document');
  if (!row) throw notFound('This board in the log');
  return { id: row.id, version: row.version, entry: readDocument(logEntrySchema, row.document) };
}

/** Takes a finished board into the log, once. @throws Problem 409 `in-the-log` with what is there */
export async function addEntry(tx: Knex.Transaction, entry: LogEntry): Promise<StoredEntry> {
  const id = nanoid();
  // Two devices that take it at once come one after the other.
  const known =
    entry.boardId !== null && (await tx('boards').where({ id: entry.boardId }).forUpdate().first('id')) !== undefined;
  if (known) await refuseTwice(tx, entry.boardId);
  const kept = { ...entry, boardId: known ? entry.boardId : null };
  await tx('log_entries').insert({ id, version: 1, ...columnsOf(kept), removed_at: null });
  return { id, version: 1, entry: kept };
}

/** A board is in the log once. @throws Problem 409 `in-the-log` with what is there */
async function refuseTwice(tx: Knex.Transaction, boardId: string | null): Promise<void> {
  const there = boardId !== null && (await rows(tx).where({ board_id: boardId }).first('id'));
  if (there)
    throw new Problem(409, 'in-the-log', 'This board is in the log already; what is new of it goes on its page.', [], {
      current: await readEntry(tx, there.id),
    });
}

/** Says more of a finished board: nothing of what was is changed. @throws Problem 404, 409 stale */
export async function changeEntry(
  tx: Knex.Transaction,
  id: string,
  { version, forWhom, care }: EntryChange,
): Promise<StoredEntry> {
  await rows(tx).where({ id }).forUpdate().first('id');
  const stored = await readEntry(tx, id);
  if (stored.version !== version)
    throw new Problem(409, 'stale', 'This board in the log was changed elsewhere a moment ago; look at it anew.', [], {
      current: stored,
    });
  const entry: LogEntry = {
    ...stored.entry,
    ...(forWhom === undefined ? {} : { forWhom }),
    care: care ? [...stored.entry.care, care] : stored.entry.care,
  };
  await tx('log_entries')
    .where({ id })
    .update({ version: version + 1, ...columnsOf(entry) });
  return { id, version: version + 1, entry };
}

/** @throws Problem 404, 409 `in-the-log` for one to bring back whose board was taken in again since */
export async function removeEntry(tx: Knex.Transaction, id: string, removed: boolean): Promise<void> {
  const gone = removed
    ? undefined
    : await tx<LogRow>('log_entries').where({ id }).whereNotNull('removed_at').first('board_id');
  if (gone?.board_id) await tx('boards').where({ id: gone.board_id }).forUpdate().first('id');
  if (gone) await refuseTwice(tx, gone.board_id);
  const changed = await tx('log_entries')
    .where({ id, aside_id: null })
    .update({ removed_at: removed ? new Date() : null });
  if (changed === 0) throw notFound('This board in the log');
}

/** Everything that was planned and happened, of all finished boards. */
export async function allPairs(db: Knex): Promise<Pair[]> {
  const all = await rows(db).select('pairs');
  return all.flatMap(({ pairs }) => readDocument(pairSchema.array(), pairs));
}
