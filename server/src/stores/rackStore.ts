import { firstOf } from '#core/lists/there.ts';
import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import type { StoredPiece } from '#contract/rack.ts';
import { pieceShape, type Piece, type PieceFields } from '#core/stock/piece.ts';
import { cuttingRecordSchema } from '#core/saw/sawRecords.ts';
import { invalid, notFound, Problem } from '../problem.ts';
import { boardNames } from './boardStore.ts';
import { readDocument } from './document.ts';
import { remembered } from './documentCache.ts';
import { cursorOf, readCursor, tagOf, type Page } from './page.ts';
import { unknownSpecies } from './speciesStore.ts';

const INSERT_CHUNK = 400;
/** Sent at once, and at most. */
const PIECES_A_PAGE = 200;
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
  since: Date | null;
  removed_at: Date | null;
  aside_id: number | null;
}

function toStored(row: PieceRow): StoredPiece {
  const {
    id,
    mark,
    species,
    length,
    width,
    thickness,
    surface,
    straight,
    rings,
    grain,
    moisture,
    shelf,
    note,
    count,
    version,
  } = row;
  return {
    version,
    since: (row.since ?? row.updated_at).toISOString(),
    piece: {
      id,
      mark,
      species,
      length,
      width,
      thickness,
      surface,
      straight,
      rings,
      grain,
      moisture,
      shelf,
      note,
      count,
      farEnd:
        row.far_width === null || row.far_thickness === null
          ? null
          : { width: row.far_width, thickness: row.far_thickness },
      form:
        row.bow === null || row.cup === null || row.crook === null || row.twist === null
          ? null
          : { bow: row.bow, cup: row.cup, crook: row.crook, twist: row.twist },
      ends: readDocument(pieceShape.shape.ends, row.ends),
      defects: readDocument(pieceShape.shape.defects, row.defects),
      origin: { kind: row.origin_kind, of: row.origin_of },
      price:
        row.price_amount === null || row.price_per === null ? null : { amount: row.price_amount, per: row.price_per },
    },
  };
}

function toColumns({ price, farEnd, form, ends, defects, origin, ...fields }: PieceFields) {
  return {
    ...fields,
    price_amount: price?.amount ?? null,
    price_per: price?.per ?? null,
    far_width: farEnd?.width ?? null,
    far_thickness: farEnd?.thickness ?? null,
    bow: form?.bow ?? null,
    cup: form?.cup ?? null,
    crook: form?.crook ?? null,
    twist: form?.twist ?? null,
    ends: JSON.stringify(ends),
    defects: JSON.stringify(defects),
    origin_kind: origin.kind,
    origin_of: origin.of,
    updated_at: new Date(),
  };
}

/** Every piece in the rack, in the order of their marks. */
export async function piecesInRack(db: Knex): Promise<StoredPiece[]> {
  const rows = await db<PieceRow>('pieces')
    .select()
    .whereNull('removed_at')
    .orderBy([{ column: 'species' }, { column: 'mark' }, { column: 'id' }]);
  return rows.map(toStored);
}

/** These pieces, as far as they are in the rack. */
export async function piecesNamed(db: Knex, ids: readonly string[]): Promise<Piece[]> {
  const rows = await db<PieceRow>('pieces')
    .whereIn('id', [...new Set(ids)])
    .whereNull('removed_at')
    .select();
  return rows.map((row) => toStored(row).piece);
}

/** The rack by species and mark, a page at a time. @param after from the page before; null begins */
export async function rackPage(db: Knex, after: string | null): Promise<Page> {
  type Key = Pick<PieceRow, 'id' | 'species' | 'mark' | 'version'>;
  const query = db('pieces')
    .select<Key[]>('id', 'species', 'mark', 'version')
    .whereNull('removed_at')
    .orderBy([{ column: 'species' }, { column: 'mark' }, { column: 'id' }])
    .limit(PIECES_A_PAGE + 1);
  if (after !== null)
    void query.whereRaw('(species, mark, id) > (?, ?, ?)', readCursor(after, ['string', 'string', 'string'] as const));
  const rows = await query;
  const shown = rows.slice(0, PIECES_A_PAGE);
  const listed = remembered<{ json: string }>(db, 'piece');
  const fresh = new Map<string, string>();
  const missing = shown.filter((r) => !listed.get(`${r.id}/${r.version}`)).map((r) => r.id);
  for (const row of missing.length > 0 ? await db('pieces').whereIn('id', missing).select<PieceRow[]>() : []) {
    const json = JSON.stringify(toStored(row));
    fresh.set(row.id, json);
    listed.set(`${row.id}/${row.version}`, { json }, json.length);
  }
  const last = shown.at(-1);
  return {
    rows: shown.flatMap((r) => fresh.get(r.id) ?? listed.get(`${r.id}/${r.version}`)?.json ?? []),
    tag: tagOf(shown.flatMap((r) => [r.id, r.version])),
    next: rows.length > shown.length && last ? cursorOf([last.species, last.mark, last.id]) : null,
  };
}

/** @throws Problem 409 when the mark is taken, 400 when the species is unknown */
export async function addPiece(tx: Knex.Transaction, fields: PieceFields, id: string = nanoid()): Promise<StoredPiece> {
  await sayWhy(fields, tx('pieces').insert({ id, ...toColumns(fields), version: 1, since: new Date() }));
  return readPiece(tx, id);
}

