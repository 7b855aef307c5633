import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import { boardSchema, type Board } from '#core/board/board.ts';
import { BOARD_FILE_VERSION } from '#core/format/boardFile.ts';
import { invalid, notFound, Problem } from '../problem.ts';
import { readDocument } from './document.ts';
import { holdSawBook, releaseWood } from './sawStore.ts';

/** A board at its newest revision. */
export interface StoredBoard {
  id: string;
  /** Number of the revision; a save must be based on it. */
  revision: number;
  /** ISO time of the revision. */
  savedAt: string;
  /** Revisions whose content undo and redo lead to from here; null when there is none. */
  undo: number | null;
  redo: number | null;
  board: Board;
}

/** One state on the way from the stored board to the saved one. A step may lead back or forward to any revision before its own. */
export interface BoardStep {
  board: Board;
  undo: number | null;
  redo: number | null;
}

/** A revision as the history shows it. */
export interface Revision extends BoardStep {
  number: number;
  madeAt: string;
  /** Given by the maker; empty when it has none. */
  name: string;
}

interface BoardRow {
  id: string;
  revision: number;
  undo: number | null;
  redo: number | null;
  document: unknown;
  made_at: Date;
}

function toStored(row: BoardRow): StoredBoard {
  return { id: row.id, revision: row.revision, savedAt: row.made_at.toISOString(), undo: row.undo, redo: row.redo, board: readDocument(boardSchema, row.document) };
}

function newest(db: Knex) {
  return db<BoardRow>('boards').join('revisions', function onNewest() {
    this.on('revisions.board_id', 'boards.id').andOn('revisions.number', 'boards.revision');
  }).select('boards.id', 'boards.revision', 'revisions.document', 'revisions.made_at', 'revisions.undo', 'revisions.redo');
}

/** All boards, newest change first. */
export async function allBoards(db: Knex): Promise<StoredBoard[]> {
  const rows = await newest(db).whereNull('boards.removed_at').orderBy([{ column: 'revisions.made_at', order: 'desc' }, { column: 'boards.id' }]);
  return (rows as BoardRow[]).map(toStored);
}

/** @throws Problem 404 */
export async function readBoard(db: Knex, id: string): Promise<StoredBoard> {
  const row = (await newest(db).where('boards.id', id).whereNull('boards.removed_at').first()) as BoardRow | undefined;
  if (!row) throw notFound('This board');
  return toStored(row);
}

/** A new board with its first revision. */
export async function addBoard(db: Knex, board: Board): Promise<StoredBoard> {
  const id = nanoid();
  return db.transaction(async (tx) => {
    await tx('boards').insert({ id, revision: 1, created_at: new Date() });
    await addRevision(tx, id, 1, { board, undo: null, redo: null });
    return readBoard(tx, id);
  });
}

/**
 * Saves the steps that were taken since a revision, each as a revision of its own. Saving again what is stored already (an answer got lost on the way)
 * changes nothing and succeeds.
 * @param steps at least one, the newest last
 * @throws Problem 400 when a step leads to a revision that comes after it, 404, 409 stale with the stored board
 */
export async function saveBoard(db: Knex, id: string, basedOn: number, steps: readonly BoardStep[]): Promise<StoredBoard> {
  const { board } = steps.at(-1)!;
  steps.forEach((step, i) => {
    for (const way of ['undo', 'redo'] as const) {
      if ((step[way] ?? 0) > basedOn + i) throw invalid([{ path: `steps.${i}.${way}`, message: `Step ${i + 1}: ${way} must lead to a revision before it.` }]);
    }
  });
  return db.transaction(async (tx) => {
    const locked = await tx<BoardRow>('boards').where({ id }).whereNull('boards.removed_at').forUpdate().first('revision');
    if (!locked) throw notFound('This board');
    const current = await readBoard(tx, id);
    if (JSON.stringify(current.board) === JSON.stringify(board)) return current;
    if (current.revision !== basedOn) throw new Problem(409, 'stale', `"${current.board.name}" was changed elsewhere meanwhile.`, [], { current });
    for (const [i, step] of steps.entries()) await addRevision(tx, id, basedOn + 1 + i, step);
    await tx('boards').where({ id }).update({ revision: basedOn + steps.length });
    return readBoard(tx, id);
  });
}

/** Takes a board off the list; it can be brought back. @throws Problem 404, 409 stale with the stored board */
export async function removeBoard(db: Knex, id: string, basedOn: number): Promise<void> {
  await db.transaction(async (tx) => {
    await holdSawBook(tx);
    const locked = await tx<BoardRow>('boards').where({ id }).whereNull('boards.removed_at').forUpdate().first('revision');
    if (!locked) throw notFound('This board');
    if (locked.revision !== basedOn) throw new Problem(409, 'stale', 'The board was changed elsewhere meanwhile.', [], { current: await readBoard(tx, id) });
    await releaseWood(tx, [id]);
    await tx('boards').where({ id }).update({ removed_at: new Date() });
  });
}

export async function restoreBoard(db: Knex, id: string): Promise<StoredBoard> {
  const changed = await db('boards').where({ id }).update({ removed_at: null });
  if (changed === 0) throw notFound('This board');
  return readBoard(db, id);
}

interface RevisionRow {
  number: number;
  made_at: Date;
  name: string;
  undo: number | null;
  redo: number | null;
  document: unknown;
}

function toRevision({ number, made_at, name, undo, redo, document }: RevisionRow): Revision {
  return { number, madeAt: made_at.toISOString(), name, undo, redo, board: readDocument(boardSchema, document) };
}

const REVISION_COLUMNS = ['number', 'made_at', 'name', 'undo', 'redo', 'document'] as const;

/** The history of a board, newest first. @param before only revisions with smaller numbers @throws Problem 404 */
export async function revisionsOf(db: Knex, id: string, { before, limit, named }: { before: number; limit: number; named: boolean }): Promise<Revision[]> {
  if (!(await db('boards').where({ id }).whereNull('removed_at').first('id'))) throw notFound('This board');
  const rows = db('revisions').where({ board_id: id }).andWhere('number', '<', before).orderBy('number', 'desc').limit(limit);
  if (named) void rows.whereNot({ name: '' });
  return (await rows.select<RevisionRow[]>(...REVISION_COLUMNS)).map(toRevision);
}

/** @throws Problem 404 */
export async function readRevision(db: Knex, id: string, number: number): Promise<Revision> {
  const row = await db('revisions').where({ board_id: id, number }).first<RevisionRow | undefined>(...REVISION_COLUMNS);
  if (!row) throw notFound('This revision');
  return toRevision(row);
}

/** Gives a revision a name, or takes it away with an empty one. @throws Problem 404 */
export async function nameRevision(db: Knex, id: string, number: number, name: string): Promise<Revision> {
  await db('revisions').where({ board_id: id, number }).update({ name });
  return readRevision(db, id, number);
}

async function addRevision(tx: Knex.Transaction, boardId: string, number: number, { board, undo, redo }: BoardStep): Promise<void> {
  await tx('revisions').insert({ board_id: boardId, number, format_version: BOARD_FILE_VERSION, document: JSON.stringify(board), undo, redo, made_at: new Date() });
}
