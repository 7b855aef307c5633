import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import { boardSchema, type Board } from '#core/board/board.ts';
import { BOARD_FILE_VERSION } from '#core/format/boardFile.ts';
import { notFound, Problem } from '../problem.ts';
import { readDocument } from './document.ts';
import { holdSawBook, releaseWood } from './sawStore.ts';

/** A board at its newest revision. */
export interface StoredBoard {
  id: string;
  /** Number of the revision; a save must be based on it. */
  revision: number;
  /** ISO time of the revision. */
  savedAt: string;
  board: Board;
}

interface BoardRow {
  id: string;
  revision: number;
  document: unknown;
  made_at: Date;
}

function toStored(row: BoardRow): StoredBoard {
  return { id: row.id, revision: row.revision, savedAt: row.made_at.toISOString(), board: readDocument(boardSchema, row.document) };
}

function newest(db: Knex) {
  return db<BoardRow>('boards').join('revisions', function onNewest() {
    this.on('revisions.board_id', 'boards.id').andOn('revisions.number', 'boards.revision');
  }).select('boards.id', 'boards.revision', 'revisions.document', 'revisions.made_at');
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
    await addRevision(tx, id, 1, board);
    return readBoard(tx, id);
  });
}

/**
 * Saves a board as a new revision. Saving again what is stored already (an answer got lost on the way) changes nothing and succeeds.
 * @throws Problem 404, 409 stale with the stored board
 */
export async function saveBoard(db: Knex, id: string, basedOn: number, board: Board): Promise<StoredBoard> {
  return db.transaction(async (tx) => {
    const locked = await tx<BoardRow>('boards').where({ id }).whereNull('boards.removed_at').forUpdate().first('revision');
    if (!locked) throw notFound('This board');
    const current = await readBoard(tx, id);
    if (JSON.stringify(current.board) === JSON.stringify(board)) return current;
    if (current.revision !== basedOn) throw new Problem(409, 'stale', `"${current.board.name}" was changed elsewhere meanwhile.`, [], { current });
    await addRevision(tx, id, basedOn + 1, board);
    await tx('boards').where({ id }).update({ revision: basedOn + 1 });
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

async function addRevision(tx: Knex.Transaction, boardId: string, number: number, board: Board): Promise<void> {
  await tx('revisions').insert({ board_id: boardId, number, format_version: BOARD_FILE_VERSION, document: JSON.stringify(board), made_at: new Date() });
}
