import { certain, nth } from '#core/lists/there.ts';
import type { PlannedUnit } from '#contract/saw.ts';
import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import { auditCut } from '#core/cutting/auditCut.ts';
import type { Blank, CutPlan, Leftover } from '#core/cutting/cutPlan.ts';
import { offcutMarks, offcutOf, remainsOf } from '#core/cutting/offcut.ts';
import { sawingShop } from '#core/saw/cutForBoard.ts';
import { demandKey } from '#core/saw/demandKey.ts';
import {
  cuttingRecordSchema,
  type CuttingRecord,
  type KeptPlan,
  type SawBook,
  type StripName,
} from '#core/saw/sawRecords.ts';
import { notFound, Problem } from '../problem.ts';
import { lockBoards } from './boardStore.ts';
import { readDocument } from './document.ts';
import { addPiece, piecesNamed } from './rackStore.ts';
import { holdSawBook, lockPieces, plansNamed, sawBook, storePlan } from './sawStore.ts';
import { readShop } from './shopStore.ts';

interface CuttingRow {
  id: string;
  document: unknown;
  version: number;
}
interface PieceState {
  id: string;
  mark: string;
  version: number;
  removed_at: Date | null;
  count: number;
}

const isUnit =
  ({ pieceId, unit }: { pieceId: string; unit: number }) =>
  (x: { pieceId: string; unit: number }) =>
    x.pieceId === pieceId && x.unit === unit;

/**
 * Books a piece as cut: the rack loses it and gains what is left of it, the strips are on the bench. All in one transaction. Wood in it that is
 * promised to other boards goes along into the leftover that holds it.
 * @throws Problem 404, 409 when the piece changed or is gone
 */
export async function cutPiece(tx: Knex.Transaction, planned: PlannedUnit): Promise<SawBook> {
  await holdSawBook(tx);
  const [kept] = await plansNamed(tx, [planned.planId]);
  if (!kept) throw notFound('This cut plan');
  const boards = await lockBoards(tx, kept.boards);
  await lockPieces(tx, [planned.pieceId]);
  const blanks = kept.plan.blanks.filter(isUnit(planned));
  if (blanks.length === 0)
    throw new Problem(409, 'not-planned', 'This piece is cut already, or the plan no longer cuts it.');
  const [piece] = await piecesNamed(tx, [planned.pieceId]);
  if (!piece) throw new Problem(409, 'wood-taken', 'This piece is no longer in the rack.');
  const shop = sawingShop(
    boards.map((b) => b.board),
    (await readShop(tx)).shop,
  );
  if (auditCut(blanks, [piece], [], shop).length > 0)
    throw new Problem(
      409,
      'piece-changed',
      `Piece ${piece.mark} has changed, and the cuts no longer fit it. Plan again.`,
    );

  const others = (await plansOn(tx, [piece.id])).filter((p) => p.id !== kept.id);
  const promised = others.flatMap((p) =>
    p.plan.blanks.filter(isUnit(planned)).map((b) => ({ from: b.from, to: b.from + b.length })),
  );
  const side = kept.plan.leftovers.filter(isUnit(planned));
  const rectangles = remainsOf(piece, blanks, side, shop, promised);
  const marks = offcutMarks(piece.mark, rectangles.length, await marksInRack(tx));
  const leftovers: CuttingRecord['leftovers'] = [];
  for (const [i, rectangle] of rectangles.entries()) {
    const id = nanoid();
    await addPiece(tx, offcutOf(piece, rectangle, nth(marks, i), piece.mark), id);
    leftovers.push({ id, mark: nth(marks, i), ...rectangle });
  }
  await storePlan(tx, kept.id, withoutUnit(kept.plan, planned, piece.count > 1));
  for (const other of others)
    await storePlan(tx, other.id, intoLeftovers(other.plan, planned, leftovers, piece.count > 1));
  if (piece.count > 1)
    await tx('pieces')
      .where({ id: piece.id })
      .update({ count: piece.count - 1, updated_at: new Date() })
      .increment('version', 1);
  else
    await tx('pieces')
      .where({ id: piece.id })
      .update({ removed_at: new Date(), updated_at: new Date() })
      .increment('version', 1);

  const record: CuttingRecord = {
    ...planned,
    piece,
    blanks: blanks.map((b) => ({
      ...b,
      done: true,
      strips: b.strips.map((s) => ({
        ...s,
        demand: { ...s.demand, ways: [...s.demand.ways], from: s.demand.from && [...s.demand.from] },
      })),
    })),
    failed: [],
    leftovers,
  };
  const id = nanoid();
  await tx('cuttings').insert({
    id,
    piece_id: piece.id,
    document: JSON.stringify(record),
    cut_at: new Date(),
    version: 1,
  });
  await tx('cutting_boards').insert(
    [...new Set(blanks.flatMap((b) => b.strips.map((s) => s.demand.board)))]
      .sort()
      .map((board_id) => ({ cutting_id: id, board_id })),
  );
  return sawBook(tx, kept.boards);
}

