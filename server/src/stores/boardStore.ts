import { certain, entryOf, lastOf } from '#core/lists/there.ts';
import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import type { BoardStep, ListedBoard, Revision, StoredBoard } from '#contract/boards.ts';
import { boardSchema, type Board } from '#core/board/board.ts';
import type { Fact } from '#core/facts/fact.ts';
import { BOARD_FILE_VERSION } from '#core/format/boardFile.ts';
import { invalid, notFound, Problem } from '../problem.ts';
import { readDocument } from './document.ts';
import { remembered } from './documentCache.ts';
import { factsOfBoards } from './factStore.ts';
import { cursorOf, readCursor, tagOf, type Page } from './page.ts';
import { refuseUnknownSpecies } from './speciesStore.ts';

interface BoardRow {
  id: string;
  revision: number;
  saved_at: Date;
  /** How many things happened to it. */
  facts: number;
  removed_at: Date | null;
}

interface RevisionRow {
  number: number;
  made_at: Date;
  name: string;
  undo: number | null;
  redo: number | null;
  document: string;
}

const REVISION_COLUMNS = ['number', 'made_at', 'name', 'undo', 'redo', 'document'] as const;
/** Sent at once, and at most. */
const BOARDS_A_PAGE = 30;

/** A board as lists show it: its strips and how they are made, without versions set aside and what is worked into it, and what happened to it. */
function asListed({ board, ...stored }: StoredBoard, facts: Fact[]): ListedBoard {
  return { ...stored, board: { ...board, versions: [], worked: { ...board.worked, features: [] } }, facts };
}

/** Boards, the newest change first, a page at a time. @param after from the page before; null begins */
export async function boardsPage(db: Knex, after: string | null): Promise<Page> {
  const query = db('boards')
    .select<BoardRow[]>('id', 'revision', 'saved_at', 'facts')
    .whereNull('removed_at')
    .orderBy([
      { column: 'saved_at', order: 'desc' },
      { column: 'id', order: 'desc' },
    ])
    .limit(BOARDS_A_PAGE + 1);
  if (after !== null) {
    const [savedAt, id] = readCursor(after, ['number', 'string'] as const);
    void query.whereRaw('(saved_at, id) < (?, ?)', [new Date(savedAt), id]);
  }
  const rows = await query;
  const shown = rows.slice(0, BOARDS_A_PAGE);
  const listed = remembered<{ json: string }>(db, 'listed board');
  const stateOf = ({ id, revision, facts }: Pick<BoardRow, 'id' | 'revision' | 'facts'>) =>
    `${id}/${revision}/${facts}`;
  const missing = shown.filter((r) => !listed.get(stateOf(r)));
  const happened = await factsOfBoards(
    db,
    missing.filter((r) => r.facts > 0).map((r) => r.id),
  );
  const fresh = new Map<string, string>();
  for (const stored of await boardsAt(db, missing)) {
    const json = JSON.stringify(asListed(stored, happened.get(stored.id) ?? []));
    fresh.set(stored.id, json);
  }
  for (const row of missing) {
    const json = fresh.get(row.id);
    if (json !== undefined) listed.set(stateOf(row), { json }, json.length);
  }
  const last = shown.at(-1);
  return {
    rows: shown.map((r) => fresh.get(r.id) ?? entryOf(listed, stateOf(r)).json),
    tag: tagOf(shown.flatMap((r) => [r.id, r.revision, r.facts])),
    next: rows.length > shown.length && last ? cursorOf([last.saved_at.getTime(), last.id]) : null,
  };
}

async function boardsAt(db: Knex, at: readonly Pick<BoardRow, 'id' | 'revision'>[]): Promise<StoredBoard[]> {
  if (at.length === 0) return [];
  const rows = await db('revisions')
    .whereIn(
      ['board_id', 'number'],
      at.map((r) => [r.id, r.revision]),
    )
    .select<(RevisionRow & { board_id: string })[]>('board_id', ...REVISION_COLUMNS);
  return rows.map((row) => toStored(row.board_id, row));
}

