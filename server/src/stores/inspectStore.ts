import { firstOf } from '#core/lists/there.ts';
import type { Knex } from 'knex';
import type { z } from 'zod';
import { boardSchema } from '#core/board/board.ts';
import { cutPlanSchema } from '#core/cutting/cutPlanSchema.ts';
import { factSchema } from '#core/facts/fact.ts';
import { logEntrySchema } from '#core/log/entry.ts';
import { runDocumentSchema } from '#core/gluing/glueRun.ts';
import { cuttingRecordSchema } from '#core/saw/sawRecords.ts';
import { shopSchema } from '#core/shop/shop.ts';
import { inPortions } from '../migrations/inPortions.ts';
import { openDatabase } from './database.ts';
import { openStore, StoreError, storeVersion } from './openStore.ts';
import { piecesInRack } from './rackStore.ts';

/** What a database holds, and what of it cannot be read. */
export interface StoreContents {
  /** Name of the newest migration it had before it was looked at. */
  version: string;
  boards: number;
  removedBoards: number;
  revisions: number;
  pieces: number;
  plans: number;
  cuttings: number;
  runs: number;
  facts: number;
  /** Shops that were set aside, with their boards. */
  shopsAside: number;
  /** When a board was last changed, ISO; null when there is none. */
  newest: string | null;
  /** One line for each document that does not read. */
  unreadable: string[];
}

const DOCUMENTS: readonly [table: string, key: readonly string[], schema: z.ZodType][] = [
  ['revisions', ['board_id', 'number'], boardSchema],
  ['facts', ['board_id', 'id'], factSchema],
  ['log_entries', ['id'], logEntrySchema],
  ['shops', ['id'], shopSchema],
  ['shops_aside', ['id'], shopSchema],
  ['cut_plans', ['id'], cutPlanSchema],
  ['cuttings', ['id'], cuttingRecordSchema],
  ['glue_runs', ['id'], runDocumentSchema],
];
const MOST_UNREADABLE = 20;

/**
 * Brings a database that nobody works on up to date and reads all that is in it.
 * @throws StoreError when it is not one of Cadenza's, of a newer one, or not whole
 */
export async function inspectStore(url: string): Promise<StoreContents> {
  const db = openDatabase(url, 2);
  try {
    const version = (await db.schema.hasTable('knex_migrations')) ? await storeVersion(db) : null;
    // An empty database would be filled with empty tables, and look like a shop with nothing in it.
    if (version === null) throw new StoreError('It holds no record of tables that Cadenza made.');
    await openStore(db);
    const unreadable: string[] = [];
    const note = (place: string) => {
      if (unreadable.length < MOST_UNREADABLE) unreadable.push(place);
    };
    for (const [table, key, schema] of DOCUMENTS) {
      await inPortions(db, table, key, (row) => {
        if (!reads(schema, row.document as string)) note(`${table} ${key.map((k) => String(row[k])).join('/')}`);
        return Promise.resolve();
      });
    }
    await piecesInRack(db).catch((error: Error) => note(`pieces (${error.message.split('\n')[0]})`));
    return { version, ...(await counts(db)), unreadable };
  } finally {
    await db.destroy();
  }
}

function reads(schema: z.ZodType, text: string): boolean {
  try {
    return schema.safeParse(JSON.parse(text)).success;
  } catch {
    return false;
  }
}

async function counts(db: Knex): Promise<Omit<StoreContents, 'version' | 'unreadable'>> {
  const count = async (table: string, removed?: boolean) => {
    const rows = db(table).count<{ n: number }[]>({ n: '*' });
    if (removed !== undefined)
      void (removed ? rows.whereNotNull('removed_at').whereNull('aside_id') : rows.whereNull('removed_at'));
    return Number(firstOf(await rows).n);
  };
  const newest = await db('revisions').max<{ at: Date | null }[]>({ at: 'made_at' });
  return {
    boards: await count('boards', false),
    removedBoards: await count('boards', true),
    revisions: await count('revisions'),
    pieces: await count('pieces', false),
    plans: await count('cut_plans'),
    cuttings: await count('cuttings'),
    runs: await count('glue_runs'),
    facts: await count('facts'),
    shopsAside: await count('shops_aside'),
    newest: newest[0]?.at?.toISOString() ?? null,
  };
}
