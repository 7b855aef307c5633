import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import { EVERYTHING } from '#contract/live.ts';
import { shoppingDocumentSchema } from '#contract/money.ts';
import { scheduleDocumentSchema } from '#contract/schedule.ts';
import { certain } from '#core/lists/there.ts';
import { shopSchema } from '#core/shop/shop.ts';
import { beginShop } from '../stores/asideStore.ts';
import { noteChange } from '../stores/changeStore.ts';
import { openDatabase } from '../stores/database.ts';
import { readDocument } from '../stores/document.ts';
import { readShop } from '../stores/shopStore.ts';
import { inTransaction } from '../stores/transaction.ts';
import { BackupError, type Keeper } from './keeper.ts';
import { clientArguments } from './mariadbClient.ts';
import { alone, inScratch, type LookedAt, type Named } from './restore.ts';

type Row = Record<string, unknown>;

/** Rows are read and written so many at a time. */
const PORTION = 200;

/** What a shop is made of, in an order in which each thing comes after what it names. */
const PARTS: readonly Part[] = [
  { table: 'boards', id: 'id', order: ['id'], where: 'aside_id is null' },
  { table: 'pieces', id: 'id', order: ['id'], where: 'aside_id is null', drop: ['present_mark'] },
  { table: 'revisions', order: ['board_id', 'number'], where: `board_id in {boards}` },
  { table: 'facts', order: ['board_id', 'place'], where: `board_id in {boards}` },
  { table: 'pictures', order: ['board_id', 'id'], where: `board_id in {boards}` },
  { table: 'log_entries', id: 'id', order: ['id'], where: 'aside_id is null' },
  {
    table: 'cut_plans',
    id: 'id',
    order: ['id'],
    where: `id in (select plan_id from {from}.cut_plan_boards where board_id in {boards})`,
  },
  { table: 'cut_plan_boards', order: ['board_id'], where: `board_id in {boards}` },
  {
    table: 'promises',
    order: ['id'],
    where: `piece_id in {pieces} and plan_id in (select plan_id from {from}.cut_plan_boards where board_id in {boards})`,
    drop: ['id'],
  },
  {
    table: 'cuttings',
    id: 'id',
    order: ['id'],
    where: 'piece_id in {pieces} and id in (select cutting_id from {from}.cutting_boards where board_id in {boards})',
  },
  {
    table: 'cutting_boards',
    order: ['cutting_id', 'board_id'],
    where: `board_id in {boards} and cutting_id in (select id from {from}.cuttings where piece_id in {pieces})`,
  },
  { table: 'glue_runs', id: 'id', order: ['id'], where: `board_id in {boards}`, drop: ['running'] },
];

interface Part {
  table: string;
  /** The column with an id that may be taken here already. */
  id?: string;
  order: readonly string[];
  where: string;
  /** Columns that the database makes by itself. */
  drop?: readonly string[];
}

/** A word that may be an id. */
const WORD = /[A-Za-z0-9_-]+/g;

/**
 * Takes the shop of a backup in as the shop in use: its boards with all their history, what happened to them, its rack, cuts, clocks, log and order of work. What was in use
 * here is set aside whole. An id that is taken here already is another one from then on, wherever it is named. Species are everybody's: one that is known here stays as it is here.
 * @throws BackupError when the backup is not good, or holds no shop; nothing was changed then
 */
export async function bringIn(tools: Omit<Keeper, 'folder'>, backup: Named): Promise<LookedAt> {
  return alone(tools.url, () =>
    inScratch(tools, backup, async (looked, url) => {
      const from = clientArguments(url).name;
      const db = openDatabase(tools.url, 3);
      try {
        await inTransaction(db, (tx) => bring(tx, from));
      } finally {
        await db.destroy();
      }
      return looked;
    }),
  );
}

async function bring(tx: Knex.Transaction, from: string): Promise<void> {
  const [theirs] = await tx(`${from}.shops`).select<{ document: string; demo: number }[]>('document', 'demo');
  if (!theirs) throw new BackupError('The backup holds no shop, so there is nothing to bring in. Nothing was changed.');
  const { version } = await readShop(tx);
  await beginShop(tx, version, readDocument(shopSchema, theirs.document), Boolean(theirs.demo));
  await missingSpecies(tx, from);
  const mended = await mendedIds(tx, from);
  for (const part of PARTS) await copy(tx, from, part, mended);
  await mergeDecided(tx, from, mended);
  await noteChange(tx, EVERYTHING, null, null);
}

