import { grouped } from '#core/lists/grouped.ts';
import { certain, firstOf, nth } from '#core/lists/there.ts';
import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import type { PlannedBoard } from '#contract/saw.ts';
import type { CutPlan } from '#core/cutting/cutPlan.ts';
import { cutPlanSchema, type BareCut } from '#core/cutting/cutPlanSchema.ts';
import { cutProblemFor } from '#core/saw/cutForBoard.ts';
import { rebuildCut } from '#core/saw/rebuildCut.ts';
import {
  cuttingRecordSchema,
  type KeptPlan,
  type SawBook,
  type StoredCutting,
  type StoredPromise,
} from '#core/saw/sawRecords.ts';
import { doneFor, promisedToOthers, promisesOf } from '#core/saw/sawBook.ts';
import { Problem } from '../problem.ts';
import { boardNames, lockBoards } from './boardStore.ts';
import { readDocument } from './document.ts';
import { remembered } from './documentCache.ts';
import { factsOfBoards } from './factStore.ts';
import { piecesInRack } from './rackStore.ts';
import { readShop } from './shopStore.ts';
import { allSpecies } from './speciesStore.ts';

interface PlanRow {
  id: string;
  document: string;
  kept_at: Date;
}
interface CuttingRow {
  id: string;
  document: string;
  cut_at: Date;
  version: number;
}
interface PromiseRow {
  plan_id: string;
  piece_id: string;
  unit: number;
  from_mm: number;
  to_mm: number;
  boards: string;
}

/** Holds the saw book until the transaction ends. It comes before any other look, so that a transaction then reads what others wrote before. */
export async function holdSawBook(tx: Knex.Transaction): Promise<void> {
  await tx('saw_book').where({ id: 1 }).forUpdate().first();
}

/** What the saw book says to these boards; boards that are not there have nothing in it. */
export async function sawBook(db: Knex, boards: readonly string[]): Promise<SawBook> {
  return { promises: await allPromises(db), plans: await plansOf(db, boards), cuttings: await cuttingsOf(db, boards) };
}

/** All the wood that is promised, to whichever board. */
export async function allPromises(db: Knex): Promise<StoredPromise[]> {
  const rows = await db<PromiseRow>('promises')
    .select('plan_id', 'piece_id', 'unit', 'from_mm', 'to_mm', 'boards')
    .orderBy('id');
  return rows.map((r) => ({
    planId: r.plan_id,
    pieceId: r.piece_id,
    unit: r.unit,
    from: r.from_mm,
    to: r.to_mm,
    boards: JSON.parse(r.boards) as string[],
  }));
}

/** What is kept and cut for each board, as text that is another whenever that is; boards for which nothing is are left out. */
export async function cutForBoards(db: Knex): Promise<ReadonlyMap<string, string>> {
  const [plans, cuttings] = await Promise.all([
    db('cut_plan_boards')
      .join('cut_plans', 'cut_plans.id', 'cut_plan_boards.plan_id')
      .orderBy(['board_id', 'plan_id'])
      .select<{ board: string; state: string }[]>(
        'board_id as board',
        db.raw('concat(plan_id, " ", crc32(document)) as state'),
      ),
    db('cutting_boards')
      .join('cuttings', 'cuttings.id', 'cutting_boards.cutting_id')
      .orderBy(['board_id', 'cutting_id'])
      .select<{ board: string; state: string }[]>(
        'board_id as board',
        db.raw('concat(cutting_id, " ", version) as state'),
      ),
  ]);
  return new Map(
    [...grouped([...plans, ...cuttings], (row) => row.board)].map(([board, rows]) => [
      board,
      rows.map((row) => row.state).join(),
    ]),
  );
}

/** Plans that were kept for any of these boards. */
export async function plansOf(db: Knex, boards: readonly string[]): Promise<KeptPlan[]> {
  const ids = (
    await db('cut_plan_boards')
      .whereIn('board_id', [...boards])
      .distinct<{ plan_id: string }[]>('plan_id')
  ).map((r) => r.plan_id);
  return plansNamed(db, ids);
}

