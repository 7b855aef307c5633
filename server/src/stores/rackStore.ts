import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import { pieceShape, type Piece, type PieceFields } from '#core/stock/piece.ts';
import { boardSchema } from '#core/board/board.ts';
import { cuttingRecordSchema } from '#core/plan/sawRecords.ts';
import { invalid, notFound, Problem } from '../problem.ts';
import { readDocument } from './document.ts';

/** A piece with the version a change must be based on. */
export interface StoredPiece {
  piece: Piece;
  version: number;
}

const INSERT_CHUNK = 400;
/** A list of a thousand problems helps nobody. */
const MOST_PROBLEMS = 50;

/** A row: sizes and sorts are columns with the database's own checks, condition and defects are one validated document each. */
interface PieceRow extends Omit<Piece, 'price' | 'farEnd' | 'form' | 'ends' | 'defects' | 'origin'> {
  far_width: number | null;
  far_thickness: number | null;
  bow: number | null;
  cup: number | null;
  crook: number | null;
  twist: number | null;
  ends: unknown;
  defects: unknown;
  origin_kind: Piece['origin']['kind'];
  origin_of: string;
  present_mark: string | null;
  price_amount: number | null;
  price_per: NonNullable<Piece['price']>['per'] | null;
  version: number;
  updated_at: Date;
  removed_at: Date | null;
}

function toStored(row: PieceRow): StoredPiece {
  const { id, mark, species, length, width, thickness, surface, straight, rings, grain, moisture, shelf, note, count, version } = row;
  return {
    version,
    piece: {
      id, mark, species, length, width, thickness, surface, straight, rings, grain, moisture, shelf, note, count,
      farEnd: row.far_width === null || row.far_thickness === null ? null : { width: row.far_width, thickness: row.far_thickness },
      form: row.bow === null || row.cup === null || row.crook === null || row.twist === null ? null : { bow: row.bow, cup: row.cup, crook: row.crook, twist: row.twist },
      ends: readDocument(pieceShape.shape.ends, row.ends), defects: readDocument(pieceShape.shape.defects, row.defects),
      origin: { kind: row.origin_kind, of: row.origin_of },
      price: row.price_amount === null || row.price_per === null ? null : { amount: row.price_amount, per: row.price_per },
    },
  };
}

function toColumns({ price, farEnd, form, ends, defects, origin, ...fields }: PieceFields) {
  return {
    ...fields, price_amount: price?.amount ?? null, price_per: price?.per ?? null, far_width: farEnd?.width ?? null, far_thickness: farEnd?.thickness ?? null,
    bow: form?.bow ?? null, cup: form?.cup ?? null, crook: form?.crook ?? null, twist: form?.twist ?? null,
    ends: JSON.stringify(ends), defects: JSON.stringify(defects), origin_kind: origin.kind, origin_of: origin.of, updated_at: new Date(),
  };
}

/** The pieces in the rack, in the order of their marks. */
export async function piecesInRack(db: Knex): Promise<StoredPiece[]> {
  const rows = await db<PieceRow>('pieces').select().whereNull('removed_at').orderBy([{ column: 'species' }, { column: 'mark' }]);
  return rows.map(toStored);
}

/** @throws Problem 409 when the mark is taken, 400 when the species is unknown */
export async function addPiece(db: Knex, fields: PieceFields, id: string = nanoid()): Promise<StoredPiece> {
  await sayWhy(fields, db('pieces').insert({ id, ...toColumns(fields), version: 1 }));
  return readPiece(db, id);
}

/** Adds pieces of a file whose ids the rack has never seen; others are left alone, also those with a mark that is taken. */
export async function addMissingPieces(db: Knex, pieces: readonly Piece[]): Promise<void> {
  for (const { id, ...fields } of pieces) await db('pieces').insert({ id, ...toColumns(fields), version: 1 }).onConflict().ignore();
}

/** @throws Problem 404, 409 stale with the stored piece, 409 when the mark is taken */
export async function changePiece(db: Knex, id: string, version: number, fields: PieceFields): Promise<StoredPiece> {
  return db.transaction(async (tx) => {
    await lockAt(tx, id, version, false);
    await sayWhy(fields, tx('pieces').where({ id }).update({ ...toColumns(fields), version: version + 1 }));
    return readPiece(tx, id);
  });
}

/** Takes a piece out of the rack; it can be put back. */
export async function removePiece(db: Knex, id: string, version: number): Promise<StoredPiece> {
  return setRemoved(db, id, version, true);
}

/** Puts a removed piece back. */
export async function restorePiece(db: Knex, id: string, version: number): Promise<StoredPiece> {
  return setRemoved(db, id, version, false);
}

