import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import { boardSchema, type Board } from '#core/board/board.ts';
import type { CutPlan } from '#core/cutting/cutPlan.ts';
import { cutPlanSchema, type BareCut } from '#core/cutting/cutPlanSchema.ts';
import { cutProblemFor } from '#core/plan/cutForBoard.ts';
import { rebuildCut } from '#core/plan/rebuildCut.ts';
import { cuttingRecordSchema, doneFor, promisedToOthers, type KeptPlan, type SawBook } from '#core/plan/sawRecords.ts';
import { notFound, Problem } from '../problem.ts';
import { readDocument } from './document.ts';
import { piecesInRack } from './rackStore.ts';
import { readShop } from './shopStore.ts';
import { allSpecies } from './speciesStore.ts';

interface PlanRow { id: string; document: unknown; kept_at: Date }
interface CuttingRow { id: string; document: unknown; cut_at: Date; version: number }

/** Holds the saw book until the transaction ends. It must be the first thing a transaction does, so that it then reads what others wrote before. */
export async function holdSawBook(tx: Knex): Promise<void> {
  await tx('saw_book').where({ id: 1 }).forUpdate().first();
}

/** Every kept plan and every cutting of boards that are still there. */
export async function sawBook(db: Knex): Promise<SawBook> {
  const boardsOf = async (table: string, key: string) => {
    const rows = await db(table).join('boards', 'boards.id', `${table}.board_id`).whereNull('boards.removed_at').select<Record<string, string>[]>(key, 'board_id').orderBy('board_id');
    const map = new Map<string, string[]>();
    for (const row of rows) map.set(row[key]!, [...(map.get(row[key]!) ?? []), row.board_id!]);
    return map;
  };
  const planBoards = await boardsOf('cut_plan_boards', 'plan_id');
  const cuttingBoards = await boardsOf('cutting_boards', 'cutting_id');
  const plans = await db<PlanRow>('cut_plans').select().orderBy('kept_at');
  const cuttings = await db<CuttingRow>('cuttings').select('id', 'document', 'cut_at', 'version').orderBy([{ column: 'cut_at', order: 'desc' }, { column: 'id' }]);
  return {
    plans: plans.map((row) => ({ id: row.id, boards: planBoards.get(row.id) ?? [], keptAt: row.kept_at.toISOString(), plan: readDocument(cutPlanSchema, row.document) })),
    cuttings: cuttings.filter((row) => cuttingBoards.has(row.id)).map((row) => ({ id: row.id, boards: cuttingBoards.get(row.id)!, cutAt: row.cut_at.toISOString(), version: row.version, record: readDocument(cuttingRecordSchema, row.document) })),
  };
}

/** A board at the revision a plan was made for. */
export interface PlannedBoard {
  id: string;
  revision: number;
}

/**
 * Keeps a cut plan: its wood is promised to the boards. The plan is worked out again from its decisions against boards, rack and promises as they are
 * now, with the pieces locked, so that two boards never get the same wood, not even from two tabs at once.
 * @throws Problem 404, 409 `stale` when a board changed, 409 `wood-taken` when the wood is promised, cut or changed meanwhile
 */
export async function keepPlan(db: Knex, boards: readonly PlannedBoard[], bare: BareCut): Promise<SawBook> {
  return db.transaction(async (tx) => {
    await holdSawBook(tx);
    await lockPieces(tx, bare.blanks.map((b) => b.pieceId));
    const documents = await lockBoards(tx, boards);
    const book = await sawBook(tx);
    const ids = boards.map((b) => b.id);
    const rack = (await piecesInRack(tx)).map((r) => r.piece);
    const { shop } = await readShop(tx);
    const species = await allSpecies(tx);
    const problem = cutProblemFor(ids.map((key, i) => ({ key, board: documents[i]!, done: doneFor(book, key) })), { rack, shop, species, promised: promisedToOthers(book, ids) });
    const rebuilt = rebuildCut(problem, bare);
    if (!rebuilt.ok) throw await woodTaken(tx, rebuilt.faults[0]!, book, ids);
    await releaseWood(tx, ids);
    const id = nanoid();
    await tx('cut_plans').insert({ id, document: JSON.stringify(rebuilt.plan), kept_at: new Date() });
    await tx('cut_plan_boards').insert(ids.map((board_id) => ({ board_id, plan_id: id })));
    await writePromises(tx, id, rebuilt.plan);
    return sawBook(tx);
  });
}