/** Adds pieces of a file whose ids the rack has never seen; others are left alone, also those with a mark that is taken. */
export async function addMissingPieces(tx: Knex.Transaction, pieces: readonly Piece[]): Promise<void> {
  for (const portion of inPortions(pieces))
    await tx('pieces')
      .insert(portion.map(({ id, ...fields }) => ({ id, ...toColumns(fields), version: 1, since: new Date() })))
      .onConflict()
      .ignore();
}

/** @throws Problem 404, 409 stale with the stored piece, 409 when the mark is taken */
export async function changePiece(
  tx: Knex.Transaction,
  id: string,
  version: number,
  fields: PieceFields,
): Promise<StoredPiece> {
  await lockAt(tx, id, version, false);
  await sayWhy(
    fields,
    tx('pieces')
      .where({ id })
      .update({ ...toColumns(fields), version: version + 1 }),
  );
  return readPiece(tx, id);
}

/** Takes a piece out of the rack; it can be put back. */
export async function removePiece(tx: Knex.Transaction, id: string, version: number): Promise<StoredPiece> {
  return setRemoved(tx, id, version, true);
}

/** Puts a removed piece back. */
export async function restorePiece(tx: Knex.Transaction, id: string, version: number): Promise<StoredPiece> {
  return setRemoved(tx, id, version, false);
}

/** Adds many pieces at once, or none. @throws Problem 400 that names the rows and the fields */
export async function addPieces(tx: Knex.Transaction, pieces: readonly PieceFields[]): Promise<number> {
  const taken = new Set((await tx<PieceRow>('pieces').whereNull('removed_at').select('mark')).map((r) => r.mark));
  const unknown = await unknownSpecies(
    tx,
    pieces.map((p) => p.species),
  );
  const problems = pieces.flatMap((piece, i) => {
    const found = [];
    if (taken.has(piece.mark))
      found.push({
        path: `pieces[${i}].mark`,
        message: `Piece ${i + 1}: mark ${piece.mark} is already on another piece.`,
      });
    if (unknown.has(piece.species))
      found.push({ path: `pieces[${i}].species`, message: `Piece ${i + 1}: species "${piece.species}" is not known.` });
    taken.add(piece.mark);
    return found;
  });
  if (problems.length > 0) throw invalid(problems.slice(0, MOST_PROBLEMS));
  for (const portion of inPortions(pieces))
    await sayWhy(
      firstOf(portion),
      tx('pieces').insert(
        portion.map((fields) => ({ id: nanoid(), ...toColumns(fields), version: 1, since: new Date() })),
      ),
    );
  return pieces.length;
}

function inPortions<T>(list: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(list.length / INSERT_CHUNK) }, (_, i) =>
    list.slice(i * INSERT_CHUNK, (i + 1) * INSERT_CHUNK),
  );
}

/** Names the boards that a piece is promised to. */
async function refusePromised(tx: Knex, id: string, mark: string): Promise<void> {
  const plans = tx('promises').where('piece_id', id).select('plan_id');
  const boards = await tx('cut_plan_boards')
    .whereIn('plan_id', plans)
    .distinct<{ board_id: string }[]>('board_id')
    .orderBy('board_id');
  if (boards.length === 0) return;
  const names = await boardNames(
    tx,
    boards.map((r) => r.board_id),
  );
  throw new Problem(
    409,
    'promised',
    `Piece ${mark} is promised to ${names.join(' and ')}. Release its wood there first.`,
  );
}

/** A piece that left the rack because it was cut comes back only with the cut. */
async function refuseCut(tx: Knex, id: string, mark: string): Promise<void> {
  const rows = await tx<{ piece_id: string; document: unknown }>('cuttings').where({ piece_id: id }).select('document');
  if (rows.some((r) => readDocument(cuttingRecordSchema, r.document).piece.count === 1))
    throw new Problem(409, 'cut', `Piece ${mark} was cut. Take that cut back on the Cuts of its board instead.`);
}

async function setRemoved(tx: Knex.Transaction, id: string, version: number, removed: boolean): Promise<StoredPiece> {
  const { piece } = await lockAt(tx, id, version, !removed);
  if (removed) await refusePromised(tx, id, piece.mark);
  else await refuseCut(tx, id, piece.mark);
  await sayWhy(
    piece,
    tx('pieces')
      .where({ id })
      .update({ removed_at: removed ? new Date() : null, updated_at: new Date(), version: version + 1 }),
  );
  return readPiece(tx, id);
}

async function readPiece(db: Knex, id: string): Promise<StoredPiece> {
  const row = await db<PieceRow>('pieces').where({ id }).first();
  if (!row) throw notFound('This piece');
  return toStored(row);
}

/** Locks a piece at the version a write is based on. */
async function lockAt(tx: Knex.Transaction, id: string, version: number, removed: boolean): Promise<StoredPiece> {
  const row = await tx<PieceRow>('pieces').where({ id }).forUpdate().first();
  if (!row || row.aside_id !== null || (row.removed_at !== null) !== removed) throw notFound('This piece');
  const stored = toStored(row);
  if (stored.version !== version)
    throw new Problem(409, 'stale', `Piece ${stored.piece.mark} was changed elsewhere meanwhile.`, [], {
      current: stored,
    });
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