/** Kept plans that promise wood of any of these pieces. */
async function plansOn(tx: Knex.Transaction, pieces: readonly string[]): Promise<KeptPlan[]> {
  const ids = (
    await tx('promises')
      .whereIn('piece_id', [...pieces])
      .distinct<{ plan_id: string }[]>('plan_id')
  ).map((r) => r.plan_id);
  return plansNamed(tx, ids);
}

async function marksInRack(tx: Knex.Transaction): Promise<Set<string>> {
  return new Set((await tx<PieceState>('pieces').whereNull('removed_at').select('mark')).map((r) => r.mark));
}

/** The plan once one unit is cut; identical units behind it move up by one. */
function withoutUnit(plan: CutPlan, gone: PlannedUnit, identical: boolean): CutPlan {
  const keep = <T extends Blank | Leftover>(list: readonly T[]): T[] =>
    list.filter((x) => !isUnit(gone)(x)).map((x) => movedUp(x, gone, identical));
  return { ...plan, blanks: keep(plan.blanks), leftovers: keep(plan.leftovers), bound: null, gap: null };
}

function movedUp<T extends Blank | Leftover>(x: T, gone: PlannedUnit, identical: boolean): T {
  return identical && x.pieceId === gone.pieceId && x.unit > gone.unit ? { ...x, unit: x.unit - 1 } : x;
}

/** Another board's plan after the cut: its blanks lie in the leftovers now. */
function intoLeftovers(
  plan: CutPlan,
  gone: PlannedUnit,
  leftovers: CuttingRecord['leftovers'],
  identical: boolean,
): CutPlan {
  return {
    ...plan,
    blanks: plan.blanks.map((b) => {
      if (!isUnit(gone)(b)) return movedUp(b, gone, identical);
      const home = certain(
        leftovers.find(
          (l) => l.across === 0 && l.from <= b.from + 1e-6 && l.from + l.length >= b.from + b.length - 1e-6,
        ),
      );
      return { ...b, pieceId: home.id, unit: 0, from: Math.max(0, b.from - home.from) };
    }),
    leftovers: plan.leftovers.filter((l) => !isUnit(gone)(l)).map((l) => movedUp(l, gone, identical)),
  };
}

/** Whether a cutting was made for boards of a shop that is set aside. */
async function isAside(tx: Knex.Transaction, cutting: string): Promise<boolean> {
  const rows = await tx('cutting_boards')
    .join('boards', 'boards.id', 'cutting_boards.board_id')
    .where({ cutting_id: cutting })
    .whereNotNull('boards.aside_id')
    .limit(1)
    .select<{ board_id: string }[]>('board_id');
  return rows.length > 0;
}

/**
 * Takes a cutting back: the piece returns to the rack as it was, its leftovers go, and the plan holds it again if there still is one.
 * @throws Problem 404, 409 when a leftover was changed, cut or promised since
 */