const filled = (where: string, from: string): string =>
  where
    .replaceAll('{boards}', `(select id from {from}.boards where aside_id is null)`)
    .replaceAll('{pieces}', `(select id from {from}.pieces where aside_id is null)`)
    .replaceAll('{from}', `\`${from}\``);

async function missingSpecies(tx: Knex.Transaction, from: string): Promise<void> {
  const rows = await tx(`${from}.species`).whereNotIn('code', tx('species').select('code')).select<Row[]>();
  if (rows.length > 0) await tx('species').insert(rows);
}

/** Ids that are taken here, and what they are called from now on. */
async function mendedIds(tx: Knex.Transaction, from: string): Promise<Map<string, string>> {
  const mended = new Map<string, string>();
  for (const { table, id, where } of PARTS) {
    if (id === undefined) continue;
    const taken = await tx(`${from}.${table}`)
      .whereRaw(filled(where, from))
      .whereIn(id, tx(table).select(id))
      .select<Record<string, string>[]>(id);
    for (const row of taken) mended.set(certain(row[id]), nanoid());
  }
  return mended;
}

/** A text with every id that is taken here by its new one. */
const mend = (text: string, mended: ReadonlyMap<string, string>): string =>
  mended.size === 0 ? text : text.replace(WORD, (word) => mended.get(word) ?? word);

async function copy(
  tx: Knex.Transaction,
  from: string,
  { table, order, where, drop = [] }: Part,
  mended: ReadonlyMap<string, string>,
): Promise<void> {
  for (let at = 0; ; at += PORTION) {
    const rows = await tx(`${from}.${table}`)
      .whereRaw(filled(where, from))
      .orderBy(order.map((column) => ({ column })))
      .limit(PORTION)
      .offset(at)
      .select<Row[]>();
    if (rows.length > 0)
      await tx(table).insert(
        rows.map((row) =>
          Object.fromEntries(
            Object.entries(row)
              .filter(([column]) => !drop.includes(column))
              .map(([column, value]) => [column, typeof value === 'string' ? mend(value, mended) : value]),
          ),
        ),
      );
    if (rows.length < PORTION) return;
  }
}

/** What was decided about the work there comes after what was decided here, as far as there is room for both. */
async function mergeDecided(tx: Knex.Transaction, from: string, mended: ReadonlyMap<string, string>): Promise<void> {
  for (const [table, merge] of [
    ['schedules', mergedSchedule],
    ['shopping', mergedShopping],
  ] as const) {
    const [theirs] = await tx(`${from}.${table}`).select<{ document: string }[]>('document');
    if (!theirs) continue;
    const [ours] = await tx(table).forUpdate().select<{ version: number; document: string }[]>('version', 'document');
    const document = JSON.stringify(merge(ours?.document ?? null, mend(theirs.document, mended)));
    await tx(table)
      .insert({ id: 1, version: (ours?.version ?? 0) + 1, document, updated_at: new Date() })
      .onConflict('id')
      .merge(['version', 'document', 'updated_at']);
  }
}

/** Both lists one behind the other, each entry once; the second alone where both are too many. */
function joined(first: readonly string[], second: readonly string[], most: number): string[] {
  const both = [...new Set([...first, ...second])];
  return both.length <= most ? both : [...second];
}

const MOST = { order: 20_000, taken: 200, waiting: 5000, boards: 200, ticked: 1000 };

function mergedSchedule(here: string | null, there: string): unknown {
  const theirs = readDocument(scheduleDocumentSchema, there);
  if (here === null) return theirs;
  const ours = readDocument(scheduleDocumentSchema, here);
  return {
    order: joined(ours.order, theirs.order, MOST.order),
    taken: joined(ours.taken, theirs.taken, MOST.taken),
    waiting: joined(ours.waiting, theirs.waiting, MOST.waiting),
  };
}

function mergedShopping(here: string | null, there: string): unknown {
  const theirs = readDocument(shoppingDocumentSchema, there);
  if (here === null) return theirs;
  const ours = readDocument(shoppingDocumentSchema, here);
  return { boards: theirs.boards, ticked: joined(ours.ticked, theirs.ticked, MOST.ticked) };
}