function toStored(id: string, { number, made_at, undo, redo, document }: RevisionRow): StoredBoard {
  return {
    id,
    revision: number,
    savedAt: made_at.toISOString(),
    undo,
    redo,
    board: readDocument(boardSchema, document),
  };
}

/** @throws Problem 404 */
export async function readBoard(db: Knex, id: string): Promise<StoredBoard> {
  const row = await newestRow(db, id);
  if (!row) throw notFound('This board');
  const read = remembered<StoredBoard>(db, 'board');
  const known = read.get(`${id}/${row.revision}`);
  if (known) return known;
  const [stored] = await boardsAt(db, [{ id, revision: row.revision }]);
  if (!stored) throw notFound('This board');
  read.set(`${id}/${row.revision}`, stored, JSON.stringify(stored.board).length);
  return stored;
}

/** Every board as it is, the newest change first. */
export async function boardsNewest(db: Knex): Promise<StoredBoard[]> {
  const rows = await db('boards')
    .select<BoardRow[]>('id', 'revision')
    .whereNull('removed_at')
    .orderBy([
      { column: 'saved_at', order: 'desc' },
      { column: 'id', order: 'desc' },
    ]);
  const read = remembered<StoredBoard>(db, 'board');
  const missing = rows.filter((r) => !read.get(`${r.id}/${r.revision}`));
  const fresh = new Map((await boardsAt(db, missing)).map((stored) => [stored.id, stored]));
  for (const stored of fresh.values())
    read.set(`${stored.id}/${stored.revision}`, stored, JSON.stringify(stored.board).length);
  return rows.flatMap((r) => fresh.get(r.id) ?? read.get(`${r.id}/${r.revision}`) ?? []);
}

async function newestRow(db: Knex, id: string): Promise<BoardRow | undefined> {
  return db<BoardRow>('boards').where({ id }).whereNull('removed_at').first('id', 'revision', 'saved_at');
}

/** Several boards, in the order of their ids, held against changes until the transaction ends. @throws Problem 404 */
export async function lockBoards(tx: Knex.Transaction, ids: readonly string[]): Promise<StoredBoard[]> {
  const wanted = [...new Set(ids)].sort();
  const rows = await tx('boards')
    .whereIn('id', wanted)
    .whereNull('removed_at')
    .orderBy('id')
    .forUpdate()
    .select<BoardRow[]>('id', 'revision');
  if (rows.length < wanted.length) throw notFound('This board');
  const stored = await boardsAt(tx, rows);
  return ids.map((id) => certain(stored.find((s) => s.id === id)));
}

/** A new board with its first revision. @throws Problem 400 for a species that is not known */
export async function addBoard(tx: Knex.Transaction, board: Board): Promise<StoredBoard> {
  await refuseUnknownSpecies(tx, board);
  const id = nanoid();
  const now = new Date();
  await tx('boards').insert({ id, revision: 1, created_at: now, saved_at: now });
  return addRevisions(tx, id, 0, [{ board, undo: null, redo: null }], now);
}

/**
 * Saves the steps that were taken since a revision, each as a revision of its own. Saving again what is stored already (an answer got lost on the way)
 * changes nothing and succeeds.
 * @param steps at least one, the newest last
 * @throws Problem 400 when a step leads to a revision that comes after it or names a species that is not known, 404, 409 stale with the stored board
 */