/** Lets go of the wood promised to boards. Boards that were planned together with them keep theirs. The caller holds the saw book. */
export async function releaseWood(tx: Knex, boards: readonly string[]): Promise<void> {
  const book = await sawBook(tx);
  for (const kept of book.plans.filter((p) => p.boards.some((b) => boards.includes(b)))) {
    await tx('cut_plan_boards').where({ plan_id: kept.id }).whereIn('board_id', [...boards]).delete();
    const left = kept.boards.filter((b) => !boards.includes(b));
    if (left.length === 0) await tx('cut_plans').where({ id: kept.id }).delete();
    else await storePlan(tx, kept.id, onlyFor(kept.plan, left));
  }
}

/** The share of a plan that belongs to some boards: strips of others become waste of theirs. */
function onlyFor(plan: CutPlan, boards: readonly string[]): CutPlan {
  const blanks = plan.blanks.map((b) => ({ ...b, strips: b.strips.filter((s) => boards.includes(s.demand.board)) })).filter((b) => b.strips.length > 0);
  const units = new Set(blanks.map((b) => `${b.pieceId}/${b.unit}`));
  // The proof was for all of them together.
  return { ...plan, blanks, leftovers: plan.leftovers.filter((l) => units.has(`${l.pieceId}/${l.unit}`)), bound: null, gap: null, proofs: [] };
}

/** Stores a changed plan and its promises. */
export async function storePlan(tx: Knex, id: string, plan: CutPlan): Promise<void> {
  await tx('cut_plans').where({ id }).update({ document: JSON.stringify(plan) });
  await writePromises(tx, id, plan);
}

async function writePromises(tx: Knex, planId: string, plan: CutPlan): Promise<void> {
  await tx('promises').where({ plan_id: planId }).delete();
  const rows = plan.blanks.map((b) => ({ plan_id: planId, piece_id: b.pieceId, unit: b.unit, from_mm: b.from, to_mm: b.from + b.length }));
  if (rows.length > 0) await tx('promises').insert(rows);
}

/** Locks pieces, in one order, against the rack's own changes. */
export async function lockPieces(tx: Knex, ids: readonly string[]): Promise<void> {
  if (ids.length > 0) await tx('pieces').whereIn('id', [...new Set(ids)].sort()).orderBy('id').forUpdate().select('id');
}

async function lockBoards(tx: Knex, boards: readonly PlannedBoard[]): Promise<Board[]> {
  const documents = new Map<string, Board>();
  for (const { id, revision } of [...boards].sort((a, b) => (a.id < b.id ? -1 : 1))) {
    const row = await tx<{ id: string; revision: number }>('boards').where({ id }).whereNull('removed_at').forUpdate().first('revision');
    if (!row) throw notFound('This board');
    const stored = await tx<{ board_id: string; number: number; document: unknown }>('revisions').where({ board_id: id, number: row.revision }).first('document');
    const board = readDocument(boardSchema, stored?.document);
    if (row.revision !== revision) throw new Problem(409, 'stale', `"${board.name}" was changed elsewhere meanwhile. Look at its cut plan again.`);
    documents.set(id, board);
  }
  return boards.map((b) => documents.get(b.id)!);
}

/** Says whose the wood is now, or what became of the piece. */
async function woodTaken(tx: Knex, { pieceId, unit, fault }: { pieceId: string; unit: number; fault: string }, book: SawBook, ids: readonly string[]): Promise<Problem> {
  const row = await tx<{ id: string; mark: string; removed_at: Date | null }>('pieces').where({ id: pieceId }).first('mark', 'removed_at');
  const mark = row?.mark ?? 'that was planned with';
  if (!row || row.removed_at) return new Problem(409, 'wood-taken', `Piece ${mark} is no longer in the rack. Plan again with what is there.`);
  const others = book.plans.filter((p: KeptPlan) => p.boards.some((b) => !ids.includes(b)) && p.plan.blanks.some((b) => b.pieceId === pieceId && b.unit === unit));
  if ((fault === 'promised' || fault === 'noPiece') && others.length > 0) {
    const names = await boardNames(tx, others.flatMap((p) => p.boards.filter((b) => !ids.includes(b))));
    return new Problem(409, 'wood-taken', `Wood of piece ${mark} is promised to ${names.join(' and ')} meanwhile. Plan again with what is left.`);
  }
  return new Problem(409, 'wood-taken', fault === 'strip' ? `The plan no longer asks for what it cuts from piece ${mark}. Plan again.` : `Piece ${mark} has changed, and the cuts no longer fit it. Plan again.`);
}

async function boardNames(tx: Knex, ids: readonly string[]): Promise<string[]> {
  const rows = await tx('boards').join('revisions', function onNewest() {
    this.on('revisions.board_id', 'boards.id').andOn('revisions.number', 'boards.revision');
  }).whereIn('boards.id', [...ids]).select<{ document: unknown }[]>('document');
  return rows.map((r) => `"${readDocument(boardSchema, r.document).name}"`);
}