/** Adds many pieces at once, or none. @throws Problem 400 or 409 that names the row and the field */
export async function addPieces(db: Knex, pieces: readonly PieceFields[]): Promise<number> {
  return db.transaction(async (tx) => {
    const taken = new Set((await tx<PieceRow>('pieces').whereNull('removed_at').select('mark')).map((r) => r.mark.toLowerCase()));
    const known = new Set((await tx<{ code: string }>('species').select('code')).map((r) => r.code));
    const problems = pieces.flatMap((piece, i) => {
      const found = [];
      if (taken.has(piece.mark.toLowerCase())) found.push({ path: `pieces[${i}].mark`, message: `Piece ${i + 1}: mark ${piece.mark} is already on another piece.` });
      if (!known.has(piece.species)) found.push({ path: `pieces[${i}].species`, message: `Piece ${i + 1}: species "${piece.species}" is not known.` });
      taken.add(piece.mark.toLowerCase());
      return found;
    });
    if (problems.length > 0) throw invalid(problems.slice(0, MOST_PROBLEMS));
    for (let i = 0; i < pieces.length; i += INSERT_CHUNK) {
      const rows = pieces.slice(i, i + INSERT_CHUNK).map((fields) => ({ id: nanoid(), ...toColumns(fields), version: 1 }));
      await sayWhy(pieces[i]!, tx('pieces').insert(rows));
    }
    return pieces.length;
  });
}

/** Names the boards that a piece is promised to. */
async function refusePromised(tx: Knex, id: string, mark: string): Promise<void> {
  const rows = await tx('promises').join('cut_plan_boards', 'cut_plan_boards.plan_id', 'promises.plan_id').join('boards', 'boards.id', 'cut_plan_boards.board_id')
    .join('revisions', function onNewest() {
      this.on('revisions.board_id', 'boards.id').andOn('revisions.number', 'boards.revision');
    }).where('promises.piece_id', id).distinct<{ document: unknown }[]>('revisions.board_id', 'revisions.document');
  if (rows.length === 0) return;
  const names = rows.map((r) => `"${readDocument(boardSchema, r.document).name}"`);
  throw new Problem(409, 'promised', `Piece ${mark} is promised to ${names.join(' and ')}. Release its wood there first.`);
}

/** A piece that left the rack because it was cut comes back only with the cut. */
async function refuseCut(tx: Knex, id: string, mark: string): Promise<void> {
  const rows = await tx<{ piece_id: string; document: unknown }>('cuttings').where({ piece_id: id }).select('document');
  if (rows.some((r) => readDocument(cuttingRecordSchema, r.document).piece.count === 1)) throw new Problem(409, 'cut', `Piece ${mark} was cut. Take that cut back on the Cuts of its board instead.`);
}

async function setRemoved(db: Knex, id: string, version: number, removed: boolean): Promise<StoredPiece> {
  return db.transaction(async (tx) => {
    const { piece } = await lockAt(tx, id, version, !removed);
    if (removed) await refusePromised(tx, id, piece.mark);
    else await refuseCut(tx, id, piece.mark);
    await sayWhy(piece, tx('pieces').where({ id }).update({ removed_at: removed ? new Date() : null, updated_at: new Date(), version: version + 1 }));
    return readPiece(tx, id);
  });
}

async function readPiece(db: Knex, id: string): Promise<StoredPiece> {
  const row = await db<PieceRow>('pieces').where({ id }).first();
  if (!row) throw notFound('This piece');
  return toStored(row);
}

/** Locks a piece at the version a write is based on. */
async function lockAt(tx: Knex.Transaction, id: string, version: number, removed: boolean): Promise<StoredPiece> {
  const row = await tx<PieceRow>('pieces').where({ id }).forUpdate().first();
  if (!row || (row.removed_at !== null) !== removed) throw notFound('This piece');
  const stored = toStored(row);
  if (stored.version !== version) throw new Problem(409, 'stale', `Piece ${stored.piece.mark} was changed elsewhere meanwhile.`, [], { current: stored });
  return stored;
}

/** Turns what the database's own rules refuse into sentences. */
async function sayWhy(fields: PieceFields, write: PromiseLike<unknown>): Promise<void> {
  try {
    await write;
  } catch (error) {
    const code = (error as { code?: string }).code;
    if (code === 'ER_DUP_ENTRY') {
      const message = `Mark ${fields.mark} is already on another piece in the rack.`;
      throw new Problem(409, 'mark-taken', message, [{ path: 'mark', message }]);
    }
    if (code === 'ER_NO_REFERENCED_ROW_2') {
      const message = `Species "${fields.species}" is not known.`;
      throw new Problem(400, 'invalid', message, [{ path: 'species', message }]);
    }
    throw error;
  }
}