export async function saveBoard(
  tx: Knex.Transaction,
  id: string,
  basedOn: number,
  steps: readonly BoardStep[],
): Promise<StoredBoard> {
  const { board } = lastOf(steps);
  steps.forEach((step, i) => {
    for (const way of ['undo', 'redo'] as const) {
      if ((step[way] ?? 0) > basedOn + i)
        throw invalid([
          { path: `steps.${i}.${way}`, message: `Step ${i + 1}: ${way} must lead to a revision before it.` },
        ]);
    }
  });
  for (const step of steps) await refuseUnknownSpecies(tx, step.board);
  // The board is held until the transaction ends, and its newest revision with it.
  const newest = await tx('boards')
    .join('revisions', function () {
      this.on('revisions.board_id', 'boards.id').andOn('revisions.number', 'boards.revision');
    })
    .where('boards.id', id)
    .whereNull('boards.removed_at')
    .forUpdate()
    .first<RevisionRow | undefined>(...REVISION_COLUMNS);
  if (!newest) throw notFound('This board');
  if (newest.document === JSON.stringify(board)) return toStored(id, newest);
  if (newest.number !== basedOn) {
    const current = toStored(id, newest);
    throw new Problem(409, 'stale', `"${current.board.name}" was changed elsewhere meanwhile.`, [], { current });
  }
  return addRevisions(tx, id, basedOn, steps, new Date());
}

/** @throws Problem 404 */
export async function restoreBoard(tx: Knex.Transaction, id: string): Promise<StoredBoard> {
  const changed = await tx('boards').where({ id }).whereNull('aside_id').update({ removed_at: null });
  if (changed === 0) throw notFound('This board');
  return readBoard(tx, id);
}

function toRevision({ number, made_at, name, undo, redo, document }: RevisionRow): Revision {
  return { number, madeAt: made_at.toISOString(), name, undo, redo, board: readDocument(boardSchema, document) };
}

/** The history of a board, newest first. @param before only revisions with smaller numbers @throws Problem 404 */
export async function revisionsOf(
  db: Knex,
  id: string,
  { before, limit, named }: { before: number; limit: number; named: boolean },
): Promise<Revision[]> {
  if (!(await newestRow(db, id))) throw notFound('This board');
  const rows = db('revisions')
    .where({ board_id: id })
    .andWhere('number', '<', before)
    .orderBy('number', 'desc')
    .limit(limit);
  if (named) void rows.whereNot({ name: '' });
  return (await rows.select<RevisionRow[]>(...REVISION_COLUMNS)).map(toRevision);
}

/** @throws Problem 404 */
export async function readRevision(db: Knex, id: string, number: number): Promise<Revision> {
  const row = await db('revisions')
    .where({ board_id: id, number })
    .first<RevisionRow | undefined>(...REVISION_COLUMNS);
  if (!row) throw notFound('This revision');
  return toRevision(row);
}

/** Gives a revision a name, or takes it away with an empty one. @throws Problem 404 */
export async function nameRevision(tx: Knex.Transaction, id: string, number: number, name: string): Promise<Revision> {
  await tx('revisions').where({ board_id: id, number }).update({ name });
  return readRevision(tx, id, number);
}

/** Names of boards as they are now, in quotes, each once. */
export async function boardNames(db: Knex, ids: readonly string[]): Promise<string[]> {
  const wanted = [...new Set(ids)];
  const rows = await db<BoardRow>('boards').whereIn('id', wanted).select('id', 'revision');
  const stored = await boardsAt(db, rows);
  return wanted.flatMap((id) => stored.filter((s) => s.id === id).map((s) => `"${s.board.name}"`));
}

async function addRevisions(
  tx: Knex.Transaction,
  id: string,
  basedOn: number,
  steps: readonly BoardStep[],
  now: Date,
): Promise<StoredBoard> {
  await tx('revisions').insert(
    steps.map(({ board, undo, redo }, i) => ({
      board_id: id,
      number: basedOn + 1 + i,
      format_version: BOARD_FILE_VERSION,
      document: JSON.stringify(board),
      undo,
      redo,
      made_at: now,
    })),
  );
  const revision = basedOn + steps.length;
  await tx('boards').where({ id }).update({ revision, saved_at: now });
  return { id, revision, savedAt: now.toISOString(), ...lastOf(steps) };
}