/** Kept plans by their ids, as far as there are any. */
export async function plansNamed(db: Knex, ids: readonly string[]): Promise<KeptPlan[]> {
  if (ids.length === 0) return [];
  const named = await namesOf(db, 'cut_plan_boards', 'plan_id', ids);
  const rows = await db<PlanRow>('cut_plans')
    .whereIn('id', [...ids])
    .orderBy([{ column: 'kept_at' }, { column: 'id' }])
    .select();
  return rows.map((row) => ({
    id: row.id,
    boards: named.get(row.id) ?? [],
    keptAt: row.kept_at.toISOString(),
    plan: readDocument(cutPlanSchema, row.document),
  }));
}

/** What was cut for any of these boards, the newest first. */
async function cuttingsOf(db: Knex, boards: readonly string[]): Promise<StoredCutting[]> {
  const ids = (
    await db('cutting_boards')
      .whereIn('board_id', [...boards])
      .distinct<{ cutting_id: string }[]>('cutting_id')
  ).map((r) => r.cutting_id);
  if (ids.length === 0) return [];
  const named = await namesOf(db, 'cutting_boards', 'cutting_id', ids);
  const rows = await db<CuttingRow>('cuttings')
    .whereIn('id', ids)
    .orderBy([{ column: 'cut_at', order: 'desc' }, { column: 'id' }])
    .select('id', 'document', 'cut_at', 'version');
  const known = remembered<StoredCutting['record']>(db, 'cutting');
  return rows
    .filter((row) => named.has(row.id))
    .map((row) => {
      // A cutting at a version never changes.
      const key = `${row.id}/${row.version}`;
      const record = known.get(key) ?? readDocument(cuttingRecordSchema, row.document);
      known.set(key, record, row.document.length);
      return {
        id: row.id,
        boards: named.get(row.id) ?? [],
        cutAt: row.cut_at.toISOString(),
        version: row.version,
        record,
      };
    });
}

/** Boards that are still there, by the plan or cutting they belong to. */
async function namesOf(db: Knex, table: string, key: string, ids: readonly string[]): Promise<Map<string, string[]>> {
  const rows = await db(table)
    .join('boards', 'boards.id', `${table}.board_id`)
    .whereNull('boards.removed_at')
    .whereIn(key, [...ids])
    .select<Record<string, string>[]>(key, 'board_id')
    .orderBy('board_id');
  const byKey = grouped(rows, (row) => certain(row[key]));
  return new Map([...byKey].map(([id, own]) => [id, own.map((row) => certain(row.board_id))]));
}

/**
 * Keeps a cut plan: its wood is promised to the boards. The plan is worked out again from its decisions against boards, rack and promises as they are
 * now, with the pieces locked, so that two boards never get the same wood, not even from two tabs at once.
 * @throws Problem 404, 409 `stale` when a board changed, 409 `wood-taken` when the wood is promised, cut or changed meanwhile
 */
export async function keepPlan(tx: Knex.Transaction, boards: readonly PlannedBoard[], bare: BareCut): Promise<SawBook> {
  await holdSawBook(tx);
  const ids = boards.map((b) => b.id);
  const stored = await lockBoards(tx, ids);
  stored.forEach(({ revision, board }, i) => {
    if (revision !== nth(boards, i).revision)
      throw new Problem(409, 'stale', `"${board.name}" was changed elsewhere meanwhile. Look at its cut plan again.`);
  });
  await lockPieces(
    tx,
    bare.blanks.map((b) => b.pieceId),
  );
  const book = await sawBook(tx, ids);
  const rack = (await piecesInRack(tx)).map((r) => r.piece);
  const { shop } = await readShop(tx);
  const species = await allSpecies(tx);
  const facts = await factsOfBoards(tx, ids);
  const problem = cutProblemFor(
    stored.map(({ id, board }) => ({ key: id, board, done: doneFor(book, id), facts: facts.get(id) })),
    { rack, shop, species, promised: promisedToOthers(book, ids) },
  );
  const rebuilt = rebuildCut(problem, bare);
  if (!rebuilt.ok) throw await woodTaken(tx, firstOf(rebuilt.faults), book.promises, ids);
  await releaseWood(tx, ids);
  const id = nanoid();
  await tx('cut_plans').insert({ id, document: JSON.stringify(rebuilt.plan), kept_at: new Date() });
  await tx('cut_plan_boards').insert(ids.map((board_id) => ({ board_id, plan_id: id })));
  await writePromises(tx, id, rebuilt.plan);
  return sawBook(tx, ids);
}