export async function undoCutting(tx: Knex.Transaction, id: string): Promise<SawBook> {
  await holdSawBook(tx);
  const row = await tx<CuttingRow>('cuttings').where({ id }).first();
  if (!row || (await isAside(tx, id))) throw notFound('This cutting');
  const record = readDocument(cuttingRecordSchema, row.document);
  const ids = record.leftovers.map((l) => l.id);
  await lockPieces(tx, [record.pieceId, ...ids]);
  const boards = await boardsOfCutting(tx, id);
  const plans = await plansOn(tx, ids);
  const rows = await tx<PieceState>('pieces')
    .whereIn('id', [record.pieceId, ...ids])
    .select('id', 'mark', 'version', 'removed_at', 'count');
  for (const leftover of record.leftovers) {
    const stored = rows.find((r) => r.id === leftover.id);
    if (!stored || stored.removed_at || stored.version !== 1)
      throw new Problem(
        409,
        'leftover-used',
        `Leftover ${leftover.mark} was changed, cut or taken out since. The cut stays as it is.`,
      );
    const promisedHere = plans.some((p) => p.plan.blanks.some((b) => b.pieceId === leftover.id));
    if (promisedHere && leftover.across > 0)
      throw new Problem(
        409,
        'leftover-used',
        `Leftover ${leftover.mark} is promised to a board since. Release it there first.`,
      );
  }
  const now = certain(rows.find((r) => r.id === record.pieceId));
  const restoredUnit = now.removed_at ? 0 : now.count;
  if (now.removed_at) {
    const twin = await tx<PieceState>('pieces').where({ mark: now.mark }).whereNull('removed_at').first('id');
    if (twin) throw new Problem(409, 'mark-taken', `Mark ${now.mark} is on another piece in the rack by now.`);
    await tx('pieces')
      .where({ id: now.id })
      .update({ removed_at: null, updated_at: new Date() })
      .increment('version', 1);
  } else
    await tx('pieces')
      .where({ id: now.id })
      .update({ count: now.count + 1, updated_at: new Date() })
      .increment('version', 1);

  const own = plans.some((p) => p.id === record.planId) ? [] : await plansNamed(tx, [record.planId]);
  for (const kept of [...plans, ...own]) {
    const back = kept.plan.blanks.map((b) => {
      const l = record.leftovers.find((leftover) => leftover.id === b.pieceId);
      return l ? { ...b, pieceId: record.pieceId, unit: restoredUnit, from: b.from + l.from } : b;
    });
    const uncut =
      kept.id === record.planId ? record.blanks.map((b) => ({ ...b, unit: restoredUnit, done: false })) : [];
    await storePlan(tx, kept.id, { ...kept.plan, blanks: [...back, ...uncut], bound: null, gap: null });
  }
  // Gone for good: their wood is in the piece again, and must not come back a second time.
  if (ids.length > 0) await tx('pieces').whereIn('id', ids).delete();
  await tx('cuttings').where({ id }).delete();
  return sawBook(tx, boards);
}

async function boardsOfCutting(tx: Knex.Transaction, id: string): Promise<string[]> {
  return (
    await tx<{ cutting_id: string; board_id: string }>('cutting_boards')
      .where({ cutting_id: id })
      .orderBy('board_id')
      .select('board_id')
  ).map((r) => r.board_id);
}

/** Strikes strips of a cutting out, because they wandered, split or came out short; or takes that back. @throws Problem 404, 409 stale */
export async function markFailed(
  tx: Knex.Transaction,
  id: string,
  version: number,
  failed: readonly StripName[],
): Promise<SawBook> {
  await holdSawBook(tx);
  const row = await tx<CuttingRow>('cuttings').where({ id }).first();
  if (!row) throw notFound('This cutting');
  if (row.version !== version)
    throw new Problem(409, 'stale', 'This cutting was changed elsewhere meanwhile. Look at it again.');
  const record = readDocument(cuttingRecordSchema, row.document);
  const cut = new Set(record.blanks.flatMap((b) => b.strips.map((s) => demandKey(s.demand))));
  const known = failed.filter((f) => cut.has(demandKey(f)));
  await tx('cuttings')
    .where({ id })
    .update({ document: JSON.stringify({ ...record, failed: known }), version: version + 1 });
  return sawBook(tx, await boardsOfCutting(tx, id));
}