/** Lets go of the wood promised to boards. Boards that were planned together with them keep theirs. The caller holds the saw book. */
export async function releaseWood(tx: Knex.Transaction, boards: readonly string[]): Promise<void> {
  for (const kept of await plansOf(tx, boards)) {
    await tx('cut_plan_boards')
      .where({ plan_id: kept.id })
      .whereIn('board_id', [...boards])
      .delete();
    const left = kept.boards.filter((b) => !boards.includes(b));
    if (left.length === 0) await tx('cut_plans').where({ id: kept.id }).delete();
    else await storePlan(tx, kept.id, onlyFor(kept.plan, left));
  }
}

/** The share of a plan that belongs to some boards: strips of others become waste of theirs. */
function onlyFor(plan: CutPlan, boards: readonly string[]): CutPlan {
  const blanks = plan.blanks
    .map((b) => ({ ...b, strips: b.strips.filter((s) => boards.includes(s.demand.board)) }))
    .filter((b) => b.strips.length > 0);
  const units = new Set(blanks.map((b) => `${b.pieceId}/${b.unit}`));
  // The proof was for all of them together.
  return {
    ...plan,
    blanks,
    leftovers: plan.leftovers.filter((l) => units.has(`${l.pieceId}/${l.unit}`)),
    bound: null,
    gap: null,
    proofs: [],
  };
}

/** Stores a changed plan and its promises. */
export async function storePlan(tx: Knex.Transaction, id: string, plan: CutPlan): Promise<void> {
  await tx('cut_plans')
    .where({ id })
    .update({ document: JSON.stringify(plan) });
  await writePromises(tx, id, plan);
}

async function writePromises(tx: Knex.Transaction, planId: string, plan: CutPlan): Promise<void> {
  await tx('promises').where({ plan_id: planId }).delete();
  const rows = promisesOf(planId, plan).map(({ pieceId, unit, from, to, boards }) => ({
    plan_id: planId,
    piece_id: pieceId,
    unit,
    from_mm: from,
    to_mm: to,
    boards: JSON.stringify(boards),
  }));
  if (rows.length > 0) await tx('promises').insert(rows);
}

/** Locks pieces, in one order, against the rack's own changes. */
export async function lockPieces(tx: Knex.Transaction, ids: readonly string[]): Promise<void> {
  if (ids.length > 0)
    await tx('pieces')
      .whereIn('id', [...new Set(ids)].sort())
      .orderBy('id')
      .forUpdate()
      .select('id');
}

/** Says whose the wood is now, or what became of the piece. */
async function woodTaken(
  tx: Knex.Transaction,
  { pieceId, unit, fault }: { pieceId: string; unit: number; fault: string },
  promises: readonly StoredPromise[],
  ids: readonly string[],
): Promise<Problem> {
  const row = await tx<{ id: string; mark: string; removed_at: Date | null }>('pieces')
    .where({ id: pieceId })
    .first('mark', 'removed_at');
  const mark = row?.mark ?? 'that was planned with';
  if (!row || row.removed_at)
    return new Problem(409, 'wood-taken', `Piece ${mark} is no longer in the rack. Plan again with what is there.`);
  const others = promises
    .filter((p) => p.pieceId === pieceId && p.unit === unit)
    .flatMap((p) => p.boards)
    .filter((b) => !ids.includes(b));
  if ((fault === 'promised' || fault === 'noPiece') && others.length > 0) {
    const names = await boardNames(tx, others);
    return new Problem(
      409,
      'wood-taken',
      `Wood of piece ${mark} is promised to ${names.join(' and ')} meanwhile. Plan again with what is left.`,
    );
  }
  return new Problem(
    409,
    'wood-taken',
    fault === 'strip'
      ? `The plan no longer asks for what it cuts from piece ${mark}. Plan again.`
      : `Piece ${mark} has changed, and the cuts no longer fit it. Plan again.`,
  );
}
